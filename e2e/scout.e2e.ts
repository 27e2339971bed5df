import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Page as Listed } from '@ruddy/core/base/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { startFeeds } from '../scripts/tools/feed-server.mjs';
import { world } from './harness';

const w = world();

describe('SC-01 to SC-03, SC-06 what to buy', () => {
  it('ranks with own parts, evidence, contradiction and kept limits', async () => {
    await w.open('/scout');
    await w.sees('What to buy: choose a host and a use');
    await w.click('Survey laptop: everything new');
    await w.sees(
      /First: Quillmere D-4 with Dunlinby C-20 over Withyline K-05: \d+ frames\/s at 1440p for €594\.90, seen here\./,
    );
    await w.sees(/At 1440p(: more money still pays| it stops paying after)/);
    await w.sees('Best value for money');
    await w.sees('Failed when tried 4 of 4 times here. Trust the log.');
    await w.sees(/sets keep every limit/);
    // Another resolution has a front of its own.
    await w.click('3840×2160', 'radio');
    await w.sees(/At 2160p/);
    // Whole machines over the same years.
    await w.sees(/Worth it: a frame\/s gained costs €[\d.]+, less than €[\d.]+ with the desktop/);
    await w.fill('Current frame rate', '80');
    await w.page.keyboard.press('Tab');
    await w.sees(/Not worth it: its gain over what is there lies inside the band/);
  });

  it('nothing fits: the nearest miss, and allowing it admits sets', async () => {
    await w.fill('Budget', '300');
    await w.page.keyboard.press('Tab');
    await w.sees(/Nothing fits\. Nearest miss: .*; allowing more money admits \d+\./);
    await w.click('Allow more money');
    await w.sees(/First: Quillmere/);
    await w.fill('Budget', 'lots');
    await w.page.keyboard.press('Tab');
    await w.sees(/"lots"/);
    await w.fill('Budget', '1200');
    await w.page.keyboard.press('Tab');
    await w.sees('€594.90');
  });

  it('SC-07 a cheaper card within 5 %, pinned, then planned', async () => {
    await w.click('1920×1080', 'radio');
    await w.click(/^Quillmere D-6 with Dunlinby C-30/);
    await w.sees(/Cheaper and as good as Dunlinby C-30 within 5 %/);
    await w.click('Pin Dunlinby C-31 in Quillmere D-4');
    await w.sees('Pinned: 1');
    await w.page.reload({ waitUntil: 'networkidle0' });
    await w.sees(/First: Quillmere/);
    await w.sees('Pinned: 1');
    await w.click('Make a plan of Dunlinby C-20 in Quillmere D-4');
    await w.sees(/Works with care/);
    // The words may still be those of the row; the setup is there when it is stored.
    const made = async () => (await w.api<Listed<Setup>>('/setups?q=C-20 in Quillmere')).items;
    await expect
      .poll(async () => (await made()).map((s) => s.name))
      .toEqual(['Dunlinby C-20 in Quillmere D-4']);
  });

  it('PL-20 the plan says whether it pays, and why', async () => {
    const dome = (await w.api<Listed<Setup>>('/setups?q=Dome desk')).items[0] as Setup;
    await w.open(`/setups/${dome.id}/plan`);
    await w.click(/^(Worth it|Not worth it|Not enough known to say)/);
    await w.sees('Staithewright T-5');
    await w.fill('Current frame rate', '300');
    await w.page.keyboard.press('Tab');
    await w.sees(/Worth it: /);
  });
});

describe('PA-05, PA-06 news', () => {
  let feeds: Awaited<ReturnType<typeof startFeeds>> = null;
  beforeAll(async () => {
    feeds = await startFeeds(0);
  });
  afterAll(() => feeds?.close());

  it('a local feed needs consent; its release leads to setups', async () => {
    const url = `http://127.0.0.1:${(feeds?.address() as AddressInfo).port}/quillmere.json`;
    // The feeds of the examples may be read or not, as their stand-in happens to run.
    const { items } = await w.api<{ items: { id: string }[] }>('/feeds');
    for (const f of items) await w.api(`/feeds/${f.id}`, { method: 'DELETE' });
    await w.open('/workshop/feeds');
    await w.fill('Name', 'Dock maker');
    await w.fill('Address', url);
    await w.click('Add feed');
    await w.sees('Added Dock maker.');
    await w.click('Read now: Dock maker');
    await w.sees(/127\.0\.0\.1, on this machine or in the local network\. A keeper may allow that/);
    await w.click('Dock maker may lie on this machine or in the local network', 'checkbox');
    await w.click('Read now: Dock maker');
    await w.sees('Dock maker: 3 items.');
    await w.click('Read now: Dock maker');
    await w.sees('Dock maker: nothing new since the last reading.');
    await w.open('/parts/news');
    await w.sees(
      /1 of 3 items concerns parts or symptoms here, 1 new\. First: D-4 dock firmware 1\.9\./,
    );
    await w.sees(/Speaks of logged symptoms: .*drops under load/);
    await w.click('Add it as dock firmware 1.9');
    await w.sees(/Dome desk/);
  });
});
