import * as z from 'zod';

const LOOPBACK = ['127.0.0.1', 'localhost', '::1'];

const envSchema = z.object({
  PORT: z.coerce.number().int().min(0).max(65535, { error: 'PORT: from 0 to 65535' }).default(4310),
  HOST: z.string().default('127.0.0.1'),
  DATABASE_URL: z
    .string({ error: 'DATABASE_URL: must name a PostgreSQL database' })
    .min(1, { error: 'DATABASE_URL: must name a PostgreSQL database' }),
  RUDDY_NOW: z.iso.datetime({ offset: true, error: 'RUDDY_NOW: an instant like 2026-11-20T18:00:00Z' }).optional(),
  RUDDY_EMPTY: z.string().optional(),
  RUDDY_WEB_DIR: z.string().optional(),
  RUDDY_DEMO_FILE: z.string().optional(),
  RUDDY_LOG: z.enum(['silent', 'error', 'info']).default('info'),
});

export interface Config {
  port: number;
  host: string;
  databaseUrl: string;
  /** The clock: passed in, so that demo, tests and pictures have a fixed day. */
  now: () => Date;
  demoFile: string | null;
  webDir: string | null;
  log: 'silent' | 'error' | 'info';
}

/** Read the configuration from the environment, or say in one line what is wrong with it. */
export function readConfig(env: NodeJS.ProcessEnv): { ok: true; config: Config } | { ok: false; problem: string } {
  const parsed = envSchema.safeParse(env);
  if (!parsed.success) return { ok: false, problem: parsed.error.issues.map((i) => i.message).join('; ') };
  const e = parsed.data;
  if (!LOOPBACK.includes(e.HOST))
    return {
      ok: false,
      problem: `HOST=${e.HOST} would open this to other machines, and there is no sign-in yet. Use 127.0.0.1.`,
    };
  const fixed = e.RUDDY_NOW;
  return {
    ok: true,
    config: {
      port: e.PORT,
      host: e.HOST,
      databaseUrl: e.DATABASE_URL,
      now: fixed ? () => new Date(fixed) : () => new Date(),
      demoFile: e.RUDDY_EMPTY ? null : (e.RUDDY_DEMO_FILE ?? null),
      webDir: e.RUDDY_WEB_DIR ?? null,
      log: e.RUDDY_LOG,
    },
  };
}
