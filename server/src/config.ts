import * as z from 'zod';
import type { Names } from './platform/http/guard';

const LOOPBACK = ['127.0.0.1', 'localhost', '::1'];

const envSchema = z.object({
  PORT: z.coerce.number().int().min(0).max(65535, { error: 'PORT: from 0 to 65535' }).default(4310),
  HOST: z.string().default('127.0.0.1'),
  DATABASE_URL: z
    .string({ error: 'DATABASE_URL: must name a PostgreSQL database' })
    .min(1, { error: 'DATABASE_URL: must name a PostgreSQL database' }),
  RUDDY_NOW: z.iso
    .datetime({ offset: true, error: 'RUDDY_NOW: an instant like 2026-11-20T18:00:00Z' })
    .optional(),
  RUDDY_PUBLIC_URL: z
    .url({
      protocol: /^https?$/,
      error: 'RUDDY_PUBLIC_URL: the address people type, like https://bridge.example',
    })
    .optional(),
  RUDDY_SIGN_IN: z
    .enum(['always', 'beyond'], {
      error: 'RUDDY_SIGN_IN: always, or beyond (only where other machines can come in)',
    })
    .default('beyond'),
  RUDDY_PROXIES: z.coerce
    .number()
    .int()
    .min(0)
    .max(5, { error: 'RUDDY_PROXIES: from 0 to 5' })
    .default(0),
  RUDDY_BACKUP_DIR: z.string().optional(),
  RUDDY_RESTORE_URL: z.string().optional(),
  RUDDY_PG_BIN: z.string().optional(),
  RUDDY_EMPTY: z.string().optional(),
  RUDDY_WEB_DIR: z.string().optional(),
  RUDDY_DEMO_FILE: z.string().optional(),
  RUDDY_METRICS_TOKEN: z
    .string()
    .min(16, { error: 'RUDDY_METRICS_TOKEN: at least 16 characters' })
    .optional(),
  RUDDY_LOG: z.enum(['silent', 'error', 'warn', 'info']).default('info'),
});

export interface Config {
  port: number;
  host: string;
  databaseUrl: string;
  /** The clock: passed in, so that demo, tests and pictures have a fixed day. */
  now: () => Date;
  /** Other machines can reach it, directly or through what stands in front of it, or other accounts of this one are not to be let in. */
  signIn: boolean;
  names: Names;
  proxies: number;
  /** Where backups lie and where PostgreSQL's own programs are; null: no backups from here. */
  backups: { dir: string; bin: string | null; restoreUrl: string } | null;
  /** Lets a collector read the metrics without a session. */
  metricsToken: string | null;
  demoFile: string | null;
  webDir: string | null;
  log: 'silent' | 'error' | 'warn' | 'info';
}

/** Read the configuration from the environment, or say in one line what is wrong with it. */
export function readConfig(
  env: NodeJS.ProcessEnv,
): { ok: true; config: Config } | { ok: false; problem: string } {
  // A setting left empty is one not made.
  const parsed = envSchema.safeParse(
    Object.fromEntries(Object.entries(env).filter(([, v]) => v !== '')),
  );
  if (!parsed.success)
    return { ok: false, problem: parsed.error.issues.map((i) => i.message).join('; ') };
  const e = parsed.data;
  const beyond = !LOOPBACK.includes(e.HOST);
  const publicUrl = e.RUDDY_PUBLIC_URL ? new URL(e.RUDDY_PUBLIC_URL) : null;
  const fixed = e.RUDDY_NOW;
  return {
    ok: true,
    config: {
      port: e.PORT,
      host: e.HOST,
      databaseUrl: e.DATABASE_URL,
      now: fixed ? () => new Date(fixed) : () => new Date(),
      demoFile: e.RUDDY_EMPTY ? null : (e.RUDDY_DEMO_FILE ?? null),
      // A reverse proxy on this machine connects from a loopback address for every outside client: a set proxy address
      // means the same as a non-loopback one.
      signIn: beyond || publicUrl !== null || e.RUDDY_SIGN_IN === 'always',
      names: { beyond, publicUrl },
      proxies: e.RUDDY_PROXIES,
      backups: e.RUDDY_BACKUP_DIR
        ? {
            dir: e.RUDDY_BACKUP_DIR,
            bin: e.RUDDY_PG_BIN || null,
            restoreUrl: e.RUDDY_RESTORE_URL ?? e.DATABASE_URL,
          }
        : null,
      metricsToken: e.RUDDY_METRICS_TOKEN ?? null,
      webDir: e.RUDDY_WEB_DIR ?? null,
      log: e.RUDDY_LOG,
    },
  };
}
