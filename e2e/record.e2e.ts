import { describe, expect, it } from 'vitest';
import type { Setup } from '@ruddy/core/setups/contract';
import { world } from './harness';

const w = world();

describe('CO-01 and CO-02 what happened', () => {
  it('an outcome reaches Plan, Compatibility and a reload', async () => {
    const { items } = await w.api<{ items: Setup[] }>('/setups?q=sky');
    await w.open(`/setups/${items[0]!.id}/record`);
    await w.sees('5 outcomes logged; the newest, 10 Nov 2026: works.');
    await w.click('Unreliable', 'radio');
    await w.click('Versions: as in the setup');
    await w.fill('Card driver', '41.5');
    await w.fill('Symptoms', 'flicker after sleep');
    await w.fill('Private note', 'ask the member');
    await w.click('Log outcome');
    await w.sees('6 outcomes logged; the newest, 20 Nov 2026: unreliable.');
    await w.page.reload({ waitUntil: 'networkidle0' });
    await w.sees('Seen: flicker after sleep');
    await w.click('Plan', 'link');
    await w.sees('6 of 7 worked (49 to 97 %)');
    await w.open('/compatibility/table?q=flicker');
    await w.sees('1 chain found; none is contradicted by what was seen.');
    await w.sees('6 of 7');
    await w.click(/^Harnsey L-13/, 'button');
    await w.sees('card driver 41.5');
  });

  it('empty choices and future days are refused in place', async () => {
    const { items } = await w.api<{ items: Setup[] }>('/setups?q=plate');
    await w.open(`/setups/${items[0]!.id}/record`);
    await w.click('Log outcome');
    await w.sees('Not saved. See the marked fields.');
    await w.sees('Choose one of: Works, Works with care, Unreliable, Fails');
    await w.click('Fails', 'radio');
    await w.fill('Date', '1 Jan 2027');
    await w.click('Log outcome');
    await w.sees('Date: 2027-01-01 is in the future; today is 2026-11-20');
    expect(
      await w.page.$eval('rb-outcome-form [role=radio][aria-checked=true]', (el) =>
        (el as HTMLElement).innerText.trim(),
      ),
    ).toBe('Fails');
    const { items: logged } = await w.api<{ items: unknown[] }>(
      `/outcomes?setupId=${items[0]!.id}`,
    );
    expect(logged).toHaveLength(4);
  });

  it('a correction keeps both and counts one', async () => {
    const { items } = await w.api<{ items: Setup[] }>('/setups?q=stacking');
    await w.open(`/setups/${items[0]!.id}/record`);
    await w.click('Correct the outcome of 5 Jul 2026');
    await w.sees('Corrects "Works" of 5 Jul 2026');
    await w.click('Works with care', 'radio');
    await w.click('Save correction');
    await w.sees('corrected later; it no longer counts');
    await w.sees('3 outcomes logged; the newest, 4 Oct 2026: works.');
  });

  it('a note joins the record', async () => {
    await w.fill('Photo', 'fan.jpg');
    await w.fill('Note', 'fan swapped');
    await w.click('Add note');
    await w.sees('20 Nov 2026 Note fan swapped');
  });
});
