import type { NewsPart } from '@ruddy/core/workshop';
import { select } from '../../platform/db/database';

/** Parts that news can be about, and whether the workshop has them. */
export async function partsHere(): Promise<NewsPart[]> {
  return select<NewsPart>(
    `SELECT p.id, p.kind, p.maker, p.model, p.variant, coalesce(p.spec ->> 'family', '') AS family,
       (EXISTS (SELECT 1 FROM items i WHERE i.part_id = p.id AND i.how <> 'gone') OR EXISTS (SELECT 1 FROM setup_slots t
         JOIN setups u ON u.id = t.setup_id WHERE t.part_id = p.id AND u.state IN ('building', 'live'))) AS here
     FROM parts p WHERE p.kind IN ('host', 'dock', 'card', 'system') AND p.retired_at IS NULL ORDER BY p.id LIMIT 5000`,
  );
}

/** Symptoms of the log, the most frequent first. */
export async function loggedSymptoms(): Promise<string[]> {
  const rows = await select<{ symptom: string }>(
    `SELECT symptom FROM (SELECT unnest(symptoms) AS symptom FROM log_entries) x WHERE symptom <> '' GROUP BY 1 ORDER BY count(*) DESC, 1 LIMIT 500`,
  );
  return rows.map((r) => r.symptom);
}
