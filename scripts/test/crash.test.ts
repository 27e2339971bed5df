import { mkdtempSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { files } from '../crash/files.mjs';
import { fuzz } from '../crash/fuzz.mjs';
import { growth } from '../crash/growth.mjs';
import { races } from '../crash/races.mjs';
import { roles } from '../crash/roles.mjs';
import { databaseAway } from '../crash/slow.mjs';
import { kills } from '../crash/kills.mjs';
import { stores } from '../crash/stores.mjs';
import { ROOT } from '../lib/paths.mjs';

/** The short forms of `npm run faults`; the long ones and their figures are in docs/benchmarks.md. */
let dataDir: string;
beforeAll(() => {
  dataDir = mkdtempSync(join(ROOT, '.data-faults-'));
});
afterAll(() => rmSync(dataDir, { recursive: true, force: true, maxRetries: 20, retryDelay: 100 }));

describe('on a bad day', () => {
  it('10 kills of server and database lose nothing confirmed', async () => {
    const r = await kills({ n: 10, seed: 20, dataDir });
    expect([...r.problems, ...r.rules]).toEqual([]);
    expect(r).toMatchObject({ kills: 10, lost: 0, half: 0, doubled: 0, died: 0 });
    // A run in which nothing was written, or only one of both was killed, would show nothing.
    expect(r.confirmed).toBeGreaterThan(10);
    expect(Math.min(r.server, r.database, r.both)).toBeGreaterThan(0);
  });

  it('an absent database is told and found again', async () => {
    const r = await databaseAway({ dataDir, rounds: 1, awayMs: 1500 });
    expect(r.told).toBeGreaterThan(0);
    expect(r.wordless).toBe(0);
    expect(r.backMs).toEqual([expect.any(Number)]);
  });

  it('1,800 broken files are read or refused', async () => {
    const r = await fuzz({ cases: 1800, seed: 21 });
    expect([r.crashes, r.hangs, r.cases]).toEqual([[], [], 1800]);
    expect(Math.min(...Object.values(r.targets).map((t) => t.cases))).toBeGreaterThan(100);
    expect(r.refused).toBeGreaterThan(100);
  });

  it('200 broken bodies are stored whole or not at all', async () => {
    const r = await stores({ cases: 200, seed: 22, dataDir });
    expect([r.crashes, r.half, r.rules, r.cases]).toEqual([[], [], [], 200]);
    expect(r.stored).toBeGreaterThan(10);
    expect(r.refused).toBeGreaterThan(100);
  });

  it('what is looked at and then written loses nothing', async () => {
    const r = await races({ dataDir, rounds: 3 });
    expect(Object.entries(r.results).filter(([, { lost }]) => lost > 0)).toEqual([]);
    expect(r.tried).toBeGreaterThanOrEqual(24);
  });

  it('nobody is let in below the role of a route', async () => {
    const r = await roles({ dataDir });
    expect(r.letIn).toEqual([]);
    expect(r.calls).toBeGreaterThan(200);
  });

  it('a large file is refused in words while others are answered', async () => {
    const r = await files({ dataDir, only: ['commas, 60 MB', 'open lists, 60 MB'] });
    expect(r.results.map((x) => [x.answered, /Not saved/.test(x.said)])).toEqual([
      [true, true],
      [true, true],
    ]);
    expect(r.largest.addedMb).toBeLessThan(400);
  });
});

describe('a defect put in on purpose', () => {
  it('is found by every part that looks for one', async () => {
    expect((await races({ dataDir, rounds: 2, seeded: true })).lost).toBeGreaterThan(0);
    expect((await roles({ dataDir, open: true })).letIn.length).toBeGreaterThan(0);
    const held = await files({ dataDir, only: ['commas, 60 MB'], held: true });
    expect(held.slowest.worstMs).toBeGreaterThan(400);
    const grown = await growth({ defect: true, only: ['commas', 'entities'] });
    expect(grown.over.length).toBeGreaterThan(grown.measured / 2);
  });
});
