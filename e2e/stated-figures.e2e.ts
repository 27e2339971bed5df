import { beforeAll, describe, expect, it } from 'vitest';
import type { RunEntry, StatedFigureEntry } from '@ruddy/core/runs/contract';
import { world } from './harness';

const w = world();
let setups: { id: string; name: string }[] = [];
const idOf = (name: string) => setups.find((s) => s.name === name)?.id ?? '';
const figures = async () => (await w.api<{ items: StatedFigureEntry[] }>('/stated-figures')).items;
const stating = (setup: string) => w.open(`/setups/${idOf(setup)}/runs?add=stated`);
beforeAll(async () => {
  setups = (await w.api<{ items: { id: string; name: string }[] }>('/setups?limit=100')).items;
});

describe('RU-13: figures that people state', () => {
  it('make a forecast where nothing was run', async () => {
    await stating('Dome desk');
    await w.fill('Title', 'Told Quest');
    await w.fill('Resolution', '2560 × 1440');
    await w.fill('Frames/s', '62');
    await w.fill('Where from', 'a friend');
    await w.click('Save the figure');
    await w.sees('Figure saved: it counts as evidence from now on.');
    await w.sees(/Stated figures \d .*Told Quest, .* at 2560x1440: 62 frames\/s/);
    await w.open(`/setups/${idOf('Dome desk')}/plan`);
    await w.sees(/Told Quest 6[0-3]\.\d \(\d\d\.\d to 6\d\.\d\)/);
  });

  it('say at which field what is missing, and lose nothing', async () => {
    await stating('Barn workshop');
    await w.pick('Kind of figure', 'Faster or slower than');
    await w.fill('Title', 'Told Quest');
    await w.fill('How much', '120');
    await w.pick('As', '% slower than');
    await w.click('Save the figure');
    await w.sees('How much: below 100 % slower');
    await w.sees('Resolution: say at which, like 2560x1440');
    await w.has('How much', '120');
    const ratios = (await figures()).filter(
      (f) => f.title === 'Told Quest' && f.said.kind === 'ratio',
    );
    expect(ratios).toEqual([]);
    await w.fill('How much', '20');
    await w.fill('Resolution', '1920x1080');
    await w.click('In a desktop slot of another machine', 'checkbox');
    await w.click('Save the figure');
    await w.sees(/Told Quest, .*: 20 % slower than/);
  });

  it('stand in the evidence, can be left out, and be removed', async () => {
    const { items } = await w.api<{ items: RunEntry[] }>(`/runs?setupId=${idOf('Dome desk')}`);
    const run = items.find((r) => r.title === 'Marsh Lanterns');
    await w.open(`/setups/${idOf('Dome desk')}/runs?add=stated&show=${run?.id ?? 'none'}`);
    await w.pick('Kind of figure', 'At least or at most');
    await w.fill('Title', 'Marsh Lanterns');
    await w.fill('Resolution', '3840x2160');
    await w.fill('Frames/s', '61.5');
    await w.click('Save the figure');
    await w.sees(/Marsh Lanterns, .* at 3840x2160: at most 61\.5 frames\/s/);
    await w.click(/^From \d+ pieces of evidence/);
    const line = /^at most 61\.5 frames\/s: /;
    await w.click(line, 'checkbox');
    await w.sees(/at most 61\.5 frames\/s/);
    await w.click(/^Remove Marsh Lanterns, .*at most 61\.5 frames\/s/);
    await w.sees('Forecasts no longer rest on it.');
    await w.click('Remove');
    await w.sees('Removed: it counts no more.');
    expect((await figures()).map((f) => f.title)).not.toContain('Marsh Lanterns');
  });
});

describe('RU-09: a run that cannot be made', () => {
  it('is advised no more, also tomorrow, until it can', async () => {
    await w.open(`/setups/${idOf('Dome desk')}/runs`);
    await w.click('This cannot be done here');
    await w.sees(/Not advised: the same /);
    const words = /Not advised: (the same [^.]*)\./.exec(await w.text('rb-limits-panel'))?.[1];
    await w.page.waitForFunction(
      (x) => !document.querySelector('.advice')?.textContent?.includes(x),
      { polling: 50 },
      words ?? 'nothing',
    );
    await w.page.reload();
    await w.sees(/Measure next: .*Not advised: the same /);
    expect(await w.text('.advice')).not.toContain(words ?? 'nothing');
    await w.click(/^It can be done/);
    await w.page.waitForFunction(() => !document.body.innerText.includes('Not advised'));
  });
});
