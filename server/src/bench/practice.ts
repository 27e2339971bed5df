import { execute, select } from '../platform/db/database';
import { randomInt } from 'node:crypto';
import type * as z from 'zod';
import type { CauseId, SymptomId } from '@ruddy/core/base';
import {
  bestPath,
  type FaultId,
  type FaultMap,
  FAULTS,
  leftAt,
  type Path,
  type PracticeStep,
  shortestPath,
  stepMinutes,
} from '@ruddy/core/bench';
import type {
  Practice,
  practiceBody,
  PracticeList,
  PracticeRow,
  practiceTestBody,
} from '@ruddy/core/bench/contract';
import type { Chain } from '@ruddy/core/chain';
import { evaluate } from '@ruddy/core/plan';
import { netFor } from '@ruddy/core/troubleshoot';
import {
  benchAnswer,
  hideFault,
  PRACTICE_CASES,
  PRACTICE_CHAINS,
  survey,
  type Hidden,
} from '@ruddy/simbench';
import { HttpProblem, invalid, notFound } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { reportOf } from './bench-read';
import { chainOf } from '../setups/chain';
import { groundsFor } from '../plan/context';
import { readSetup } from '../setups/setup-store';

interface Stored {
  id: string;
  case_no: number | null;
  name: string;
  chain: Chain;
  seed: number;
  faults: FaultMap;
  order_used: Hidden['order'];
  symptoms: SymptomId[];
  steps: PracticeStep[];
  named: CauseId | null;
  ended: { best: Path; left: ReturnType<typeof leftAt> } | null;
  created_at: Date;
}

const COLUMNS =
  'id, case_no, name, chain, seed, faults, order_used, symptoms, steps, named, ended, created_at';
/** More symptoms than this nobody comes with. */
const SHOWN = 2;
const MOST = 200;

async function benchFor(
  s: Services,
  chain: Chain,
): Promise<Omit<Hidden, 'faults' | 'order' | 'seed'>> {
  const context = await groundsFor(s, [chain]);
  return { chain, evaluation: evaluate({ chain, context }), read: reportOf };
}

const causesOf = (faults: FaultMap): CauseId[] => [
  ...new Set((Object.keys(faults) as FaultId[]).map((f) => FAULTS[f].cause)),
];

function rowOf(r: Stored): PracticeRow {
  const graded = PRACTICE_CASES.find((c) => c.no === r.case_no);
  return {
    id: r.id,
    caseNo: r.case_no,
    name: r.name,
    grade: graded?.grade ?? null,
    at: r.created_at.toISOString(),
    symptoms: r.symptoms,
    steps: r.steps,
    named: r.named,
    minutes: r.steps.reduce((sum, x) => sum + stepMinutes(x.test), 0),
    right: r.named === null ? null : causesOf(r.faults).includes(r.named),
    bestMinutes: r.ended?.best.minutes ?? null,
  };
}

function wholeOf(r: Stored): Practice {
  const ended = r.ended && {
    truth: causesOf(r.faults),
    faults: r.faults,
    left: r.ended.left,
    best: { ...r.ended.best, steps: [...r.ended.best.steps] },
  };
  return { ...rowOf(r), chain: r.chain, order: r.order_used, ended };
}

async function find(id: string): Promise<Stored | null> {
  const [row] = await select<Stored>(`SELECT ${COLUMNS} FROM practices WHERE id = $1`, [id]);
  return row ?? null;
}

async function stored(id: string): Promise<Stored> {
  const row = await find(id);
  if (!row) throw notFound('practice');
  return row;
}

export async function readPractice(id: string): Promise<Practice> {
  return wholeOf(await stored(id));
}

/** Graded cases, and what was practised, newest first. */
export async function listPractices(): Promise<PracticeList> {
  const rows = await select<Stored>(
    `SELECT ${COLUMNS} FROM practices ORDER BY created_at DESC, id DESC LIMIT ${MOST}`,
  );
  return {
    items: rows.map(rowOf),
    cases: PRACTICE_CASES.map(({ no, grade, name }) => ({ no, grade, name })),
  };
}

type Begin = z.output<typeof practiceBody>;
type Begun = Pick<Stored, 'name' | 'chain' | 'seed' | 'faults' | 'order_used' | 'symptoms'>;

async function graded(s: Services, no: number): Promise<Begun> {
  const c = PRACTICE_CASES.find((x) => x.no === no);
  if (!c) throw invalid('caseNo', `There is no case ${no}; the last is ${PRACTICE_CASES.length}`);
  const { name, chain, seed, faults, order } = c;
  const first = survey({ ...(await benchFor(s, chain)), seed, faults, order });
  const symptoms = [...(c.complaint ?? first.symptoms)].slice(0, SHOWN);
  return { name, chain, seed, faults, order_used: order, symptoms };
}

async function atRandom(s: Services, b: Begin): Promise<Begun> {
  const seed = b.seed ?? randomInt(1_000_000);
  const own = b.setupId === null ? null : await readSetup(b.setupId);
  const chain = own
    ? chainOf(own.rows, own.row.details)
    : (PRACTICE_CHAINS[seed % PRACTICE_CHAINS.length] as Chain);
  const found = hideFault(await benchFor(s, chain), seed, b.two);
  if (!found)
    throw new HttpProblem(409, 'Nothing can be hidden in this chain', {
      detail:
        'This chain does not come up on a bench, or no fault shows on it. Choose host, port, cable, dock and card on Plan first.',
    });
  const { hidden, first } = found;
  const name = `${b.two ? 'Two hidden faults' : 'A hidden fault'}${own ? ` in ${own.setup.name}` : ''}`;
  return {
    name,
    chain,
    seed,
    faults: hidden.faults,
    order_used: hidden.order,
    symptoms: first.symptoms.slice(0, SHOWN),
  };
}

/** Begin to practise. A repeated id is answered with what is there. */
export async function beginPractice(
  s: Services,
  b: Begin,
  actor: Actor,
): Promise<{ practice: Practice; fresh: boolean }> {
  const known = await find(b.id);
  if (known) return { practice: wholeOf(known), fresh: false };
  const p = b.caseNo === null ? await atRandom(s, b) : await graded(s, b.caseNo);
  const made = await select(
    `INSERT INTO practices (id, origin, created_at, created_by, case_no, name, chain, seed, faults, order_used, symptoms)
     VALUES ($1, 'own', $2, $3, $4, $5, $6::jsonb, $7, $8::jsonb, $9, $10) ON CONFLICT (id) DO NOTHING RETURNING id`,
    [
      ...[
        b.id,
        s.now(),
        actor.id,
        b.caseNo,
        p.name,
        JSON.stringify(p.chain),
        p.seed,
        JSON.stringify(p.faults),
      ],
      ...[p.order_used, p.symptoms],
    ],
  );
  return { practice: await readPractice(b.id), fresh: made.length > 0 };
}

async function hiddenOf(s: Services, r: Stored): Promise<Hidden> {
  return { ...(await benchFor(s, r.chain)), seed: r.seed, faults: r.faults, order: r.order_used };
}

const over = () =>
  new HttpProblem(409, 'This practice is over', { detail: 'A cause was named; begin another.' });

/** Make a test on the bench. The same test again changes nothing: nothing was changed in between. */
export async function tryPractice(
  s: Services,
  id: string,
  { test }: z.output<typeof practiceTestBody>,
): Promise<Practice> {
  const r = await stored(id);
  if (r.named !== null) throw over();
  if (r.steps.some((x) => x.test === test)) return wholeOf(r);
  if (!netFor(r.chain).tests.includes(test))
    throw invalid('test', 'This chain has nothing of the kind to test');
  const hidden = await hiddenOf(s, r);
  const says = benchAnswer(hidden, survey(hidden), r.symptoms, test);
  await execute(
    `UPDATE practices SET steps = steps || $2::jsonb
     WHERE id = $1 AND named IS NULL AND NOT steps @> $3::jsonb`,
    [id, JSON.stringify([{ test, says }]), JSON.stringify([{ test }])],
  );
  return readPractice(id);
}

/** Name the cause: the practice is over, and what was hidden is shown beside the best path. */
export async function namePractice(s: Services, id: string, cause: CauseId): Promise<Practice> {
  const r = await stored(id);
  if (r.named !== null) throw over();
  const hidden = await hiddenOf(s, r);
  const first = survey(hidden);
  const net = netFor(r.chain);
  const own = bestPath(net, r.symptoms, (test) => benchAnswer(hidden, first, r.symptoms, test));
  // In hindsight, of all that was asked by either, the least that tells it.
  const known = [...own.steps, ...r.steps];
  const paths = causesOf(r.faults).flatMap((c) => shortestPath(net, r.symptoms, c, known) ?? []);
  const best = paths.reduce((a, b) => (b.minutes < a.minutes ? b : a), paths[0] ?? own);
  const ended = { best, left: leftAt(net, r.symptoms, r.steps, cause) };
  await execute(
    'UPDATE practices SET named = $2, ended = $3::jsonb WHERE id = $1 AND named IS NULL',
    [id, cause, JSON.stringify(ended)],
  );
  return readPractice(id);
}

export async function removePractice(id: string): Promise<void> {
  const rows = await select('DELETE FROM practices WHERE id = $1 RETURNING id', [id]);
  if (rows.length === 0) throw notFound('practice');
}
