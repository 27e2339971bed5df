import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { Router, type RequestHandler } from 'express';
import packed from 'express-static-gzip';
import { notFound } from './problem';

/** A built file: its name carries a hash of what is in it. */
const HASHED = /-[A-Za-z0-9]{8}\.(js|css|woff2)$/;

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

/**
 * Scripts a page will ask for once its first one runs, named with the page so that they come at once: what all pages but the first
 * share, the frame of a setup and the page in it. Where two pages have the same name neither is guessed.
 */
export function aheadOf(path: string, scripts: readonly string[]): string[] {
  const [first = 'setups', id, inside] = path.split('/').filter((p) => p !== '');
  if (first === 'setups' && id === undefined) return [];
  const names = [
    'shared',
    ...(first === 'setups'
      ? ['start', 'search', 'setup-frame', `${inside ?? 'plan'}-page`]
      : [`${first}-page`]),
  ];
  return names.flatMap((name) => {
    const found = scripts.filter(
      (f) => f.startsWith(`${name}-`) && f.length === name.length + '-12345678.js'.length,
    );
    return found.length === 1 ? found : [];
  });
}

/** Every address without an extension is a page of the application; one with an extension that is not there is told so. */
export function pages(webDir: string): Router {
  const scripts = readdirSync(webDir).filter((f) => HASHED.test(f));
  return Router().get('/{*path}', (req, res) => {
    if (/\.[a-z0-9]+$/i.test(req.path)) throw notFound('file');
    res.setHeader('Cache-Control', 'no-cache');
    const ahead = aheadOf(req.path, scripts);
    if (ahead.length > 0)
      res.setHeader('Link', ahead.map((f) => `</${f}>; rel=modulepreload`).join(', '));
    res.sendFile(join(webDir, 'index.html'));
  });
}
