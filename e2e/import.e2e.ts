import { describe, expect, it } from 'vitest';
import { giver } from './give';
import { world } from './harness';

const w = world();
const give = giver(w);

describe('PA-02 a file of another encoding', () => {
  it('is asked about, then read as it was written', async () => {
    await w.open('/parts/import?kind=cable');
    await w.page.evaluate(() => {
      const box = document.querySelector<HTMLInputElement>('input[aria-label="File of parts"]')!;
      // "M", u with two dots in Windows-1252, "hle".
      const maker = new Uint8Array([0x4d, 0xfc, 0x68, 0x6c, 0x65]);
      const data = new DataTransfer();
      data.items.add(
        new File(['maker,model,connector,construction\n', maker, ',Old,usb-c,passive'], 'old.csv'),
      );
      box.files = data.files;
      box.dispatchEvent(new Event('change'));
    });
    await w.sees('0 rows read: Line 2 is not UTF-8. Say which encoding the file has');
    await w.pick('Encoding of the file', 'Western European (Windows-1252)');
    await w.sees('M\u00fchle Old');
    await w.sees(/1 rows? (is|are) good/);
  });
});

describe('PA-02 20,000 parts from a file', () => {
  const head = 'maker,model,variant,connector,construction,lengthMm,markedGbps,markedW';
  const line = (i: number, length: string) => `Longmead,N-${i},,usb-c,passive,${length},40,100`;
  const file = (bad: readonly number[]) =>
    [
      head,
      ...Array.from({ length: 20_000 }, (_, i) =>
        line(i, bad.includes(i) ? 'long' : String(300 + (i % 900))),
      ),
    ].join('\n');
  const count = async () => (await w.api<{ total: number }>('/parts?kind=cable&limit=1')).total;

  it('five bad rows are named, nothing saved; corrected, all', async () => {
    const before = await count();
    await w.open('/parts/import?kind=cable');
    await give(
      'input[aria-label="File of parts"]',
      'cables.csv',
      file([10, 5000, 9999, 15_000, 19_999]),
    );
    await w.page.waitForFunction(() =>
      /5 rows of 20,000 to fix/.test(document.querySelector('h1')?.textContent ?? ''),
    );
    for (const row of ['12 to fix', '5002 to fix', '10001 to fix', '15002 to fix', '20001 to fix'])
      await w.sees(row);
    await w.sees('lengthMm: long is not a number of mm');
    await w.sees('Not saved: 5 rows to fix');
    expect(await count()).toBe(before);
    await give('input[aria-label="File of parts"]', 'cables.csv', file([]));
    await w.page.waitForFunction(() =>
      /20,000 rows are good/.test(document.querySelector('h1')?.textContent ?? ''),
    );
    await w.click('Import all 20,000');
    await w.page.waitForFunction(() =>
      /Imported from "cables\.csv": 20,000/.test(document.querySelector('h1')?.textContent ?? ''),
    );
    expect(await count()).toBe(before + 20_000);
    await give('input[aria-label="File of parts"]', 'cables.csv', file([]));
    await w.page.waitForFunction(() =>
      /Nothing to import: all 20,000 are already here/.test(
        document.querySelector('h1')?.textContent ?? '',
      ),
    );
  });

  it('its list scrolls with only the visible in the document', async () => {
    await w.open('/parts/cable?q=Longmead');
    await w.sees(/20000 cables called "Longmead"/);
    await w.page.waitForSelector('tr[data-key]');
    const last = () =>
      w.page.$$eval('cdk-virtual-scroll-viewport tr', (l) =>
        l[l.length - 1]?.getAttribute('aria-rowindex'),
      );
    const first = Number(await last());
    // A person scrolls on; the page after the last one read comes before its first row is needed.
    await w.page.waitForFunction(
      (least) => {
        const view = document.querySelector('cdk-virtual-scroll-viewport');
        view?.scrollTo(0, view.scrollHeight);
        return (
          Number(
            [...document.querySelectorAll('tr[data-key]')].at(-1)?.getAttribute('aria-rowindex'),
          ) > least
        );
      },
      { polling: 100 },
      first + 500,
    );
    expect(await w.page.$$eval('tr[data-key]', (l) => l.length)).toBeLessThan(80);
  });
});
