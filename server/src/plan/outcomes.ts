import { inTransaction } from '../platform/db/transaction';
import type { Origin } from '@ruddy/core/base/contract';
import type { Chain } from '@ruddy/core/chain';
import { chainKey } from '@ruddy/core/compatibility';
import type { OutcomeBody, OutcomeEntry } from '@ruddy/core/compatibility/contract';
import { LogEntryModel } from './models/log-entry';
import { HttpProblem, invalid, refuseFuture } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { chainOf } from '../setups/chain';
import { addEvent } from '../setups/events';
import { contentHash } from '../platform/db/ids';
import { listOutcomes } from './queries/log-entries';
import { readSetup } from '../setups/setup-store';

/** Identity of an entry by what it says: the setup it was of, here or elsewhere, the chain, and everything noted. */
export function entryHash(unit: string, chain: Chain, b: OutcomeBody): string {
  const { id, order, ...content } = b;
  void id;
  // An entry without an order keeps the identity it had before orders were noted.
  return contentHash({ setupId: unit, chain, ...content, ...(order !== null && { order }) });
}

interface Made {
  origin: Origin;
  at: Date;
  by: string;
}

/** Where an entry belongs: the setup it is of, or for one that came from a file only the setup's id elsewhere. */
interface Place {
  setupId: string | null;
  unit: string;
  chain: Chain;
  seq: number;
  cameFrom: string;
}

/** An entry as its row. */
export function entryRow(body: OutcomeBody, p: Place, made: Made, contentHash: string) {
  const {
    id,
    note,
    corrects,
    order,
    versions,
    outcome,
    symptoms,
    fixes,
    provenance,
    confidence,
    happenedOn,
  } = body;
  return {
    ...p,
    id,
    origin: made.origin,
    createdAt: made.at,
    createdBy: made.by,
    chainKey: chainKey(p.chain),
    versions,
    outcome,
    symptoms,
    fixes,
    provenance,
    confidence,
    happenedOn,
    contentHash,
    orderUsed: order,
    recordedAt: made.at,
    supersedes: corrects,
    private: note === '' ? null : { note },
  };
}

/** Is this very outcome logged? Refuses one that says the same under another id, or another under this id. */
async function isLogged(body: OutcomeBody, hash: string): Promise<boolean> {
  const twin = await LogEntryModel.findOne({ where: { contentHash: hash }, raw: true });
  if (twin?.id === body.id) return true;
  if (twin)
    throw new HttpProblem(409, 'This outcome is already logged', {
      detail: 'Same day, versions, result and words. Retries of one evening count once.',
    });
  if (await LogEntryModel.findByPk(body.id))
    throw new HttpProblem(409, 'Another outcome has this id');
  return false;
}

/** Store an outcome: a fact of the setup's record and a row of the log, with the chain as it was. */
export async function storeOutcome(
  setupId: string,
  body: OutcomeBody,
  chain: Chain,
  made: Made,
  where = '',
): Promise<'stored' | 'same'> {
  const hash = entryHash(setupId, chain, body);
  if (await isLogged(body, hash)) return 'same';
  if (body.corrects) {
    const old = await LogEntryModel.findByPk(body.corrects, { raw: true });
    if (old?.unit !== setupId)
      throw invalid(`${where}corrects`, 'No outcome of this setup has this id');
  }
  const { id, note, corrects, order, happenedOn } = body;
  const { outcome, versions, symptoms, fixes, provenance, confidence } = body;
  const said = { outcome, versions, symptoms, fixes, provenance, confidence };
  const seq = await addEvent({
    id,
    setupId,
    kind: 'outcome',
    body: { ...said, ...(order !== null && { order }) },
    happenedAt: new Date(`${happenedOn}T12:00:00Z`),
    recordedAt: made.at,
    corrects,
    private: note === '' ? null : { note },
    origin: made.origin,
    by: made.by,
  });
  const place = { setupId, unit: setupId, chain, seq, cameFrom: '' };
  await LogEntryModel.create(entryRow(body, place, made, hash));
  return 'stored';
}

/** Logs an outcome of a setup's present chain. */
export async function addOutcome(
  s: Services,
  setupId: string,
  body: OutcomeBody,
  actor: Actor,
): Promise<{ entry: OutcomeEntry; fresh: boolean }> {
  refuseFuture('happenedOn', body.happenedOn, s.now());
  const result = await inTransaction(async () => {
    const { rows, row } = await readSetup(setupId, true);
    const chain = chainOf(rows, row.details);
    if (!chain.host && !chain.dock && !chain.card)
      throw invalid('setup', 'This setup has no parts yet; choose some before logging an outcome');
    return storeOutcome(setupId, body, chain, { origin: 'own', at: s.now(), by: actor.id });
  });
  const [entry] = (await listOutcomes({ limit: 1, newest: false, id: body.id })).items;
  return { entry: entry as OutcomeEntry, fresh: result === 'stored' };
}
