import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { chainSchema } from '../src/chain';
import type { ReleaseSpec, RequirementSpec } from '../src/parts';
import {
  evaluate,
  type Evaluation,
  failures,
  FINDING_CODES,
  NO_EVIDENCE,
  successes,
} from '../src/plan';
import { bundleSchema } from '../src/workshop/contract';

const bundle = bundleSchema.parse(
  JSON.parse(readFileSync(new URL('../../demo/observatory.json', import.meta.url), 'utf8')),
);
const spec = (id: string | null) => bundle.parts.find((p) => p.id === id)?.spec ?? null;
const of = <T>(kind: string) => bundle.parts.flatMap((p) => (p.kind === kind ? [p.spec as T] : []));

/** Every setup of the demo judged as the server does, with a tally of its own outcomes. */
const judged = new Map<string, Evaluation>(
  bundle.setups.map((s) => {
    const chain = chainSchema.parse({
      host: spec(s.slots.host),
      socket: s.slots.socket,
      path: s.slots.path?.map((id, i) => ({ key: 'abcdef'.charAt(i), spec: spec(id) })) ?? null,
      dock: spec(s.slots.dock),
      card: spec(s.slots.card),
      supplies: s.slots.supplies.map(({ part, feeds }, i) => ({
        key: 'abc'.charAt(i),
        feeds,
        spec: spec(part),
      })),
      picture: s.slots.screens.map(({ part, by, plug }, i) => ({
        key: 'abc'.charAt(i),
        by,
        plug,
        screen: spec(part),
      })),
      system: spec(s.slots.system),
      loads: s.loads,
      installed: s.installed,
      settings: s.settings,
      uses: s.uses,
    });
    const mine = bundle.outcomes.filter((o) => o.setupId === s.id);
    const count = (o: string) => mine.filter((m) => m.outcome === o).length;
    const exact = {
      ...NO_EVIDENCE.exact,
      n: mine.length,
      works: count('works'),
      care: count('care'),
      unreliable: count('unreliable'),
      fails: count('fails'),
    };
    expect(successes(exact) + failures(exact)).toBe(mine.length);
    const context = {
      asOf: '2026-11-20',
      house: {},
      evidence: { ...NO_EVIDENCE, exact },
      requirements: of<RequirementSpec>('requirement'),
      releases: of<ReleaseSpec>('release'),
    };
    return [s.name, evaluate({ chain, context })];
  }),
);

describe('the demo world', () => {
  it('meets every finding code with at least one setup', () => {
    const met = new Set([...judged.values()].flatMap((e) => e.findings.map((f) => f.code)));
    expect(
      Object.keys(FINDING_CODES).filter((c) => !met.has(c as keyof typeof FINDING_CODES)),
    ).toEqual([]);
  });

  it('tells the stories it is made for', () => {
    const stops = (name: string) =>
      judged
        .get(name)
        ?.findings.filter((f) => f.severity === 'blocks')
        .map((f) => f.code);
    const care = (name: string) =>
      judged
        .get(name)
        ?.findings.filter((f) => f.severity === 'care')
        .map((f) => f.code);
    expect(judged.get('Sky survey rig')?.predicted.verdict.state).toBe('works');
    expect(stops('Loan laptop 2')).toContain('link/no-tunnel');
    expect(stops('Classifier box')).toContain('power/over');
    expect(care('Dome desk')).toContain('cable/too-long');
    expect(care('Meridian bench')).toContain('software/firmware-first');
    expect(care('Game evening handheld')).toContain('software/repackaged');
    expect(care('Spectrograph tower')).toEqual(expect.not.arrayContaining(['power/over']));
  });
});
