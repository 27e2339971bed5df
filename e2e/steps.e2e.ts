import { describe, expect, it } from 'vitest';
import type { BringUp } from '@ruddy/core/bring-up/contract';
import type { OutcomeEntry } from '@ruddy/core/compatibility/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { world } from './harness';

const w = world();

async function setup(name: string): Promise<Setup> {
  const r = await w.api<{ items: Setup[] }>(`/setups?q=${encodeURIComponent(name)}&retired=true`);
  return r.items[0]!;
}
async function bringUp(id: string): Promise<BringUp> {
  await w.stored();
  return w.api<BringUp>(`/setups/${id}/bring-up`);
}

/** Go on with Tab until something of this name has the focus. */
async function tabTo(name: string | RegExp): Promise<void> {
  const pattern =
    typeof name === 'string' ? `^${name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}$` : name.source;
  const here = () =>
    w.page.evaluate((p) => {
      const el = document.activeElement as HTMLElement | null;
      const label = (el as HTMLInputElement | null)?.labels?.[0]?.innerText;
      const words = el?.getAttribute('aria-label') ?? label ?? el?.innerText ?? '';
      return new RegExp(p).test(words.replace(/\s+/g, ' ').trim());
    }, pattern);
  for (let i = 0; i < 160; i++) {
    if (await here()) return;
    await w.page.keyboard.press('Tab');
  }
  throw new Error(`Tab never reaches ${String(name)}`);
}

/** The step that is open, as the page's sentence names it. */
const sentence = () => w.text('h1');

async function stepIs(n: number): Promise<void> {
  await w.page.waitForFunction(
    (k) => document.querySelector('h1')?.innerText.startsWith(`Step ${k} of`),
    { polling: 50 },
    n,
  );
}

describe('BU-01 and BU-07 the order the log leads to', () => {
  it('all off 4 of 5 leads before any time', async () => {
    const { id } = await setup('Sky survey');
    await w.open(`/setups/${id}/bring-up`);
    // The entry of another workshop that names its order counts, too.
    await w.sees(
      /This host under build 6102: all off 4 of 5, [a-z ,]+ 1 of 1, any time 1 of 3 came up\. So: all off\./,
    );
    await w.sees('Begin attempt 1: all off');
  });

  it('a changed system build asks again, and says what was', async () => {
    const { id, installed, rev } = await setup('Sky survey');
    await w.api(`/setups/${id}`, {
      method: 'PATCH',
      headers: { 'If-Match': `"${rev}"` },
      body: JSON.stringify({ installed: { ...installed, systemBuild: '6120' } }),
    });
    await w.page.reload({ waitUntil: 'networkidle0' });
    await w.sees(/The system build changed from \d+ to 6120, so the order is open again\./);
    await w.sees('The safest: all off.');
  });

  it('a direct link refuses live plugging and says so', async () => {
    const { id } = await setup('Stacking');
    await w.open(`/setups/${id}/bring-up`);
    await w.sees('The safest: all off.');
    const offered = await w.page.$$eval('rb-begin-panel li button:not([disabled])', (l) =>
      l.map((b) => (b as HTMLElement).innerText),
    );
    expect(offered).toEqual(['all off', 'host drives the dock', 'dock first']);
    await w.sees('a direct link is never plugged live');
  });

  it('an impossible chain is told before any screwdriver', async () => {
    const { id } = await setup('Loan laptop 2');
    await w.open(`/setups/${id}/bring-up`);
    await w.sees("Won't work:");
    await w.sees('See Plan first');
  });

  it('a try from before counts at once, and can be deleted', async () => {
    const { id } = await setup('Lecture hall');
    await w.open(`/setups/${id}/bring-up`);
    await w.click(/^Tries: \d+, and one from before/);
    await w.pick('Order tried', /^host first/i);
    await w.pick('Result', 'it did not');
    await w.fill('System build then', '6100');
    await w.click('Add this try');
    await w.sees('host first 0 of 1');
    await w.click(/^Delete the try of/);
    await w.fill('Reason', 'another setup');
    await w.page.keyboard.press('Escape');
    await w.click('Delete', 'button');
    await w.sees('0 tries logged.');
  });
});

describe('BU-02 and BU-03 one step at a time', () => {
  it('resumes after days at its step, with earlier results', async () => {
    const { id } = await setup('Dome desk');
    await w.open(`/setups/${id}/bring-up`);
    await w.sees('Step 17 of 33: Dock on. 17 done, about 80 minutes left.');
    await w.sees('Bring-up 17/33');
    await w.sees('9 Card into the slot done in 1');
    await w.sees('Dock firmware 1.4 to 1.6');
  });

  it('keys: look ahead, come back, undo, done', async () => {
    await w.page.keyboard.press('ArrowDown');
    await w.sees('Looking ahead: step 17 comes first.');
    await w.click('Go to step 17');
    await w.page.keyboard.press('u');
    await stepIs(16);
    await w.page.keyboard.press('Enter');
    await stepIs(17);
    await w.page.keyboard.press('Enter');
    await stepIs(18);
    const { steps } = await bringUp((await setup('Dome desk')).id);
    expect(steps.slice(-3).map((s) => [s.step, s.state])).toEqual([
      ['plug-cable', 'undone'],
      ['plug-cable', 'done'],
      ['dock-on', 'done'],
    ]);
  });

  it('BU-10 a failing step opens Troubleshoot with what was seen', async () => {
    await w.page.keyboard.press('f');
    await w.click('Nothing is listed');
    await w.sees(/Next: /);
    expect(await w.page.url()).toContain('/troubleshoot');
    // The search that was open on this setup learns of it.
    await w.sees('It does not come up, 1 seen');
    await w.open(`/setups/${(await setup('Dome desk')).id}/bring-up`);
    await w.sees('Failed: nothing is listed');
    await w.sees('The look-alike port. Read the mark beside the port');
    expect(await w.text('rb-step-card .failed')).not.toContain('direct link');
    await w.sees('Step 18 of 33 failed: Host on.');
    await w.click('Begin another attempt …');
    await w.click('End attempt 3 as failed');
    await w.sees('Begin attempt 4: all off');
    const { attempts, tried } = await bringUp((await setup('Dome desk')).id);
    expect(attempts[2]?.ended).toMatchObject({ outcome: 'failed', worked: false });
    expect(tried.at(-1)).toMatchObject({ order: 'all-off', worked: false, build: '25H2' });
  });

  it('another card in the slot opens its steps again and says why', async () => {
    const dome = await setup('Dome desk');
    const cards = await w.api<{ items: { id: string; spec: { model: string } }[] }>(
      '/parts?kind=card&q=R-9',
    );
    await w.click('Begin attempt 4: all off');
    await w.sees('Card into the slot done in 1');
    await w.api(`/setups/${dome.id}`, {
      method: 'PATCH',
      headers: { 'If-Match': `"${(await bringUp(dome.id)).setup.rev}"` },
      body: JSON.stringify({ slots: { card: cards.items[0]!.id } }),
    });
    await w.page.reload({ waitUntil: 'networkidle0' });
    await w.sees('Card into the slot again: card changed');
  });
});

describe('everything by Tab, Enter, Space and digits, at 320 pixels', () => {
  it('walks a whole list to its end and writes the entry', async () => {
    await w.page.setViewport({ width: 320, height: 640 });
    const cart = await setup('Loan cart');
    await w.open(`/setups/${cart.id}/bring-up`);
    await tabTo(/^Begin attempt/);
    await w.page.keyboard.press('Enter');
    await stepIs(1);
    const total = Number(/of (\d+)/.exec(await sentence())?.[1]);
    expect(total).toBeGreaterThan(25);
    for (let n = 1; n <= total; n++) {
      await stepIs(n);
      const wide = await w.page.evaluate(() => document.documentElement.scrollWidth);
      expect([n, wide]).toEqual([n, 320]);
      const kind = await w.page.evaluate(() => {
        if (document.querySelector('rb-step-card rb-reading-fields'))
          return document.querySelector('rb-step-card h2')?.textContent ?? '';
        return document.querySelector('rb-step-card [aria-label="How it went"]') ? 'outcome' : '';
      });
      if (/Copy rate/.test(kind)) {
        await tabTo('Copy rate');
        await w.page.keyboard.type('12');
        if (/back/.test(kind)) {
          await tabTo('card to host');
          await w.page.keyboard.press('Space');
        }
      } else if (/Width/.test(kind)) {
        await tabTo('Slot: lanes');
        await w.page.keyboard.type('4');
      } else if (/under load/.test(kind)) {
        await tabTo('Times the link went down');
        await w.page.keyboard.type('0');
      }
      if (kind !== '' && kind !== 'outcome') {
        await tabTo('Save reading');
        await w.page.keyboard.press('Enter');
        await w.sees(/\d readings? in this attempt; the newest/);
      }
      if (kind === 'outcome') {
        await tabTo('Works');
        await w.page.keyboard.press('Space');
      }
      if (n === 2) {
        // A step is left out with a reason, without a letter typed.
        await tabTo('Skip …');
        await w.page.keyboard.press('Enter');
        await tabTo('not needed here');
      } else await tabTo(/^Done/);
      await w.page.keyboard.press(n % 2 ? 'Enter' : 'Space');
    }
    await w.sees('Begin attempt 2');
    await w.page.setViewport({ width: 1280, height: 800 });
    const after = await bringUp(cart.id);
    expect(after.attempts[0]?.ended).toMatchObject({ outcome: 'passed', worked: true });
    expect(after.good?.installed.dockFirmware).toBe('25.1');
    const { items } = await w.api<{ items: OutcomeEntry[] }>(
      `/outcomes?setupId=${cart.id}&limit=1`,
    );
    expect(items[0]).toMatchObject({
      outcome: 'works',
      order: 'all-off',
      happenedOn: '2026-11-20',
    });
  });
});

describe('the server is killed in the middle', () => {
  it('confirmed notes survive reload and outage, and are sent', async () => {
    const plates = await setup('Plate scanner');
    await w.open(`/setups/${plates.id}/bring-up`);
    await w.click(/^Begin attempt 5/);
    await stepIs(1);
    for (const n of [2, 3]) {
      await w.page.keyboard.press('Enter');
      await stepIs(n);
    }
    await w.stored();
    const confirmed = (await bringUp(plates.id)).steps;
    await w.kill();
    await w.page.keyboard.press('Enter');
    await w.sees(/1 note kept on this machine: the server is not reached/);
    await stepIs(4);
    await w.page.keyboard.press('Enter');
    await stepIs(5);
    await w.revive();
    await w.stored();
    w.complaints.splice(0);
    const after = (await bringUp(plates.id)).steps;
    expect(after.slice(0, confirmed.length)).toEqual(confirmed);
    expect(after.length).toBe(confirmed.length + 2);
    await w.page.reload({ waitUntil: 'networkidle0' });
    await stepIs(5);
  });
});
