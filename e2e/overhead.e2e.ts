import { beforeAll, describe, expect, it } from 'vitest';
import type { LinkOverheadRow, RunEntry, SettledForecasts } from '@ruddy/core/runs/contract';
import { world } from './harness';

const w = world();
let setups: { id: string; name: string }[] = [];
const idOf = (name: string) => setups.find((s) => s.name === name)?.id ?? '';
beforeAll(async () => {
  setups = (await w.api<{ items: { id: string; name: string }[] }>('/setups?limit=100')).items;
});

/** Results of a title in frames/s, typed by hand; of the same card in a desktop slot with the same processor where asked. */
async function type(
  setup: string,
  title: string,
  resolution: string,
  values: string,
  slot = false,
): Promise<void> {
  await w.open(`/setups/${idOf(setup)}/runs?add=typed`);
  await w.click('Score', 'radio');
  await w.fill('Title', title);
  await w.fill('Results', values);
  await w.fill('Unit', 'frames/s');
  await w.fill('Resolution', resolution);
  if (slot) {
    await w.click('Desktop baseline: the same card in a desktop slot', 'checkbox');
    await w.pick('Driven by the same processor', 'Yes');
  }
  await w.click('Save the result');
  await w.sees(/\d runs? saved/);
}
const openRun = async (setup: string, pick: (r: RunEntry) => boolean) => {
  const id = idOf(setup);
  const { items } = await w.api<{ items: RunEntry[] }>(`/runs?setupId=${id}&limit=200`);
  await w.open(`/setups/${id}/runs?show=${items.find(pick)?.id ?? 'none'}`);
};
const lanterns = (resolution: string) => (r: RunEntry) =>
  r.title === 'Marsh Lanterns' &&
  r.settings.resolution === resolution &&
  !r.context.norm &&
  r.settings.screenPath === 'outside';

describe('RU-08 and RU-09: what the link costs, and what limits', () => {
  it('stand in sentence, strip, trace and list', async () => {
    await openRun('Dome desk', lanterns('2560x1440'));
    await w.sees(
      /The link costs \d\.\d+ ms a frame \(\d\.\d+ to \d\.\d+\): 7\d\.\d frames\/s at 2560x1440, about \d+ in a wide direct slot\./,
    );
    await w.sees(/Link overhead \d\.\d+ \(\d\.\d+ to \d\.\d+\) ms a frame\. Bottleneck: cable/);
    await w.sees(
      /What limits (Cannot tell from these runs\. Most likely the|Card limits here \(\d\d %\)\.)/,
    );
    await w.sees(
      /Link overhead \d\.\d+ ms \(.*\) of a frame, \d\d %.*Grows from 1920x1080 to 3840x2160: \d\.\d\d times/,
    );
    await w.sees(/Measure next: \w+/);
    await w.sees(/Card load 6\d %, under 90: it waits/);
    await w.sees(/\d+\.\d ms: \d\.\d+ longest stage, \d\.\d+ link overhead/);
    await w.click('Read the diagram as text');
    await w.sees(/carries the link overhead, \d\.\d+ \(\d\.\d+ to \d\.\d+\) ms a frame/);
    const [row] = (
      await w.api<{ items: LinkOverheadRow[] }>(`/link-overheads?setupIds=${idOf('Dome desk')}`)
    ).items;
    await w.open('/setups');
    await w.sees(
      `${row?.ms.mid.toFixed(1)} (${row?.ms.lo.toFixed(1)} to ${row?.ms.hi.toFixed(1)})`,
    );
  });

  it('pairs are named, measuring or not, with their differences', async () => {
    await openRun('Dome desk', lanterns('3840x2160'));
    await w.click(/^Link overhead \d\.\d+ ms .*; \d pairs of runs/);
    await w.sees(/desktop slot, another processor 3840x2160/);
    await w.sees(/the host's panel against the outside screen 2560x1440/);
  });

  it('evidence left out changes the answer, taken in restores it', async () => {
    await openRun('Dome desk', lanterns('2560x1440'));
    await w.click(/^From \d+ pieces of evidence/);
    const settled = () =>
      w.page.waitForSelector('rb-limits-panel .verdict[aria-busy="false"]', { timeout: 30_000 });
    const cost = async () => {
      await settled();
      return w.text('h1');
    };
    const before = await cost();
    const slot = /^1\d\d frames\/s \(3 runs\): another desktop, .* 2560x1440$/;
    await w.click(slot, 'checkbox');
    await expect.poll(cost, { timeout: 20_000 }).not.toBe(before);
    await w.click(slot, 'checkbox');
    await expect.poll(cost, { timeout: 20_000 }).toBe(before);
  });

  it('typed results make a pair with its interval', async () => {
    await type('Barn workshop', 'Eel Ferry', '2560x1440', '92\n92.6');
    await w.sees('Cannot tell from these runs.');
    await w.sees(/Link overhead \d\.\d+ to \d\.?\d* ms of a frame/);
    await w.sees(/Measure next: run the same at \d+x\d+ \(about 1 minute/);
    await type('Barn workshop', 'Eel Ferry', '2560x1440', '131\n130.2', true);
    await openRun('Barn workshop', (r) => r.title === 'Eel Ferry' && !r.context.norm);
    await w.sees(
      /The link costs \d\.\d+ ms a frame \(.*\): 92\.3 frames\/s at 2560x1440, about 1[23]\d in a wide direct slot/,
    );
  });
});

describe('RU-13 forecasts and their runs, PL-21 frames to expect', () => {
  it('runs settle forecasts made before; Plan tells what Runs tells', async () => {
    const settled = () => w.api<SettledForecasts>('/settled-forecasts');
    const before = await settled();
    for (const [size, here, there] of [
      ['1920x1080', '108\n108.9', '162\n161'],
      ['3840x2160', '58\n58.4', '71\n71.6'],
    ] as const) {
      await type('Barn workshop', 'Eel Ferry', size, here);
      await type('Barn workshop', 'Eel Ferry', size, there, true);
    }
    const after = await settled();
    // Each new size through the link was forecast from what was known; repeats and slots settle nothing.
    expect(after.score.n).toBe(before.score.n + 2);
    expect(after.items.every((i) => i.title !== 'Marsh Lanterns')).toBe(true);
    await openRun(
      'Barn workshop',
      (r) => r.title === 'Eel Ferry' && r.settings.resolution === '2560x1440' && !r.context.norm,
    );
    await w.click(/^Forecast against run: \d+x\d+ forecast \d+/);
    await w.sees(/Within 5 % in \d of \d; inside the 50, 80 and 95 % bands in \d, \d and \d\./);
    await w.sees(/80 % bands .*: the run lay inside in \d of \d\./);
    await w.sees(/Eel Ferry, 3840x2160 forecast .* from 4 pieces of evidence/);
    await w.sees(/2560x1440 screen on the card 92\.\d \(\d+.* to \d+.*\) .* measured/);
    await w.click(/^Draw a run at 2560x1440, screen on the card/);
    await w.sees(/20,000 frames drawn by chance Average \d+\.?\d*, 1 % low \d+\.?\d* \(99th\)/);
    await w.page.waitForSelector('rb-limits-panel .verdict[aria-busy="false"]');
    const told = /2560x1440 screen on the card (\d+\.?\d* \(\d+\.?\d* to \d+\.?\d*\))/;
    const onRuns = told.exec(await w.text('rb-forecast-section'))?.[1] ?? 'none';
    await w.open(`/setups/${idOf('Barn workshop')}/plan`);
    await w.sees(`Eel Ferry ${onRuns}`);
    await w.click('What this rests on');
    await w.sees(/Eel Ferry: measured\. Measured: .*card's time/);
  });

  it('from start values alone, within their limits', async () => {
    await type('Barn workshop', 'Unrun Marsh', '1920x1080', '60');
    await w.click(/^Unrun Marsh: no start values/);
    await w.fill('Processor per frame', '5,5');
    await w.fill('Card per frame at 1920x1080', '6');
    await w.page.keyboard.press('Tab');
    await w.sees('Still missing: Traffic per frame; Memory wanted.');
    await w.fill('Traffic per frame', 'much');
    await w.page.keyboard.press('Tab');
    await w.sees('"much" is not a number');
    await w.fill('Traffic per frame', '8');
    await w.fill('Memory wanted', '6');
    await w.page.keyboard.press('Tab');
    await w.sees('Take the start values away');
    await w.open(`/setups/${idOf('Barn workshop')}/plan`);
    await w.click('1 more predicted');
    await w.sees(/Unrun Marsh \d+\.?\d* \(\d/);
    await w.click('What this rests on');
    await w.sees(/Unrun Marsh: near: this host, card and link at another size/);
  });

  it('a preview shows frames beside what they were', async () => {
    await w.open(`/setups/${idOf('Dome desk')}/plan`);
    await w.sees(/Frames, 2560x1440 .* Marsh Lanterns 7\d\.\d \(/);
    await w.click(/^Try it/, 'button');
    await w.sees(
      /Marsh Lanterns 8\d\.\d \(\d+.* to \d+.*\) Link overhead 2\.\d \(\d.* to \d.*\) ms a frame was 7\d/,
    );
  });
});

describe('RU-10, RU-11, RU-19, RU-20', () => {
  it('an alarm stands first, with its false rate', async () => {
    await openRun('Dome desk', (r) => r.title === 'Peat Rally');
    await w.sees(/Look here\. A hitch every 3\.\d+ s, in \d+ % of the gaps/);
    await w.sees('Raised on 0 of 400 made rigs where nothing was wrong.');
  });

  it('a lid changing the clock too little says so', async () => {
    await openRun('Meridian bench', (r) => r.settings.lid === 'open');
    await w.click(/^Other cards, hosts, clocks/);
    await w.sees(
      /closed to open: Clock \+1\.\d+ %, speed \+\d\.\d+ %: .* too uncertain to say; repeat/,
    );
    await openRun('Dome desk', lanterns('2560x1440'));
    await w.click(/^Versions and months: 3 runs under 1 set of versions/);
    await w.sees(
      /Sluice Gauge One, 2016: 79\.\d % of a desktop.*Sluice Gauge Three, 2023: 92\.\d % of a desktop/,
    );
    await w.sees('No difference shown between older and newer tests, in 3 tests.');
  });

  it('another driver makes its own step, compared with before', async () => {
    const id = idOf('Barn workshop');
    await type('Barn workshop', 'Ebb Lock', '2560x1440', '92\n92.6');
    const at = await w.api<{ installed: Record<string, string>; rev: number }>(`/setups/${id}`);
    const installed = { ...at.installed, driver: '99.1' };
    await w.api(`/setups/${id}`, {
      method: 'PATCH',
      body: JSON.stringify({ installed }),
      headers: { 'if-match': `"${at.rev}"` },
    });
    await type('Barn workshop', 'Ebb Lock', '2560x1440', '80\n80.5');
    await openRun('Barn workshop', (r) => r.title === 'Ebb Lock' && r.facts.driver === '99.1');
    await w.click(/^Versions and months: 4 runs under 2 sets of versions/);
    await w.sees(/Card driver: .* to 99\.1 2 80\.\d.*−\d+\.\d % \(−.* to −.*\), significant/);
  });
});
