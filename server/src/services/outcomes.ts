import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import type * as z from 'zod';
import type { Origin, OutcomeBody, OutcomeEntry, outcomeQuery, Page } from '@ruddy/core/api';
import { chainKey } from '@ruddy/core/log';
import type { Chain, Installed } from '@ruddy/core/schema';
import { chainNames } from '@ruddy/core/setup';
import { LogEntryModel } from '../db/models';
import { HttpProblem, invalid, refuseFuture } from '../http/problem';
import type { Actor, Services } from '../http/route';
import { chainOf } from './chain';
import { addEvent } from './events';
import { contentHash } from './ids';
import { decodeCursor, likePattern, toPage } from './paging';
import { readSetup } from './setup-store';

function hashOf(setupId: string, chain: Chain, b: OutcomeBody): string {
  const { id, order, ...content } = b;
  void id;
  // An entry without an order keeps the identity it had before orders were noted.
  return contentHash({ setupId, chain, ...content, ...(order !== null && { order }) });
}

/** The versions an entry keeps, out of what is installed; what is not noted is left out. */
export function entryVersions({ systemBuild, driver, hostFirmware, dockFirmware }: Installed): OutcomeBody['versions'] {
  return Object.fromEntries(
    Object.entries({ system: systemBuild, driver, hostFirmware, dockFirmware }).filter(([, v]) => v !== ''),
  );
}

/** Store an outcome: a fact of the setup's record and a row of the log, with the chain as it was. */
export async function storeOutcome(
  db: Sequelize,
  setupId: string,
  body: OutcomeBody,
  chain: Chain,
  made: { origin: Origin; at: Date; by: string },
  transaction: Transaction,
  where = '',
): Promise<'stored' | 'same'> {
  const hash = hashOf(setupId, chain, body);
  const twin = await LogEntryModel.findOne({ where: { contentHash: hash }, transaction, raw: true });
  if (twin?.id === body.id) return 'same';
  if (twin)
    throw new HttpProblem(409, 'This outcome is already logged', {
      detail: 'Same day, versions, result and words. Retries of one evening count once.',
    });
  if (await LogEntryModel.findByPk(body.id, { transaction })) throw new HttpProblem(409, 'Another outcome has this id');
  if (body.corrects) {
    const old = await LogEntryModel.findByPk(body.corrects, { transaction, raw: true });
    if (old?.setupId !== setupId) throw invalid(`${where}corrects`, 'No outcome of this setup has this id');
  }
  const { id, note, corrects, order, versions, outcome, symptoms, fixes, provenance, confidence, happenedOn } = body;
  const notePart = note === '' ? null : { note };
  await addEvent(
    db,
    {
      id,
      setupId,
      kind: 'outcome',
      body: { outcome, versions, symptoms, fixes, provenance, confidence, ...(order !== null && { order }) },
      happenedAt: new Date(`${happenedOn}T12:00:00Z`),
      recordedAt: made.at,
      corrects,
      private: notePart,
      origin: made.origin,
      by: made.by,
    },
    transaction,
  );
  await LogEntryModel.create(
    {
      id,
      origin: made.origin,
      createdAt: made.at,
      createdBy: made.by,
      setupId,
      chainKey: chainKey(chain),
      chain,
      versions,
      outcome,
      symptoms,
      fixes,
      provenance,
      confidence,
      happenedOn,
      orderUsed: order,
      recordedAt: made.at,
      supersedes: corrects,
      contentHash: hash,
      private: notePart,
    },
    { transaction },
  );
  return 'stored';
}

/** Log what happened with a setup as it stands now. */
export async function addOutcome(
  s: Services,
  setupId: string,
  body: OutcomeBody,
  actor: Actor,
): Promise<{ entry: OutcomeEntry; fresh: boolean }> {
  refuseFuture('happenedOn', body.happenedOn, s.now());
  const result = await s.db.transaction(async (transaction) => {
    const { rows, row } = await readSetup(s.db, setupId, transaction, true);
    const chain = chainOf(rows, row.details);
    if (!chain.host && !chain.dock && !chain.card)
      throw invalid('setup', 'This setup has no parts yet; choose some before logging an outcome');
    return storeOutcome(s.db, setupId, body, chain, { origin: 'own', at: s.now(), by: actor.id }, transaction);
  });
  const [entry] = (await listOutcomes(s.db, { limit: 1, newest: false, id: body.id })).items;
  return { entry: entry as OutcomeEntry, fresh: result === 'stored' };
}

interface Row {
  id: string;
  setup_id: string;
  setup_name: string;
  chain_key: string | null;
  chain: Chain;
  versions: OutcomeEntry['versions'];
  outcome: OutcomeEntry['outcome'];
  symptoms: string[];
  fixes: string[];
  provenance: OutcomeEntry['provenance'];
  confidence: number;
  happened_on: string;
  order_used: OutcomeEntry['order'];
  recorded_at: Date;
  supersedes: string | null;
  private: { note?: string } | null;
  corrected_by: string | null;
  superseded: boolean;
  origin: Origin;
}

function toEntry(r: Row): OutcomeEntry {
  return {
    id: r.id,
    setupId: r.setup_id,
    setupName: r.setup_name,
    chainKey: r.chain_key,
    chain: chainNames(r.chain),
    versions: r.versions,
    outcome: r.outcome,
    symptoms: r.symptoms,
    fixes: r.fixes,
    provenance: r.provenance,
    confidence: Math.round(r.confidence * 100) / 100,
    happenedOn: r.happened_on,
    order: r.order_used,
    note: r.private?.note ?? '',
    corrects: r.supersedes,
    correctedBy: r.corrected_by,
    superseded: r.superseded,
    origin: r.origin,
    recordedAt: r.recorded_at.toISOString(),
  };
}

type ListQuery = Partial<z.output<typeof outcomeQuery>> & { limit: number; id?: string };

/** A page of the log, newest first. An entry is superseded when the same setup was logged later under other versions. */
export async function listOutcomes(db: Sequelize, q: ListQuery): Promise<Page<OutcomeEntry>> {
  const after = decodeCursor(q.cursor, 2);
  const rows = await db.query<Row>(
    `SELECT * FROM (
       SELECT e.id, e.setup_id, s.name AS setup_name, e.chain_key, e.chain, e.versions, e.outcome, e.symptoms, e.fixes, e.provenance,
         e.confidence, e.happened_on::text AS happened_on, e.order_used, e.recorded_at, e.supersedes, e.private, e.origin,
         (SELECT c.id FROM log_entries c WHERE c.supersedes = e.id LIMIT 1) AS corrected_by,
         EXISTS (SELECT 1 FROM log_entries n WHERE n.setup_id = e.setup_id AND n.versions <> e.versions AND n.happened_on > e.happened_on) AS superseded,
         lower(s.name || ' ' || e.chain::text || ' ' || array_to_string(e.symptoms, ' ') || ' ' || array_to_string(e.fixes, ' ')) AS words
       FROM log_entries e JOIN setups s ON s.id = e.setup_id
       WHERE ($1::uuid IS NULL OR e.setup_id = $1) AND ($2::text IS NULL OR e.outcome = $2) AND ($3::uuid IS NULL OR e.id = $3)
         AND ($9::text IS NULL OR e.chain_key = $9)
     ) x
     WHERE ($4::text IS NULL OR words LIKE lower($4)) AND (NOT $5 OR (corrected_by IS NULL AND NOT superseded))
       AND ($6::text IS NULL OR (happened_on, id) < ($6, $7::uuid))
     ORDER BY happened_on DESC, id DESC LIMIT $8`,
    {
      type: QueryTypes.SELECT,
      bind: [
        q.setupId ?? null,
        q.outcome ?? null,
        q.id ?? null,
        q.q ? likePattern(q.q) : null,
        q.newest ?? false,
        after?.[0] ?? null,
        after?.[1] ?? null,
        q.limit + 1,
        q.chain ?? null,
      ],
    },
  );
  return toPage(rows, q.limit, toEntry, (r) => [r.happened_on, r.id]);
}
