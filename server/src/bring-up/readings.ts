import { inTransaction } from '../platform/db/transaction';
import type * as z from 'zod';
import { bare } from '@ruddy/core/base';
import {
  isDisplay,
  linkCheck,
  type LinkCheck,
  type Reading,
  type Report,
} from '@ruddy/core/bring-up';
import {
  type readingBody,
  type ReadingEntry,
  storedReading,
  type StoredReading,
} from '@ruddy/core/bring-up/contract';
import { linkCheckHeadline } from '@ruddy/core/bring-up/text';
import { type Chain, chainNames } from '@ruddy/core/chain';
import { evaluate } from '@ruddy/core/plan';
import { EventModel } from '../setups/models/event';
import { HttpProblem, invalid } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { chainOf } from '../setups/chain';
import { groundsFor } from '../plan/context';
import { addEvent } from '../setups/events';
import { itemLabels, readSetup } from '../setups/setup-store';

/** Of a report only what a link check looks at is kept: bridges, graphics, and the link's own controllers. */
function kept(report: Report): Report {
  const link = (cls: string | null) => cls !== null && ['0604', '0c03', '0880'].includes(cls);
  return {
    ...report,
    devices: report.devices.filter(
      (d) =>
        d.bus !== null ||
        (d.port !== null && d.port !== 'endpoint') ||
        isDisplay(d) ||
        link(d.classCode),
    ),
  };
}

/** Grades a reading against the present chain, under the present rules. */
async function judged(
  s: Services,
  reading: Reading,
  chain: Chain,
  at: Pick<StoredReading, 'through' | 'attempt'>,
): Promise<StoredReading> {
  const grounds = await groundsFor(s, [chain]);
  const e = evaluate({ chain, context: grounds });
  const check = linkCheck(reading, chain, e, grounds.house);
  const { gen, lanes, copy } = e.predicted.link.readouts;
  return {
    reading: { ...reading, report: reading.report && kept(reading.report) },
    sentence: linkCheckHeadline(check, e),
    overall: check.overall,
    grade: check.copy?.grade ?? null,
    gbps: check.copy?.gbps ?? null,
    share: check.copy?.share && Number.isFinite(check.copy.share.hi) ? check.copy.share : null,
    seen: seenOf(check),
    ...at,
    expected: { gen: bare(gen), lanes: bare(lanes), down: bare(copy?.down), up: bare(copy?.up) },
    core: e.core,
  };
}

/** What was seen of router and slot, whichever way it was read. */
function seenOf(c: LinkCheck): StoredReading['seen'] {
  const row = (key: 'router' | 'card') => c.rows.find((r) => r.key === key)?.seen;
  return {
    routerGbps: row('router')?.laneGbps ?? null,
    lanes: row('card')?.lanes ?? null,
    gen: row('card')?.gen ?? null,
  };
}

/** The pieces named along the path. */
function pathItems(items: Record<string, string>): Record<string, string> {
  return Object.fromEntries(Object.entries(items).filter(([place]) => place.startsWith('path/')));
}

/** Store a reading of a setup as a fact of its record. A repeated id is answered with what is stored. */
export async function addReading(
  s: Services,
  setupId: string,
  body: z.output<typeof readingBody>,
  actor: Actor,
): Promise<{ fresh: boolean }> {
  const at = s.now();
  const happenedAt = body.happenedAt ? new Date(body.happenedAt) : at;
  if (happenedAt.getTime() > at.getTime() + 60_000)
    throw invalid('happenedAt', 'The reading would be in the future');
  return inTransaction(async () => {
    const { rows, row, setup } = await readSetup(setupId, true);
    const known = await EventModel.findByPk(body.id, { raw: true });
    if (known && (known.setupId !== setupId || known.kind !== 'reading'))
      throw new HttpProblem(409, 'Another fact has this id', {
        errors: [{ path: 'id', message: 'Another fact has this id' }],
      });
    if (known) return { fresh: false };
    const chain = chainOf(rows, row.details);
    const piece = await itemLabels({ ...setup.slots, items: pathItems(setup.slots.items) });
    const { cable, port } = chainNames(chain);
    const stored = await judged(s, body.reading, chain, {
      through: { cable, piece, port },
      attempt: body.attempt,
    });
    await addEvent({
      id: body.id,
      setupId,
      kind: 'reading',
      body: stored,
      happenedAt,
      recordedAt: at,
      origin: 'own',
      by: actor.id,
    });
    return { fresh: true };
  });
}

/** Readings of a setup, newest first. */
export async function listReadings(setupId: string, limit = 100): Promise<ReadingEntry[]> {
  const rows = await EventModel.scope('notRetracted').findAll({
    where: { setupId, kind: 'reading' },
    include: 'author',
    order: [
      ['happenedAt', 'DESC'],
      ['seq', 'DESC'],
    ],
    limit,
  });
  return rows.map((e) => ({
    id: e.id,
    by: e.author?.name ?? '',
    origin: e.origin,
    ...storedReading.parse(e.body),
    happenedAt: e.happenedAt.toISOString(),
    recordedAt: e.recordedAt.toISOString(),
  }));
}
