import { describe, expect, it } from 'vitest';
import type { Part } from '@ruddy/core/parts/contract';
import { world } from './harness';

const w = world();

async function stored(kind: string, q: string): Promise<Part[]> {
  return (
    await w.api<{ items: Part[] }>(`/parts?kind=${kind}&q=${encodeURIComponent(q)}&retired=true`)
  ).items;
}

describe('PA-01 the catalogue on the page', () => {
  it('a wrong value is marked and stored nowhere until mended', async () => {
    await w.open('/parts/cable/new');
    await w.fill('Maker', 'Withyline');
    await w.fill('Model', 'K-44');
    await w.fill('Length', '1,200');
    await w.fill('Marked rate', '400');
    await w.click('Add to the catalogue');
    await w.sees(
      'Not saved. Length: "1,200" could mean two numbers; write it without a thousands mark; 1 more',
    );
    await w.sees('Marked rate: a number from 0.48 to 120 Gb/s, or not sure');
    expect(await w.page.evaluate(() => document.activeElement?.getAttribute('aria-invalid'))).toBe(
      'true',
    );
    expect(await stored('cable', 'K-44')).toHaveLength(0);
    await w.fill('Length', '1200');
    await w.fill('Marked rate', '40');
    await w.click('Add to the catalogue');
    await w.sees('Saved.');
    await w.page.reload({ waitUntil: 'networkidle0' });
    await w.sees('15 cables in the catalogue.');
    expect((await stored('cable', 'K-44'))[0]?.spec).toMatchObject({
      lengthMm: 1200,
      markedGbps: 40,
      construction: null,
    });
  });

  it('is edited, cloned and retired', async () => {
    await w.fill('Length', '1100');
    await w.click('Save');
    await w.sees('Saved.');
    await w.sees('Revision 2');
    await w.click('Clone');
    await w.sees('New cable');
    await w.fill('Variant', 'red');
    await w.click('Add to the catalogue');
    await w.sees('Withyline K-44 red');
    await w.click('Archive');
    await w.sees('Archived: it leaves the lists, what uses it keeps it.');
    await w.sees('15 cables in the catalogue.');
    expect(
      (await stored('cable', 'K-44')).map((p) => [p.spec.variant, p.retiredAt !== null]),
    ).toEqual([
      ['', false],
      ['red', true],
    ]);
  });

  it('PL-01 three questions describe a host, "not sure" included', async () => {
    await w.open('/setups');
    await w.click('New setup', 'button');
    await w.click('Not sure what you have? Describe my host');
    await w.click('Handheld', 'radio');
    await w.click(/the number 40$/, 'radio');
    await w.click('Continue');
    await w.sees('Describe the host');
    await w.click('Add and choose it');
    await w.page.waitForFunction(
      () =>
        document.querySelector<HTMLInputElement>('#pick-host')?.value === 'Not sure My handheld',
    );
    await w.choose('Cable or adapter', 'K-05', 'Withyline K-05');
    await w.choose('Dock', 'D-6', 'Quillmere D-6');
    await w.choose('Card', 'C-10', 'Dunlinby C-10');
    await w.sees('First: whether the left port tunnels PCIe, 10 minutes.');
  });

  it('an unknown kind says so and leads to the nearest', async () => {
    await w.open('/parts/releases');
    await w.sees('0 kinds of parts are called "releases". Nearest: releases.');
    await w.click('releases', 'link');
    await w.sees(/\d+ releases in the catalogue/);
    expect(w.page.url()).toContain('/parts/release');
  });

  it('a socket in use cannot be taken off its host', async () => {
    const [host] = await stored('host', 'L-11');
    await w.open(`/parts/host/${host!.id}`);
    await w.click('Remove port 1');
    await w.click('Save');
    await w.sees(
      'Port "left" is used by the setup "Loan laptop 2"; choose another port there first',
    );
    expect((await stored('host', 'L-11'))[0]?.rev).toBe(1);
  });

  it('search finds parts and setups from any page', async () => {
    await w.open('/workshop/rules');
    // It comes once the page has time.
    await w.page.waitForSelector('rb-search-box');
    await w.page.keyboard.press('/');
    await w.page.keyboard.type('Meridian');
    await w.click(/^Meridian bench/, 'option');
    await w.sees('Predicted to work, seen to fail 3 of 4 times.');
  });
});
