import { join, resolve } from 'node:path';

export const ROOT = resolve(import.meta.dirname, '../..');
export const DATA_DIR = resolve(ROOT, process.env.RUDDY_DATA_DIR ?? '.data');
export const TEST_DATA_DIR = join(ROOT, '.data-test');
export const WEB_DIR = join(ROOT, 'web/dist/browser');
export const SERVER_FILE = join(ROOT, 'server/dist/main.mjs');
export const DEMO_FILE = join(ROOT, 'demo/observatory.json');
/** The day of the demo world, for tests and pictures. */
export const DEMO_NOW = '2026-11-20T18:00:00Z';
