import type { Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { stringify } from 'csv-stringify';
import { Op, type WhereOptions } from 'sequelize';
import {
  type AuditQuery,
  auditRow,
  type AuditRow,
  auditRule,
  type AuditRule,
} from '@ruddy/core/workshop/contract';
import { BY_PLAN, writeAudit } from '../platform/audit/audit';
import { AuditEventModel } from '../platform/audit/models/audit-event';
import { proxyWarning } from '../platform/audit/proxy';
import { lock } from '../platform/db/locks';
import { decodeCursor, likePattern, toPage } from '../platform/db/paging';
import { inTransaction } from '../platform/db/transaction';
import { type Actor, checkRevision, type Services } from '../platform/http/route';
import { removeBefore, trailSize } from './queries/audit-trail';
import { putSetting, readSetting } from '../setups/settings';

const RULE = 'audit.rule';
const DEFAULT_DAYS = 400;
const DAY_MS = 86_400_000;

function rowOf(e: AuditEventModel): AuditRow {
  const { id, kind, requestId, actorId, actor, address, act, about, status, why } = e;
  return {
    id,
    at: e.at.toISOString(),
    kind,
    requestId,
    actorId,
    actor,
    address,
    act,
    about,
    status,
    why,
  };
}

function whereOf(q: AuditQuery): WhereOptions[] {
  const like = q.q === undefined || q.q === '' ? null : { [Op.iLike]: likePattern(q.q) };
  return [
    ...(q.kind ? [{ kind: q.kind }] : []),
    ...(q.result ? [{ status: q.result === 'done' ? { [Op.lt]: 400 } : { [Op.gte]: 400 } }] : []),
    ...(like ? [{ [Op.or]: [{ actor: like }, { about: like }, { address: like }] }] : []),
    ...(q.from ? [{ at: { [Op.gte]: new Date(`${q.from}T00:00:00Z`) } }] : []),
    ...(q.to ? [{ at: { [Op.lt]: new Date(Date.parse(`${q.to}T00:00:00Z`) + DAY_MS) } }] : []),
  ];
}

/** A page of the audit trail, newest first. */
export async function listAudit(q: AuditQuery & { cursor?: string | undefined; limit: number }) {
  const after = decodeCursor(q.cursor, 2);
  const older = after && {
    [Op.or]: [
      { at: { [Op.lt]: new Date(String(after[0])) } },
      { at: new Date(String(after[0])), id: { [Op.lt]: String(after[1]) } },
    ],
  };
  const rows = await AuditEventModel.findAll({
    where: { [Op.and]: [...whereOf(q), ...(older ? [older] : [])] },
    order: [
      ['at', 'DESC'],
      ['id', 'DESC'],
    ],
    limit: q.limit + 1,
  });
  return toPage(rows, q.limit, rowOf, (r) => [r.at.toISOString(), r.id]);
}

/** Entries of a filter, page after page, so that a long trail is never held whole. */
async function* allAudit(q: AuditQuery): AsyncGenerator<AuditRow> {
  let cursor: string | undefined;
  do {
    const page = await listAudit({ ...q, cursor, limit: 500 });
    yield* page.items;
    cursor = page.next ?? undefined;
  } while (cursor !== undefined);
}

const COLUMNS = Object.keys(auditRow.shape) as (keyof AuditRow)[];

async function* asJson(rows: AsyncIterable<AuditRow>): AsyncGenerator<string> {
  let before = '[\n';
  for await (const row of rows) {
    yield before + JSON.stringify(row);
    before = ',\n';
  }
  yield before === '[\n' ? '[]\n' : '\n]\n';
}

/** The audit trail of a filter as a file. A cell that a spreadsheet would compute is guarded. */
export async function writeAuditFile(
  q: AuditQuery,
  format: 'csv' | 'json',
  to: Writable,
): Promise<void> {
  if (format === 'json') return pipeline(asJson(allAudit(q)), to);
  const csv = stringify({
    header: true,
    columns: COLUMNS,
    escape_formulas: true,
    record_delimiter: 'windows',
  });
  return pipeline(allAudit(q), csv, to);
}

async function storedRule(): Promise<{ days: number; rev: number }> {
  const row = await readSetting(RULE);
  const stored = auditRule.safeParse(row?.value);
  return { days: stored.success ? stored.data.days : DEFAULT_DAYS, rev: row?.rev ?? 0 };
}

/** How long entries are kept, how many there are, and what a keeper should know of addresses. */
export async function readAuditRule(): Promise<AuditRule> {
  const { entries, oldest } = await trailSize();
  return {
    ...(await storedRule()),
    entries,
    oldest: oldest?.toISOString() ?? null,
    warning: proxyWarning(),
  };
}

export async function putAuditRule(
  s: Services,
  { days }: { days: number },
  revision: number,
  actor: Actor,
): Promise<AuditRule> {
  return inTransaction(async () => {
    await lock('auditRule');
    const now = await readAuditRule();
    checkRevision(revision, now.rev, now);
    await putSetting(RULE, { days }, { at: s.now(), by: actor.id });
    return readAuditRule();
  });
}

/** Removes entries older than the rule says; that they went is an entry itself. */
export async function pruneAudit(s: Pick<Services, 'now'>): Promise<number> {
  const gone = await inTransaction(async () => {
    const { days } = await storedRule();
    const before = new Date(s.now().getTime() - days * DAY_MS);
    return removeBefore(before);
  });
  if (gone > 0)
    await writeAudit(s.now(), BY_PLAN, {
      kind: 'rule',
      act: 'audit trail kept by rule',
      about: `${gone} older entries removed`,
      status: 200,
    });
  return gone;
}

const EVERY_MS = 3_600_000;

/** Looks every hour for entries that are old enough to go; the answer stops it. */
export function scheduleAudit(s: Services): () => Promise<void> {
  let working: Promise<unknown> = Promise.resolve();
  const tick = () => {
    working = pruneAudit(s).catch((e: unknown) => s.unexpected?.(e));
  };
  const first = setTimeout(tick, 20_000);
  const timer = setInterval(tick, EVERY_MS);
  return async () => {
    clearTimeout(first);
    clearInterval(timer);
    await working;
  };
}
