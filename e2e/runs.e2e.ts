import { readFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import type { RunEntry } from '@ruddy/core/runs/contract';
import { giver } from './give';
import { world } from './harness';

const w = world();
const give = giver(w);
const FILES = 'input[aria-label="Files of captures"]';
let setup = '';
const runs = async () =>
  (await w.api<{ items: RunEntry[] }>(`/runs?setupId=${setup}&limit=200`)).items;

beforeAll(async () => {
  const all = await w.api<{ items: { id: string; name: string }[] }>('/setups?limit=100');
  setup = all.items.find((s) => s.name === 'Solar trial')?.id ?? '';
});
const openAdd = () => w.open(`/setups/${setup}/runs?add=files`);
/** A made capture: a frame of 10 to 12 ms, and a long one each 300. */
const times = (n: number, seed = 1) =>
  Array.from({ length: n }, (_, i) =>
    (i % 300 === 299 ? 60 : 10 + ((i * 7 + seed) % 21) / 10 - i / 10_000).toFixed(4),
  );

describe('RU-01 captures in', () => {
  it('columns of an unknown layout are proposed and remembered', async () => {
    await openAdd();
    await w.sees('No runs yet: 0 measured');
    const file = (seed: number) =>
      `\uFEFF# made tonight\r\nApp;Frame (ms);Card power W\r\n${times(3000, seed)
        .map((t) => `dome;${t.replace('.', ',')};150`)
        .join('\r\n')}\r\n`;
    await give(FILES, 'first.csv', file(1));
    await w.sees('first.csv: what do the columns hold?');
    await w.sees('Read as frames.');
    await w.click('The columns are right: read it');
    await w.sees('dome: 3000 frames');
    await w.fill('Title', 'Heron Chess');
    await w.fill('Resolution', '2560 × 1440');
    await w.click('Save 1 run');
    await w.sees('1 run saved');
    await give(FILES, 'second.csv', file(4));
    // Known now: nobody is asked.
    await w.sees(/second\.csv.*dome: 3000 frames/);
    await w.click('Save 1 run');
    await w.sees(/Heron Chess, 2560x1440.*×2, 9\d\.\d frames/);
    const stored = await runs();
    expect(stored).toHaveLength(2);
    expect(stored[0]).toMatchObject({
      title: 'Heron Chess',
      facts: { resolution: '2560x1440', card: 'Dunlinby C-50' },
      source: { name: 'second.csv', program: 'dome' },
    });
    expect(stored[0]!.channels.map((c) => c.channel).sort()).toEqual(['card-w', 'frames']);
    const ms = times(3000, 4).map(Number).map(Math.fround);
    expect(stored[0]!.stats!.averageFps).toBeCloseTo(
      (1000 * ms.length) / ms.reduce((a, b) => a + b, 0),
      9,
    );
  });

  it('a wrong proposal is put right by hand', async () => {
    await openAdd();
    await give(
      FILES,
      'odd.txt',
      `q|r\n${times(500)
        .map((t) => `${Number(t) / 1000}|${t}`)
        .join('\n')}\n`,
    );
    await w.sees('odd.txt: what do the columns hold?');
    await w.pick('Role of q', 'Not read');
    await w.pick('Role of r', 'Time from frame to frame');
    await w.pick('Unit of r', 'ms');
    await w.click('The columns are right: read it');
    await w.sees(/odd\.txt.*500 frames, 5\.\d+ s/);
  });

  it('a million rows with seven bad: named, page free', async () => {
    await openAdd();
    const bad = new Map([
      [3, 'ten'],
      [100, ''],
      [5000, '-1'],
      [123_456, '0'],
      [500_000, 'x'],
      [777_777, '99999'],
      [999_999, '1e'],
    ]);
    const rows = Array.from(
      { length: 1_000_000 },
      (_, i) => bad.get(i + 1) ?? (10.25 + (i % 7)).toString(),
    );
    await w.page.evaluate(() => {
      const seen = window as unknown as { longest: number };
      seen.longest = 0;
      new PerformanceObserver((l) =>
        l.getEntries().forEach((e) => (seen.longest = Math.max(seen.longest, e.duration))),
      ).observe({
        entryTypes: ['longtask'],
      });
    });
    await give(FILES, 'million.csv', `frame ms,note\n${rows.map((r) => `${r},a`).join('\n')}\n`);
    await w.click('The columns are right: read it');
    await w.page.waitForFunction(() => document.body.innerText.includes('bad rows of'), {
      polling: 100,
    });
    await w.sees('7 bad rows of 1000000');
    for (const line of [4, 101, 5001, 123_457, 500_001, 777_778, 1_000_000])
      await w.sees(new RegExp(`Line ${line}, column "frame ms"`));
    await w.sees('7 rows cannot be read: not saved');
    expect(await w.text('rb-add-panel section > p:last-child button')).toBe('Nothing to save yet');
    await w.click('Save the rest without them');
    await w.fill('Title', 'Million');
    await w.click('Save 1 run');
    await w.page.waitForFunction(() => document.body.innerText.includes('1 run saved'), {
      polling: 100,
    });
    const [run] = (await runs()).filter((r) => r.title === 'Million');
    expect(run?.stats?.frames).toBe(999_993);
    // Reading never holds the page for long: whoever types meanwhile does not notice.
    expect(
      await w.page.evaluate(() => (window as unknown as { longest: number }).longest),
    ).toBeLessThan(1000);
  });

  it('reading can be stopped, and nothing of the file is kept', async () => {
    await openAdd();
    await give(FILES, 'stop.csv', `frame ms,stop\n${'10,a\n'.repeat(900_000)}`);
    await w.click('The columns are right: read it');
    await w.click('Stop');
    await w.sees('Stopped; nothing of it is stored.');
    // The next file is read as if nothing had been.
    await give(FILES, 'after.json', JSON.stringify([10, 11, 12]));
    await w.sees(/after\.json.*3 frames/);
  });

  it('what is no capture is refused beside those that are', async () => {
    await openAdd();
    await give(FILES, 'letter.txt', 'Dear observatory,\nthe dock arrived.');
    await w.sees(/letter\.txt.*No table of numbers/);
    await give(
      FILES,
      'half.json',
      '{"format": "ruddy-bridge/capture", "version": 1, "frameMs": "none"}',
    );
    await w.sees(/half\.json.*frameMs: is not a list of times/);
    await give(
      FILES,
      'good.json',
      JSON.stringify({
        format: 'ruddy-bridge/capture',
        version: 1,
        frameMs: [10, 20],
        program: 'p',
      }),
    );
    await w.sees(/good\.json.*p: 2 frames/);
  });

  it('a sensor log aligns with frames by what both show', async () => {
    await openAdd();
    // The card draws more while frames are short; the log began 12 s before the capture.
    const turns = [5, 14, 18, 31, 33, 47, 60, 63, 66, 81, 92, 97, 110];
    const fast = (s: number) => turns.filter((t) => t <= s).length % 2 === 0;
    const frames: number[] = [];
    for (let at = 0; at < 90_000;) {
      const ms = fast(at / 1000 + 12) ? 8 : 14;
      frames.push(ms);
      at += ms;
    }
    await give(FILES, 'play.json', JSON.stringify(frames));
    await w.sees(/play\.json.*frames/);
    const log = Array.from({ length: 120 }, (_, s) => `${s},${fast(s) ? 210 : 160}`).join('\n');
    await give(FILES, 'watts.csv', `elapsed s,card power W\n${log}\n`);
    await w.sees('Read as a log of sensors.');
    await w.click('The columns are right: read it');
    await w.sees(/begins -12\.0 s after the first frame\. Found by cross-correlation/);
    // Frames of 8 and 14 ms alone are doubtful, and right here.
    await w.sees(/All \d+ frame times are whole milliseconds/);
    await w.click('It is right: save it');
    await w.fill('Title', 'Play of watts');
    await w.fill('Resolution', '2560 × 1440');
    await w.click('Save 1 run');
    await w.sees('1 run saved');
  });

  it('sensors show the same interval as the trace', async () => {
    const run = (await runs()).find((r) => r.source?.name === 'play.json');
    const seconds = () =>
      w.page.$$eval('rb-sensor-view .axis text', (all) => all.map((t) => Number(t.textContent)));
    await w.open(`/setups/${setup}/runs?show=${run!.id}&view=trace&zoom=20000-40000`);
    await w.sees('20.00 to 40.00 s of');
    await w.click('Sensors');
    await w.sees(/Sensors of run A over \d+ s/);
    await w.page.waitForSelector('rb-sensor-view .axis text');
    expect(Math.min(...(await seconds()))).toBeGreaterThanOrEqual(20);
    expect(Math.max(...(await seconds()))).toBeLessThanOrEqual(40);
    await w.click('Fit');
    await w.page.waitForFunction(() => !location.search.includes('zoom='));
    expect(Math.max(...(await seconds()))).toBeGreaterThanOrEqual(80);
  });
});

describe('what a run shows', () => {
  const demo = async (name: string) =>
    (await w.api<{ items: { id: string; name: string }[] }>('/setups?limit=100')).items.find(
      (s) => s.name === name,
    )!.id;

  it('average, both lows, stutters, and values under a cursor', async () => {
    await w.open(`/setups/${await demo('Dome desk')}/runs?view=table`);
    await w.sees(/Peat Rally, 2560x1440.*a hitch every 3\.[01] s/);
    await w.sees('1 % low, 99th-percentile frame');
    await w.sees('1 % low, slowest 1 % of frames');
    await w.sees(/3 runs: \d+\.\d, 95 % \d/);
    await w.page.keyboard.press('1');
    await w.page.waitForSelector('rb-trace-view canvas');
    await w.page.keyboard.press('h');
    await w.sees(/At \d+\.\d\d s: A \d+/);
    const near = await w.text('rb-trace-view .reading');
    expect(Number(/A ([\d.]+) ms/.exec(near)?.[1])).toBeGreaterThan(30);
    // The stretch that is looked at stands in the address and outlives a reload.
    await w.page.waitForFunction(() => /zoom=\d+-\d+/.test(location.search));
    await w.page.reload();
    await w.sees(/\d+\.\d\d to \d+\.\d\d s of \d+\.\d s/);
    await w.page.keyboard.press('2');
    await w.sees('Each dot is one frame in a hundred');
    await w.page.focus('rb-spread-view input[type=range]');
    await w.page.keyboard.press('End');
    await w.sees(/Dot 100 of 100: A \d+/);
  });

  it('two runs: slower, lost, ms, and chance', async () => {
    await w.open(`/setups/${await demo('Dome desk')}/runs`);
    await w.click(/^Overlay Marsh Lanterns, 2560x1440, Screen on the card/, 'checkbox');
    await w.sees('are not like with like');
    await w.sees(/B is unlike A in 1 Title: Peat Rally \/ Marsh Lanterns/);
    await w.click('Align to A');
    await w.sees(/left as it was|correlation/);
    // A click shows that run: of those that are drawn it becomes the first, and what limits follows.
    await w.click(/^B Marsh Lanterns, 2560x1440, Screen on the card/);
    await w.sees(/B is unlike A in 1 Title: Marsh Lanterns \/ Peat Rally/);
    await w.click(/^Overlay Peat Rally/, 'checkbox');
    await w.click(/^Overlay Marsh Lanterns, 2560x1440, Host's own panel/, 'checkbox');
    await w.sees(/: −\d+\.\d % \(−.* to −.*\), significant, \d\.\d+ ms a frame more\./);
  });

  it('RU-18 RU-04 RU-17 generated frames apart, beginnings cut', async () => {
    await w.open(`/setups/${await demo('Sky survey rig')}/runs?view=table`);
    await w.page.waitForSelector('button.line');
    await w.click(/^Nine Herons/);
    await w.sees('Shown on screen, frames/s');
    const id = await demo('Classifier box');
    await w.open(`/setups/${id}/runs?view=table`);
    await w.page.waitForSelector('button.line');
    await w.click(/Marsh Lanterns/);
    await w.sees('The first 4 s run otherwise than the rest');
    await w.click('Cut them off');
    await w.sees('Kept for 1 run.');
    await w.sees('first 4 s cut');
    await w.fill('Scene', 'gate to pier');
    await w.fill('From', '10');
    await w.fill('To', '20');
    await w.click('Add scene');
    await w.sees(/gate to pier 10 to 20 s/);
    await w.sees(/Scenes cover (10\.\d|9\.9\d) of .* run at .* together/);
  });

  it('RU-21 a run far from its repeats is left out', async () => {
    const { items } = await w.api<{ items: RunEntry[] }>(
      `/runs?setupId=${await demo('Dome desk')}`,
    );
    const { titleId, settings } = items.find((r) => r.title === 'Peat Rally')!;
    for (const value of [60.1, 60.3, 41]) {
      const result = { value, unit: 'frames/s' };
      const run = { id: crypto.randomUUID(), titleId, kind: 'score', settings, result };
      await w.api(`/setups/${setup}/runs`, { method: 'POST', body: JSON.stringify(run) });
    }
    const odd = (await runs()).find((r) => r.result?.value === 41)!;
    await w.open(`/setups/${setup}/runs?show=${odd.id}`);
    await w.sees('3 repeats, 1 left out');
    await w.sees(
      /41\.0 frames\/s: 32 % below the median of its 3 repeats: 2\d standard deviations/,
    );
    await w.sees(/Peat Rally, .* ×3, 60\.2 frames\/s, 1 left out/);
    await w.click(/^Count all the same/);
    await w.sees('Counted by hand.');
    await w.sees(/Peat Rally, .* ×3, 53\.8 frames\/s/);
    await w.sees('Were settings different?');
    await w.click(/^Let the figures decide/);
    await w.sees('3 repeats, 1 left out');
    await w.open(`/setups/${setup}/record?show=run`);
    await w.sees(/Peat Rally: 3 runs, 60\.2 frames\/s/);
    await w.click(/^.*Peat Rally: 3 runs/);
    await w.sees(/3 runs, 60\.2 frames\/s; 1 left out: 32 % below its repeats/);
  });

  it('is given back as CSV and JSON that read the same again', async () => {
    const id = await demo('Meridian bench');
    const [run] = (await w.api<{ items: RunEntry[] }>(`/runs?setupId=${id}`)).items;
    const session = await w.page.createCDPSession();
    const dir = (await import('node:fs')).mkdtempSync('/tmp/down-');
    await session.send('Browser.setDownloadBehavior', {
      behavior: 'allow',
      downloadPath: dir,
      eventsEnabled: true,
    });
    const done = new Promise<void>((resolve) =>
      session.on('Browser.downloadProgress', (e) => e.state === 'completed' && resolve()),
    );
    await w.open(`/setups/${id}/runs?show=${run!.id}`);
    await w.click('JSON');
    await done;
    const fs = await import('node:fs');
    const text = readFileSync(`${dir}/${fs.readdirSync(dir)[0] ?? ''}`, 'utf8');
    fs.rmSync(dir, { recursive: true });
    await openAdd();
    await give(FILES, 'again.json', text);
    await w.sees(new RegExp(`again\\.json.*${run!.stats!.frames} frames`));
  });
});
