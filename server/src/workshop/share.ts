import { select } from '../platform/db/database';
import { NO_COST_SAID, NO_DOCKED, placesOf } from '@ruddy/core/setups';
import type { Bundle, ShareReport } from '@ruddy/core/workshop/contract';
import { contentHash } from '../platform/db/ids';
import { requireSetup } from '../setups/setups';
import { readSetup } from '../setups/setup-store';

type PartRow = Bundle['parts'][number];

/**
 * A setup with its parts as one file, in the format everything is carried in. What is about people, pieces and machines stays: notes,
 * what was used so far, serial numbers, whose a piece is, what happened. Money leaves only when asked for: prices, and
 * what was said of the money of the plan.
 */
export async function shareFile(id: string, withPrices: boolean): Promise<Bundle> {
  await requireSetup(id);
  const { setup } = await readSetup(id);
  const ids = [...new Set(placesOf(setup.slots).values())];
  const parts = await select<PartRow>(
    `SELECT id, kind, spec, sources, retired_at IS NOT NULL AS retired FROM parts WHERE id = ANY($1::uuid[]) ORDER BY kind, id`,
    [ids],
  );
  const prices = withPrices
    ? await select<Bundle['prices'][number]>(
        `SELECT id, part_id AS "partId", NULL AS "itemId", kind, minor::float8 AS minor, currency, condition, on_date::text AS "onDate", source,
           '' AS note, with_ids AS "withIds", before_minor::float8 AS "beforeMinor", discount_percent::float8 AS "discountPercent"
         FROM prices WHERE withdrawn_at IS NULL AND kind = 'offer' AND part_id = ANY($1::uuid[]) AND with_ids <@ $1::uuid[] ORDER BY on_date, id`,
        [ids],
      )
    : [];
  const { rev, origin, savedAt, ...rest } = setup;
  void [rev, origin, savedAt];
  return {
    format: 'ruddy-bridge/bundle',
    version: 1,
    parts: parts.map((p) => ({ ...p, sources: withoutNotes(p.sources) })),
    setups: [
      {
        ...rest,
        slots: { ...setup.slots, items: {} },
        notes: '',
        present: '',
        docked: NO_DOCKED,
        pins: [],
        clonedFrom: null,
        state: 'planned',
        cost: withPrices ? setup.cost : NO_COST_SAID,
      },
    ],
    items: [],
    itemFacts: [],
    prices,
    rates: [],
    events: [],
    chains: [],
    outcomes: [],
    rules: [],
    profiles: [],
    runs: [],
    captures: [],
    mappings: [],
    sessions: [],
    claims: [],
    figures: [],
    titleNotes: [],
    searches: [],
    feeds: [],
    members: [],
    loans: [],
  };
}

/** Where a value came from leaves; the words somebody wrote about it stay. */
function withoutNotes(sources: PartRow['sources']): PartRow['sources'] {
  return Object.fromEntries(
    Object.entries(sources).map(([place, s]) => [place, { ...s, note: '' }]),
  );
}

/** What would leave and what would stay, counted before the act. */
export async function shareReport(id: string): Promise<ShareReport> {
  const file = await shareFile(id, true);
  const { setup } = await readSetup(id);
  const [kept] = await select<{ events: number; serials: number }>(
    `SELECT (SELECT count(*)::int FROM events WHERE setup_id = $1) AS events,
       (SELECT count(*)::int FROM setup_slots t JOIN items i ON i.id = t.item_id WHERE t.setup_id = $1 AND i.private ->> 'serial' <> '') AS serials`,
    [id],
  );
  return {
    leaves: [
      { what: 'parts with their values', n: file.parts.length },
      { what: 'set of choices: port, versions, settings, uses', n: 1 },
      { what: 'prices offered and what was said of the money, when chosen', n: file.prices.length },
    ],
    stays: [
      {
        what: 'notes and present graphics, your words',
        n: Number(setup.notes !== '') + Number(setup.present !== ''),
      },
      {
        what: 'docked settings, buttons, programs and tuning',
        n: Number(contentHash(setup.docked) !== contentHash(NO_DOCKED)),
      },
      { what: 'pieces: whose they are and where bought', n: Object.keys(setup.slots.items).length },
      { what: 'serial numbers', n: kept?.serials ?? 0 },
      { what: 'entries of the record: outcomes, readings, notes', n: kept?.events ?? 0 },
    ],
  };
}
