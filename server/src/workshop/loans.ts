import { Op, Transaction } from 'sequelize';
import { ItemModel } from '../parts/models/item';
import { MemberModel } from '../platform/access/models/member';
import { adopted, nextRevision } from '../platform/db/columns';
import { exists } from '../platform/db/rows';
import { SetupModel } from '../setups/models/setup';
import { LoanModel } from './models/loan';
import { loanRows } from './queries/loan-rows';
import { inTransaction } from '../platform/db/transaction';
import type * as z from 'zod';
import { LEND_KINDS } from '@ruddy/core/workshop';
import type {
  Back,
  backBody,
  HandOver,
  loanBody,
  loanPatch,
  loanQuery,
  LoanRow,
} from '@ruddy/core/workshop/contract';
import { THIS_MACHINE } from '../platform/access/actor';
import { HttpProblem, invalid, notFound, refuseFuture } from '../platform/http/problem';
import { checkRevision, type Actor, type Services } from '../platform/http/route';
import { addFact, type Made } from '../parts/items';

/** Loans that are out or waited for, or the last that came back. */
export function listLoans(q: z.output<typeof loanQuery>): Promise<LoanRow[]> {
  const state =
    q.state === 'open' ? 'l.returned_on IS NULL AND NOT l.withdrawn' : 'l.returned_on IS NOT NULL';
  const order = q.state === 'open' ? 'l.asked_on, l.id' : 'l.returned_on DESC, l.id DESC';
  return loanRows(`${state} AND ($1::uuid IS NULL OR l.item_id = $1) ORDER BY ${order} LIMIT 500`, [
    q.itemId ?? null,
  ]);
}

export async function getLoan(id: string): Promise<LoanRow> {
  const [found] = await loanRows('l.id = $1', [id]);
  if (!found) throw notFound('loan');
  return found;
}

/** Of one piece one loan is out at a time: whoever lends takes the piece's row first. */
async function lockItem(id: string, path: string): Promise<ItemModel> {
  const item = await ItemModel.findByPk(id, {
    include: 'part',
    lock: { level: Transaction.LOCK.UPDATE, of: ItemModel },
  });
  if (!item) throw invalid(path, 'No item has this id');
  if (item.how === 'gone') throw invalid(path, `${item.label} is gone`);
  if (!(LEND_KINDS as readonly string[]).includes(item.part?.kind ?? ''))
    throw invalid(path, `${item.label} is nothing that can be lent`);
  return item;
}

async function refuseOut(itemId: string, label: string): Promise<void> {
  const out = await LoanModel.findOne({
    where: { itemId, fromOn: { [Op.ne]: null }, returnedOn: null },
    include: 'member',
  });
  if (out)
    throw new HttpProblem(409, 'It is out', {
      detail: `${label} is with ${out.member?.name ?? ''}; wait for it, or take it back first`,
    });
}

async function requireSetupOf(id: string | null): Promise<void> {
  if (id !== null && !(await exists(SetupModel, id)))
    throw invalid('setupId', 'No setup has this id');
}

const outValues = (out: HandOver) => ({
  fromOn: out.fromOn,
  dueOn: out.dueOn,
  conditionOut: out.condition,
  along: out.along,
  note: out.note,
  checked: out.checked,
});

/** Refuses loans to retired members and to the built-in keeper. */
async function requireBorrower(id: string): Promise<void> {
  const row = await MemberModel.findByPk(id);
  if (row && !row.active) throw invalid('memberId', `${row.name} is no member any more`);
  if (id === THIS_MACHINE.id)
    throw invalid('memberId', 'Lend it to a person: this machine borrows nothing');
}

/** Write a loan down: lent now, or waited for. The same id twice changes nothing. */
export async function addLoan(
  body: z.output<typeof loanBody> & { askedOn: string },
  made: Made,
): Promise<'stored' | 'same'> {
  if (await exists(LoanModel, body.id)) return 'same';
  const item = await lockItem(body.itemId, 'itemId');
  if (!(await exists(MemberModel, body.memberId)))
    throw invalid('memberId', 'No member has this id');
  await requireSetupOf(body.setupId);
  if (body.out) await refuseOut(body.itemId, item.label);
  await LoanModel.create({
    id: body.id,
    origin: made.origin,
    createdAt: made.at,
    createdBy: made.by,
    itemId: body.itemId,
    memberId: body.memberId,
    setupId: body.setupId,
    askedOn: body.askedOn,
    ...(body.out && outValues(body.out)),
  });
  return 'stored';
}

export async function createLoan(s: Services, body: z.output<typeof loanBody>, actor: Actor) {
  const askedOn = s.now().toISOString().slice(0, 10);
  if (body.out) refuseFuture('out/fromOn', body.out.fromOn, s.now());
  const made = { origin: 'own' as const, at: s.now(), by: actor.id };
  const fate = await inTransaction(async () => {
    await requireBorrower(body.memberId);
    return addLoan({ ...body, askedOn }, made);
  });
  return { loan: await getLoan(body.id), fresh: fate === 'stored' };
}

/** What handing over writes, refused where the piece is out or the member cannot borrow. */
async function handOver(out: HandOver, loan: LoanRow, label: string, now: Date) {
  if (loan.fromOn !== null)
    throw new HttpProblem(409, 'It is out', {
      detail: `${loan.label} is with ${loan.member} already`,
    });
  refuseFuture('out/fromOn', out.fromOn, now);
  await requireBorrower(loan.memberId);
  await refuseOut(loan.itemId, label);
  return outValues(out);
}

/** Another day on which a loan that is out is due. */
function dueChanged(dueOn: string | null, loan: LoanRow) {
  if (loan.fromOn === null) throw invalid('dueOn', 'It is not out yet');
  if (dueOn !== null && dueOn < loan.fromOn) throw invalid('dueOn', 'Due: not before it went out');
  return { dueOn };
}

function refuseEnded(loan: LoanRow): void {
  if (loan.returnedOn !== null)
    throw new HttpProblem(409, 'It is back', {
      detail: `${loan.label} came back; what has happened stays`,
    });
  if (loan.withdrawn)
    throw new HttpProblem(409, 'It was let go', { detail: 'This wish was let go; ask anew' });
}

/** Hand over what was waited for, move the day it is due, say what it is for, or let the wish go. */
export async function patchLoan(
  s: Services,
  id: string,
  patch: z.output<typeof loanPatch>,
  revision: number,
): Promise<LoanRow> {
  return inTransaction(async () => {
    const first = await getLoan(id);
    const item = await lockItem(first.itemId, 'id');
    const loan = await getLoan(id);
    checkRevision(revision, loan.rev, loan);
    refuseEnded(loan);
    const { setupId, out, dueOn, withdrawn } = patch;
    if (setupId !== undefined) await requireSetupOf(setupId);
    const handed = out && (await handOver(out, loan, item.label, s.now()));
    const moved = !out && dueOn !== undefined ? dueChanged(dueOn, loan) : {};
    if (withdrawn && (loan.fromOn !== null || out))
      throw invalid('withdrawn', 'It is out: take it back instead');
    await LoanModel.update(
      {
        ...(setupId !== undefined && { setupId }),
        ...(withdrawn && { withdrawn }),
        ...handed,
        ...moved,
        rev: nextRevision(),
        origin: adopted(),
      },
      { where: { id } },
    );
    return getLoan(id);
  });
}

/** Write the return of a loan. */
export async function writeBack(
  loan: LoanRow,
  { returnedOn, ...back }: Back & { returnedOn: string },
  /** When it happens now: the piece takes the condition it came back in, and a fault that was seen is noted on it under this id. */
  fault: (Made & { id: string }) | null,
): Promise<void> {
  const surplus = back.missing.find((m) => !loan.along.includes(m));
  if (surplus !== undefined) throw invalid('missing', `Missing: "${surplus}" did not go along`);
  if (loan.fromOn === null || returnedOn < loan.fromOn)
    throw invalid('returnedOn', 'Back: not before it went out');
  await LoanModel.update(
    { returnedOn, back: back satisfies Back, rev: nextRevision() },
    { where: { id: loan.id } },
  );
  // What a file tells of long ago is in the piece and its facts already.
  if (fault === null) return;
  if (back.condition !== null)
    await ItemModel.update(
      { condition: back.condition, rev: nextRevision() },
      {
        where: {
          id: loan.itemId,
          [Op.or]: [{ condition: { [Op.ne]: back.condition } }, { condition: null }],
        },
      },
    );
  const words = back.testWords.slice(0, 200);
  const seen = {
    id: fault.id,
    itemId: loan.itemId,
    kind: 'fault',
    happenedOn: returnedOn,
    gbps: null,
    role: null,
    words,
  } as const;
  if (back.tested === 'fails') await addFact(seen, fault);
}

/** Take a piece back after its three steps. */
export async function takeBack(
  s: Services,
  id: string,
  body: z.output<typeof backBody>,
  revision: number,
  actor: Actor,
): Promise<LoanRow> {
  refuseFuture('returnedOn', body.returnedOn, s.now());
  return inTransaction(async () => {
    const first = await getLoan(id);
    await lockItem(first.itemId, 'id');
    const loan = await getLoan(id);
    checkRevision(revision, loan.rev, loan);
    if (loan.fromOn === null)
      throw new HttpProblem(409, 'It is not out', { detail: `${loan.label} is not out` });
    if (loan.returnedOn !== null)
      throw new HttpProblem(409, 'It is back', {
        detail: `${loan.label} came back on ${loan.returnedOn}`,
      });
    const { id: factId, ...back } = body;
    await writeBack(loan, back, { id: factId, origin: 'own', at: s.now(), by: actor.id });
    await LoanModel.update({ origin: adopted() }, { where: { id } });
    return getLoan(id);
  });
}
