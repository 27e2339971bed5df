import { FILE_ROWS } from './writes.mjs';

/**
 * For each kind of write: how many rows of each sort one id has. Whole: exactly these. Anything between none and these is half-stored,
 * anything above is doubled.
 */
const SORTS = {
  note: {
    events: [`SELECT id, 1 AS n FROM events WHERE id = ANY($1::uuid[]) AND kind = 'note'`, 1],
  },
  outcome: {
    events: [`SELECT id, 1 AS n FROM events WHERE id = ANY($1::uuid[]) AND kind = 'outcome'`, 1],
    entries: ['SELECT id, 1 AS n FROM log_entries WHERE id = ANY($1::uuid[])', 1],
  },
  setup: {
    setups: ['SELECT id, 1 AS n FROM setups WHERE id = ANY($1::uuid[])', 1],
    slots: [
      'SELECT setup_id AS id, count(*)::int AS n FROM setup_slots WHERE setup_id = ANY($1::uuid[]) GROUP BY 1',
      4,
    ],
    created: [
      `SELECT setup_id AS id, count(*)::int AS n FROM events WHERE setup_id = ANY($1::uuid[]) AND kind = 'created' GROUP BY 1`,
      1,
    ],
  },
  part: {
    parts: ['SELECT id, 1 AS n FROM parts WHERE id = ANY($1::uuid[])', 1],
    past: [
      'SELECT part_id AS id, count(*)::int AS n FROM part_revisions WHERE part_id = ANY($1::uuid[]) GROUP BY 1',
      1,
    ],
    sockets: [
      'SELECT part_id AS id, count(*)::int AS n FROM sockets WHERE part_id = ANY($1::uuid[]) GROUP BY 1',
      8,
    ],
  },
  bundle: {
    setups: ['SELECT id, 1 AS n FROM setups WHERE id = ANY($1::uuid[])', 1],
    slots: [
      'SELECT setup_id AS id, count(*)::int AS n FROM setup_slots WHERE setup_id = ANY($1::uuid[]) GROUP BY 1',
      3,
    ],
    parts: [
      `SELECT substr(model, 3)::uuid AS id, count(*)::int AS n FROM parts WHERE maker = 'Cut' AND model LIKE 'B %' AND substr(model, 3)::uuid = ANY($1::uuid[]) GROUP BY 1`,
      3,
    ],
    entries: [
      'SELECT setup_id AS id, count(*)::int AS n FROM log_entries WHERE setup_id = ANY($1::uuid[]) GROUP BY 1',
      1,
    ],
    events: [
      'SELECT setup_id AS id, count(*)::int AS n FROM events WHERE setup_id = ANY($1::uuid[]) GROUP BY 1',
      2,
    ],
  },
  run: {
    runs: ['SELECT id, 1 AS n FROM runs WHERE id = ANY($1::uuid[])', 1],
    channels: [
      'SELECT run_id AS id, count(*)::int AS n FROM run_channels WHERE run_id = ANY($1::uuid[]) GROUP BY 1',
      1,
    ],
    figures: [
      'SELECT run_id AS id, count(*)::int AS n FROM run_figures WHERE run_id = ANY($1::uuid[]) GROUP BY 1',
      1,
    ],
    events: [`SELECT id, 1 AS n FROM events WHERE id = ANY($1::uuid[]) AND kind = 'run'`, 1],
  },
  piece: { items: ['SELECT id, 1 AS n FROM items WHERE id = ANY($1::uuid[])', 1] },
  loan: { loans: ['SELECT id, 1 AS n FROM loans WHERE id = ANY($1::uuid[])', 1] },
  file: {
    parts: [
      'SELECT variant::uuid AS id, count(*)::int AS n FROM parts WHERE variant = ANY($1::text[]) GROUP BY 1',
      FILE_ROWS,
    ],
  },
};

/** How each write stands in the database: `whole`, `absent`, `half` or `doubled`, by id. */
export async function standing(client, writes) {
  const found = new Map();
  for (const [kind, sorts] of Object.entries(SORTS)) {
    const ids = writes.filter((w) => w.kind === kind).map((w) => w.id);
    if (ids.length === 0) continue;
    const counts = [];
    for (const [sql, whole] of Object.values(sorts)) {
      const { rows } = await client.query(sql, [ids]);
      counts.push({ whole, n: new Map(rows.map((r) => [r.id, r.n])) });
    }
    for (const id of ids) {
      const n = counts.map((c) => (c.n.get(id) ?? 0) / c.whole);
      found.set(
        id,
        n.some((x) => x > 1)
          ? 'doubled'
          : n.every((x) => x === 1)
            ? 'whole'
            : n.every((x) => x === 0)
              ? 'absent'
              : 'half',
      );
    }
  }
  return found;
}

/** What must hold of the whole database whatever happened: each line says what is broken, none when all is well. */
export async function broken(client) {
  const checks = {
    'a setup whose numbers have a gap': `SELECT s.id FROM setups s WHERE s.next_seq <> (SELECT count(*) FROM events e WHERE e.setup_id = s.id)
       OR s.next_seq <> (SELECT coalesce(max(seq), 0) FROM events e WHERE e.setup_id = s.id)`,
    'an outcome without its entry': `SELECT id FROM events e WHERE kind = 'outcome' AND NOT EXISTS (SELECT 1 FROM log_entries l WHERE l.id = e.id)`,
    'an entry without its outcome': `SELECT id FROM log_entries l WHERE setup_id IS NOT NULL AND NOT EXISTS (SELECT 1 FROM events e WHERE e.id = l.id)`,
    'a run without its values': `SELECT id FROM runs r WHERE kind = 'frames' AND NOT EXISTS (SELECT 1 FROM run_channels c WHERE c.run_id = r.id)`,
    'a host whose ports are not all there': `SELECT p.id FROM parts p WHERE kind = 'host' AND jsonb_array_length(spec -> 'sockets') <>
       (SELECT count(*) FROM sockets k WHERE k.part_id = p.id AND k.retired_at IS NULL)`,
  };
  const lines = [];
  for (const [what, sql] of Object.entries(checks)) {
    const { rows } = await client.query(sql);
    if (rows.length > 0) lines.push(`${rows.length} × ${what}, first ${rows[0].id}`);
  }
  return lines;
}
