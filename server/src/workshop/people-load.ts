import { execute, select } from '../platform/db/database';
import type { LoanInFile } from '@ruddy/core/workshop/contract';
import { THIS_MACHINE } from '../platform/access/actor';
import { invalid } from '../platform/http/problem';
import { at, count, type Load } from '../platform/db/bundle-tools';
import { idFromFile } from '../platform/db/ids';
import { addLoan, getLoan, writeBack } from './loans';
import { addMember } from './members';

/** Members by name: who is known here under the same name is the same person. Nobody comes with a password. */
async function loadMembers(l: Load): Promise<Map<string, string>> {
  const here = new Map<string, string>();
  for (const [i, m] of l.bundle.members.entries()) {
    const id = idFromFile(m.id);
    const [known] = await select<{ id: string }>(
      'SELECT id FROM members WHERE lower(name) = lower($1)',
      [m.name],
    );
    if (known?.id === THIS_MACHINE.id)
      throw invalid(`members/${i}/name`, `Name: "${m.name}" is this machine`);
    here.set(m.id, known?.id ?? id);
    if (known) {
      count(l, 'same', 'members');
      continue;
    }
    const made = { origin: l.origin, at: l.now };
    count(
      l,
      await addMember({ ...m, id }, made).catch((e: unknown) => at(`members/${i}`, e)),
      'members',
    );
  }
  return here;
}

/** Members and loans, out of a bundle; pieces and setups are there already. */
export async function loadPeople(l: Load): Promise<void> {
  const members = await loadMembers(l);
  const made = { origin: l.origin, at: l.now, by: l.by };
  for (const [i, x] of l.bundle.loans.entries()) {
    const memberId = members.get(x.memberId);
    if (!memberId) throw invalid(`loans/${i}/memberId`, `The file holds no member "${x.memberId}"`);
    const id = idFromFile(x.id);
    const body = {
      id,
      itemId: l.items.get(x.itemId) ?? idFromFile(x.itemId),
      memberId,
      setupId: x.setupId === null ? null : idFromFile(x.setupId),
      askedOn: x.askedOn,
      out: x.out,
    };
    const fate = await addLoan(body, made).catch((e: unknown) => at(`loans/${i}`, e));
    count(l, fate, 'loans');
    if (fate === 'stored') await loadEnd(l, id, x, i);
  }
}

async function loadEnd(l: Load, id: string, x: LoanInFile, i: number): Promise<void> {
  if (x.withdrawn && x.out) throw invalid(`loans/${i}/withdrawn`, 'What went out cannot be let go');
  if (x.withdrawn) await execute('UPDATE loans SET withdrawn = true WHERE id = $1', [id]);
  if (!x.back) return;
  const loan = await getLoan(id);
  await writeBack(loan, x.back, null).catch((e: unknown) => at(`loans/${i}/back`, e));
}

type Row = Omit<LoanInFile, 'out' | 'back'> & {
  from_on: string | null;
  due_on: string | null;
  condition_out: NonNullable<LoanInFile['out']>['condition'];
  along: string[];
  note: string;
  checked: NonNullable<LoanInFile['out']>['checked'];
  returned_on: string | null;
  back: Omit<NonNullable<LoanInFile['back']>, 'returnedOn'> | null;
};

/** The same, into a bundle. The built-in keeper is no member of a file: everybody has one. */
export async function exportPeople() {
  const members = await select<{
    id: string;
    name: string;
    role: 'reader' | 'member' | 'keeper';
    active: boolean;
  }>(`SELECT id, name, role, active FROM members WHERE id <> $1 ORDER BY id`, [THIS_MACHINE.id]);
  const loans = await select<Row>(
    `SELECT id, item_id AS "itemId", member_id AS "memberId", setup_id AS "setupId", asked_on::text AS "askedOn", from_on::text, due_on::text,
       condition_out, along, note, checked, returned_on::text, back, withdrawn FROM loans ORDER BY id`,
  );
  return {
    members,
    loans: loans.map(
      ({ from_on, due_on, condition_out, along, note, checked, returned_on, back, ...rest }) => ({
        ...rest,
        out:
          from_on === null
            ? null
            : { fromOn: from_on, dueOn: due_on, condition: condition_out, along, note, checked },
        back: returned_on === null || back === null ? null : { returnedOn: returned_on, ...back },
      }),
    ),
  };
}
