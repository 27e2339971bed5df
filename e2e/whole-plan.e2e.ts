import { describe, expect, it } from 'vitest';
import type { Setup } from '@ruddy/core/setups/contract';
import { world } from './harness';

const w = world();
const setup = async (name: string) => {
  const { items } = await w.api<{ items: Setup[] }>(
    `/setups?retired=true&q=${encodeURIComponent(name)}`,
  );
  return items[0]!;
};
const plan = async (name: string) => w.open(`/setups/${(await setup(name)).id}/plan`);
const heading = () => w.text('h1');
const saved = () => w.sees(/saved \d\d:\d\d/);

describe('Try it', () => {
  it('shows before and after everywhere; Put back stores nothing', async () => {
    await plan('Dome desk');
    await w.sees('Works with care: the cable holds this chain to 16.0 Gb/s');
    await w.click('Try it: Cable too long for its kind');
    await w.sees('Trying: Take Withyline K-02');
    await w.sees('Works: every hop carries 26.0 Gb/s or more');
    await w.sees('was 16.0 Gb/s');
    await w.sees('Gone with what is tried.');
    expect(await w.text('.strip > p.visually-hidden')).toContain('26.0 Gb/s usable');
    await w.click('Put back');
    await w.sees('Works with care: the cable holds this chain to 16.0 Gb/s');
    expect((await setup('Dome desk')).rev).toBe(1);
  });

  it('by keys: y tries, k keeps, and undo takes it back', async () => {
    await w.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await w.page.keyboard.press('y');
    await w.sees('Trying: Take Withyline K-02');
    await w.page.keyboard.press('k');
    await w.sees('Works: every hop carries 26.0 Gb/s or more');
    await saved();
    expect(await w.page.$eval('#pick-cable-0', (el) => (el as HTMLInputElement).value)).toBe(
      'Withyline K-02',
    );
    await w.click('Undo');
    await w.sees('Works with care: the cable holds this chain to 16.0 Gb/s');
    await saved();
  });

  it('PL-09 an excessive picture moves to the other plug', async () => {
    await plan('Spectrograph tower');
    await w.click('Try it: The picture is too much for its plug');
    await w.sees('Trying: Use DisplayPort instead');
    await w.sees('Works: every hop carries 57.3 Gb/s');
    await w.click('Put back');
  });
});

describe('the strip', () => {
  it('PL-09 draws the returning picture as a rope', async () => {
    await plan('Loan cart');
    await w.page.waitForSelector('path.rope');
    const fill = await w.page.$eval('path.rope', (el) => getComputedStyle(el).fill);
    expect(fill).toBe('none');
  });
});

describe('power, charging, room', () => {
  it('PL-11 one plug short blocks, and another supply is planned', async () => {
    await plan('Classifier box');
    await w.sees("Won't work: 1 plug short.");
    // It must go into the place the board has for it: an ATX one would not.
    await w.choose('Supply', 'S-85', 'Millrace S-85');
    await w.sees('The supply does not go into the dock');
    await w.choose('Supply', 'S-75', 'Millrace S-75');
    await w.sees('Works with care: the cable holds this chain');
    await w.sees('The 16-pin cable allows 300 W');
    await w.click(/^Power: 460 of 750 W, plugs 1 of 1/);
    await w.sees('16-pin cable 1');
    await w.sees('Push each home until it clicks.');
    await saved();
    await w.page.reload({ waitUntil: 'networkidle0' });
    expect(await w.page.$eval('#pick-supply-0', (el) => (el as HTMLInputElement).value)).toBe(
      'Millrace S-75',
    );
  });

  it('PL-12 87 W keeps 70 W going, not 95 W', async () => {
    await plan('Dome desk');
    await w.click(/^Docked settings/);
    await w.fill('Host draws while working', '70');
    await w.page.keyboard.press('Tab');
    await w.sees('87 W in, 70 W drawn');
    await w.fill('Host draws while working', '95');
    await w.page.keyboard.press('Tab');
    await w.sees('Charges with 87 W while the host takes 95 W: empty after 9 h 23 min.');
    await w.fill('Host draws while working', '9500');
    await w.page.keyboard.press('Tab');
    await w.sees('At most 400');
    await w.click('Try it: The host drains while it works');
    await w.sees("Trying: Use the host's own charger");
    await w.click('Put back');
    await w.fill('Host draws while working', '');
    await w.page.keyboard.press('Tab');
    await saved();
  });

  it('PL-10 the fit is drawn to scale with what is left', async () => {
    await w.click(/^Fit drawing: 61 mm left behind it, 18 mm left above it/);
    expect(
      await w.page.$$eval('rb-fit-drawing rect', (r) => r.map((x) => x.getAttribute('class'))),
    ).toEqual(['room', 'card', 'bend']);
  });
});

describe('routes, pre-flight, other cards', () => {
  it('PL-04 routes compared: a slot takes the system drive', async () => {
    await plan('Spectrograph tower');
    await w.click(/^Routes 3, 1 that carry no PCIe|^Routes/);
    await w.sees('the drive the system starts from');
    await w.click('Use the route M.2 slot 1, under the lid');
    await w.sees('The drive in M.2 slot 1, under the lid holds the system');
    // The third slot is for SATA drives only: nothing is free for this one.
    await w.sees('start from a USB drive first');
    await w.click('Undo');
    await w.page.waitForFunction(() =>
      /M\.2 slot 2/.test((document.querySelector('#pick-socket') as HTMLElement).innerText),
    );
  });

  it('PL-17 pre-flight names what this chain needs before the first plug', async () => {
    await plan('Plate scanner');
    await w.click(/^Pre-flight \d+, 1 needed here: recovery key at hand/);
    await w.sees('Have the key on paper or on another machine before you begin.');
    await w.sees('Print this page before you begin');
  });

  it('PL-25 each spare card is judged, with swap steps', async () => {
    await plan('Sky survey rig');
    await w.click(/^Other cards for this dock 3: Dunlinby C-50 won't work/);
    await w.sees('The card is too long');
    await w.click('Plan with Dunlinby C-20');
    await w.page.waitForFunction(
      () =>
        (document.querySelector('#pick-card') as HTMLInputElement | null)?.value ===
        'Dunlinby C-20',
    );
    await w.click('Undo');
    await w.sees('Other cards for this dock 3');
  });
});

describe('software', () => {
  it('PA-04 an own requirement is judged, one without version refused', async () => {
    await w.open('/parts/requirement/new');
    const spec = {
      'Maker of it': 'Carrhollow',
      'Model or family': 'R-30x',
      'Short title': 'Old driver only',
      'What is seen then': 'black screen',
      'Where this is from': 'my own test',
    };
    for (const [label, words] of Object.entries(spec)) await w.fill(label, words);
    await w.click('Add to the catalogue');
    await w.sees('Say from which version, or until which');
    await w.fill('At least', '2.0');
    await w.fill('Model or family', 'M-3');
    await w.fill('Maker of it', 'Staithewright');
    await w.click('Add to the catalogue');
    await w.sees('Saved.');
    await plan('Plate scanner');
    await w.sees('Staithewright M-3 asks for dock firmware 2.0 or newer; installed: 1.4.');
  });

  it('PA-06 a release names its setups, installed is on record', async () => {
    await w.open('/parts/release');
    await w.click('Quillmere D-2 1.5', 'link');
    await w.sees('Touches 1 setup, 1 with an older version');
    await w.click('Installed on Plate scanner');
    await w.pick('Outcome', 'Works');
    await w.click('Mark installed');
    await w.sees('Saved: 1.5 on Plate scanner since 20 Nov 2026.');
    await w.sees('1.5, this one is installed');
    await w.open(`/setups/${(await setup('Plate scanner')).id}/record`);
    await w.sees('Dock firmware: 1.4 to 1.5');
    await w.sees(/Under .*dock firmware 1\.5/);
  });

  it('PL-20 uses and present graphics are kept', async () => {
    await plan('Plate scanner');
    await w.click(/^Intended use: not set/);
    await w.click('Add a use');
    await w.pick('For', /^CAD/i);
    await w.fill('Current graphics', 'graphics in the processor');
    await saved();
    await w.page.reload({ waitUntil: 'networkidle0' });
    await w.sees('Intended use: cad');
    await w.click(/^Intended use: cad/);
    await w.has('Current graphics', 'graphics in the processor');
  });
});

describe('newcomers', () => {
  it('PL-23 a word of somebody else finds ours, from any page', async () => {
    await w.open('/setups');
    await w.fill('Search parts and setups', 'psu');
    await w.click(/^supply/, 'option');
    await w.sees('What feeds dock and card.');
    expect(await heading()).toContain('for "supply"');
  });

  it('PL-23 a word is explained in place', async () => {
    await plan('Dome desk');
    await w.click('bottleneck', 'button');
    await w.sees('The hop that carries least.');
  });
});
