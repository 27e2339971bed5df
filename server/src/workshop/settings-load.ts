import { ruleProblem } from '@ruddy/core/base';
import { invalid } from '../platform/http/problem';
import { count, type Load } from '../platform/db/bundle-tools';
import { figureProblem, settingKey } from '../troubleshoot/figures';
import { putSettingOnce } from '../setups/settings';

/** What the workshop set here stays; what it never set is taken from the file. */
async function take(
  l: Load,
  kind: string,
  key: string,
  value: number,
  reason: string,
): Promise<void> {
  const writer = { at: l.now, by: l.by, origin: l.origin };
  const isNew = await putSettingOnce(key, value, writer, reason);
  count(l, isNew ? 'stored' : 'same', kind);
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
