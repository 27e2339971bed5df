import { describe, expect, it } from 'vitest';
import type { Setup } from '@ruddy/core/setups/contract';
import { world } from './harness';

const w = world();
const heading = () => w.text('h1');

async function setupId(name: string): Promise<string> {
  const r = await w.api<{ items: Setup[] }>(`/setups?q=${encodeURIComponent(name)}&retired=true`);
  return r.items[0]!.id;
}

describe('PL-05 the main job on the page', () => {
  it('a blocked port: the verdict, the reason, the broken hop', async () => {
    await w.open('/setups');
    await w.click('Loan laptop 2', 'link');
    await w.sees(
      "Won't work: the left port carries 0 Gb/s of PCIe, so no cable or dock will make a card appear.",
    );
    await w.sees('Blockers 1');
    await w.sees('without PCIe tunnelling no cable and no dock makes a card appear');
    expect(await w.page.$$eval('.ribbon.torn', (r) => r.length)).toBe(2);
    expect(await w.page.$eval('.pier.port', (g) => g.textContent)).toContain('USB-C, no PCIe');
  });

  it('another port of the same host moves the verdict', async () => {
    await w.open(`/setups/${await setupId('Dome desk')}/plan`);
    await w.pick('Port', /^right/);
    await w.sees("Won't work: the right port");
    await w.pick('Port', /^left, rear/);
    await w.sees(
      'Works with care: the cable holds this chain to 16.0 Gb/s, 62 % of the 26.0 the rest can carry.',
    );
    await w.stored();
  });

  it('a working chain from nothing survives a reload', async () => {
    await w.open('/setups');
    await w.click('New setup', 'button');
    await w.sees('no part is chosen yet');
    await w.choose('Host', 'L-13', 'Harnsey L-13');
    await w.pick('Port', /^left, rear/);
    await w.choose('Cable or adapter', 'K-02', 'Withyline K-02');
    await w.choose('Dock', 'D-4', 'Quillmere D-4');
    await w.sees('the card is not chosen yet; 3 of 4 parts are.');
    await w.choose('Card', 'C-10', 'Dunlinby C-10');
    // The catalogue knows what this dock asks for: its firmware first.
    await w.sees('have dock firmware 1.8 before plugging; what is installed is not known.');
    await w.click(/^Versions installed: 0 of 7/);
    await w.fill('Dock firmware', '1.8');
    await w.page.keyboard.press('Tab');
    await w.sees(
      'Works: every hop carries 26.0 Gb/s or more, and nothing is logged for this chain yet.',
    );
    await w.sees(/saved \d\d:\d\d/);
    await w.page.reload({ waitUntil: 'networkidle0' });
    await w.sees('Works: every hop carries 26.0 Gb/s or more');
    expect(await w.page.$eval('#pick-card', (el) => (el as HTMLInputElement).value)).toBe(
      'Dunlinby C-10',
    );
  });

  it('another cable moves the bottleneck everywhere; undo restores', async () => {
    await w.choose('Cable or adapter', 'K-07', 'Withyline K-07');
    await w.sees('Works with care: the cable holds this chain to 16.0 Gb/s');
    const strip = () => w.page.$eval('.strip > p.visually-hidden', (el) => el.textContent ?? '');
    expect(await strip()).toContain(
      'Bottleneck: cable, 16.0 Gb/s usable; the rest could carry 26.0.',
    );
    expect(await w.page.$$eval('.tooth', (t) => t.length)).toBe(4);
    await w.page.waitForFunction(
      () =>
        document.querySelector('.cdk-live-announcer-element')?.textContent ===
        'Bottleneck moved from the dock to the cable: 16.0 Gb/s, was 26.0.',
    );
    await w.click('Undo');
    await w.sees('Works: every hop carries 26.0 Gb/s or more');
    expect(await strip()).toContain('Bottleneck: dock, 26.0 Gb/s usable');
    await w.sees(/saved \d\d:\d\d/);
  });

  it('the working shows the formula, numbers and rules', async () => {
    await w.click(/^Link details/);
    await w.sees('31.51 × 128 / (128 + 24) × 0.98 = 26.0 Gb/s usable');
    await w.sees('Taken by flow control and acknowledges: 2 % (default)');
  });

  it('a direct link says the caution before anything else to do', async () => {
    await w.open(`/setups/${await setupId('Stacking PC')}/plan`);
    await w.sees('Works: every hop carries 57.3 Gb/s or more, and 3 of 3 like it worked.');
    expect(await w.text('rb-to-do > :nth-child(2)')).toContain(
      'Everything off, mains out, then the cable.',
    );
    expect(await w.page.$$eval('.targets button', (b) => b.length)).toBe(7);
  });

  it('an unknown flag is named with how to learn it', async () => {
    await w.open(`/setups/${await setupId('Game evening')}/plan`);
    expect(await heading()).toBe(
      'Not enough known. Watts with care at 196 of 240 W. Not known: link. First: whether the top port tunnels PCIe, 10 minutes.',
    );
    await w.sees('Tunnels PCIe of the top port link depends on it, 10 minutes');
    await w.sees('5 of 7 areas known');
  });

  it('PL-24 a clone is a setup of its own', async () => {
    await w.open(`/setups/${await setupId('Dome desk')}/plan`);
    await w.click('Setup actions');
    await w.click('Clone');
    await w.page.waitForFunction(
      () => document.querySelector<HTMLInputElement>('.name input')?.value === 'Dome desk copy',
    );
    // Its fields are drawn anew until it is judged.
    await w.sees('Works with care: the cable holds this chain to 16.0');
    await w.choose('Cable or adapter', 'K-05', 'Withyline K-05');
    await w.sees('Works: every hop carries 26.0');
    await w.sees(/saved \d\d:\d\d/);
    const r = await w.api<{ items: (Setup & { glance: { verdict: string } })[] }>('/setups?q=dome');
    expect(r.items.map((s) => [s.name, s.glance.verdict])).toEqual([
      ['Dome desk', 'care'],
      ['Dome desk copy', 'works'],
    ]);
  });

  it('a field changed elsewhere shows both versions to pick', async () => {
    const id = await setupId('Plate scanner');
    await w.open(`/setups/${id}/plan`);
    const { rev } = await w.api<Setup>(`/setups/${id}`);
    await w.api(`/setups/${id}`, {
      method: 'PATCH',
      headers: { 'If-Match': `"${rev}"` },
      body: JSON.stringify({ name: 'Theirs' }),
    });
    await w.fill('Setup name', 'Mine');
    await w.page.keyboard.press('Tab');
    await w.sees('Changed elsewhere since you opened it: 1 to settle');
    await w.sees('Stored: Theirs');
    await w.click('Save this choice');
    await w.sees(/saved/);
    await w.page.waitForFunction(() => !document.body.innerText.includes('to settle'));
    expect((await w.api<Setup>(`/setups/${id}`)).name).toBe('Mine');
  });
});
