import { execute, select } from '../platform/db/database';
import { inTransaction } from '../platform/db/transaction';
import { readFile } from 'node:fs/promises';
import { bundleSchema, type DemoReport } from '@ruddy/core/workshop/contract';
import { THIS_MACHINE, type Services } from '../platform/http/route';
import { loadBundle } from './bundle-load';
import { newId } from '../platform/db/ids';

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

/** Remove the demo data; what own data points to stays and becomes adopted. Returns what was done. */
export async function removeDemo(): Promise<DemoReport> {
  const report = await demoReport();
  await inTransaction(async () => {
    await select('SELECT remove_demo_stated()');
    await select('SELECT remove_demo_runs()');
    await execute(`DELETE FROM searches WHERE origin = 'demo'`);
    await execute(`DELETE FROM feeds WHERE origin = 'demo'`);
    await select('SELECT remove_demo_loans()');
    await select('SELECT remove_demo()');
  });
  return report;
}

/** On the first start only, load the demo bundle, or note that none was wanted. Later starts leave it alone. */
export async function firstStart(
  s: Services,
  demoFile: string | null,
): Promise<'loaded' | 'empty' | 'later'> {
  return inTransaction(async () => {
    await select('SELECT pg_advisory_xact_lock(4312)');
    const [mark] = await select(
      `SELECT 1 FROM settings WHERE member_id IS NULL AND key = 'demo.first-start'`,
    );
    if (mark) return 'later';
    const state = demoFile === null ? 'empty' : 'loaded';
    if (demoFile !== null) {
      const bundle = bundleSchema.parse(JSON.parse(await readFile(demoFile, 'utf8')));
      await loadBundle(bundle, { origin: 'demo', by: THIS_MACHINE.id, now: s.now() });
    }
    await execute(
      `INSERT INTO settings (id, origin, created_at, created_by, member_id, key, value) VALUES ($1, 'own', $2, $3, NULL, 'demo.first-start', $4::jsonb)`,
      [newId(), s.now(), THIS_MACHINE.id, JSON.stringify(state)],
    );
    return state;
  });
}
