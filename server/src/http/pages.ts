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
          HASHED.test(path.replace(/\.(br|gz)$/, '')) ? 'public, max-age=31536000, immutable' : 'no-cache',
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

/** Every address without an extension is a page of the application; one with an extension that is not there is told so. */
export function pages(webDir: string): Router {
  // What all pages but the first one share comes with the page, not after the script that asks for it.
  const shared = readdirSync(webDir).find((f) => /^shared-[A-Za-z0-9]{8}\.js$/.test(f));
  return Router().get('/{*path}', (req, res) => {
    if (/\.[a-z0-9]+$/i.test(req.path)) throw notFound('file');
    res.setHeader('Cache-Control', 'no-cache');
    if (shared && !/^\/(setups\/?)?$/.test(req.path)) res.setHeader('Link', `</${shared}>; rel=modulepreload`);
    res.sendFile(join(webDir, 'index.html'));
  });
}
