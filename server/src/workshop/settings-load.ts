import { select } from '../platform/db/database';
import { ruleProblem } from '@ruddy/core/base';
import { invalid } from '../platform/http/problem';
import { count, type Load } from '../platform/db/bundle-tools';
import { figureProblem, settingKey } from '../troubleshoot/figures';
import { newId } from '../platform/db/ids';

/** What the workshop set here stays; what it never set is taken from the file. */
async function take(
  l: Load,
  kind: string,
  key: string,
  value: unknown,
  reason: string,
): Promise<void> {
  const fresh = await select(
    `INSERT INTO settings (id, origin, created_at, created_by, member_id, key, value, reason) VALUES ($1, $2, $3, $4, NULL, $5, $6::jsonb, $7)
     ON CONFLICT (member_id, key) DO NOTHING RETURNING id`,
    [newId(), l.origin, l.now, l.by, key, JSON.stringify(value), reason],
  );
  count(l, fresh.length === 0 ? 'same' : 'stored', kind);
}

/** House rules, out of a bundle. */
export async function loadRules(l: Load): Promise<void> {
  for (const [i, r] of l.bundle.rules.entries()) {
    const problem = ruleProblem(r.id, r.value);
    if (problem) throw invalid(`rules/${i}/value`, problem);
    await take(l, 'rules', r.id, r.value, r.reason);
  }
}

/** Figures of the troubleshooter, out of a bundle. */
export async function loadFigures(l: Load): Promise<void> {
  for (const [i, f] of l.bundle.figures.entries()) {
    const problem = figureProblem(f.key, f.value);
    if (problem) throw invalid(`figures/${i}/${problem.path}`, problem.message);
    await take(l, 'figures', settingKey(f.key), f.value, f.reason);
  }
}
