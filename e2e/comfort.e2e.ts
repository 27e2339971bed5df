import { describe, expect, it } from 'vitest';
import type { Part } from '@ruddy/core/parts/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { world } from './harness';

const w = world();

async function open(name: string, page = 'plan'): Promise<string> {
  const { items } = await w.api<{ items: Setup[] }>(`/setups?q=${encodeURIComponent(name)}`);
  await w.open(`/setups/${items[0]!.id}/${page}`);
  return items[0]!.id;
}

describe('the strip and its text', () => {
  it('the visible text, the buttons and the picture tell the same chain', async () => {
    await open('Dome desk');
    await w.click(/^Read the diagram as text/);
    const lines = await w.page.$$eval('.as-text li', (l) =>
      l.map((x) => x.textContent?.trim() ?? ''),
    );
    const labels = await w.page.$$eval('.targets button', (b) =>
      b.map((x) => x.getAttribute('aria-label') ?? ''),
    );
    expect(lines).toEqual(labels);
    expect(lines[3]).toBe(
      'Host port to Dock through cable: USB4 20 by the cable · PCIe Gen3 ×4. 16.0 Gb/s usable to the card, 15.6 back, expected. Bottleneck.',
    );
    const drawn = await w.page.$$eval('.field-of-view svg .line2', (t) =>
      t.map((x) => x.textContent),
    );
    expect(drawn).toEqual(['53.4 Gb/s', 'bottleneck: 16.0 Gb/s usable', '26.7 Gb/s']);
  });

  it('follows while scrolling, out of reach of Tab and screen readers', async () => {
    await w.click(/^Link details/);
    await w.page.evaluate(() => window.scrollTo(0, document.body.scrollHeight));
    await w.page.waitForSelector('.follows[inert]');
    expect(await w.page.$eval('.follows', (el) => el.getBoundingClientRect().top)).toBe(0);
    await w.page.evaluate(() => window.scrollTo(0, 0));
    await w.page.waitForFunction(() => !document.querySelector('.follows'));
  });

  it('full or slim is remembered', async () => {
    await w.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await w.page.keyboard.press('\\');
    await w.page.waitForSelector('.strip.slim');
    await w.page.reload({ waitUntil: 'load' });
    await w.page.waitForSelector('.strip.slim .pinch-line');
    await w.page.keyboard.press('\\');
    await w.page.waitForFunction(() => !document.querySelector('.strip.slim'));
  });
});

describe('choosing and describing', () => {
  it('a new dock is described, refused where wrong, then judged', async () => {
    await open('Sky survey rig');
    await w.fill('Dock', 'zzz');
    await w.click('Not in the list: describe it …', 'option');
    await w.sees('Describe the dock');
    await w.click('Add and choose it');
    await w.sees('Not saved. Maker: must not be empty; 1 more');
    await w.fill('Maker', 'Quillmere');
    await w.fill('Model', 'd-4');
    await w.click('Add and choose it');
    await w.sees('A part of this kind, maker, model and variant exists already');
    await w.fill('Model', 'D-9');
    await w.fill('Slot PCIe generation', '4');
    await w.fill('Slot lanes wired', '2 to 4');
    await w.click('Add and choose it');
    await w.page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('#pick-dock')?.value === 'Quillmere D-9',
    );
    const { items } = await w.api<{ items: Part[] }>('/parts?kind=dock&q=d-9');
    expect(items[0]?.spec).toMatchObject({ slotGen: 4, slotLanes: { lo: 2, hi: 4 }, uplink: null });
    await w.sees(/Please check \d/);
    await w.sees('Uplink standard of the dock');
  });

  it('words that choose nothing go again when the field is left', async () => {
    await w.fill('Card', 'no such card');
    await w.page.keyboard.press('Escape');
    await w.page.keyboard.press('Tab');
    await w.page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('#pick-card')?.value === 'Dunlinby C-30',
    );
  });

  it('a second cable is one pier counted with its length', async () => {
    await open('Sky survey rig');
    await w.choose('Dock', 'D-4', 'Quillmere D-4');
    await w.sees('Works: every hop carries 26.0');
    await w.click('One more cable or adapter');
    await w.choose('Joined to it', 'K-05', 'Withyline K-05');
    await w.sees('2 USB-C cables joined end to end');
    await w.sees('Passive at 1.3 m: 20 Gb/s, not 40.');
    expect(await w.page.$eval('.pier.cable', (g) => g.textContent)).toContain('K-02 + K-05');
    await w.click('Remove Part 2 of the path, cable Withyline K-05');
    await w.sees('Works: every hop carries 26.0');
  });

  it('undo and redo by key, but not while typing', async () => {
    await w.choose('Cable or adapter', 'K-07', 'Withyline K-07');
    await w.sees('Works with care: the cable holds');
    await w.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await w.page.keyboard.down('Control');
    await w.page.keyboard.press('z');
    await w.sees('Works: every hop carries 26.0');
    await w.page.keyboard.down('Shift');
    await w.page.keyboard.press('Z');
    await w.page.keyboard.up('Shift');
    await w.page.keyboard.up('Control');
    await w.sees('Works with care: the cable holds');
    await w.click('Undo');
    await w.sees('Works: every hop carries 26.0');
  });
});

describe('the shell', () => {
  it('keeps the chosen colours over a reload', async () => {
    await w.open('/setups');
    await w.click('Settings of this browser');
    await w.click('Colours: dark');
    expect(await w.page.evaluate(() => document.documentElement.dataset['theme'])).toBe('dark');
    await w.page.reload({ waitUntil: 'load' });
    await w.page.waitForFunction(() => document.documentElement.dataset['theme'] === 'dark');
    await w.click('Settings of this browser');
    await w.click('Colours: as the system');
  });

  it('filters live in the address: back and reload keep the place', async () => {
    await w.open('/setups');
    await w.fill('Find', 'dome');
    await w.page.waitForFunction(
      () =>
        document.querySelectorAll('a.setup-link').length === 1 &&
        location.search.includes('q=dome'),
    );
    await w.click('Dome desk', 'link');
    await w.page.waitForFunction(() => location.pathname.endsWith('/plan'));
    await w.page.goBack();
    await w.page.waitForFunction(
      () =>
        location.search.includes('q=dome') &&
        document.querySelectorAll('a.setup-link').length === 1,
    );
  });

  it('arrows walk the list, x chooses, rows clone or retire', async () => {
    await w.open('/setups?q=s');
    await w.page.waitForSelector('a.setup-link');
    await w.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await w.page.keyboard.press('ArrowDown');
    await w.page.keyboard.press('ArrowDown');
    await w.page.keyboard.press('x');
    await w.sees('1 selected');
    const name = await w.page.$eval('tr.picked a.setup-link', (a) => a.textContent);
    await w.click('Archive', 'button');
    await w.page.waitForFunction(
      (n) => ![...document.querySelectorAll('a.setup-link')].some((a) => a.textContent === n),
      {},
      name,
    );
    const { items } = await w.api<{ items: Setup[] }>('/setups?state=retired');
    expect(items.map((s) => s.name)).toContain(name);
  });

  it('without the server typing stays and is saved later', async () => {
    const id = await open('Plate scanner');
    await w.page.setOfflineMode(true);
    await w.fill('Notes', 'typed while away');
    await w.sees('not saved: The server was not reached; nothing was stored');
    await w.page.setOfflineMode(false);
    w.complaints.splice(0);
    await w.click('Try again');
    await w.sees(/saved \d\d:\d\d/);
    expect((await w.api<Setup>(`/setups/${id}`)).notes).toBe('typed while away');
  });
});
