import { createOnce } from '../platform/db/rows';
import { PracticeModel } from './models/practice';
import { addStep } from './queries/add-step';
import { randomInt } from 'node:crypto';
import type * as z from 'zod';
import type { CauseId } from '@ruddy/core/base';
import {
  bestPath,
  type FaultId,
  type FaultMap,
  FAULTS,
  leftAt,
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
  injectFault,
  PRACTICE_CASES,
  PRACTICE_CHAINS,
  inspect,
  type InjectedFault,
} from '@ruddy/simbench';
import { HttpProblem, invalid, notFound } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { reportOf } from './bench-read';
import { chainOf } from '../setups/chain';
import { groundsFor } from '../plan/context';
import { readSetup } from '../setups/setup-store';

/** Upper bound on reported symptoms. */
const SHOWN = 2;
const MOST = 200;

async function benchFor(
  s: Services,
  chain: Chain,
): Promise<Omit<InjectedFault, 'faults' | 'order' | 'seed'>> {
  const context = await groundsFor(s, [chain]);
  return { chain, evaluation: evaluate({ chain, context }), read: reportOf };
}

const causesOf = (faults: FaultMap): CauseId[] => [
  ...new Set((Object.keys(faults) as FaultId[]).map((f) => FAULTS[f].cause)),
];

function rowOf(r: PracticeModel): PracticeRow {
  const graded = PRACTICE_CASES.find((c) => c.no === r.caseNo);
  return {
    id: r.id,
    caseNo: r.caseNo,
    name: r.name,
    grade: graded?.grade ?? null,
    at: r.createdAt.toISOString(),
    symptoms: r.symptoms,
    steps: r.steps,
    named: r.named,
    minutes: r.steps.reduce((sum, x) => sum + stepMinutes(x.test), 0),
    right: r.named === null ? null : causesOf(r.faults).includes(r.named),
    bestMinutes: r.ended?.best.minutes ?? null,
  };
}

function wholeOf(r: PracticeModel): Practice {
  const ended = r.ended && {
    truth: causesOf(r.faults),
    faults: r.faults,
    left: r.ended.left,
    best: { ...r.ended.best, steps: [...r.ended.best.steps] },
  };
  return { ...rowOf(r), chain: r.chain, order: r.orderUsed, ended };
}

async function stored(id: string): Promise<PracticeModel> {
  const row = await PracticeModel.findByPk(id);
  if (!row) throw notFound('practice');
  return row;
}

export async function readPractice(id: string): Promise<Practice> {
  return wholeOf(await stored(id));
}

/** Graded cases, and what was practised, newest first. */
export async function listPractices(): Promise<PracticeList> {
  const rows = await PracticeModel.findAll({
    order: [
      ['createdAt', 'DESC'],
      ['id', 'DESC'],
    ],
    limit: MOST,
  });
  return {
    items: rows.map(rowOf),
    cases: PRACTICE_CASES.map(({ no, grade, name }) => ({ no, grade, name })),
  };
}

type Begin = z.output<typeof practiceBody>;
type Begun = Pick<PracticeModel, 'name' | 'chain' | 'seed' | 'faults' | 'orderUsed' | 'symptoms'>;

async function graded(s: Services, no: number): Promise<Begun> {
  const c = PRACTICE_CASES.find((x) => x.no === no);
  if (!c) throw invalid('caseNo', `There is no case ${no}; the last is ${PRACTICE_CASES.length}`);
  const { name, chain, seed, faults, order } = c;
  const first = inspect({ ...(await benchFor(s, chain)), seed, faults, order });
  const symptoms = [...(c.complaint ?? first.symptoms)].slice(0, SHOWN);
  return { name, chain, seed, faults, orderUsed: order, symptoms };
}

async function atRandom(s: Services, b: Begin): Promise<Begun> {
  const seed = b.seed ?? randomInt(1_000_000);
  const own = b.setupId === null ? null : await readSetup(b.setupId);
  const chain = own
    ? chainOf(own.rows, own.row.details)
    : (PRACTICE_CHAINS[seed % PRACTICE_CHAINS.length] as Chain);
  const found = injectFault(await benchFor(s, chain), seed, b.two);
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
    orderUsed: hidden.order,
    symptoms: first.symptoms.slice(0, SHOWN),
  };
}

/** Begin to practise. A repeated id is answered with what is there. */
export async function beginPractice(
  s: Services,
  b: Begin,
  actor: Actor,
): Promise<{ practice: Practice; fresh: boolean }> {
  const known = await PracticeModel.findByPk(b.id);
  if (known) return { practice: wholeOf(known), fresh: false };
  const p = b.caseNo === null ? await atRandom(s, b) : await graded(s, b.caseNo);
  const isNew = await createOnce(PracticeModel, {
    id: b.id,
    origin: 'own',
    createdAt: s.now(),
    createdBy: actor.id,
    caseNo: b.caseNo,
    ...p,
  });
  return { practice: await readPractice(b.id), fresh: isNew };
}

async function hiddenOf(s: Services, r: PracticeModel): Promise<InjectedFault> {
  return { ...(await benchFor(s, r.chain)), seed: r.seed, faults: r.faults, order: r.orderUsed };
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
  const says = benchAnswer(hidden, inspect(hidden), r.symptoms, test);
  await addStep(id, { test, says });
  return readPractice(id);
}

/** Name the cause: the practice is over, and what was hidden is shown beside the best path. */
export async function namePractice(s: Services, id: string, cause: CauseId): Promise<Practice> {
  const r = await stored(id);
  if (r.named !== null) throw over();
  const hidden = await hiddenOf(s, r);
  const first = inspect(hidden);
  const net = netFor(r.chain);
  const own = bestPath(net, r.symptoms, (test) => benchAnswer(hidden, first, r.symptoms, test));
  // In hindsight, of all that was asked by either, the least that tells it.
  const known = [...own.steps, ...r.steps];
  const paths = causesOf(r.faults).flatMap((c) => shortestPath(net, r.symptoms, c, known) ?? []);
  const best = paths.reduce((a, b) => (b.minutes < a.minutes ? b : a), paths[0] ?? own);
  const ended = { best, left: leftAt(net, r.symptoms, r.steps, cause) };
  await PracticeModel.update({ named: cause, ended }, { where: { id, named: null } });
  return readPractice(id);
}

export async function removePractice(id: string): Promise<void> {
  if ((await PracticeModel.destroy({ where: { id } })) === 0) throw notFound('practice');
}
