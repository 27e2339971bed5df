import { existsSync } from 'node:fs';
import { join, resolve } from 'node:path';

export const ROOT = resolve(import.meta.dirname, '../..');
/** A package made by `npm run release`: built files and production packages, nothing to install or build. */
export const IS_RELEASE = existsSync(join(ROOT, 'RELEASE.json'));
export const DATA_DIR = resolve(ROOT, process.env.RUDDY_DATA_DIR ?? '.data');
export const TEST_DATA_DIR = join(ROOT, '.data-test');
export const WEB_DIR = join(ROOT, 'web/dist/browser');
export const SERVER_FILE = join(ROOT, 'server/dist/main.mjs');
/** What runs beside the server: a keeper's password, backup, restore. */
export const COMMANDS_FILE = join(ROOT, 'server/dist/commands.mjs');
export const BACKUP_DIR = join(DATA_DIR, 'backups');
export const DEMO_FILE = join(ROOT, 'demo/observatory.json');
/** The day of the demo world, for tests and pictures. */
export const DEMO_NOW = '2026-11-20T18:00:00Z';
