import { describe, expect, it } from 'vitest';
import type { BringUp } from '@ruddy/core/bring-up/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { world } from './harness';

const w = world();

async function setup(name: string): Promise<Setup> {
  const r = await w.api<{ items: Setup[] }>(`/setups?q=${encodeURIComponent(name)}&retired=true`);
  return r.items[0]!;
}
const bringUp = (id: string) => w.api<BringUp>(`/setups/${id}/bring-up`);

async function stepIs(n: number): Promise<void> {
  await w.page.waitForFunction(
    (k) => document.querySelector('h1')?.innerText.startsWith(`Step ${k} of`),
    { polling: 50 },
    n,
  );
}

describe('BU-13 undock, and what came back wrong', () => {
  it('this chain shuts down first; what was wrong stays', async () => {
    const { id } = await setup('Meridian');
    await w.open(`/setups/${id}/bring-up?list=undock`);
    await w.sees('The host goes off first, then the dock, then the cable.');
    await w.click('Begin list 1');
    for (const n of [1, 2, 3, 4]) {
      await stepIs(n);
      await w.page.keyboard.press('Enter');
    }
    await stepIs(5);
    await w.click('Scaling', 'button');
    await w.click('Sound', 'button');
    await w.click('Done');
    await w.sees('Begin list 2');
    await w.open(`/setups/${id}/record?show=step`);
    await w.sees('Came back wrong: scaling, sound');
  });
});

describe('BU-08, BU-09 living with the dock', () => {
  it('limits, programs, buttons and tuning are kept, wrong ones marked', async () => {
    const { id } = await setup('Meridian');
    await w.open(`/setups/${id}/bring-up?view=docked`);
    await w.fill('Sustained power docked', '45,5');
    await w.fill('Peak power docked', '9000');
    await w.page.keyboard.press('Tab');
    await w.sees('Not saved: Peak power: a number from 1 to 600 W, or nothing');
    await w.fill('Program or title', 'Star stacker');
    await w.click('Add program');
    await w.click('the outside card');
    await w.fill('Changed', 'Undervolt');
    await w.fill('Gained in the same run', '3');
    await w.click('Add tuning step');
    await w.sees('Undervolt: +3 %');
    await w.page.waitForFunction(
      () => /saved \d/.test(document.querySelector('.saved')?.textContent ?? ''),
      { polling: 50 },
    );
    const { setup: kept } = await bringUp(id);
    expect(kept.docked).toMatchObject({
      docked: { sustainedW: 45.5, peakW: null },
      programs: [{ name: 'Star stacker', uses: 'outside' }],
      tuning: [{ what: 'Undervolt', gainPercent: 3 }],
    });
    await w.has('Peak power docked', '9000');
  });

  it('BU-15 link health: a trend from chance, cables compared', async () => {
    const { id } = await setup('Meridian');
    await w.open(`/setups/${id}/bring-up?view=health`);
    await w.sees(
      'Copy rate to the card falls through K-02 b, Withyline K-02: 94 % of expected to 79 % of expected in 6 readings.',
    );
    await w.sees('Cables side by side 2');
    const first = await w.text('tr[mat-row]');
    expect(first).toMatch(/^K-05 a, Withyline K-05 2 94 %/);
  });

  it('CO-09 the card and the list on paper', async () => {
    const { id } = await setup('Sky survey');
    await w.open(`/setups/${id}/sheet?only=card`);
    await w.sees('Setup card: Sky survey rig, as on 20 Nov 2026.');
    await w.sees('Screen dark? Wait three minutes.');
    await w.click('The list of steps', 'link');
    await w.sees('If the screen stays dark');
    await w.sees('Power plugs until they click');
  });
});

describe('the door to building', () => {
  it('leads to a new setup that says where to begin', async () => {
    await w.open('/setups');
    await w.click(/^I have the parts/);
    await w.sees('This setup has no parts yet.');
    expect(await w.text('h1')).toMatch(/^Bring it up: \d+ steps/);
  });
});

describe('CO-01 and CO-08 the record', () => {
  it('a retracted reading no longer counts for health', async () => {
    const { id } = await setup('Meridian');
    await w.open(`/setups/${id}/record?show=reading`);
    await w.sees('readings 8');
    await w.click('Delete reading of 15 Nov 2026');
    await w.fill('Reason', 'typed wrongly');
    await w.page.keyboard.press('Escape');
    await w.click('Delete', 'button');
    await w.sees('Deleted: typed wrongly');
    expect(await w.text('li.corrected')).toMatch(/25\.2 of 26\.7 Gb\/s.*Deleted: typed wrongly/);
    await w.open(`/setups/${id}/bring-up?view=health`);
    await w.sees('Readings 7');
  });

  it('a note with its photo is corrected; the correction stands under it', async () => {
    const { id } = await setup('Meridian');
    await w.open(`/setups/${id}/record?show=note`);
    await w.fill('Note', 'plug worn on one side');
    await w.fill('Photo', 'shelf drive, IMG 20');
    await w.click('Add note');
    await w.sees('Photo: shelf drive, IMG 20');
    await w.click('Correct the note of 20 Nov 2026');
    await w.fill('Note', 'plug worn on both sides');
    await w.click('Save correction');
    await w.sees('corrected later; it no longer counts');
    expect(await w.text('li.corrected .under')).toContain('plug worn on both sides');
    await w.page.reload({ waitUntil: 'networkidle0' });
    expect(await w.text('li.corrected .under')).toContain('plug worn on both sides');
  });

  it('the last known good names what changed since; marked again, nothing did', async () => {
    const { id } = await setup('Meridian');
    await w.open(`/setups/${id}/record`);
    await w.sees('Changed since: Card driver 35.2 to 36.0');
    await w.sees('1 thing changed since 12 Apr 2026:');
    await w.sees('card driver: 35.2; now 36.0, since 30 May 2026');
    await w.click('Mark as last known good');
    await w.sees('Nothing changed since.');
    await w.sees('Marked as the last known good');
    await w.page.reload({ waitUntil: 'networkidle0' });
    await w.sees(/20 Nov 2026: .*card driver 36\.0.*Nothing changed since\./);
  });
});
