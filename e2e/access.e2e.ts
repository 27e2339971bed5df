import { randomUUID } from 'node:crypto';
import axe from 'axe-core';
import type { CDPSession } from 'puppeteer-core';
import { afterEach, describe, expect, it } from 'vitest';
import type { Part } from '@ruddy/core/parts/contract';
import type { RunEntry } from '@ruddy/core/runs/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { world } from './harness';

const WIDE = { width: 1280, height: 800 };
const w = world();
const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

async function places(): Promise<string[]> {
  const { items } = await w.api<{ items: Setup[] }>('/setups?q=dome');
  const id = items[0]!.id;
  const [cable, card, other, meridian] = await Promise.all([
    w.api<{ items: Part[] }>('/parts?kind=cable&q=K-02'),
    w.api<{ items: Part[] }>('/parts?kind=card&q=C-20'),
    w.api<{ items: Setup[] }>('/setups?q=survey'),
    w.api<{ items: Setup[] }>('/setups?q=meridian'),
  ]);
  const searches = await w.api<{ items: { id: string }[] }>('/searches');
  const { items: runs } = await w.api<{ items: RunEntry[] }>(`/runs?setupId=${id}&limit=100`);
  const bench = randomUUID();
  const body = JSON.stringify({ id: bench, name: 'Table', setupId: id, seed: 1, speed: 0 });
  await w.api('/benches', { method: 'POST', body });
  const practice = randomUUID();
  await w.api('/practices', { method: 'POST', body: JSON.stringify({ id: practice, caseNo: 4 }) });
  return [
    '/setups',
    `/setups/${id}/plan`,
    `/setups/${id}/bring-up`,
    `/setups/${id}/bring-up?view=link`,
    `/setups/${other.items[0]!.id}/bring-up`,
    `/setups/${meridian.items[0]!.id}/bring-up?view=health`,
    `/setups/${id}/bring-up?view=docked`,
    `/setups/${id}/sheet?only=steps`,
    `/setups/${id}/sheet?only=card`,
    `/setups/${id}/record`,
    `/setups/${id}/troubleshoot`,
    `/setups/${id}/troubleshoot?cause=cable-class`,
    `/setups/${meridian.items[0]!.id}/troubleshoot`,
    '/trouble',
    '/bench/practice',
    `/bench/practice/${practice}`,
    '/compatibility/table?host=L-13&near=true',
    '/compatibility/grid?scope=all',
    '/compatibility/claims',
    '/compatibility/titles',
    '/compatibility/share',
    `/setups/${id}/sheet?only=ask`,
    '/parts/cable/new',
    `/parts/cable/${cable.items[0]!.id}?show=pieces`,
    `/parts/card/${card.items[0]!.id}?show=prices`,
    `/parts/card/${card.items[0]!.id}?show=past`,
    '/parts/register',
    '/parts/rates',
    '/parts/news?all=true',
    `/scout?search=${searches.items[0]!.id}`,
    '/parts/import?kind=host',
    `/setups/${id}/sheet`,
    `/compare/plans?of=${id},${other.items[0]!.id}`,
    `/setups/${id}/runs?show=${runs[0]?.id},${runs[3]?.id}`,
    `/setups/${id}/runs?view=table&add=files`,
    `/setups/${id}/runs?show=${runs.at(-4)?.id}&view=sensors&add=typed`,
    `/setups/${id}/runs?view=dots`,
    `/setups/${id}/runs?view=curve`,
    `/compare/runs?of=${runs.map((r) => r.id).join()}`,
    '/compare/sessions',
    '/bench',
    `/bench/${bench}`,
    '/glossary',
    '/parts/host',
    '/nowhere',
    '/workshop/loans',
    '/workshop/members',
    '/workshop/backup',
    '/workshop/rules',
    '/workshop/data',
    '/workshop/feeds',
    '/workshop/audit',
    '/account',
  ];
}

const kindOf = (path: string) =>
  path.startsWith('/parts')
    ? 'parts'
    : /^\/(compatibility|workshop)/.test(path)
      ? 'log'
      : /runs|compare/.test(path)
        ? 'runs'
        : 'setups';

/** Roles of what a person acts on. */
const ACTS = new Set(
  'button link textbox searchbox combobox checkbox radio switch slider spinbutton tab menuitem option gridcell'.split(
    ' ',
  ),
);

/** A phone held upright, and a window of 1280 by 800 zoomed to 200 %, which lays out 640 by 400. */
const NARROW = [
  { width: 320, height: 640 },
  { width: 640, height: 400, deviceScaleFactor: 2 },
];

/** Is the page wider than its window, and which elements stand out of it? */
function overWide() {
  return w.page.evaluate(() => {
    const limit = document.documentElement.clientWidth;
    const over = [...document.querySelectorAll<HTMLElement>('main *')].filter(
      (e) =>
        e.getBoundingClientRect().right > limit + 1 &&
        !e.closest('.wide, .visually-hidden, .field-of-view'),
    );
    return {
      wide: document.documentElement.scrollWidth > limit,
      names: over.slice(0, 4).map((e) => `${e.tagName}.${e.className}`),
    };
  });
}

/** Roles and names of the accessibility tree as Chromium builds it for screen readers. */
async function accessibleNodes(client: CDPSession): Promise<{ role: string; name: string }[]> {
  const { nodes } = await client.send('Accessibility.getFullAXTree');
  return nodes.flatMap((n) =>
    n.ignored ? [] : [{ role: String(n.role?.value), name: String(n.name?.value ?? '').trim() }],
  );
}

async function expectNamesAndRoles(path: string, client: CDPSession): Promise<void> {
  await w.page.waitForFunction(() =>
    /\d|not known/i.test(document.querySelector('h1')?.textContent ?? ''),
  );
  const nodes = await accessibleNodes(client);
  const count = (role: string) => nodes.filter((n) => n.role === role).length;
  expect([path, count('banner'), count('main'), count('navigation') > 0]).toEqual([
    path,
    1,
    1,
    true,
  ]);
  const acts = nodes.filter((n) => ACTS.has(n.role));
  expect(acts.length).toBeGreaterThan(8);
  expect([path, acts.filter((n) => n.name === '')]).toEqual([path, []]);
}

/** Runs rules of axe in the page that is open, and says which elements break which. */
function violations(only: axe.RunOnly): Promise<string[]> {
  return w.page.evaluate(async (runOnly) => {
    const run = (window as unknown as { axe: typeof axe }).axe;
    const found = await run.run(document, { runOnly, resultTypes: ['violations'] });
    return found.violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html).join(' ')}`);
  }, only);
}

/** All rules in the light scheme; in the dark one, where only colours differ, those of contrast. */
async function expectNoViolation(path: string): Promise<void> {
  await w.page.evaluate(axe.source);
  // What fades in is looked at once it is there; a progress bar never ends.
  await w.page.evaluate(() =>
    Promise.allSettled(
      document
        .getAnimations()
        .filter((a) => a.effect?.getComputedTiming().iterations !== Infinity)
        .map((a) => a.finished),
    ),
  );
  // Rows of a list that are just being drawn have no names yet: what is found is looked for once more.
  const first = await violations({ type: 'tag', values: TAGS });
  const found = first.length === 0 ? first : await violations({ type: 'tag', values: TAGS });
  // Soft: one run names what is wrong on every page.
  expect.soft([path, found]).toEqual([path, []]);
  // Material fades labels to their new colour; with less motion they change at once.
  await w.page.emulateMediaFeatures([
    { name: 'prefers-color-scheme', value: 'dark' },
    { name: 'prefers-reduced-motion', value: 'reduce' },
  ]);
  const dark = await violations({ type: 'rule', values: ['color-contrast'] });
  expect.soft([path, 'dark', dark]).toEqual([path, 'dark', []]);
  await w.page.emulateMediaFeatures([]);
}

async function expectNoSidewaysScroll(path: string): Promise<void> {
  for (const size of NARROW) {
    await w.page.setViewport(size);
    // Charts draw themselves anew for the new width.
    await expect
      .poll(async () => ({ path, size, ...(await overWide()) }), { timeout: 5000 })
      .toEqual({ path, size, wide: false, names: [] });
  }
  await w.page.setViewport(WIDE);
}

afterEach(() => w.page.setViewport(WIDE));

describe('every page', () => {
  // One visit for all three: opening a page takes longer than looking at it.
  it.each(['setups', 'parts', 'runs', 'log'])(
    'is accessible and fits a phone: %s',
    async (which) => {
      const client = await w.page.createCDPSession();
      for (const path of (await places()).filter((p) => kindOf(p) === which)) {
        await w.open(path);
        await expectNamesAndRoles(path, client);
        await expectNoViolation(path);
        await expectNoSidewaysScroll(path);
      }
      await client.detach();
    },
  );

  it('does not scroll sideways when opened at 320 px', async () => {
    await w.page.setViewport(NARROW[0]!);
    for (const path of await places()) {
      await w.open(path);
      expect({ path, ...(await overWide()) }).toEqual({ path, wide: false, names: [] });
    }
  });

  it('holds still for who asked for less motion', async () => {
    await w.page.emulateMediaFeatures([{ name: 'prefers-reduced-motion', value: 'reduce' }]);
    await w.open((await places()).find((p) => p.endsWith('/plan'))!);
    await w.click('Try it: Cable too long for its kind');
    await w.sees('Trying: Take Withyline K-02');
    const moving = () =>
      w.page.evaluate(
        () =>
          document
            .getAnimations()
            .filter((a) => Number(a.effect?.getComputedTiming().duration) > 20).length,
      );
    expect(await moving()).toBe(0);
    await w.click('Put back');
    expect(await moving()).toBe(0);
    await w.page.emulateMediaFeatures([]);
  });
});

/** A desk, and a phone held upright. */
describe.each([
  ['1280', WIDE],
  ['390', { width: 390, height: 800 }],
])('what opens is accessible at %s px', (_, size) => {
  it('a menu, a dialog, and a form with errors', async () => {
    await w.page.setViewport(size);
    await w.open('/setups');
    await w.click('Actions for Dome desk');
    await w.sees('Log what happened');
    await expectNoViolation('menu of a setup');
    await w.click('Share', 'menuitem');
    await w.page.waitForSelector('mat-dialog-container');
    await expectNoViolation('dialog of a share file');
    await w.page.keyboard.press('Escape');
    await w.page.waitForFunction(() => !document.querySelector('mat-dialog-container'));
    await w.open('/scout');
    await w.fill('Budget', 'a lot');
    await w.page.keyboard.press('Tab');
    await w.page.waitForSelector('[aria-invalid=true]');
    await expectNoViolation('form with an error');
  });
});

describe('the keyboard', () => {
  /** Pages with the longest ways to a field. */
  const LONG_WAYS = [
    '/setups',
    '/trouble',
    '/compatibility/table',
    '/compatibility/claims',
    '/parts/host',
    '/parts/cable/new',
    '/parts/rates',
    '/bench/practice',
    '/workshop/loans',
    '/workshop/feeds',
    '/workshop/audit',
  ];
  const focused = (selector: string) =>
    w.page.evaluate((s) => document.activeElement?.matches(s) ?? false, selector);

  it.each(LONG_WAYS)('reaches a field in 12 tab stops: %s', async (path) => {
    await w.open(path);
    await w.page.waitForSelector('main input:not([hidden]), main mat-select');
    await w.page.keyboard.press('Tab');
    let stops = 0;
    do {
      // A skip link is taken, as somebody who works by keys does.
      if (await focused('.skip')) await w.page.keyboard.press('Enter');
      await w.page.keyboard.press('Tab');
      stops += 1;
    } while (
      stops <= 12 &&
      !(await focused('input, textarea, mat-select, [role=combobox], button[aria-pressed]'))
    );
    expect(stops).toBeLessThanOrEqual(12);
  });

  it('g goes places, arrows walk the strip, letters switch off', async () => {
    await w.open('/setups');
    await w.page.keyboard.press('g');
    await w.sees('Go to: s Setups');
    await w.page.keyboard.press('a');
    await w.sees('14 hosts in the catalogue.');
    const { items } = await w.api<{ items: Setup[] }>('/setups?q=dome');
    await w.open(`/setups/${items[0]!.id}/plan`);
    const tabs = await w.page.$$eval(
      '.targets button',
      (b) => b.filter((x) => (x as HTMLButtonElement).tabIndex === 0).length,
    );
    expect(tabs).toBe(1);
    await w.page.focus('.targets button[tabindex="0"]');
    await w.page.keyboard.press('End');
    for (let i = 0; i < 3; i++) await w.page.keyboard.press('ArrowLeft');
    const label = await w.page.evaluate(
      () => document.activeElement?.getAttribute('aria-label') ?? '',
    );
    expect(label).toMatch(/^Dock: D-4/);
    await w.page.keyboard.press('Enter');
    await w.page.waitForFunction(() => document.activeElement?.id === 'pick-dock');
    await w.page.keyboard.press('Tab');
    await w.page.evaluate(() => (document.activeElement as HTMLElement).blur());
    await w.page.keyboard.press('?');
    await w.sees('Switch single-letter keys off');
    await w.click('Switch single-letter keys off', 'checkbox');
    await w.click('Close');
    await w.page.waitForFunction(() => !document.querySelector('mat-dialog-container'));
    await w.page.keyboard.press('g');
    await w.page.keyboard.press('a');
    expect(w.page.url()).toContain('/plan');
  });
});
