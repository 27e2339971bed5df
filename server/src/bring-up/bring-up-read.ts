import type { SetupEvent } from '@ruddy/core/compatibility/contract';
import { timedNotes, triedOn } from './queries/attempt-history';
import type * as z from 'zod';
import { stepTimes } from '@ruddy/core/bring-up';
import type {
  attemptEvent,
  AttemptRow,
  BringUp,
  endedEvent,
  goodEvent,
  stepEvent,
  StepRow,
} from '@ruddy/core/bring-up/contract';
import { type Chain, partName } from '@ruddy/core/chain';
import { chainOf } from '../setups/chain';
import { eventsOf } from '../setups/events';
import { readSetup } from '../setups/setup-store';

/** Host and kind of link as tries are counted by: the cable may differ, the machine and its port may not. */
export function countedAs(chain: Chain): { host: string; link: string } {
  const port = chain.host?.sockets.find((s) => s.key === chain.socket);
  const standard = port
    ? typeof port.standard === 'string'
      ? port.standard
      : 'not known'
    : 'none';
  return {
    host: partName(chain.host).toLowerCase(),
    link: port ? `${port.connector} ${standard}` : 'none',
  };
}

interface EventRow<B> {
  id: string;
  kind: string;
  body: B;
  at: Date;
  by: string;
}

/** Events of some kinds, oldest first, without those that were taken back. */
async function notRetractedEvents<B>(
  setupId: string,
  kinds: readonly SetupEvent['kind'][],
): Promise<EventRow<B>[]> {
  return (await eventsOf(setupId, kinds)).map((e) => ({
    id: e.id,
    kind: e.kind,
    body: e.body as B,
    at: e.happenedAt,
    by: e.author?.name ?? '',
  }));
}

type Ended = z.infer<typeof endedEvent>;

/** Attempts of a setup, oldest first, each with how it ended. */
export async function attemptsOf(setupId: string): Promise<AttemptRow[]> {
  const rows = await notRetractedEvents<z.infer<typeof attemptEvent> | Ended>(setupId, [
    'attempt',
    'ended',
  ]);
  const ended = new Map(
    rows.flatMap((r) =>
      r.kind === 'ended'
        ? [[(r.body as Ended).attempt, { body: r.body as Ended, at: r.at }] as const]
        : [],
    ),
  );
  return rows.flatMap((r): AttemptRow[] => {
    if (r.kind !== 'attempt') return [];
    const end = ended.get(r.id);
    return [
      {
        id: r.id,
        ...(r.body as z.infer<typeof attemptEvent>),
        startedAt: r.at.toISOString(),
        ended: end
          ? { outcome: end.body.outcome, worked: end.body.worked, at: end.at.toISOString() }
          : null,
      },
    ];
  });
}

/** What was noted at steps, in the order it was noted. */
export async function stepsOf(setupId: string): Promise<StepRow[]> {
  const rows = await notRetractedEvents<z.infer<typeof stepEvent>>(setupId, ['step']);
  return rows.map((r) => ({ id: r.id, at: r.at.toISOString(), by: r.by, ...r.body }));
}

/** Everything the page of bringing up shows of a setup. */
export async function readBringUp(setupId: string): Promise<BringUp> {
  const { setup, rows, row } = await readSetup(setupId);
  const counted = countedAs(chainOf(rows, row.details));
  const [attempts, steps, tried, goods, notes] = await Promise.all([
    attemptsOf(setupId),
    stepsOf(setupId),
    counted.host === '' ? [] : triedOn(counted),
    notRetractedEvents<z.infer<typeof goodEvent>>(setupId, ['good']),
    timedNotes(),
  ]);
  const last = goods[goods.length - 1];
  const good = last ? { id: last.id, at: last.at.toISOString(), ...last.body } : null;
  const times = [...stepTimes(notes)].map(([step, t]) => ({ step, ...t }));
  return { setup, attempts, steps, tried, good, times };
}
