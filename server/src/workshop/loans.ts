import { execute, select } from '../platform/db/database';
import { inTransaction } from '../platform/db/transaction';
import type * as z from 'zod';
import { partName } from '@ruddy/core/chain';
import { LEND_KINDS } from '@ruddy/core/workshop';
import type {
  Back,
  backBody,
  HandOver,
  Lendable,
  loanBody,
  loanPatch,
  loanQuery,
  LoanRow,
} from '@ruddy/core/workshop/contract';
import { THIS_MACHINE } from '../platform/access/actor';
import { HttpProblem, invalid, notFound, refuseFuture } from '../platform/http/problem';
import { checkRevision, type Actor, type Services } from '../platform/http/route';
import { addFact, type Made } from '../parts/items';

/** Live setups that name a piece. */
const LIVE_IN = `coalesce((SELECT jsonb_agg(DISTINCT jsonb_build_object('id', s.id, 'name', s.name)) FROM setup_slots t JOIN setups s ON s.id = t.setup_id
  WHERE t.item_id = i.id AND s.state = 'live'), '[]')`;

interface Spec {
  maker: string;
  model: string;
  variant: string;
}
type Row = Omit<LoanRow, 'part'> & { spec: Spec };

async function rows(where: string, bind: unknown[]): Promise<LoanRow[]> {
  const found = await select<Row>(
    `SELECT l.id, l.item_id AS "itemId", i.label, p.id AS "partId", p.kind, p.spec, l.member_id AS "memberId", m.name AS member,
       CASE WHEN u.id IS NULL THEN NULL ELSE jsonb_build_object('id', u.id, 'name', u.name) END AS setup,
       l.asked_on::text AS "askedOn", l.from_on::text AS "fromOn", l.due_on::text AS "dueOn", l.condition_out AS "conditionOut",
       l.along, l.note, l.checked, l.returned_on::text AS "returnedOn", l.back, l.withdrawn, l.rev, l.origin,
       coalesce((SELECT jsonb_agg(jsonb_build_object('loanId', n.id, 'member', nm.name) ORDER BY n.asked_on, n.id) FROM loans n
         JOIN members nm ON nm.id = n.member_id WHERE n.item_id = l.item_id AND n.from_on IS NULL AND NOT n.withdrawn AND n.id <> l.id), '[]') AS next,
       ${LIVE_IN} AS "liveIn"
     FROM loans l JOIN items i ON i.id = l.item_id JOIN parts p ON p.id = i.part_id JOIN members m ON m.id = l.member_id
       LEFT JOIN setups u ON u.id = l.setup_id
     WHERE ${where}`,
    bind,
  );
  return found.map(({ spec, ...r }) => ({ ...r, part: partName(spec) }));
}

/** Loans that are out or waited for, or the last that came back. */
export function listLoans(q: z.output<typeof loanQuery>): Promise<LoanRow[]> {
  const state =
    q.state === 'open' ? 'l.returned_on IS NULL AND NOT l.withdrawn' : 'l.returned_on IS NOT NULL';
  const order = q.state === 'open' ? 'l.asked_on, l.id' : 'l.returned_on DESC, l.id DESC';
  return rows(`${state} AND ($1::uuid IS NULL OR l.item_id = $1) ORDER BY ${order} LIMIT 500`, [
    q.itemId ?? null,
  ]);
}

export async function getLoan(id: string): Promise<LoanRow> {
  const [found] = await rows('l.id = $1', [id]);
  if (!found) throw notFound('loan');
  return found;
}

/** Every piece that can leave the room, by label, with where it is. */
export async function listLendable(): Promise<Lendable[]> {
  const found = await select<Omit<Lendable, 'part'> & { spec: Spec }>(
    `SELECT i.id, i.label, p.id AS "partId", p.kind, p.spec, i.condition,
       (SELECT m.name FROM loans l JOIN members m ON m.id = l.member_id WHERE l.item_id = i.id AND l.from_on IS NOT NULL AND l.returned_on IS NULL) AS with,
       ${LIVE_IN} AS "liveIn"
     FROM items i JOIN parts p ON p.id = i.part_id WHERE i.how <> 'gone' AND p.kind = ANY($1::text[]) ORDER BY lower(i.label), i.id LIMIT 2000`,
    [LEND_KINDS],
  );
  return found.map(({ spec, ...r }) => ({ ...r, part: partName(spec) }));
}

/** Of one piece one loan is out at a time: whoever lends takes the piece's row first. */
async function lockItem(id: string, path: string) {
  const [item] = await select<{ label: string; how: string; kind: string }>(
    'SELECT i.label, i.how, p.kind FROM items i JOIN parts p ON p.id = i.part_id WHERE i.id = $1 FOR UPDATE OF i',
    [id],
  );
  if (!item) throw invalid(path, 'No piece has this id');
  if (item.how === 'gone') throw invalid(path, `${item.label} is gone`);
  if (!(LEND_KINDS as readonly string[]).includes(item.kind))
    throw invalid(path, `${item.label} is nothing that can be lent`);
  return item;
}

async function refuseOut(itemId: string, label: string): Promise<void> {
  const [out] = await select<{ name: string }>(
    'SELECT m.name FROM loans l JOIN members m ON m.id = l.member_id WHERE l.item_id = $1 AND l.from_on IS NOT NULL AND l.returned_on IS NULL',
    [itemId],
  );
  if (out)
    throw new HttpProblem(409, 'It is out', {
      detail: `${label} is with ${out.name}; wait for it, or take it back first`,
    });
}

async function requireRow(table: 'members' | 'setups', id: string, path: string) {
  const [row] = await select(`SELECT 1 FROM ${table} WHERE id = $1`, [id]);
  if (!row)
    throw invalid(path, table === 'members' ? 'No member has this id' : 'No setup has this id');
}

const outValues = (out: HandOver) => [
  out.fromOn,
  out.dueOn,
  out.condition,
  JSON.stringify(out.along),
  out.note,
  out.checked === null ? null : JSON.stringify(out.checked),
];

/** Nothing is lent to who was let go, or to the machine itself. */
async function requireBorrower(id: string): Promise<void> {
  const [row] = await select<{ name: string; active: boolean }>(
    'SELECT name, active FROM members WHERE id = $1',
    [id],
  );
  if (row && !row.active) throw invalid('memberId', `${row.name} is no member any more`);
  if (id === THIS_MACHINE.id)
    throw invalid('memberId', 'Lend it to a person: this machine borrows nothing');
}

/** Write a loan down: lent now, or waited for. The same id twice changes nothing. */
export async function addLoan(
  body: z.output<typeof loanBody> & { askedOn: string },
  made: Made,
): Promise<'stored' | 'same'> {
  const [known] = await select('SELECT 1 FROM loans WHERE id = $1', [body.id]);
  if (known) return 'same';
  const item = await lockItem(body.itemId, 'itemId');
  await requireRow('members', body.memberId, 'memberId');
  if (body.setupId !== null) await requireRow('setups', body.setupId, 'setupId');
  if (body.out) await refuseOut(body.itemId, item.label);
  const none = [null, null, null, '[]', '', null];
  await execute(
    `INSERT INTO loans (id, origin, created_at, created_by, item_id, member_id, setup_id, asked_on, from_on, due_on, condition_out, along, note, checked)
     VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12::jsonb, $13, $14::jsonb)`,
    [
      ...[
        body.id,
        made.origin,
        made.at,
        made.by,
        body.itemId,
        body.memberId,
        body.setupId,
        body.askedOn,
      ],
      ...(body.out ? outValues(body.out) : none),
    ],
  );
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

const CHANGED = `rev = rev + 1, origin = CASE origin WHEN 'demo' THEN 'adopted' ELSE origin END`;

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
    if (loan.returnedOn !== null)
      throw new HttpProblem(409, 'It is back', {
        detail: `${loan.label} came back; what has happened stays`,
      });
    if (loan.withdrawn)
      throw new HttpProblem(409, 'It was let go', { detail: 'This wish was let go; ask anew' });
    if (patch.setupId !== undefined) {
      if (patch.setupId !== null) await requireRow('setups', patch.setupId, 'setupId');
      await execute('UPDATE loans SET setup_id = $2 WHERE id = $1', [id, patch.setupId]);
    }
    if (patch.out) {
      if (loan.fromOn !== null)
        throw new HttpProblem(409, 'It is out', {
          detail: `${loan.label} is with ${loan.member} already`,
        });
      refuseFuture('out/fromOn', patch.out.fromOn, s.now());
      await requireBorrower(loan.memberId);
      await refuseOut(loan.itemId, item.label);
      await execute(
        'UPDATE loans SET from_on = $2, due_on = $3, condition_out = $4, along = $5::jsonb, note = $6, checked = $7::jsonb WHERE id = $1',
        [id, ...outValues(patch.out)],
      );
    } else if (patch.dueOn !== undefined) {
      if (loan.fromOn === null) throw invalid('dueOn', 'It is not out yet');
      if (patch.dueOn !== null && patch.dueOn < loan.fromOn)
        throw invalid('dueOn', 'Due: not before it went out');
      await execute('UPDATE loans SET due_on = $2 WHERE id = $1', [id, patch.dueOn]);
    }
    if (patch.withdrawn) {
      if (loan.fromOn !== null || patch.out)
        throw invalid('withdrawn', 'It is out: take it back instead');
      await execute('UPDATE loans SET withdrawn = true WHERE id = $1', [id]);
    }
    await execute(`UPDATE loans SET ${CHANGED} WHERE id = $1`, [id]);
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
  await execute(
    `UPDATE loans SET returned_on = $2, back = $3::jsonb, rev = rev + 1 WHERE id = $1`,
    [loan.id, returnedOn, JSON.stringify(back satisfies Back)],
  );
  // What a file tells of long ago is in the piece and its facts already.
  if (fault === null) return;
  if (back.condition !== null)
    await execute(
      'UPDATE items SET condition = $2, rev = rev + 1 WHERE id = $1 AND condition IS DISTINCT FROM $2',
      [loan.itemId, back.condition],
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
    await execute(
      `UPDATE loans SET origin = CASE origin WHEN 'demo' THEN 'adopted' ELSE origin END WHERE id = $1`,
      [id],
    );
    return getLoan(id);
  });
}
