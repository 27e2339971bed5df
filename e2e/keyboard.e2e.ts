import { describe, expect, it } from 'vitest';
import type { Setup } from '@ruddy/core/setups/contract';
import { world } from './harness';

const w = world();

/** The name a screen reader would say of what has the focus, and its role, from the browser's own accessibility tree. */
async function focused(): Promise<{ role: string; name: string }> {
  const client = await w.page.createCDPSession();
  try {
    const { result } = await client.send('Runtime.evaluate', {
      expression: 'document.activeElement',
    });
    const { nodes } = await client.send('Accessibility.getPartialAXTree', {
      objectId: result.objectId!,
      fetchRelatives: false,
    });
    const [n] = nodes;
    return { role: String(n?.role?.value ?? ''), name: String(n?.name?.value ?? '') };
  } finally {
    await client.detach();
  }
}

/** Tab on until something with this name has the focus; everything on the way has a name and can be seen. */
async function tabTo(name: RegExp, key: 'Tab' | 'Shift+Tab' = 'Tab', most = 150): Promise<void> {
  for (let i = 0; i < most; i++) {
    if (key === 'Tab') await w.page.keyboard.press('Tab');
    else {
      await w.page.keyboard.down('Shift');
      await w.page.keyboard.press('Tab');
      await w.page.keyboard.up('Shift');
    }
    const at = await focused();
    if (name.test(at.name)) return;
    // After the last control the focus is nowhere, and then at the first one.
    const nowhere = await w.page.evaluate(() => document.activeElement === document.body);
    expect({ at, named: nowhere || at.name !== '' }).toEqual({ at, named: true });
  }
  throw new Error(`nothing called ${name} within ${most} steps`);
}

/** What lies over the middle of what has the focus; null when nothing does. */
function covered(): Promise<string | null> {
  return w.page.evaluate(() => {
    const el = document.activeElement as HTMLElement;
    const r = el.getBoundingClientRect();
    if (el === document.body || r.width === 0) return null;
    const x = Math.min(Math.max(r.left + r.width / 2, 0), innerWidth - 1);
    const y = Math.min(Math.max(r.top + r.height / 2, 0), innerHeight - 1);
    const top = document.elementFromPoint(x, y);
    const seen =
      top && (el.contains(top) || top.contains(el) || top.closest('label')?.contains(el));
    return seen ? null : `${el.outerHTML.slice(0, 120)} under ${top?.outerHTML.slice(0, 120)}`;
  });
}

const press = (key: 'Enter' | 'Space' | 'Escape' | 'ArrowDown' | 'End') =>
  w.page.keyboard.press(key);
const type = (words: string) => w.page.keyboard.type(words);

/** Types into a picker and takes its first option, once the list answers the last letter. */
async function pick(words: string, option: RegExp): Promise<void> {
  await type(words);
  await w.page.waitForFunction(
    (s) => {
      const options = document.querySelectorAll('[role="option"]');
      return new RegExp(s).test((options[0] as HTMLElement | undefined)?.innerText ?? '');
    },
    { polling: 50 },
    option.source,
  );
  await press('ArrowDown');
  await press('Enter');
}

const setups = async (q: string) => (await w.api<{ items: Setup[] }>(`/setups?q=${q}`)).items;

describe('the main job without a mouse', () => {
  it('a chain is chosen by keys and its verdict said', async () => {
    await w.open('/setups');
    await tabTo(/^Check a combination/);
    await press('Enter');
    await w.page.waitForFunction(() => location.pathname.endsWith('/plan'));
    await w.sees(/Not enough known|Nothing chosen/i);
    await tabTo(/^Setup name/);
    await w.page.keyboard.down('Control');
    await w.page.keyboard.press('a');
    await w.page.keyboard.up('Control');
    await type('By hand alone');
    await press('Enter');
    await tabTo(/^Host/);
    await pick('L-13 2025', /Harnsey L-13 2025/);
    await tabTo(/^Port/);
    expect((await focused()).role).toMatch(/combobox|button|radio/);
    await press('ArrowDown');
    await press('ArrowDown');
    await tabTo(/^Cable/);
    await pick('K-02', /K-02/);
    await tabTo(/^Dock/);
    await pick('D-4', /D-4/);
    await tabTo(/^Card/);
    await pick('C-20', /C-20/);
    await w.sees(/every hop carries|with care/);
    await expect
      .poll(async () => (await setups('By hand alone'))[0]?.slots)
      .toMatchObject({
        host: expect.any(String),
        dock: expect.any(String),
        card: expect.any(String),
      });
  });

  it('a reading is typed at the link check by keys', async () => {
    await w.page.keyboard.press('Escape');
    await w.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await type('gb');
    await w.page.waitForFunction(() => location.pathname.endsWith('/bring-up'));
    await tabTo(/^Begin/);
    await press('Enter');
    await w.sees(/Step 1 of \d+: /);
    await tabTo(/^Done/);
    await press('Enter');
    await w.sees(/Step 2 of \d+: .+ 1 done/);
    await w.stored();
  });

  it('its outcome is logged', async () => {
    await w.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await type('ge');
    await w.page.waitForFunction(() => location.pathname.endsWith('/record'));
    await tabTo(/^Works/);
    await press('Space');
    await tabTo(/^Log outcome/);
    await press('Enter');
    const [made] = await setups('By hand alone');
    await w.sees(/1 outcome logged; the newest, 20 Nov 2026: works/);
    const { items } = await w.api<{ items: { outcome: string }[] }>(
      `/outcomes?setupId=${made!.id}`,
    );
    expect(items.map((o) => o.outcome)).toEqual(['works']);
  });

  it('and a search for a cause is begun', async () => {
    await w.page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
    await type('gt');
    await w.page.waitForFunction(() => location.pathname.endsWith('/troubleshoot'));
    await tabTo(/^It drops or the dock restarts under load/);
    await press('Space');
    await tabTo(/^Find the cause/);
    await press('Enter');
    await w.sees(/Next: .+ Most suspect: /);
  });

  it('the focus is never under what stays in place', async () => {
    const [made] = await setups('By hand alone');
    for (const size of [
      { width: 1280, height: 800 },
      { width: 640, height: 400 },
    ]) {
      await w.page.setViewport(size);
      await w.open(`/setups/${made!.id}/plan`);
      for (let i = 0; i < 60; i++) {
        await w.page.keyboard.press('Tab');
        // A list that closes as the focus leaves it may take a moment.
        await expect.poll(covered).toBeNull();
      }
    }
    await w.page.setViewport({ width: 1280, height: 800 });
  });
});
