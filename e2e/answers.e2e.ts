import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import type { Part } from '@ruddy/core/parts/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { world } from './harness';

const w = world();

const named = (model: string) => ({ maker: 'Fenmade', model, variant: '' });
const port = {
  key: 'rear',
  position: 'rear',
  mark: '40',
  connector: 'usb-c',
  standard: 'usb4-40',
  controller: 'built-in',
};
const PARTS = {
  host: {
    ...named('Box 1'),
    form: 'mini-pc',
    sockets: [{ ...port, pcieGen: 4, lanes: 4, tunnelling: null }],
  },
  cable: {
    ...named('Lead 1'),
    connector: 'usb-c',
    construction: 'passive',
    lengthMm: 700,
    markedGbps: 40,
    markedW: 100,
  },
  dock: {
    ...named('Case 1'),
    form: 'enclosure',
    connector: 'usb-c',
    uplink: 'usb4-40',
    controllerClass: 'c',
    slotGen: 3,
    slotLanes: 4,
    slotW: 75,
    supply: 'inside',
    supplyW: null,
    supplyStandard: 'atx3',
    chargeOutW: 0,
    airflowCfm: 60,
    cables8Pin: 2,
    cables8PinPair: 0,
    cables6Pin: 0,
    cables16Pin: 0,
    innerLengthMm: 330,
    innerHeightMm: 180,
    innerSlots: 3,
  },
  card: {
    ...named('Card 1'),
    pcieGen: 4,
    lanes: 16,
    boardW: 200,
    slotW: 66,
    plugs8Pin: 1,
    plugs6Pin: 0,
    plugs16Pin: 0,
    plugSide: 'top',
    plugAngled: 'no',
    lengthMm: null,
    heightMm: 115,
    slots: 2,
    cooler: 'open-air',
    chip: 'desktop',
  },
} as const;

/** A setup of parts of one's own in which three values are not known. */
async function threeOpen(variant = ''): Promise<{ setup: Setup; ids: Record<string, string> }> {
  const ids: Record<string, string> = {};
  for (const [kind, spec] of Object.entries(PARTS)) {
    ids[kind] = randomUUID();
    await w.api<Part>('/parts', {
      method: 'POST',
      body: JSON.stringify({ id: ids[kind], kind, spec: { ...spec, variant } }),
    });
  }
  const slots = {
    host: ids['host'],
    socket: 'rear',
    path: [ids['cable']],
    dock: ids['dock'],
    card: ids['card'],
  };
  const body = { id: randomUUID(), name: `Three answers ${variant}`.trim(), slots };
  return {
    setup: await w.api<Setup>('/setups', { method: 'POST', body: JSON.stringify(body) }),
    ids,
  };
}

const form = (title: string) => `form[aria-label="Answer: ${title}"]`;
async function type(title: string, words: string): Promise<void> {
  const box = await w.page.waitForSelector(`${form(title)} input`);
  await box?.evaluate((el) => (el as HTMLInputElement).select());
  await w.page.keyboard.press('Backspace');
  await box?.type(words);
  await w.page.keyboard.press('Enter');
}

describe('questions are answered where they are asked', () => {
  it('three answers lead from "not enough known" to "works"', async () => {
    const { setup, ids } = await threeOpen();
    await w.open(`/setups/${setup.id}/plan`);
    await w.sees(
      'Not enough known. Not known: link, watts and room. First: whether the rear port tunnels PCIe, 10 minutes.',
    );
    await w.sees('4 of 7 areas known');

    await w.page.waitForSelector(form('Tunnels PCIe of the rear port'));
    await (
      await w.page.$(`${form('Tunnels PCIe of the rear port')} mat-button-toggle button`)
    )?.click();
    await (await w.page.$(`${form('Tunnels PCIe of the rear port')} button[type=submit]`))?.click();
    await w.sees('Not known: watts and room.');

    // What cannot be read, or lies outside the limits, stays in its field with the reason beside it.
    await type('Supply rating of the dock', 'many');
    await w.sees('"many" is not a number');
    await type('Supply rating of the dock', '9000');
    await w.sees('Supply rating: 20 to 2000 W');
    await type('Supply rating of the dock', '450');
    await w.sees('Link fine at 26.0 Gb/s, watts fine at');
    await w.sees('Not known: room.');

    await type('Length of the card', '240');
    await w.sees(/Works: every hop carries 26\.0 Gb\/s or more/);
    await w.sees('7 of 7 areas known');
    expect(w.page.url()).toContain(`/setups/${setup.id}/plan`);
    const card = await w.api<Part>(`/parts/${ids['card']}`);
    expect(card.spec).toMatchObject({ lengthMm: 240 });
    expect(card.sources['lengthMm']).toMatchObject({
      from: 'measured',
      on: expect.stringMatching(/^\d{4}-\d\d-\d\d$/),
    });

    // The notice of this answer takes the place of the last one's, which leaves with a movement.
    await w.page.waitForFunction(() => {
      const notices = [...document.querySelectorAll<HTMLElement>('mat-snack-bar-container')];
      return notices.length === 1 && notices[0]?.innerText.includes('Length of the card: 240');
    });
    await w.page.locator('mat-snack-bar-container button').click();
    await w.sees('Not known: room.');
    expect((await w.api<Part>(`/parts/${ids['card']}`)).spec).toMatchObject({ lengthMm: null });
    await type('Length of the card', '240');
    await w.sees(/Works: every hop carries 26\.0 Gb\/s or more/);
  });

  it('a chosen part is edited beside its name', async () => {
    await w.click('Edit Fenmade Card 1');
    await w.sees('Edit the card');
    await w.fill('Length', '400');
    await (
      await w.page.waitForSelector('mat-dialog-container rb-part-form button[type=submit]')
    )?.click();
    await w.sees("Won't work: the card is too long");
  });

  it('an answer on the sheet is kept for one piece', async () => {
    const { setup, ids } = await threeOpen('on paper');
    const put = async (path: string, body: object) => {
      const { rev } = await w.api<{ rev: number }>(path);
      return w.api(path, {
        method: 'PATCH',
        headers: { 'if-match': `"${rev}"` },
        body: JSON.stringify(body),
      });
    };
    await put(`/parts/${ids['card']}`, { spec: { lengthMm: 240 } });
    await put(`/parts/${ids['dock']}`, { spec: { supplyW: 450 } });
    await put(`/parts/${ids['host']}`, {
      spec: { sockets: [{ ...PARTS.host.sockets[0], tunnelling: 'yes' }] },
    });
    await put(`/parts/${ids['cable']}`, { spec: { lengthMm: null } });
    const piece = { id: randomUUID(), partId: ids['cable'], label: 'Lead 1 a' };
    await w.api('/items', { method: 'POST', body: JSON.stringify(piece) });
    await put(`/setups/${setup.id}`, { slots: { items: { 'path/0': piece.id } } });

    await w.open(`/setups/${setup.id}/sheet`);
    await w.sees('Not known: 1');
    await w.page.waitForSelector(form('Length of the cable'));
    await w.page.locator(`${form('Length of the cable')} mat-checkbox input`).click();
    await type('Length of the cable', '650');
    await w.sees(/Works: every hop carries 26\.0 Gb\/s or more/);
    expect((await w.api<Part>(`/parts/${ids['cable']}`)).spec).toMatchObject({ lengthMm: null });
    const { items } = await w.api<{ items: { differs: object }[] }>(`/parts/${ids['cable']}/items`);
    expect(items[0]?.differs).toMatchObject({
      lengthMm: { value: 650, source: { from: 'measured' } },
    });
  });

  it('a comparison asks what either plan lacks', async () => {
    const { setup } = await threeOpen('compared');
    const { items } = await w.api<{ items: Setup[] }>('/setups?q=Sky%20survey');
    await w.open(`/compare/plans?of=${items[0]?.id},${setup.id}`);
    await w.sees('To find out for Three answers compared 3');
    await type('Supply rating of the dock', '450');
    await w.sees('To find out for Three answers compared 2');
    await type('Length of the card', '240');
    await w.sees('To find out for Three answers compared 1');
  });
});
