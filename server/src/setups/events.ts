import { literal } from 'sequelize';
import { SetupModel } from './models/setup';
import { SetupRevisionModel } from './models/setup-revision';
import { pricesPaid } from './queries/prices-paid';
import type { Origin } from '@ruddy/core/base/contract';
import type { SetupEvent } from '@ruddy/core/compatibility/contract';
import { SOFTWARE_NAMES } from '@ruddy/core/parts';
import { EventModel } from './models/event';
import { notFound } from '../platform/http/problem';

export interface NewEvent {
  id: string;
  setupId: string;
  kind: SetupEvent['kind'];
  body: object;
  happenedAt: Date;
  recordedAt: Date;
  corrects?: string | null;
  private?: object | null;
  origin: Origin;
  by: string;
}

/** Events of a setup of some kinds, retracted ones left out, in order, each with its author. */
export function eventsOf(
  setupId: string,
  kinds: readonly SetupEvent['kind'][],
): Promise<EventModel[]> {
  return EventModel.scope('notRetracted').findAll({
    where: { setupId, kind: [...kinds] },
    include: 'author',
    order: ['seq'],
  });
}

/** Append a fact to a setup's record under the next number, in the transaction of what it records. */
export async function addEvent(e: NewEvent): Promise<number> {
  const [, [setup]] = await SetupModel.update(
    { nextSeq: literal('next_seq + 1') },
    { where: { id: e.setupId }, returning: true },
  );
  if (!setup) throw notFound('setup');
  await EventModel.create({
    id: e.id,
    origin: e.origin,
    createdAt: e.recordedAt,
    createdBy: e.by,
    setupId: e.setupId,
    seq: setup.nextSeq,
    kind: e.kind,
    body: e.body,
    happenedAt: e.happenedAt,
    recordedAt: e.recordedAt,
    corrects: e.corrects ?? null,
    private: e.private ?? null,
  });
  return setup.nextSeq;
}

const SOFTWARE = Object.values(SOFTWARE_NAMES).map((n) => n.toLowerCase());
const NAMED: readonly string[] = [
  'host',
  'port',
  'cable',
  'dock',
  'card',
  'loads',
  'supply',
  'screen',
  'system',
  'pieces',
  'approval',
  'security level',
  'internal graphics',
  'pins',
  'docked settings',
  'undocked settings',
  'buttons',
  'programs',
  'tuning',
  'use',
  ...SOFTWARE,
];
interface Snapshot {
  names?: Partial<Record<string, string>>;
}

function changes(before: Snapshot, after: Snapshot): { slot: string; from: string; to: string }[] {
  return NAMED.flatMap((slot) => {
    const from = before.names?.[slot] ?? '';
    const to = after.names?.[slot] ?? '';
    return from === to ? [] : [{ slot, from, to }];
  });
}

async function partChanges(setupId: string): Promise<SetupEvent[]> {
  const setup = await SetupModel.findByPk(setupId);
  const rows = await SetupRevisionModel.findAll({
    where: { setupId },
    include: 'author',
    order: ['rev'],
  });
  return rows.slice(1).flatMap((r, i): SetupEvent[] => {
    const list = changes(rows[i]?.snapshot ?? {}, r.snapshot);
    if (list.length === 0) return [];
    const at = r.at.toISOString();
    return [
      {
        id: r.id,
        seq: 0,
        kind: 'parts',
        body: { changes: list },
        happenedAt: at,
        recordedAt: at,
        corrects: null,
        by: r.author?.name ?? '',
        origin: setup?.origin ?? 'own',
      },
    ];
  });
}

/** A version marked as installed stands as its own fact; the change of the setup that came with it is not told twice. */
function unmarked(e: SetupEvent, marked: ReadonlySet<string>): SetupEvent[] {
  if (!marked.has(e.recordedAt)) return [e];
  const left = (e.body['changes'] as { slot: string }[]).filter((c) => !SOFTWARE.includes(c.slot));
  return left.length > 0 ? [{ ...e, body: { changes: left } }] : [];
}

/** The record of a setup, newest first: its facts, and its changes of parts folded by edit session. */
export async function recordOf(setupId: string): Promise<SetupEvent[]> {
  const rows = await EventModel.findAll({ where: { setupId }, include: 'author' });
  const facts = rows.map((e): SetupEvent => ({
    id: e.id,
    seq: e.seq,
    kind: e.kind as SetupEvent['kind'],
    body: { ...e.body, ...e.private },
    happenedAt: e.happenedAt.toISOString(),
    recordedAt: e.recordedAt.toISOString(),
    corrects: e.corrects,
    by: e.author?.name ?? '',
    origin: e.origin,
  }));
  const marked = new Set(facts.filter((f) => f.kind === 'version').map((f) => f.recordedAt));
  const changed = (await partChanges(setupId)).flatMap((e) => unmarked(e, marked));
  return [...facts, ...changed, ...(await pricesPaid(setupId))].sort(
    (a, b) =>
      b.happenedAt.localeCompare(a.happenedAt) ||
      b.recordedAt.localeCompare(a.recordedAt) ||
      b.seq - a.seq,
  );
}
