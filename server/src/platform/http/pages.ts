import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Router, type RequestHandler } from 'express';
import packed from 'express-static-gzip';
import { notFound } from './problem';

/** A built file: its name carries a hash of what is in it. */
const HASHED = /-[\w-]{8}\.(js|css|woff2)$/;

/**
 * The built files, packed once at the build. They are script, style and faces: the long policy that a page carries would be sent sixty
 * times for nothing, so this stands before it. Pages themselves are not served here.
 */
export function files(webDir: string): RequestHandler {
  const serve = packed(webDir, {
    enableBrotli: true,
    orderPreference: ['br', 'gz'],
    index: false,
    serveStatic: {
      redirect: false,
      setHeaders: (res, path) => {
        // What carries a hash in its name never changes; the rest is asked for anew.
        res.setHeader(
          'Cache-Control',
          HASHED.test(path.replace(/\.(br|gz)$/, ''))
            ? 'public, max-age=31536000, immutable'
            : 'no-cache',
        );
        res.setHeader('X-Content-Type-Options', 'nosniff');
        res.setHeader('Cross-Origin-Resource-Policy', 'same-origin');
      },
    },
  });
  return (req, res, next) => {
    if (/\.html?(\.|$)/i.test(req.path)) next();
    else serve(req, res, next);
  };
}

/** What each built script imports at once, by file name. A script that is imported when it is needed is not among them. */
type Imports = ReadonlyMap<string, readonly string[]>;

function importsOf(webDir: string): Imports {
  const scripts = readdirSync(webDir).filter((f) => f.endsWith('.js'));
  return new Map(
    scripts.map((f) => {
      const text = readFileSync(join(webDir, f), 'utf8');
      const found = [...text.matchAll(/(?:from|import)\s*"\.\/([\w-]+\.js)"/g)];
      return [f, found.map((m) => m[1] ?? '')];
    }),
  );
}

/** The chunk of a page, by its name without the hash; where two have the same name neither is guessed. */
function chunkOf(name: string, scripts: Imports): string | null {
  const length = `${name}-12345678.js`.length;
  const found = [...scripts.keys()].filter(
    (f) => f.startsWith(`${name}-`) && f.length === length && HASHED.test(f),
  );
  return found.length === 1 ? (found[0] ?? null) : null;
}

/**
 * Scripts that a page runs, so that the browser asks for all of them at once instead of finding each in the one before: the first
 * script, the frame of a setup, the page, and what they import.
 *
 * @param path address, such as "/setups/3f/plan"
 */
export function aheadOf(path: string, scripts: Imports): string[] {
  const [first = 'setups', second, inside] = path.split('/').filter((p) => p !== '');
  const ofSetup = first === 'setups' && second !== undefined;
  const names = ofSetup
    ? [inside ?? 'plan']
    : second === undefined
      ? [`${first}-list`, first]
      : [`${first}-${second}`, second, first];
  const page = names.map((name) => chunkOf(`${name}-page`, scripts)).find((f) => f !== null);
  const begin = [
    chunkOf('main', scripts),
    ofSetup ? chunkOf('setup-frame', scripts) : null,
    page ?? null,
  ];
  const all = new Set<string>();
  const add = (f: string): void => {
    if (all.has(f)) return;
    all.add(f);
    for (const imported of scripts.get(f) ?? []) add(imported);
  };
  for (const f of begin) if (f !== null) add(f);
  return [...all];
}

/**
 * Every address without an extension is a page of the application; one with an extension that is not there is told so. The page carries
 * the server's time: a form dates what it logs before the first answer is there.
 *
 * @param now the server's time, ISO
 */
export function pages(webDir: string, now: () => string): Router {
  const scripts = importsOf(webDir);
  const [head = '', body = ''] = readFileSync(join(webDir, 'index.html'), 'utf8').split('</head>');
  return Router().get('/{*path}', (req, res) => {
    if (/\.[a-z0-9]+$/i.test(req.path)) throw notFound('file');
    // In the document, not in a header: a proxy refuses headers of some kB.
    const links = aheadOf(req.path, scripts).map((f) => `<link rel="modulepreload" href="/${f}">`);
    const time = `<meta name="server-time" content="${now()}">`;
    res.setHeader('Cache-Control', 'no-cache');
    res.type('html').send(`${head}${time}${links.join('')}</head>${body}`);
  });
}
