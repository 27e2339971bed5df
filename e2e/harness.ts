import { randomUUID } from 'node:crypto';
import { spawnSync, type ChildProcess } from 'node:child_process';
import { rmSync } from 'node:fs';
import { networkInterfaces } from 'node:os';
import { join } from 'node:path';
import puppeteer, { type Browser, type ElementHandle, type Page } from 'puppeteer-core';
import { afterAll, afterEach, beforeAll, inject } from 'vitest';
import { openCluster, type Cluster } from '../scripts/lib/cluster.mjs';
import { chromium, CHROMIUM_FLAGS } from '../scripts/lib/chromium.mjs';
import {
  COMMANDS_FILE,
  DEMO_FILE,
  DEMO_NOW,
  TEST_DATA_DIR,
  WEB_DIR,
} from '../scripts/lib/paths.mjs';
import { patient } from '../scripts/lib/patience.mjs';
import { startServer, stopServer } from '../scripts/lib/server.mjs';
import './global-setup';

export interface World {
  page: Page;
  url: string;
  /** What the browser complained about; every test ends with none. */
  complaints: string[];
  api<T>(path: string, init?: RequestInit): Promise<T>;
  /** Wait until all that was noted at the setup that is open is stored; of any setup where none is. */
  stored(): Promise<void>;
  /** Kill the server at once, as a power cut would, or start it again where it was. */
  kill(): Promise<void>;
  revive(): Promise<void>;
  /** Changes the database behind the server's back, as where a test cannot wait for time to pass. */
  sql(statement: string): void;
  /** Another server process on the same database; gives its address. It ends with the file. */
  another(): Promise<string>;
  open(path: string): Promise<void>;
  /** Wait until the page shows some words. */
  sees(words: string | RegExp): Promise<void>;
  text(selector: string): Promise<string>;
  /** Click what a person would call by this name: a button, link, tab or option. */
  click(name: string | RegExp, role?: string): Promise<void>;
  /** Put words into the field with this label. */
  fill(label: string, words: string): Promise<void>;
  /** Wait until the field with this label holds these words. */
  has(label: string, words: string): Promise<void>;
  /** Choose an option of the choice with this label. */
  pick(label: string, option: string | RegExp): Promise<void>;
  /** Choose a part by typing some of its name into a picker. */
  choose(label: string, words: string, option: string): Promise<void>;
}

/** A section opened by its line takes a moment to show: typing before it would go to another field of the same name. */
async function unfolded(line: ElementHandle<HTMLElement>): Promise<void> {
  await line
    .evaluate(async (el) => {
      const section = () =>
        document.getElementById(
          (el.ariaExpanded === 'true' && el.getAttribute('aria-controls')) || 'none',
        );
      const shown = () => section()?.checkVisibility({ visibilityProperty: true }) ?? true;
      await new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
      for (let i = 0; i < 120 && !shown(); i++) await new Promise(requestAnimationFrame);
    })
    // The click led to another page.
    .catch((e: unknown) => {
      if (!/detached|destroyed/.test(String(e))) throw e;
    });
}

/** Click where an element is once it has come to rest; true when the click reached it. */
async function hits(element: ElementHandle<HTMLElement>): Promise<boolean> {
  await element.evaluate(async (el) => {
    el.scrollIntoView({ block: 'center' });
    // A dialog that still opens moves its buttons: a click goes where they have come to rest.
    const at = () => JSON.stringify(el.getBoundingClientRect());
    const frame = () => new Promise((resolve) => requestAnimationFrame(resolve));
    let before = '';
    for (let i = 0; i < 60 && before !== at(); i++) {
      before = at();
      await frame();
      await frame();
    }
    const seen = window as { reached?: boolean };
    seen.reached = false;
    document.addEventListener('click', (e) => (seen.reached = e.composedPath().includes(el)), {
      capture: true,
      once: true,
    });
  });
  await element.click();
  // A click that led to another document did reach what led there.
  return element
    .evaluate(() => (window as { reached?: boolean }).reached === true)
    .catch(() => true);
}

export interface WorldOptions {
  demo?: boolean;
  /** Reachable from other machines too: then this keeper is made first, and people sign in. */
  beyond?: { keeper: string; password: string };
  /** With a place for backups of its own. */
  backups?: boolean;
  /** How wide and high the screen is; as a desk when left out. */
  screen?: { width: number; height: number; hasTouch?: boolean; isMobile?: boolean };
}

/** An address of this machine in its network, as a phone would use it; its own where it has none. */
function addressBeyond(): string {
  const all = Object.values(networkInterfaces()).flatMap((list) => list ?? []);
  return all.find((a) => !a.internal && a.family === 'IPv4')?.address ?? '127.0.0.1';
}

/** One built server with the demo world, one browser and one page for the tests of a file. */
export function world(options: WorldOptions = {}): World {
  const w = { complaints: [] as string[] } as World;
  let cluster: Cluster;
  let browser: Browser;
  let server: ChildProcess;
  const others: ChildProcess[] = [];
  const backupDir = join(TEST_DATA_DIR, `backups-${randomUUID()}`);
  const database = `e2e_${randomUUID().replaceAll('-', '')}`;

  beforeAll(async () => {
    cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
    const template = options.demo === false ? 'template1' : inject('demoTemplate');
    cluster.createDatabase(database, template);
    const begin = async (port: string) => {
      const started = await startServer({
        DATABASE_URL: cluster.url(database),
        RUDDY_RESTORE_URL: cluster.restoreUrl(database),
        PORT: port,
        RUDDY_WEB_DIR: WEB_DIR,
        RUDDY_NOW: DEMO_NOW,
        RUDDY_LOG: 'error',
        RUDDY_DEMO_FILE: DEMO_FILE,
        RUDDY_EMPTY: options.demo === false ? '1' : '',
        HOST: options.beyond ? '0.0.0.0' : '',
        RUDDY_PG_BIN: cluster.programs.bin,
        RUDDY_BACKUP_DIR: options.backups ? backupDir : '',
        ...cluster.programs.env,
      });
      if (started.port === undefined) throw new Error('the server did not start');
      return { child: started.child, port: String(started.port) };
    };
    const serve = async (at: string): Promise<string> => {
      const { child, port } = await begin(at);
      server = child;
      return port;
    };
    if (options.beyond) {
      const { keeper, password } = options.beyond;
      const env = { ...process.env, DATABASE_URL: cluster.url(database) };
      const made = spawnSync(process.execPath, [COMMANDS_FILE, 'keeper', keeper], {
        env,
        input: `${password}\n`,
        encoding: 'utf8',
      });
      if (made.status !== 0) throw new Error(`no keeper: ${made.stderr}`);
    }
    const port = await serve('0');
    w.url = `http://${options.beyond ? addressBeyond() : '127.0.0.1'}:${port}`;
    w.sql = (statement) => {
      cluster.psql(database, statement);
    };
    w.kill = () =>
      new Promise((resolve) => {
        server.once('exit', () => resolve());
        server.kill('SIGKILL');
      });
    w.another = async () => {
      const { child, port } = await begin('0');
      others.push(child);
      return `http://127.0.0.1:${port}`;
    };
    w.revive = async () => {
      await serve(port);
    };
    browser = await puppeteer.launch({ executablePath: chromium(), args: CHROMIUM_FLAGS });
    w.page = await browser.newPage();
    await w.page.setViewport(options.screen ?? { width: 1280, height: 800 });
    w.page.setDefaultTimeout(patient(20_000));
    w.page.on('console', (m) => {
      // A refused edit is a 4xx by design; the page shows it, and the test reads it there.
      if (m.type() === 'error' && !/status of 4\d\d/.test(m.text())) w.complaints.push(m.text());
    });
    w.page.on('pageerror', (e) => w.complaints.push(String(e)));
  });

  afterEach(() => {
    const found = w.complaints.splice(0);
    if (found.length > 0) throw new Error(`the browser complained: ${found.join('; ')}`);
  });

  afterAll(async () => {
    await browser?.close();
    for (const s of [server, ...others]) if (s) await stopServer(s);
    cluster?.psql('postgres', `DROP DATABASE IF EXISTS ${database} WITH (FORCE)`);
    cluster?.close();
    if (options.backups) rmSync(backupDir, { recursive: true, force: true });
  });

  w.api = async (path, init) => {
    const r = await fetch(`${w.url}/api${path}`, {
      ...init,
      headers: { 'content-type': 'application/json', ...init?.headers },
    });
    return (await r.json()) as never;
  };
  /** Words of the page, and what its fields hold: what a failed test tells. */
  const shown = () =>
    w.page.evaluate(() => {
      const words = document.body.innerText.replace(/\s+/g, ' ');
      const fields = [...document.querySelectorAll('input, textarea')]
        .map((el) => el as HTMLInputElement)
        .filter((el) => el.value !== '')
        .map((el) => `${el.labels?.[0]?.innerText ?? el.name}=${el.value}`);
      const middle = words.length > 2400 ? ' … ' : '';
      return `${words.slice(0, middle ? 1200 : 2400)}${middle}${middle && words.slice(-1200)} [${fields.join('; ')}]`.slice(
        0,
        3000,
      );
    });
  w.open = async (path) => {
    await w.page.goto(w.url + path, { waitUntil: 'load' });
    // A page is there when its sentence is: until then it says what it is reading.
    await w.page
      .waitForFunction(
        () => !/^(Reading|Judging)/.test(document.querySelector('h1')?.innerText ?? 'Reading'),
        { polling: 50 },
      )
      .catch(async () => {
        throw new Error(`${path} does not come; the page shows: ${await shown()}`);
      });
  };
  w.sees = async (words) => {
    const source =
      typeof words === 'string' ? words.replace(/[.*+?^${}()|[\]\\]/g, '\\$&') : words.source;
    await w.page
      .waitForFunction(
        (s) => new RegExp(s).test(document.body.innerText.replace(/\s+/g, ' ')),
        { polling: 50 },
        source,
      )
      .catch(async () => {
        throw new Error(`the page does not show ${String(words)}; it shows: ${await shown()}`);
      });
  };
  w.text = async (selector) =>
    w.page.$eval(selector, (el) => (el as HTMLElement).innerText.replace(/\s+/g, ' ').trim());
  w.click = async (name, role) => {
    const target = typeof name === 'string' ? name : name.source;
    const kinds =
      role ?? 'button|link|option|tab|radio|checkbox|combobox|menuitem(radio|checkbox)?';
    const find = () =>
      w.page
        .waitForFunction(
          (t, exact, roles) => {
            const all = [
              ...document.querySelectorAll<HTMLElement>(
                'button, a, [role], input, select, summary',
              ),
            ];
            const roleOf = (el: HTMLElement) =>
              el.getAttribute('role') ??
              { A: 'link', BUTTON: 'button', SUMMARY: 'button', SELECT: 'combobox' }[el.tagName] ??
              (el as HTMLInputElement).type;
            const named = (el: HTMLElement) =>
              el
                .getAttribute('aria-labelledby')
                ?.split(' ')
                .map((id) => document.getElementById(id)?.innerText ?? '')
                .join(' ') || undefined;
            const labelled = (el: HTMLElement) => (el as HTMLInputElement).labels?.[0]?.innerText;
            const nameOf = (el: HTMLElement) =>
              (el.getAttribute('aria-label') ?? named(el) ?? labelled(el) ?? el.innerText)
                .replace(/\s+/g, ' ')
                .trim();
            return (
              all.find(
                (el) =>
                  el.offsetParent !== null &&
                  // A button that cannot be pressed yet is waited for.
                  !(el as HTMLButtonElement).disabled &&
                  new RegExp(`^(${roles})$`).test(roleOf(el) ?? '') &&
                  (exact ? nameOf(el) === t : new RegExp(t).test(nameOf(el))),
              ) ?? false
            );
          },
          { polling: 50 },
          target,
          typeof name === 'string',
          kinds,
        )
        .catch(async () => {
          throw new Error(`nothing is called ${target}; the page shows: ${await shown()}`);
        });
    // A list that arrives meanwhile moves what stands below it, or is drawn anew: a person whose click went beside it clicks again.
    for (let tries = 0; tries < 6; tries++) {
      // More of the page may still come: each look waits a little longer.
      if (tries > 0) await new Promise((rest) => setTimeout(rest, 100 * tries));
      const element = (await find()).asElement() as ElementHandle<HTMLElement> | null;
      if (!element) throw new Error(`nothing is called ${target}`);
      const reached = await hits(element).catch((e: unknown) => {
        if (/detached|not clickable/.test(String(e))) return false;
        throw e;
      });
      if (reached) return unfolded(element);
    }
    throw new Error(`a click on ${target} does not reach it`);
  };
  w.fill = async (label, words) => {
    const handle = await w.page
      .waitForFunction(
        (l) => {
          const found = [...document.querySelectorAll('label')].find(
            // Material marks a label whose field must not be empty.
            (x) => x.innerText.replace(/\s+/g, ' ').replace(/ ?\*$/, '').trim() === l,
          );
          const field = found?.control ?? document.querySelector(`[aria-label="${l}"]`);
          return field ?? false;
        },
        { polling: 50 },
        label,
      )
      .catch(() => {
        throw new Error(`no field is called ${label}`);
      });
    const field = handle.asElement() as Awaited<ReturnType<Page['$']>>;
    await field?.evaluate((el) => el.scrollIntoView({ block: 'center' }));
    await field?.evaluate((el) => (el as HTMLInputElement).select());
    await w.page.keyboard.press('Backspace');
    if (words === '') return;
    await field?.type(words);
  };
  w.has = async (label, words) => {
    await w.page.waitForFunction(
      (l, value) =>
        [...document.querySelectorAll('label')].some(
          (x) =>
            x.innerText.replace(/ ?\*$/, '').trim() === l &&
            (x.control as HTMLInputElement | null)?.value === value,
        ),
      { polling: 50 },
      label,
      words,
    );
  };
  w.pick = async (label, option) => {
    const source =
      typeof option === 'string'
        ? `^${option.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}$`
        : option.source;
    // A list whose options are still being read does not open, and one that is drawn anew closes: a person opens it again.
    const chosen = async (first: boolean) => {
      if (first || !(await w.page.$('[role=listbox]')))
        await w.click(new RegExp(`^${label}`), 'combobox');
      const listed = await w.page.waitForFunction(
        (s) =>
          [...document.querySelectorAll<HTMLElement>('[role=listbox] [role=option]')].find(
            (x) =>
              x.offsetParent !== null &&
              new RegExp(s).test(x.innerText.replace(/\s+/g, ' ').trim()),
          ) ?? false,
        { polling: 50, timeout: patient(4000) },
        source,
      );
      return hits(listed.asElement() as ElementHandle<HTMLElement>);
    };
    let why: unknown;
    for (let tries = 0; tries < 4; tries++) {
      const reached = await chosen(tries === 0).catch((e: unknown) => {
        why = e;
        return false;
      });
      if (!reached) continue;
      await w.page.waitForFunction(() => !document.querySelector('[role=listbox]'), {
        polling: 50,
      });
      return;
    }
    throw new Error(`${String(option)} could not be picked under ${label}: ${String(why)}`);
  };
  w.stored = async () => {
    // A test that left a page at once may have cut its last request: that note waits until its setup is opened again.
    await w.page.waitForFunction(
      () => {
        const [, setup = ''] = /^\/setups\/([^/]+)/.exec(location.pathname) ?? [];
        return Object.keys(localStorage).every((k) => !k.startsWith(`ruddy.bench.${setup}`));
      },
      { polling: 50 },
    );
  };
  w.choose = async (label, words, option) => {
    // A list that closes or is drawn anew while the setup is judged takes the option with it: a person types again.
    const chosen = async () => {
      await w.fill(label, words);
      const listed = await w.page.waitForFunction(
        (o) =>
          [...document.querySelectorAll<HTMLElement>('[role=option]')].find(
            (x) => x.offsetParent !== null && x.innerText.trim().startsWith(o),
          ) ?? false,
        { polling: 50, timeout: patient(6000) },
        option,
      );
      return hits(listed.asElement() as ElementHandle<HTMLElement>);
    };
    for (let tries = 0; tries < 4; tries++) if (await chosen().catch(() => false)) return;
    throw new Error(`${option} could not be chosen under ${label}`);
  };
  return w;
}
