import type { DemoReport } from '@ruddy/core/workshop/contract';
import { select } from '../../platform/db/database';

/** What removing the demo data would take away, and what stays because own data needs it. */
export async function demoReport(): Promise<DemoReport> {
  const [counts] = await select<{ parts: number; setups: number; outcomes: number }>(
    `SELECT (SELECT count(*)::int FROM parts WHERE origin = 'demo' AND id NOT IN (SELECT id FROM demo_kept_parts)) AS parts,
       (SELECT count(*)::int FROM demo_going_setups) AS setups,
       (SELECT count(*)::int FROM log_entries WHERE origin = 'demo' AND (setup_id IS NULL OR setup_id IN (SELECT id FROM demo_going_setups))) AS outcomes`,
  );
  const adopted = await select<DemoReport['adopted'][number]>(
    `SELECT p.kind, p.maker || ' ' || p.model AS name, 'the setup "' || min(u.name) || '" uses it' AS because
       FROM parts p JOIN setup_slots t ON t.part_id = p.id JOIN setups u ON u.id = t.setup_id
       WHERE p.id IN (SELECT id FROM demo_kept_parts) AND (u.origin <> 'demo' OR u.id IN (SELECT id FROM demo_kept_setups))
       GROUP BY p.id
     UNION ALL
     SELECT 'setup', name, 'you added to its record' FROM setups WHERE id IN (SELECT id FROM demo_kept_setups)
     ORDER BY 1, 2`,
  );
  return { parts: 0, setups: 0, outcomes: 0, ...counts, adopted };
}

type Removal = 'remove_demo_stated' | 'remove_demo_runs' | 'remove_demo_loans' | 'remove_demo';

/** Runs functions of the schema that remove rows of the demo, in this order. */
export async function removeDemoRows(functions: readonly Removal[]): Promise<void> {
  for (const name of functions) await select(`SELECT ${name}()`);
}
