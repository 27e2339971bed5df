import { describe, expect, it } from 'vitest';
import type { ItemEntry } from '@ruddy/core/parts/contract';
import type { LoanRow } from '@ruddy/core/workshop/contract';
import { world } from './harness';

const w = world({ backups: true });
const loans = async (state = 'open') =>
  (await w.api<{ items: LoanRow[] }>(`/loans?state=${state}`)).items;

describe('WS-01 loans', () => {
  it('says what is out, late, awaited, and doubly planned', async () => {
    await w.open('/workshop/loans');
    await w.sees('3 items are out, 1 late; 2 waiting. First: C-20 a with Member B, 8 days late.');
    await w.sees(
      'V-22 trolley stands in Loan cart and Plate scanner, both active: one item cannot be in two places.',
    );
    await w.open('/setups');
    await w.click('Plate scanner', 'link');
    await w.sees(
      /V-22 trolley stands in Loan cart too, which is active: one item cannot be in two places\..*V-22 trolley is with Member C, for Lecture hall loan/,
    );
  });

  it("judges the borrower's chain before a piece leaves", async () => {
    await w.open('/workshop/loans');
    await w.click('Lend an item …');
    await w.pick('Item', /^Q-05 a/);
    await w.pick('Member', 'Member D');
    await w.pick('For the setup', 'Plate scanner');
    await w.sees("Plate scanner with it as the cable. Won't work: 0 Gb/s pass");
    await w.pick('For the setup', 'Spectrograph tower');
    await w.sees(/Spectrograph tower with it as the cable\. [A-Z]/);
    await w.fill('Accessories', 'bag\ntag');
    await w.click('Lend it');
    await w.sees('No due date: it is never late. Lend it so?');
    await w.click('Lend without a due date');
    await w.sees(/Q-05 a is with Member D\. Its card can be printed\./);
    await w.sees(
      /Lent to Member D, for Spectrograph tower .*Accessories bag, tag .*Never used with:/,
    );
    const stored = (await loans()).find((l) => l.label === 'Q-05 a');
    expect(stored?.along).toEqual(['bag', 'tag']);
    expect(stored?.checked?.sentence.length).toBeGreaterThan(10);
  });

  it('an absent piece is waited for; its return names the next', async () => {
    await w.open('/workshop/loans');
    await w.click('Lend an item …');
    await w.pick('Item', /^Q-05 a/);
    await w.pick('Member', 'Member B');
    await w.sees('Q-05 a is with Member D: one can wait for it.');
    await w.click('Reserve');
    await w.sees('Member B waits for Q-05 a.');
    await w.click('Return Q-05 a …');
    await w.sees(
      /1?\.? ?All here\?.*How does it look\?.*Does it work\?.*Not at all: Scorched or melted plugs/,
    );
    await w.click('Save return');
    await w.sees('Choose whether it works, fails, or was not tried');
    await w.click('bag', 'checkbox');
    await w.click(/^works/i, 'radio');
    await w.sees(
      'Something is missing: it stays here until all is together. Member B waits for it.',
    );
    await w.click('tag', 'checkbox');
    await w.sees('It is ready; next is Member B.');
    await w.click('Save return');
    await w.sees('Q-05 a is back. It is ready; next is Member B.');
    await w.click('Hand over Q-05 a to Member B …');
    await w.click('Hand it over');
    await w.click('Lend without a due date');
    await w.sees('Q-05 a is with Member B.');
    expect(
      (await loans('back')).some((l) => l.label === 'Q-05 a' && l.back?.tested === 'works'),
    ).toBe(true);
  });

  it('a piece that comes back broken keeps its fault', async () => {
    await w.open('/workshop/loans');
    await w.click('Return K-07 a …');
    await w.pick('Condition', /faulty/i);
    await w.click(/^fails/i, 'radio');
    await w.fill('Observed', 'no link in two docks');
    await w.click('Save return');
    await w.sees('K-07 a is back. It is faulty: it stays here until it is mended.');
    const part = (await loans('back')).find((l) => l.label === 'K-07 a')?.partId ?? '';
    const { items } = await w.api<{ items: ItemEntry[] }>(`/parts/${part}/items`);
    expect(items[0]).toMatchObject({
      condition: 'faulty',
      facts: [{ kind: 'fault', words: 'no link in two docks' }, {}],
    });
  });
});

describe('words that look like a page', () => {
  it('are words: a name with markup in it runs nowhere', async () => {
    const name = `<img src=x onerror="window.hit=1"><script>window.hit=2</script>`;
    const id = '0190f7a0-0000-7000-8000-00000000aaaa';
    const send = (path: string, body: object) =>
      w.api(path, { method: 'POST', body: JSON.stringify(body) });
    await send('/members', { id, name: name.slice(0, 60), role: 'member' });
    await send('/setups', { id, name: name.slice(0, 80) });
    await send(`/setups/${id}/notes`, { id, text: name, happenedOn: '2026-11-01' });
    for (const path of [
      '/workshop/members',
      '/workshop/loans',
      '/setups',
      `/setups/${id}/plan`,
      `/setups/${id}/record`,
      `/setups/${id}/sheet`,
    ]) {
      await w.open(path);
      expect(
        await w.page.evaluate(() => [
          (window as { hit?: number }).hit ?? null,
          document.querySelector('img[src=x]'),
        ]),
      ).toEqual([null, null]);
    }
    await w.open(`/setups/${id}/record`);
    await w.sees('<script>window.hit=2</script>');
  });
});

describe('WS-03 backup', () => {
  it('is made, tried and restored, with a way back', async () => {
    await w.open('/workshop/backup');
    await w.sees(/^.*\d+ backups?(, \d+ of them tried| yet)/);
    await w.click('Back up now');
    await w.sees(/Made: [\d,]+ rows, \d+\.\d MB\./);
    const before = await loans('back');
    await w.open('/workshop/loans');
    await w.click('Return C-20 a …');
    await w.click(/^works/i, 'radio');
    await w.click('Save return');
    await w.sees('C-20 a is back.');
    await w.open('/workshop/backup');
    await w.click(/^Try the backup of/);
    await w.sees(/Tried: \d+ rows came back/);
    const { items } = await w.api<{ items: { name: string; note: { why: string } }[] }>('/backups');
    const asked = items.findIndex((b) => b.note.why === 'asked');
    await w.page.evaluate((n) => {
      const all = [...document.querySelectorAll<HTMLElement>('button')].filter(
        (b) => b.innerText.trim() === 'Put back …',
      );
      all[n]?.click();
    }, asked);
    await w.sees('Everything stored since then leaves the pages.');
    await w.click('Put it back');
    await w.sees(/Restored [\d,]+ rows\. What was here before is the newest backup now\./);
    expect((await loans('back')).map((l) => l.id)).toEqual(before.map((l) => l.id));
    expect(
      (await w.api<{ items: { note: { why: string } }[] }>('/backups')).items.some(
        (b) => b.note.why === 'before-restore',
      ),
    ).toBe(true);
    // The pages go on on what was put back.
    await w.open('/setups');
    await w.sees('Sky survey rig');
  });
});
