import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import type { Page as Listed } from '@ruddy/core/base/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { giver } from './give';
import { world } from './harness';

const w = world();
const give = giver(w);
const dome = async () => (await w.api<Listed<Setup>>('/setups?q=Dome')).items[0] as Setup;
/** Wait until the active cell says this. */
const isOn = (words: string) =>
  w.page.waitForFunction(
    (t) => {
      const id = document.querySelector('[role=grid]')?.getAttribute('aria-activedescendant') ?? '';
      return new RegExp(t).test(document.getElementById(id)?.textContent ?? '');
    },
    { polling: 50 },
    words,
  );

describe('PL-18 what the log says, on Plan', () => {
  it('counts, expectation and entries with weights that can change', async () => {
    await w.open(`/setups/${(await dome()).id}/plan`);
    await w.click('What the log says of this chain and of near ones');
    await w.sees(/All 5 worked \(57 to 100 %\); \d+ near entries/);
    await w.sees(/Expected to work in \d+ % of cases/);
    await w.sees(/1 × 0\.50 versions changed = 0\.50/);
    await w.sees('from saltings-log.json');
    const before = await w.text('rb-evidence-panel .under');
    await w.fill('near ones weigh at most, entries', '0');
    await w.page.keyboard.press('Tab');
    await w.sees(/weigh as 0 of/);
    await w.click('As the house has them');
    await w.sees(before);
    await w.fill('same host', '7');
    await w.page.keyboard.press('Tab');
    await w.sees('At most 1');
    await w.fill('same host', '');
    await w.page.keyboard.press('Tab');
    await w.click(/^Leave out Works with care of 3 Nov 2026/);
    await w.sees(/All 4 worked.*Left out: Works with care, 3 Nov 2026/);
    await w.click('Take it in again');
    await w.sees(/All 5 worked/);
  });
});

describe('CO-03 find a chain', () => {
  it('exact parts, then near ones with what they share', async () => {
    await w.open('/compatibility/table');
    await w.click('More filters');
    await w.fill('Host', 'Harnsey L-13 2025');
    await w.page.keyboard.press('Tab');
    await w.sees(/chains found/);
    await w.fill('Dock', 'Quillmere D-4');
    await w.page.keyboard.press('Tab');
    await w.sees('3 chains found');
    await w.click('Near matches too, nearest first', 'checkbox');
    await w.sees('3 chains of exactly these parts, 4 near ones.');
    await w.sees('0.30: same host');
    await w.page.reload({ waitUntil: 'networkidle0' });
    await w.sees('3 chains of exactly these parts, 4 near ones.');
    await w.click('Clear filters');
    await w.sees('17 chains logged');
    await w.open('/compatibility/table');
    await w.click('More filters');
    await w.fill('Symptom', 'no such symptom');
    await w.page.keyboard.press('Tab');
    await w.sees('0 chains fit.');
  });
});

describe('CO-04 the grid', () => {
  it('arrows move, Enter opens, predicted and seen are said', async () => {
    await w.open('/compatibility/grid');
    await w.sees(/\d+ pairs, \d+ seen; 1 contradicts its prediction\./);
    await w.page.focus('[role=grid]');
    await w.page.keyboard.press('ArrowDown');
    await w.page.keyboard.press('ArrowDown');
    const here = await w.page.$$eval('[role=columnheader].top', (all) =>
      all.findIndex((h) => h.textContent?.includes('D-6')),
    );
    for (let i = 0; i < here; i++) await w.page.keyboard.press('ArrowRight');
    await isOn('Works with care.*seen to work 0 of 4.*contradicts the prediction');
    await w.page.keyboard.press('Enter');
    await w.sees(/Harnsey L-13 2025, Quillmere D-6 Predicted Works with care/);
    await w.sees('0 of 4 worked');
    await w.click('Chains of this pair', 'link');
    await w.sees('1 chain found; 1 is contradicted by what was seen.');
  });

  it('200 by 200 parts draw at most 2,000 cells', async () => {
    const whole = await w.api<Bundle>('/bundle');
    const many = (kind: 'host' | 'dock', name: string) => {
      const like = whole.parts.find(
        (p) => p.kind === kind && !p.retired,
      ) as Bundle['parts'][number];
      return Array.from({ length: 200 }, (_, i) => {
        const spec = { ...like.spec, model: `${name}-${String(i).padStart(3, '0')}`, variant: '' };
        return { ...like, id: `many.${kind}.${i}`, sources: {}, spec: spec as typeof like.spec };
      });
    };
    const bundle = {
      format: 'ruddy-bridge/bundle',
      version: 1,
      parts: [...many('host', 'Z'), ...many('dock', 'Y')],
    };
    await w.api('/bundle', { method: 'POST', body: JSON.stringify(bundle) });
    await w.open('/compatibility/grid?scope=all');
    await w.sees('40000 pairs');
    const cells = () => w.page.$$eval('[role=gridcell]', (c) => c.length);
    await w.page.focus('[role=grid]');
    for (const keys of [[], ['Control', 'End'], ['PageUp'], ['Home'], ['Control', 'Home']]) {
      for (const k of keys.slice(0, -1)) await w.page.keyboard.down(k as 'Control');
      const last = keys.at(-1);
      if (last) await w.page.keyboard.press(last as 'End');
      for (const k of keys.slice(0, -1)) await w.page.keyboard.up(k as 'Control');
      await w.page.waitForFunction(
        () =>
          document.getElementById(
            document.querySelector('[role=grid]')?.getAttribute('aria-activedescendant') ?? '',
          ) !== null,
        { polling: 50 },
      );
      expect(await cells()).toBeLessThanOrEqual(2000);
      expect(await cells()).toBeGreaterThan(100);
    }
    expect(await w.page.$eval('[role=grid]', (g) => [g.scrollTop, g.scrollLeft])).toEqual([0, 0]);
  });
});

describe('CO-06 claims and CO-10 titles', () => {
  it('a claim is stated, compared, retracted; bad ones refused', async () => {
    await w.open('/compatibility/claims');
    await w.sees('A 40 Gb/s link costs 20 %');
    await w.sees(/Holds \(15 to 25 %\) in \d of \d measurements/);
    await w.click('Add claim');
    await w.sees(/Claim: say it in words/);
    await w.fill('Claim', 'It never costs half');
    await w.fill('At most', '1,500');
    await w.click('Add claim');
    await w.sees('could mean two numbers');
    await w.fill('At most', '50');
    await w.click('Add claim');
    await w.sees('Claim added and compared with the log.');
    await w.sees(/"It never costs half".*Holds \(at most 50 %\) in/);
    await w.page.reload({ waitUntil: 'networkidle0' });
    await w.click('Delete It never costs half');
    await w.sees('Deleted: "It never costs half".');
  });

  it('the register says statements and runs, and takes more', async () => {
    await w.open('/compatibility/titles');
    await w.sees(/Marsh Lanterns.*Needs an outside screen.*fewer frames on the panel.*runs/);
    await w.click('Add note');
    await w.sees('Choose a title');
    await w.pick('Title', /./);
    await w.click(/^Assessment/, 'combobox');
    await w.click('Hungry for memory', 'option');
    await w.page.keyboard.press('Escape');
    await w.fill('Version of the title', '1.5.1');
    await w.click('Add note');
    await w.sees('Added to the register.');
    await w.sees(/Hungry for memory.*1\.5\.1/);
  });
});

describe('CO-08, CO-11 and CO-12 on a setup', () => {
  it('hours in use say the time between drops', async () => {
    await w.open(`/setups/${(await dome()).id}/record`);
    await w.sees('2 drops in 201 hours: one in 101 hours (28 to 830).');
    await w.fill('Hours', '90');
    await w.click('Add hours');
    await w.sees('Hours: 1 days have 24 at most');
    await w.fill('Hours', '19');
    await w.click('Add hours');
    await w.sees('2 drops in 220 hours');
  });

  it('a version hold warns before it is left', async () => {
    const { id } = await dome();
    await w.open(`/setups/${id}/record`);
    await w.sees(/Card driver 41\.0.*froze the dome picture/);
    await w.open(`/setups/${id}/plan`);
    await w.click(/^Versions installed/);
    await w.fill('Card driver', '42.0');
    await w.sees(
      /Card driver is pinned at 41\.0 \(41\.3 froze the dome picture on the visitor bench\); 42\.0 leaves it\./,
    );
    await w.click('Put 41.0 back');
    await w.page.waitForFunction(() => !document.body.innerText.includes('leaves it'), {
      polling: 50,
    });
    await w.open(`/setups/${id}/record`);
    await w.click('Release the pin of Card driver');
    await w.sees('Released: Card driver.');
    await w.fill('Reason', 'it is quiet');
    await w.pick('Version to pin', /^Card driver/);
    await w.click('Pin');
    await w.sees(/Card driver 41\.0.*it is quiet/);
  });

  it('the question pack holds the chain and nothing private', async () => {
    const { id } = await dome();
    await w.api(`/setups/${id}/outcomes`, {
      method: 'POST',
      body: JSON.stringify({
        id: randomUUID(),
        outcome: 'fails',
        happenedOn: '2026-11-19',
        symptoms: ['lamp goes out'],
        note: 'key is under the mat',
      }),
    });
    await w.open(`/setups/${id}/sheet?only=ask`);
    await w.sees('lamp goes out (19 Nov 2026)');
    await w.fill('Current symptoms', 'clicks twice');
    await w.sees(/WHAT IS SEEN clicks twice/);
    const text = await w.text('rb-question-pack pre');
    for (const words of [
      'Host: Harnsey L-13 2025',
      'Card driver: 41.0',
      'TRIED, NEWEST FIRST',
      'healthy',
    ])
      expect(text).toContain(words);
    for (const words of ['mat', 'Dome desk', 'this machine']) expect(text).not.toContain(words);
  });
});

describe('CO-07 share', () => {
  it("another workshop's file is taken in, disagreements side by side", async () => {
    await w.open('/compatibility/share');
    await w.sees(/\d+ entries in the log: 19 fields of each would leave/);
    await w.sees(/\d+ names of setups/);
    const file = await w.api<Bundle>('/log/share.json?dock=Quillmere%20D-6');
    const [first] = file.outcomes;
    const theirs = { ...first, outcome: 'works' } as Bundle['outcomes'][number];
    const fresh = {
      ...first,
      id: randomUUID(),
      unit: randomUUID(),
      corrects: null,
      happenedOn: '2026-04-01',
    } as typeof theirs;
    const bad = { ...fresh, id: randomUUID(), outcome: 'splendid' } as never;
    await give(
      'input[type=file]',
      'bad.json',
      JSON.stringify({ ...file, outcomes: [theirs, fresh, bad] }),
    );
    await w.sees(/bad\.json: 1 wrong, 1 disagree, 1 new\. Not imported yet\./);
    await w.sees('Not saved: 1 entry to fix');
    await give(
      'input[type=file]',
      'theirs.json',
      JSON.stringify({ ...file, outcomes: [theirs, fresh] }),
    );
    await w.sees(/theirs\.json: 1 disagree, 1 new\. Not imported yet\./);
    await w.sees(/outcome (unreliable|fails) works/);
    await w.sees('Decide 1 entry first');
    await w.click("Take the file's");
    await w.click('Import 2 entries');
    await w.sees(/theirs\.json: 1 disagree, 1 new\. Imported\./);
    await give(
      'input[type=file]',
      'theirs.json',
      JSON.stringify({ ...file, outcomes: [theirs, fresh] }),
    );
    await w.sees(/theirs\.json: 2 already here\./);
    await w.open('/compatibility/table?known=file');
    await w.sees(/chains? found/);
  });
});
