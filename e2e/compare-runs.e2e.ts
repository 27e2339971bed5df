import { beforeAll, describe, expect, it } from 'vitest';
import type { RunEntry, SessionEntry } from '@ruddy/core/runs/contract';
import { giver } from './give';
import { world } from './harness';

const w = world();
const give = giver(w);
let all: RunEntry[] = [];
const setupOf = (name: string) => all.find((r) => r.setupName === name)!.setupId;
const ids = (f: (r: RunEntry) => boolean) =>
  all
    .filter(f)
    .map((r) => r.id)
    .join();

beforeAll(async () => {
  all = (await w.api<{ items: RunEntry[] }>('/runs?limit=500')).items;
});

describe('RU-07 compare', () => {
  it('pinned runs stand side by side with percentages and intervals', async () => {
    await w.open(`/setups/${setupOf('Dome desk')}/runs`);
    await w.click(/^Add to comparison: Marsh Lanterns, 2560x1440, Screen on the card/);
    await w.open(`/setups/${setupOf('Stacking PC')}/runs`);
    await w.click(/^Add to comparison: Marsh Lanterns, 2560x1440/);
    await w.click(/^Comparison list: \d$/);
    await w.sees(/Against .*: .* significant/);
    await w.click(/^\d+ reservations$/);
    await w.sees('Link: USB4, 40 Gb/s / OCuLink (direct PCIe)');
    await w.sees(/another processor: Harnsey L-13 2025 and Staithewright M-2/);
    // One ratio, said once.
    await w.sees(/\+\d+\.\d % \(\+.* to \+.*\), significant/);
    await w.sees('% of a desktop slot');
    await w.click('Tell what limits each cell');
    await w.sees(/limits: (card|link|processor|cannot tell)/);
  });

  it('says why a cell is empty; regrouping stays in the address', async () => {
    const of = ids(
      (r) =>
        r.facts.resolution === '2560x1440' &&
        ['Marsh Lanterns', 'Peat Rally', 'Tidegate Keeper'].includes(r.title),
    );
    await w.open(`/compare/runs?of=${of}&rows=title&columns=card`);
    await w.sees('closes at its own start screen');
    await w.sees(/left out: Tidegate Keeper \(not measured\)/);
    await w.pick('Columns', 'Picture');
    await w.page.waitForFunction(() => location.search.includes('columns=screenPath'));
    await w.sees("Host's own panel");
  });

  it('asks for settings a comparison needs, and takes the answer', async () => {
    const of = ids((r) => r.title === 'Nine Herons');
    await w.open(`/compare/runs?of=${of}`);
    await w.sees(/2 runs lack settings this comparison needs/);
    await w.click(/^Say what is missing of Nine Herons on Plate scanner/);
    await w.fill('Power mode', 'Performance');
    await w.pick('Lid', 'Open');
    await w.click('Keep for 2 runs');
    await w.page.waitForFunction(() => !document.body.innerText.includes('lack settings'));
  });

  it('RU-14 times: with card, processor and both, lower is better', async () => {
    await w.open(
      `/compare/runs?of=${ids((r) => r.title === 'Stack 600 frames')}&columns=deviceSet&base=The processor alone`,
    );
    await w.sees(/Against The processor alone: .*The outside card alone \+13\d\.\d %/);
  });

  it('a stated percentage is told by what it means', async () => {
    await w.open('/compare/runs?of=');
    await w.click('Check a percentage somebody states');
    await w.fill('First, frames/s', '278');
    await w.fill('Second, frames/s', '100');
    await w.fill('Stated, %', '36');
    await w.sees('It follows when the second reaches so much of the first');
    await w.fill('Stated, %', '50');
    await w.sees('50 % does not follow from 278 and 100 in any reading');
  });
});

describe('RU-15 sessions', () => {
  it('a planned session names the next cell, and what was not held', async () => {
    await w.open('/compare/sessions');
    await w.sees("Next: Host's own panel, 1920x1080, 3 runs of 3");
    await w.sees('about 12 minutes of changing');
  });

  it('a question makes the plan, files find their cells', async () => {
    const setup = setupOf('Sky survey rig');
    await w.open(`/compare/sessions?setup=${setup}`);
    await w.pick('What do you want to know', 'Lid open or closed?');
    await w.fill('Smallest difference to tell apart', '10');
    await w.fill('Title or work, the same throughout', 'Peat Rally');
    await w.fill('Name', 'Lid tonight');
    await w.sees(/7 runs, 2 changes, about 2 minutes/);
    await w.click('Plan the session');
    await w.sees('Next: open, 3 runs of 3');
    const [session] = (await w.api<{ items: SessionEntry[] }>('/sessions')).items;
    expect(session).toMatchObject({ name: 'Lid tonight', repeats: 3, title: 'Peat Rally' });
    for (const lid of ['open', 'closed']) {
      await w.sees(`Next: ${lid}`);
      await w.sees(lid === 'open' ? '0 of 6 runs measured.' : '3 of 6 runs measured.');
      for (let k = 0; k < 3; k++) {
        await w.open(`/compare/sessions?id=${session!.id}`);
        await give(
          'input[aria-label="Files of the next cell"]',
          `${lid}-${k}.json`,
          JSON.stringify(
            Array.from(
              { length: 2000 },
              (_, i) => (lid === 'open' ? 10 : 10.4) + ((i * (k + 3)) % 9) / 10,
            ),
          ),
        );
        await w.sees(/to save/);
        await w.click('Save 1 run');
        await w.sees('1 run saved');
      }
      await w.open(`/compare/sessions?id=${session!.id}`);
    }
    await w.sees('all 2 cells measured. What should be held was held.');
    await w.click('Compare what is measured');
    await w.sees(/Against open: closed −\d\.\d % \(.*\), significant/);
  });
});

describe('RU-15 a session over titles', () => {
  it('gives each file the title of its cell', async () => {
    const setup = setupOf('Sky survey rig');
    const body = {
      id: crypto.randomUUID(),
      name: 'Titles',
      repeats: 1,
      percent: 10,
      setupIds: [setup],
      factors: [{ dimension: 'title', levels: ['Reed Warden', 'Peat Rally'], minutes: 1 }],
    };
    await w.api('/sessions', { method: 'POST', body: JSON.stringify(body) });
    await w.open(`/setups/${setup}/runs?add=files&session=${body.id}&cell=0`);
    await give('input[aria-label="Files of captures"]', 'first.json', '[10, 11]');
    await w.sees(/first\.json.*2 frames/);
    await give('input[aria-label="Files of captures"]', 'second.json', '[20, 21]');
    await w.sees(/second\.json.*2 frames/);
    await w.pick('Cell of second.json', 'Peat Rally');
    await w.click('Save 2 runs');
    await w.sees('2 runs saved.');
    const now = (await w.api<{ items: RunEntry[] }>(`/runs?setupId=${setup}&limit=200`)).items;
    const titleOf = (file: string) => now.find((r) => r.source?.name === file)?.title;
    expect([titleOf('first.json'), titleOf('second.json')]).toEqual(['Reed Warden', 'Peat Rally']);
  });
});

describe('RU-01 and RU-02 results by hand', () => {
  it('several times at once; a bad line stores nothing', async () => {
    const setup = setupOf('Stacking PC');
    const before = (await w.api<{ items: RunEntry[] }>(`/runs?setupId=${setup}&limit=200`)).items
      .length;
    await w.open(`/setups/${setup}/runs?add=typed`);
    await w.click('Time taken', 'radio');
    await w.fill('Work', 'Stack 600 frames');
    await w.fill('Times', '6:41\nsoon\n402');
    await w.click('Save the result');
    await w.sees('Line 2: "soon" is not a number; nothing is saved yet');
    await w.fill('Times', '6:41\n402.5');
    await w.click('Save the result');
    await w.sees('2 runs saved.');
    const now = (await w.api<{ items: RunEntry[] }>(`/runs?setupId=${setup}&limit=200`)).items;
    expect(now.length).toBe(before + 2);
    expect(
      now
        .slice(0, 2)
        .map((r) => r.result?.value)
        .sort(),
    ).toEqual([401, 402.5]);
    await w.open(`/setups/${setup}/record`);
    await w.click(/Stack 600 frames: 2 runs, 402 s$/);
    await w.sees('Stack 600 frames: 402.5 s');
  });
});
