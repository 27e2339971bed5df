import { randomUUID } from 'node:crypto';
import { describe, expect, it } from 'vitest';
import type { Act } from '@ruddy/core/bench';
import type { Bench } from '@ruddy/core/bench/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { world } from './harness';

const w = world();

async function setupId(name: string): Promise<string> {
  const r = await w.api<{ items: Setup[] }>(`/setups?q=${encodeURIComponent(name)}`);
  return r.items[0]!.id;
}
const post = <T>(path: string, body: object) =>
  w.api<T>(path, { method: 'POST', body: JSON.stringify(body) });
const act = (id: string, a: Act) =>
  post<Bench>(`/benches/${id}/acts`, { id: randomUUID(), act: a });
const benchId = () => w.page.url().split('/bench/')[1] ?? '';

async function lay(name: string, setup: string, over: object = {}): Promise<Bench> {
  return post('/benches', {
    id: randomUUID(),
    name,
    setupId: await setupId(setup),
    seed: 4,
    speed: 0,
    ...over,
  });
}
async function broughtUp(name: string, setup: string): Promise<Bench> {
  const { id, chain } = await lay(name, setup);
  const acts: Act[] = [
    { act: 'plug', socket: chain.socket ?? '' },
    { act: 'mains', on: true },
    { act: 'dock', on: true },
    { act: 'host', to: 'on' },
  ];
  for (const a of acts) await act(id, a);
  await post(`/benches/${id}/clock`, { stepMs: 30_000 });
  await act(id, { act: 'approve', how: 'always' });
  return post(`/benches/${id}/clock`, { stepMs: 10_000 });
}

describe('BE-01 a bench in the browser', () => {
  it('is created from a setup and brought up to load', async () => {
    await w.open('/bench');
    await w.sees('0 benches.');
    await w.pick('With the parts of', 'Sky survey rig');
    await w.click('Create bench');
    await w.sees('Nothing plugged: 0 of 1 cables in, 0 of 3 switches on.');
    await w.click('Hold');
    await w.click('Plug of the cable');
    await w.sees('In hand: the plug of the cable. Choose a port.');
    await w.click('Plug in here');
    await w.sees('Contact: somebody is at the other end.');
    for (const name of ['Mains: In', 'Dock: On', 'Host: On']) await w.click(name);
    await w.click('To what happens next');
    await w.sees('Host is up.');
    await w.click('To what happens next');
    await w.click('10 s on');
    await w.sees('Up and at rest: 26.0 Gb/s to the card');
    await w.click('Load: On');
    await w.sees('Under load: 26.0 Gb/s to the card, ×4 Gen3.');
  });

  it('the strip says the same in words, live', async () => {
    await w.click('Read the diagram as text');
    await w.sees('up, under load');
    await w.sees('since contact');
    expect(await w.page.$$eval('.ribbon.core', (r) => r.length)).toBeGreaterThanOrEqual(3);
  });

  it('is read off by the probe: devices, router, copy rates', async () => {
    await w.click('Read it off');
    await w.sees(/Copy rate 2[3-6]\.\d+ Gb\/s to the card/);
    await w.sees('graphics');
    await w.sees('Router 0-1');
  });

  it('a hidden fault shows as a real one would, and is mended', async () => {
    await w.pick('Hide a fault', 'Supply gives way under load');
    await w.click('Hide it');
    await w.sees('1 fault hidden.');
    await w.click('Load: Off');
    await w.click('Load: On');
    await w.click('10 min on');
    await w.sees('The supply gave way: the lamp of the dock went out.');
    await w.click('Mend: Supply gives way under load');
    await w.sees('0 faults hidden: this bench is sound.');
  });

  it('works by keys alone', async () => {
    const { id } = await lay('Keys', 'Dome desk');
    await w.open(`/bench/${id}`);
    for (const key of ['4', '1', '2', '3'] as const) await w.page.keyboard.press(key);
    await w.sees('Host starts.');
    await w.page.keyboard.press('.');
    await w.sees('Host is up.');
    for (let i = 0; i < 8; i++) await w.page.keyboard.press('.');
    await w.sees(/Up and at rest|waits for approval/);
  });

  it('a part is dragged from the shelf to its place', async () => {
    const { id } = await lay('Drag', 'Dome desk');
    await w.open(`/bench/${id}`);
    await w.pick('Kind', 'card');
    // The shelf shows cards once no line of it speaks of sockets.
    await w.page.waitForFunction(() => {
      const all = [...document.querySelectorAll<HTMLElement>('.shelf li button')];
      return all.length > 1 && all.every((b) => !b.innerText.includes('port'));
    });
    const name = await w.page.$eval(
      '.shelf li:last-child button span',
      (el) => (el as HTMLElement).innerText,
    );
    await w.page.evaluate(() => document.querySelector('.shelf ul')?.scrollTo(0, 10_000));
    const start = await w.page.$eval('.shelf li:last-child button', (el) => {
      el.scrollIntoView({ block: 'center' });
      const r = el.getBoundingClientRect();
      return { x: r.x + 20, y: r.y + r.height / 2 };
    });
    const goal = await w.page.$eval('.places > li:nth-child(4)', (el) => {
      const r = el.getBoundingClientRect();
      return { x: r.x + 60, y: r.y + r.height / 2 };
    });
    await w.page.mouse.move(start.x, start.y);
    await w.page.mouse.down();
    for (let i = 1; i <= 10; i++)
      await w.page.mouse.move(
        start.x + ((goal.x - start.x) * i) / 10,
        start.y + ((goal.y - start.y) * i) / 10,
      );
    await w.page.mouse.up();
    await w.page.waitForFunction(
      (n) =>
        (document.querySelector('.places > li:nth-child(4)') as HTMLElement).innerText.includes(n),
      {},
      name,
    );
    await w.sees('Another card on the bench.');
  });

  it('missing and cleared benches are said to be so', async () => {
    await w.open(`/bench/${randomUUID()}`);
    await w.sees('No bench has this address; 0 were opened.');
    const { id } = await lay('Going', 'Dome desk');
    await w.open(`/bench/${id}`);
    await w.api(`/benches/${id}`, { method: 'DELETE' });
    await w.sees('This bench was cleared away; 0 parts are left on it.');
  });
});

describe('BU-06 and BU-12 from the bench', () => {
  it('a reading is taken from a bench of the setup and stored', async () => {
    await broughtUp('For the check', 'Sky survey rig');
    await w.open(`/setups/${await setupId('Sky survey rig')}/bring-up?view=link`);
    await w.sees('For the check: up, at rest');
    await w.click('Read under load');
    await w.sees(/of 26\.0 Gb\/s, 9\d %: healthy/);
    await w.sees(/\d+ devices read\./);
    await w.click('Save reading');
    await w.sees('Saved readings 2');
  });

  it('a bench with no system running says what to do', async () => {
    await lay('Dark', 'Stacking PC');
    await w.open(`/setups/${await setupId('Stacking PC')}/bring-up?view=link`);
    await w.click('Read as it is');
    await w.sees('Nothing read: no system runs on that bench.');
  });

  it('a report dropped on Plan fills the host: names, kind and ports', async () => {
    const { id } = await broughtUp('For Plan', 'Plate scanner');
    const { report } = await post<{ report: object }>(`/benches/${id}/read`, {});
    await w.open('/setups');
    await w.click('New setup', 'button');
    await w.page.waitForSelector('section.parts');
    const drop = (name: string, text: string) =>
      w.page.$eval(
        'section.parts',
        (el, n, t) => {
          const dataTransfer = new DataTransfer();
          dataTransfer.items.add(new File([t], n));
          el.dispatchEvent(
            new DragEvent('drop', { dataTransfer, bubbles: true, cancelable: true }),
          );
        },
        name,
        text,
      );
    await drop('notes.txt', 'my card is slow');
    await w.sees('Nothing filled in. notes.txt: Not read: no line begins like a device');
    await drop('report.json', JSON.stringify(report));
    await w.sees('Describe the host');
    const maker = await w.page.$$eval('mat-dialog-content input', (all) =>
      all.map((i) => (i as HTMLInputElement).value),
    );
    expect(maker).toEqual(expect.arrayContaining(['Staithewright', 'M-3']));
  });

  it('the probe is handed out as it is', async () => {
    const text = await (await fetch(`${w.url}/probe.mjs`)).text();
    expect(text).toContain('ruddy-bridge/report');
  });
});

describe('BE-04 two servers, one of them killed', () => {
  it('an act on A shows through B, also without A', async () => {
    const b = await w.another();
    const { id, chain } = await lay('Shared', 'Dome desk', { speed: 100 });
    await w.page.goto(`${b}/bench/${id}`);
    await w.sees('Nothing plugged');
    await act(id, { act: 'plug', socket: chain.socket ?? '' });
    await w.sees('Contact: somebody is at the other end.');
    await act(id, { act: 'mains', on: true });
    await act(id, { act: 'dock', on: true });
    await act(id, { act: 'host', to: 'on' });
    await w.sees('Host starts.');
    await w.kill();
    // Nobody but B is left to move the bench on.
    await w.sees('Host is up.');
    await w.sees(/Router up/);
    await w.click('Host: Off');
    await w.sees('Host off.');
    await w.revive();
    const { log, seq } = await w.api<Bench>(`/benches/${id}`);
    expect(log.map((e) => e.seq)).toEqual(Array.from({ length: seq }, (_, i) => i + 1));
    expect(benchId()).toBe(id);
  });
});
