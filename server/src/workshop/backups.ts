import { isBehind } from '../platform/db/migrate';
import { lock, tryLock } from '../platform/db/locks';
import { putSetting, readSetting } from '../setups/settings';
import { inTransaction, outsideTransaction } from '../platform/db/transaction';
import { createReadStream } from 'node:fs';
import { join } from 'node:path';
import {
  type BackupList,
  backupPlan,
  type BackupPlan,
  type BackupRow,
  DEFAULT_PLAN,
  type RestoreReport,
} from '@ruddy/core/workshop/contract';
import { makeBackup, type Place } from './backup/make';
import { findPrograms, ProgramProblem } from './backup/programs';
import { restoreFile, RestoreProblem, sweepScratch, tryNamed } from './backup/restore';
import { listPlace, removeBackup, sweep } from './backup/store';
import { THIS_MACHINE } from '../platform/access/actor';
import { BY_PLAN, writeAudit } from '../platform/audit/audit';
import { HttpProblem, notFound } from '../platform/http/problem';
import { checkRevision, type Actor, type Services } from '../platform/http/route';
import { prepareDatabase } from '../prepare';

const PLAN = 'backup.plan';
const TROUBLE = 'backup.trouble';

/** The place for backups of this server, or why there is none. */
export function placeOf(s: Services): { place: Place } | { why: string } {
  if (!s.backups)
    return { why: 'This server was started without a place for backups (RUDDY_BACKUP_DIR).' };
  const bin = findPrograms(s.backups.bin);
  if (bin === null)
    return {
      why: "PostgreSQL's pg_dump, pg_restore and psql are not on this machine (Debian: postgresql-client).",
    };
  const { url, restoreUrl, dir } = s.backups;
  return { place: { url, restoreUrl, dir, bin, now: s.now } };
}

function requirePlace(s: Services): Place {
  const found = placeOf(s);
  if ('why' in found) throw new HttpProblem(503, 'No backups from here', { detail: found.why });
  return found.place;
}

function keep(s: Services, key: string, value: unknown, by: string): Promise<void> {
  return putSetting(key, value, { at: s.now(), by });
}

async function planOf(): Promise<BackupPlan & { rev: number }> {
  const row = await readSetting(PLAN);
  const stored = backupPlan.safeParse(row?.value);
  return { ...(stored.success ? stored.data : DEFAULT_PLAN), rev: row?.rev ?? 0 };
}

/** Backups with the plan they are made by. */
export async function listBackups(s: Services): Promise<BackupList> {
  const found = placeOf(s);
  const plan = await planOf();
  const noted = (await readSetting(TROUBLE))?.value;
  const trouble = typeof noted === 'string' ? noted : '';
  if ('why' in found) return { items: [], plan, place: null, why: found.why, trouble };
  return {
    items: await listPlace(found.place.dir),
    plan,
    place: found.place.dir,
    why: '',
    trouble,
  };
}

export async function putPlan(
  s: Services,
  body: BackupPlan,
  revision: number,
  actor: Actor,
): Promise<BackupPlan & { rev: number }> {
  return inTransaction(async () => {
    await lock('backupPlan');
    const now = await planOf();
    checkRevision(revision, now.rev, now);
    await keep(s, PLAN, body, actor.id);
    return planOf();
  });
}

/** A failure outside this program (disk, other server) is reported as unavailable, not as an error of the program. */
async function asUnavailable<T>(work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (error instanceof RestoreProblem)
      throw new HttpProblem(409, 'Not restored', { detail: error.message });
    if (error instanceof ProgramProblem)
      throw new HttpProblem(507, 'Not finished', { detail: error.message });
    const code = (error as NodeJS.ErrnoException).code;
    if (code === 'ENOSPC')
      throw new HttpProblem(507, 'Not finished', { detail: 'The disk for backups is full' });
    if (code === 'EACCES' || code === 'EROFS')
      throw new HttpProblem(507, 'Not finished', {
        detail: 'The place for backups cannot be written',
      });
    throw error;
  }
}

export async function backUpNow(s: Services, signal: AbortSignal): Promise<BackupRow> {
  const { name, note } = await asUnavailable(makeBackup(requirePlace(s), 'asked', signal));
  return { name, note, bytes: note.bytes };
}

async function named(p: Place, name: string): Promise<BackupRow> {
  const row = (await listPlace(p.dir)).find((b) => b.name === name);
  if (!row) throw notFound('backup');
  return row;
}

/** Try a backup by restoring it beside the database. */
export async function checkBackup(
  s: Services,
  name: string,
  signal: AbortSignal,
): Promise<BackupRow> {
  const p = requirePlace(s);
  const row = await named(p, name);
  await asUnavailable(tryNamed(p, name, row.note, signal));
  return named(p, name);
}

export async function restoreNamed(
  s: Services,
  name: string,
  signal: AbortSignal,
): Promise<RestoreReport> {
  const p = requirePlace(s);
  const row = await named(p, name);
  const how = {
    signIn: s.access !== undefined,
    signal,
    prepare: () => prepareDatabase().then(() => undefined),
  };
  const done = await asUnavailable(restoreFile(p, join(p.dir, name), row.note, how));
  return { restored: name, ...done };
}

export async function dropBackup(s: Services, name: string): Promise<void> {
  if (!(await removeBackup(requirePlace(s).dir, name))) throw notFound('backup');
}

/** The bytes of a backup, to keep somewhere else. */
export async function backupBytes(s: Services, name: string): Promise<NodeJS.ReadableStream> {
  const p = requirePlace(s);
  await named(p, name);
  return createReadStream(join(p.dir, name));
}

/** Backs up a database that the migrations of this version are about to change, so that there is a way back. */
export async function backUpBeforeUpgrade(s: Services): Promise<string | null> {
  const found = placeOf(s);
  if ('why' in found || !(await isBehind())) return null;
  return (await makeBackup(found.place, 'before-upgrade')).name;
}

const HOUR_MS = 3_600_000;

/** Make a backup if the plan says so, try it, and let go of the oldest made by plan. Of several processes one does it. */
export async function backUpIfDue(s: Services): Promise<'made' | 'not-due'> {
  const found = placeOf(s);
  if ('why' in found) return 'not-due';
  const p = found.place;
  return inTransaction(async () => {
    if (!(await tryLock('backup'))) return 'not-due';
    // The lock is held by this transaction; the work has its own, and tries the backup in another database.
    return outsideTransaction(() => backUp(s, p));
  });
}

/** Makes a backup when the plan says so, tries it, and lets go of the oldest of the plan. */
async function backUp(s: Services, p: Place): Promise<'made' | 'not-due'> {
  const plan = await planOf();
  if (plan.everyHours === null) return 'not-due';
  const all = await listPlace(p.dir);
  const last = Math.max(
    0,
    ...all.flatMap((b) =>
      b.note && b.note.why !== 'before-restore' ? [Date.parse(b.note.madeAt)] : [],
    ),
  );
  const now = s.now().getTime();
  if (now - last < plan.everyHours * HOUR_MS && last <= now) return 'not-due';
  const made = await makeBackup(p, 'schedule');
  await writeAudit(s.now(), BY_PLAN, {
    kind: 'backup',
    act: 'backup by plan',
    about: made.name,
    status: 201,
  });
  const tried = await tryNamed(p, made.name, made.note).catch((e: unknown) => {
    if (e instanceof RestoreProblem) return null;
    throw e;
  });
  await keep(
    s,
    TROUBLE,
    tried && !tried.checked.ok ? `${made.name}: ${tried.checked.words}` : '',
    THIS_MACHINE.id,
  );
  const scheduled = (await listPlace(p.dir)).filter((b) => b.note?.why === 'schedule');
  // A backup that did not come back when tried lets none of the others go.
  if (tried === null || tried.checked.ok)
    for (const b of scheduled.slice(plan.keep)) {
      await removeBackup(p.dir, b.name);
      await writeAudit(s.now(), BY_PLAN, {
        kind: 'removal',
        act: 'backup by plan',
        about: b.name,
        status: 200,
      });
    }
  return 'made';
}

const TICK_MS = 60_000;
/** After a failure the next try waits, so that a full disk is not written to every minute. */
const AFTER_FAILURE_MS = 15 * TICK_MS;

/** Look every minute whether a backup is due; the answer stops it. */
export function scheduleBackups(s: Services): () => Promise<void> {
  let notBefore = 0;
  const attempt = async () => {
    if (Date.now() < notBefore) return;
    try {
      await backUpIfDue(s);
    } catch (error) {
      notBefore = Date.now() + AFTER_FAILURE_MS;
      await keep(
        s,
        TROUBLE,
        error instanceof Error ? error.message : String(error),
        THIS_MACHINE.id,
      ).catch(() => undefined);
      await writeAudit(s.now(), BY_PLAN, {
        kind: 'backup',
        act: 'backup by plan',
        about: '',
        status: 500,
        why: error instanceof Error ? error.message : String(error),
      }).catch(() => undefined);
      throw error;
    }
  };
  let working: Promise<unknown> = Promise.resolve();
  const tick = () => {
    working = working.then(attempt).catch((e: unknown) => s.unexpected?.(e));
  };
  if (s.backups) {
    const { dir, restoreUrl } = s.backups;
    working = Promise.all([sweep(dir), sweepScratch(restoreUrl)]).catch((e: unknown) =>
      s.unexpected?.(e),
    );
  }
  const first = setTimeout(tick, 5000);
  const timer = setInterval(tick, TICK_MS);
  return async () => {
    clearTimeout(first);
    clearInterval(timer);
    await working;
  };
}
