import { Op } from 'sequelize';
import { MemberModel } from '../platform/access/models/member';
import { sameText } from '../platform/db/rows';
import { LoanModel } from './models/loan';
import type { LoanInFile } from '@ruddy/core/workshop/contract';
import { THIS_MACHINE } from '../platform/access/actor';
import { invalid } from '../platform/http/problem';
import { at, count, type Load } from '../platform/db/bundle-tools';
import { idFromFile } from '../platform/db/ids';
import { addLoan, getLoan, writeBack } from './loans';
import { addMember } from './members';

/** Loads members by name: the same name is the same member. No passwords come in. */
async function loadMembers(l: Load): Promise<Map<string, string>> {
  const here = new Map<string, string>();
  for (const [i, m] of l.bundle.members.entries()) {
    const id = idFromFile(m.id);
    const known = await MemberModel.findOne({ where: sameText('name', m.name) });
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
  if (x.withdrawn) await LoanModel.update({ withdrawn: true }, { where: { id } });
  if (!x.back) return;
  const loan = await getLoan(id);
  await writeBack(loan, x.back, null).catch((e: unknown) => at(`loans/${i}/back`, e));
}

function loanInFile(l: LoanModel): LoanInFile {
  const { id, itemId, memberId, setupId, askedOn, fromOn, dueOn, along, note, checked } = l;
  const out =
    fromOn === null ? null : { fromOn, dueOn, condition: l.conditionOut, along, note, checked };
  const back = l.returnedOn === null || !l.back ? null : { returnedOn: l.returnedOn, ...l.back };
  return { id, itemId, memberId, setupId, askedOn, withdrawn: l.withdrawn, out, back };
}

/** Members for a bundle, without the built-in keeper, which every workshop has. */
export async function exportPeople() {
  const members = await MemberModel.findAll({
    where: { id: { [Op.ne]: THIS_MACHINE.id } },
    order: ['id'],
  });
  const loans = await LoanModel.findAll({ order: ['id'] });
  return {
    members: members.map(({ id, name, role, active }) => ({ id, name, role, active })),
    loans: loans.map(loanInFile),
  };
}
