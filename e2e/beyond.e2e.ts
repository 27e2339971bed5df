import { describe, expect, it } from 'vitest';
import { world } from './harness';

const PASSWORD = 'reeds and a slow heron';
const w = world({
  beyond: { keeper: 'Keeper K', password: PASSWORD },
  screen: { width: 390, height: 844, hasTouch: true, isMobile: true },
});

const as =
  (name: string, password = PASSWORD) =>
  async () => {
    await w.fill('Name', name);
    await w.fill('Password', password);
    await w.click('Sign in', 'button');
  };
const inPage = <T>(path: string, init?: RequestInit) =>
  w.page.evaluate(
    async (p, i) => {
      const r = await fetch(`/api${p}`, { ...i, headers: { 'content-type': 'application/json' } });
      return { status: r.status, body: (await r.json()) as never };
    },
    path,
    init ?? {},
  ) as Promise<{ status: number; body: T }>;

/**
 * Does the page fit: nothing to scroll sideways, and what is tapped is large enough (WCAG 2.2, 2.5.8: 24 px). The strip's own targets are not shown at
 * this width: its list of lines stands there instead.
 */
async function fits(): Promise<void> {
  const found = await w.page.evaluate(() => {
    const small = [
      ...document.querySelectorAll<HTMLElement>(
        'main button, main select, main input:not([type=checkbox]):not([type=radio])',
      ),
    ]
      .filter(
        (e) =>
          e.checkVisibility({ visibilityProperty: true }) &&
          !e.closest('.targets') &&
          // The whole field takes the press.
          (e.closest('mat-form-field') ?? e).getBoundingClientRect().height < 24,
      )
      .map((e) => e.outerHTML.slice(0, 120));
    return { wide: document.documentElement.scrollWidth, small };
  });
  expect(found).toEqual({ wide: 390, small: [] });
}

describe('WS-04 beyond this machine, on a phone beside the bench', () => {
  it('tells a guest nothing, and says why a wrong password is none', async () => {
    await w.open('/setups');
    await w.sees('Sign in: 0 pages are open to guests.');
    expect((await fetch(`${w.url}/api/setups`)).status).toBe(401);
    expect((await fetch(`${w.url}/api/bundle`)).status).toBe(401);
    expect(await w.page.evaluate(() => document.body.innerText)).not.toContain('Sky survey rig');
    await as('Keeper K', 'a wrong one entirely')();
    await w.sees('Not signed in. Name and password do not belong together');
    await as('keeper k')();
    await w.sees('Sky survey rig');
    await fits();
  });

  it('BU-06 a reading typed on the phone is graded against the chain', async () => {
    const { body } = await inPage<{ items: { id: string; name: string }[] }>('/setups?q=Meridian');
    const id = body.items[0]?.id ?? '';
    await w.open(`/setups/${id}/bring-up?view=link`);
    await fits();
    await w.fill('Copy rate', '22,4');
    await w.sees(/22\.4 of \d+\.\d Gb\/s, \d+ %/);
    await fits();
    const stored = await w.page.evaluate(() =>
      Number(/Saved readings (\d+)/.exec(document.body.innerText.replace(/\s+/g, ' '))?.[1] ?? 0),
    );
    await w.click('Save reading');
    await w.sees(`Saved readings ${stored + 1}`);
    const record = await inPage<{ items: { kind: string; by: string }[] }>(`/setups/${id}/record`);
    expect(record.body.items.filter((e) => e.kind === 'reading').map((e) => e.by)).toContain(
      'Keeper K',
    );
  });

  it('TR on the phone: a tap answers, the suspicion moves', async () => {
    const { body } = await inPage<{ items: { id: string }[] }>('/setups?q=Meridian');
    await w.open(`/setups/${body.items[0]?.id}/troubleshoot`);
    await fits();
    await w.click('It drops or the dock restarts under load', 'checkbox');
    await w.click('Find the cause');
    await w.sees(/Next: .+, \d+ minutes?\. Most suspect: .+, \d+ %\./);
    await fits();
    const before = await w.text('h1');
    await w.click("Can't do this");
    await w.page.waitForFunction(
      (h) => document.querySelector('h1')?.innerText.replace(/\s+/g, ' ').trim() !== h,
      { polling: 50 },
      before,
    );
    await w.sees(/Most suspect: .+, \d+ %/);
    await fits();
  });

  it('a keeper writes a reader down, who sees all and changes nothing', async () => {
    await w.open('/workshop/members');
    await fits();
    await w.fill('Name', 'Reader R');
    await w.pick('Role$', /^reader/i);
    await w.fill('Password', PASSWORD);
    await w.click('Add member');
    await w.sees('Reader R is a member and can sign in.');
    await w.click(/^Reader R, reader|, keeper$/);
    await w.click('Sign out');
    await w.sees('Sign in: 0 pages are open to guests.');
    await as('Reader R')();
    await w.sees('Reader R can read only: changes on a page are not saved.');
    await w.open('/workshop/loans');
    await w.sees('3 items are out');
    await fits();
    expect(await w.page.evaluate(() => document.body.innerText)).not.toContain('Return …');
    expect((await inPage('/demo', { method: 'DELETE' })).status).toBe(403);
    expect((await inPage('/rules/scout.equalPercent', { method: 'PUT', body: '{}' })).status).toBe(
      403,
    );
  });

  it('a session that ended keeps what was open behind the sign-in', async () => {
    await w.open('/setups');
    await w.sees('Sky survey rig');
    await w.page.evaluate(() =>
      fetch('/api/sign-out', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: '{}',
      }),
    );
    await w.page.evaluate(() => (location.hash = ''));
    await w.click('Pages');
    await w.click('Workshop', 'menuitem');
    await w.sees('0 changes are lost: sign in again to go on.');
    await as('Reader R')();
    await w.sees(/Reader R can read only/);
  });

  it('another site can neither ask nor be asked for', async () => {
    const headers = { 'content-type': 'application/json', origin: 'http://evil.example' };
    expect(
      (await fetch(`${w.url}/api/sign-in`, { method: 'POST', headers, body: '{}' })).status,
    ).toBe(403);
    const shown = await fetch(`${w.url}/setups`);
    expect(shown.headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
  });
});
