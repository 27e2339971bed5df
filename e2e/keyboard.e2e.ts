import { describe, expect, it } from 'vitest';
import type { Setup } from '@ruddy/core/api';
import { world } from './harness';

const w = world();

/** The name a screen reader would say of what has the focus, and its role, from the browser's own accessibility tree. */
async function focused(): Promise<{ role: string; name: string }> {
  const client = await w.page.createCDPSession();
  try {
    const { result } = await client.send('Runtime.evaluate', { expression: 'document.activeElement' });
    const { nodes } = await client.send('Accessibility.getPartialAXTree', { objectId: result.objectId!, fetchRelatives: false });
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
    expect({ at, named: at.role === 'RootWebArea' || at.name !== '' }).toEqual({ at, named: true });
  }
  throw new Error(`nothing called ${name} within ${most} steps`);
}

const press = (key: 'Enter' | 'Space' | 'Escape' | 'ArrowDown' | 'End') => w.page.keyboard.press(key);
const type = (words: string) => w.page.keyboard.type(words);

async function pick(words: string, option: RegExp): Promise<void> {
  await type(words);
  await w.sees(option);
  await press('ArrowDown');
  await press('Enter');
}

const setups = async (q: string) => (await w.api<{ items: Setup[] }>(`/setups?q=${q}`)).items;

describe('the main job without a mouse', () => {
  it('a host is described, its port, cable, dock and card chosen, and the verdict is said', { timeout: 120_000 }, async () => {
    await w.open('/setups');
    await tabTo(/^I am thinking of buying/);
    await press('Enter');
    await w.page.waitForFunction(() => location.pathname.endsWith('/plan'));
    await w.sees(/Not enough known|Nothing chosen/i);
    await tabTo(/^Name of the setup/);
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
    await tabTo(/^Cable/);
    await pick('K-02', /K-02/);
    await tabTo(/^Dock/);
    await pick('D-4', /D-4/);
    await tabTo(/^Card/);
    await pick('C-20', /C-20/);
    await w.sees(/every hop carries|with care/);
    const [made] = await setups('By hand alone');
    expect(made?.slots).toMatchObject({ host: expect.any(String), dock: expect.any(String), card: expect.any(String) });
  });
});
