import { describe, expect, it } from 'vitest';
import type { Setup } from '@ruddy/core/setups/contract';
import { world } from './harness';
import { keptFiles } from './kept-files';

const w = world();

async function setupId(name: string): Promise<string> {
  const r = await w.api<{ items: Setup[] }>(`/setups?q=${encodeURIComponent(name)}&retired=true`);
  return r.items[0]!.id;
}

describe('PL-07 paths of other kinds', () => {
  it('a slot inside, an adapter with card slot, no dock', async () => {
    await w.open('/setups');
    await w.click('New setup', 'button');
    await w.choose('Host', 'M-5', 'Staithewright M-5');
    await w.pick('Port', /^M\.2 slot 2/);
    await w.choose('Cable or adapter', 'E-2', 'Lodebank E-2');
    await w.sees('The path ends in a card slot: no dock is needed.');
    // A card without power sockets: nothing feeds any here.
    await w.choose('Card', 'R-20', 'Carrhollow R-20');
    await w.sees('the cable holds this chain to 28.6 Gb/s, 50 % of the 57.3 the rest can carry.');
    await w.sees('Live plugging can destroy host and card on this link.');
    await w.sees(/This route takes M.2 slot 2/);
    expect(await w.page.$eval('.pier.dock', (g) => g.textContent)).toContain('not used');
    await w.sees(/saved \d\d:\d\d/);
    await w.page.reload({ waitUntil: 'networkidle0' });
    await w.sees('the cable holds this chain to 28.6 Gb/s');
  });

  it('a slot wired for SATA carries no PCIe', async () => {
    await w.pick('Port', /^M\.2 slot 3/);
    await w.sees("Won't work:");
    await w.sees('SATA only (no PCIe); no adapter makes a card appear behind it.');
  });

  it('PL-03 ports: roles, look-alikes, one click to another', async () => {
    await w.open(`/setups/${await setupId('Dome desk')}/plan`);
    await w.click(/^Ports 3: the one in use takes the dock best/);
    await w.sees('carries no PCIe: hub, charger, screen');
    await w.click('Use the port left, front of two');
    await w.sees('left, front of two (in use)');
    await w.click('Undo');
    await w.sees('left, rear of two (in use)');
  });

  it('PL-06 the read-outs to look for stand on Plan', async () => {
    await w.click(/^Expected read-outs under load: ×4 Gen3 at the slot, 16.0 Gb\/s/);
    await w.sees('10 Gb/s × 2 lanes');
    await w.sees('16.0 Gb/s, healthy from 13.1');
  });

  it('PL-08 what hangs on the dock takes from the link', async () => {
    await w.click(/^Also on the dock: nothing/);
    await w.click('Add LAN');
    await w.sees('the cable holds this chain to 15.2 Gb/s');
    await w.click('Add Screen on the dock');
    await w.fill('The picture alone needs', '12.8');
    await w.page.keyboard.press('Tab');
    // 19.39 less 1 and 12.8, times 128/152 and 0.98: arithmetic.
    await w.sees('holds this chain to 4.6 Gb/s');
    await w.fill('Takes to the dock', 'much');
    await w.page.keyboard.press('Tab');
    await w.sees('"much" is not a number');
    await w.click('Remove Screen on the dock');
    await w.sees('the cable holds this chain to 15.2 Gb/s');
    await w.sees(/saved \d\d:\d\d/);
    await w.page.reload({ waitUntil: 'networkidle0' });
    expect(await w.page.$eval('.strip svg', (s) => s.textContent)).toContain(
      'LAN, 1.0 Gb/s and 1.0 back on the link',
    );
    await w.click('Remove LAN');
    await w.sees('the cable holds this chain to 16.0 Gb/s');
  });

  it("PA-01 an adapter's form asks what its ends need", async () => {
    await w.open('/parts/adapter');
    await w.sees('3 adapters in the catalogue.');
    await w.click('New adapter');
    await w.fill('Maker', 'Lodebank');
    await w.fill('Model', 'E-9');
    await w.click('Add to the catalogue');
    await w.sees('Both ends are the same; describe it as a cable');
    const pick = async (field: RegExp, option: RegExp) => {
      await w.page.waitForSelector('.cdk-overlay-backdrop', { hidden: true });
      await w.click(field, 'combobox');
      await w.click(option, 'option');
      await w.page.waitForSelector('.cdk-overlay-backdrop', { hidden: true });
    };
    await pick(/^End towards the card/, /^M.2 slot inside/);
    await w.sees(
      'A tunnel and direct PCIe are different links; no adapter joins them, only a dock does',
    );
    await pick(/^End towards the host/, /^OCuLink 4i/);
    await pick(/^End towards the card/, /^Card slot/);
    await w.click('Add to the catalogue');
    await w.sees('4 adapters in the catalogue.');
  });
});

describe('CO-02 Compatibility as a table', () => {
  it('keeps predicted and seen apart and says what contradicts', async () => {
    await w.open('/compatibility/table');
    await w.sees(
      '17 chains logged; 1 is contradicted by what was seen, 1 more went otherwise than predicted so far.',
    );
    const row = () => w.text('tr.open');
    await w.click('Tarnwick L-15');
    await w.sees('Predicted Works with care');
    expect(await row()).toMatch(/Works.*1 of 4.*otherwise so far/);
    await w.sees('card listed, then lost');
  });

  it('filters, sorts and chooses columns; the address keeps all of it', async () => {
    await w.fill('Find', 'corrected errors');
    await w.sees('1 chain found; none is contradicted');
    await w.fill('Find', '');
    await w.click('Host', 'button');
    const sorted = () =>
      w.page.waitForFunction(
        () =>
          document.querySelector('th[aria-sort="ascending"]')?.textContent?.trim() === 'Host' &&
          document.querySelector('tbody tr td')?.textContent?.trim() === 'Harnsey G-8',
        { polling: 50 },
      );
    await sorted();
    const shows = (column: string) =>
      w.page.waitForFunction(
        (name) => [...document.querySelectorAll('th')].some((t) => t.innerText.trim() === name),
        { polling: 50 },
        column,
      );
    await w.click('Columns');
    await w.click('Under', 'menuitemcheckbox');
    await w.page.keyboard.press('Escape');
    await shows('Under');
    await w.page.reload({ waitUntil: 'networkidle0' });
    await sorted();
    await shows('Under');
    await w.fill('Find', 'nothing like it');
    await w.sees('0 chains fit.');
    await w.click('Show all');
    await w.sees('17 chains logged');
  });

  it('a log of hundreds scrolls, showing only the visible', async () => {
    const parts = [
      {
        id: 'many.dock',
        kind: 'dock',
        spec: {
          maker: 'Many',
          model: 'D',
          form: 'enclosure',
          connector: 'usb-c',
          uplink: 'usb4-40',
        },
      },
      { id: 'many.card', kind: 'card', spec: { maker: 'Many', model: 'C' } },
      ...Array.from({ length: 230 }, (_, i) => ({
        id: `many.host.${i}`,
        kind: 'host',
        spec: {
          maker: 'Many',
          model: `H-${i}`,
          form: 'laptop',
          sockets: [{ key: 'left', connector: 'usb-c', standard: 'usb4-40' }],
        },
      })),
    ];
    const at = '2025-01-01T10:00:00Z';
    const setups = Array.from({ length: 230 }, (_, i) => ({
      id: `many.setup.${i}`,
      name: `Many ${i}`,
      createdAt: at,
      slots: {
        host: `many.host.${i}`,
        socket: 'left',
        path: [],
        dock: 'many.dock',
        card: 'many.card',
      },
    }));
    const outcomes = setups.map((s, i) => ({
      id: `many.o.${i}`,
      setupId: s.id,
      outcome: 'works',
      happenedOn: '2025-01-02',
      recordedAt: at,
    }));
    const bundle = { format: 'ruddy-bridge/bundle', version: 1, parts, setups, outcomes };
    await w.api('/bundle', { method: 'POST', body: JSON.stringify(bundle) });
    await w.open('/compatibility/table');
    await w.sees('247 chains logged');
    // Whoever scrolls goes on until the end is there, however long the pages take.
    await w.page.waitForFunction(
      () => {
        document.querySelector('cdk-virtual-scroll-viewport')?.scrollBy(0, 1200);
        return document.querySelector('[aria-rowindex="248"]') !== null;
      },
      { polling: 50 },
    );
    expect(await w.page.$$eval('cdk-virtual-scroll-viewport tr', (r) => r.length)).toBeLessThan(60);
    await w.fill('Find', 'Observatory of nothing');
    await w.sees('0 chains fit.');
    await w.fill('Find', 'Quillmere');
    await w.sees(/^.*chains? found/);
  });

  it('exports every row that fits', async () => {
    const kept = await keptFiles(w);
    const files: string[] = [];
    for (const name of ['Download CSV', 'Download JSON']) {
      await w.click('Download');
      await w.click(name, 'menuitem');
      files.push(await kept(files.length));
    }
    const shown = Number(/^(\d+) chain/.exec(await w.text('h1'))?.[1]);
    expect(shown).toBeGreaterThan(3);
    expect(files[0]?.trim().split('\r\n')).toHaveLength(shown + 1);
    expect(JSON.parse(files[1] ?? '[]')).toHaveLength(shown);
  });
});
