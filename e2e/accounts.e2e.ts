import axe from 'axe-core';
import { generateSync } from 'otplib';
import { describe, expect, it } from 'vitest';
import { DEMO_NOW } from '../scripts/lib/paths.mjs';
import { world } from './harness';

const PASSWORD = 'reeds and a slow heron';
const w = world({ beyond: { keeper: 'Keeper K', password: PASSWORD } });
const WCAG = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];
let recovery: string[] = [];

/** Somebody else at another browser, with the same or another password. */
const elsewhere = (password: string) =>
  fetch(`${w.url}/api/sign-in`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'user-agent': 'a browser elsewhere' },
    body: JSON.stringify({ name: 'Keeper K', password }),
  });

async function accessible(): Promise<void> {
  await w.page.evaluate(axe.source);
  const found = await w.page.evaluate(async (tags) => {
    const { axe: it } = window as unknown as { axe: typeof axe };
    return (await it.run(document, { runOnly: tags })).violations.map(
      (v) => `${v.id}: ${v.nodes[0]?.html ?? ''}`,
    );
  }, WCAG);
  expect(found).toEqual([]);
}

describe('WS-04 an account of one’s own', () => {
  it('another browser is seen and ended', async () => {
    const other = await elsewhere(PASSWORD);
    const cookie = other.headers
      .getSetCookie()
      .map((c) => c.split(';')[0])
      .join('; ');
    await w.open('/account');
    await w.fill('Name', 'Keeper K');
    await w.fill('Password', PASSWORD);
    await w.click('Sign in', 'button');
    await w.sees('Keeper K, keeper: signed in by password alone, in 2 browsers.');
    await w.click(/^End the session from .*, a browser elsewhere$/);
    await w.sees('That session ended.');
    await w.sees('in 1 browser.');
    expect((await fetch(`${w.url}/api/setups`, { headers: { cookie } })).status).toBe(401);
    await accessible();
  });

  it('one-time codes are turned on with a first code', async () => {
    await w.click('Turn on');
    await w.sees('Scan this with an authenticator program');
    const secret = (await w.text('.scan .mono')).replaceAll(' ', '');
    await accessible();
    await w.fill('One-time code', '000000');
    await w.click('Turn on');
    await w.sees('does not fit; look at the clock of the device too');
    const epoch = Math.floor(Date.parse(DEMO_NOW) / 1000);
    await w.fill('One-time code', generateSync({ secret, epoch }));
    await w.click('Turn on');
    await w.sees('Keep these 10 recovery codes now');
    recovery = (await w.text('.codes')).split(/\s+/);
    expect(recovery).toHaveLength(10);
    await accessible();
  });

  it('then the sign-in asks; a recovery code stands in once', async () => {
    await w.click(/^Keeper K, keeper$/);
    await w.click('Sign out');
    await w.fill('Name', 'Keeper K');
    await w.fill('Password', PASSWORD);
    await w.click('Sign in', 'button');
    await w.sees('A recovery code stands in once.');
    await w.fill('One-time code', 'wrong-codes');
    await w.click('Sign in', 'button');
    await w.sees('does not fit, or was used already');
    await w.fill('One-time code', recovery[0]!);
    await w.click('Sign in', 'button');
    await w.sees('signed in with one-time codes, in 1 browser.');
    await w.sees('Recovery codes left: 9.');
  });

  it('an act of keepers asks for the password again, and goes on', async () => {
    w.sql(`UPDATE sessions SET confirmed_at = confirmed_at - interval '6 minutes'`);
    await w.open('/workshop/members');
    await w.fill('Name', 'Lender L');
    await w.click('Add member');
    await w.sees('Give your password again');
    await w.click('Cancel');
    await w.sees('it was given more than 5 minutes ago');
    await w.click('Add member');
    await w.fill('Your password', 'not this one at all');
    await w.click('Go on');
    await w.sees('The password is another one');
    await w.fill('Your password', PASSWORD);
    await w.click('Go on');
    await w.fill('One-time code', recovery[1]!);
    await w.click('Go on');
    await w.sees('Lender L is a member');
  });

  it('an easily guessed password is refused with the reason', async () => {
    await w.open('/account');
    await w.fill('Current password', PASSWORD);
    await w.fill('New password', 'password1234');
    await w.click('Save password');
    await w.sees('easily guessed, it is made of common passwords and words');
  });
});

describe('WS-03 the audit trail', () => {
  it('says who did what, and finds what was refused', async () => {
    await elsewhere('not this one at all');
    await w.open('/workshop/audit');
    await w.sees(/^.*\d+ entries since .*; each is kept 400 days\./);
    await w.sees(/Keeper K .*Member or role Lender L: member done/);
    await accessible();
    await w.pick('Result', 'refused');
    await w.sees('refused: Name and password do not belong together');
    await w.fill('Who, about or address', 'lender');
    await w.page.keyboard.press('Enter');
    await w.sees('0 entries fit this filter.');
    expect(await w.page.evaluate(() => location.search)).toContain('q=lender');
  });

  it('is kept as long as a keeper says', async () => {
    await w.open('/workshop/audit');
    await w.fill('Keep', '60');
    await w.click('Save', 'button');
    await w.sees('each is kept 60 days.');
  });
});
