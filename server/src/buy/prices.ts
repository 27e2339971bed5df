import { select } from '../platform/db/database';
import type * as z from 'zod';
import { RuleBook } from '@ruddy/core/base';
import type { OwnedPiece } from '@ruddy/core/buy';
import type {
  CostBody,
  CostGrounds,
  priceBody,
  PriceEntry,
  rateBody,
  RateEntry,
} from '@ruddy/core/buy/contract';
import { PriceModel } from './models/price';
import { RateModel } from './models/exchange-rate';
import { invalid, notFound } from '../platform/http/problem';
import type { Services } from '../platform/http/route';
import type { Made } from '../parts/items';
import { houseRules } from '../setups/rules';

const PRICE = `c.id, c.part_id AS "partId", c.item_id AS "itemId", c.kind, c.minor::float8 AS minor, c.currency, c.condition,
  c.on_date::text AS "onDate", c.source, c.note, c.with_ids AS "withIds", c.before_minor::float8 AS "beforeMinor",
  c.discount_percent::float8 AS "discountPercent", c.origin, c.created_at AS "recordedAt"`;

type Row = Omit<PriceEntry, 'recordedAt'> & { recordedAt: Date };

async function pricesWhere(where: string, bind: unknown[]): Promise<PriceEntry[]> {
  const rows = await select<Row>(
    `SELECT ${PRICE} FROM prices c WHERE c.withdrawn_at IS NULL AND ${where} ORDER BY c.on_date DESC, c.created_at DESC, c.id`,
    bind,
  );
  return rows.map((r) => ({ ...r, recordedAt: r.recordedAt.toISOString() }));
}

/** Prices of a part, and of boxes it is in, newest first. */
export function pricesOf(partId: string): Promise<PriceEntry[]> {
  return pricesWhere('(c.part_id = $1 OR $1::uuid = ANY (c.with_ids))', [partId]);
}

/** Every price that stands, in a fixed order. */
export function allPrices(): Promise<PriceEntry[]> {
  return pricesWhere('true', []);
}

/** Write a price down. A repeated id is answered, not doubled. `where` is the place errors name. */
export async function addPrice(
  body: z.output<typeof priceBody>,
  made: Made,
  where = '',
): Promise<'stored' | 'same'> {
  if (await PriceModel.findByPk(body.id)) return 'same';
  const ids = [body.partId, ...body.withIds];
  if (new Set(ids).size < ids.length)
    throw invalid(`${where}withIds`, 'In the box: a part stands there twice');
  const known = await select<{ id: string }>('SELECT id FROM parts WHERE id = ANY($1::uuid[])', [
    ids,
  ]);
  const missing = ids.findIndex((id) => !known.some((k) => k.id === id));
  if (missing >= 0)
    throw invalid(`${where}${missing === 0 ? 'partId' : 'withIds'}`, 'No part has this id');
  await PriceModel.create({ ...body, origin: made.origin, createdAt: made.at, createdBy: made.by });
  return 'stored';
}

/** Strike a price that was written down wrongly; it no longer counts anywhere. */
export async function withdrawPrice(s: Services, id: string): Promise<void> {
  const [n] = await PriceModel.update(
    { withdrawnAt: s.now() },
    { where: { id, withdrawnAt: null } },
  );
  if (n === 0) throw notFound('price');
}

/** Dated rates of exchange, newest first. */
export async function listRates(): Promise<RateEntry[]> {
  return select<RateEntry>(
    `SELECT id, from_cur AS "from", to_cur AS "to", rate, on_date::text AS "onDate", source, origin FROM exchange_rates
     WHERE withdrawn_at IS NULL ORDER BY on_date DESC, from_cur, to_cur, id`,
  );
}

/** Write a dated rate down. A repeated id is answered, not doubled. */
export async function addRate(
  body: z.output<typeof rateBody>,
  made: Made,
): Promise<'stored' | 'same'> {
  if (await RateModel.findByPk(body.id)) return 'same';
  const { id, from, to, rate, onDate, source } = body;
  await RateModel.create({
    id,
    fromCur: from,
    toCur: to,
    rate,
    onDate,
    source,
    origin: made.origin,
    createdAt: made.at,
    createdBy: made.by,
  });
  return 'stored';
}

export async function withdrawRate(s: Services, id: string): Promise<void> {
  const [n] = await RateModel.update(
    { withdrawnAt: s.now() },
    { where: { id, withdrawnAt: null } },
  );
  if (n === 0) throw notFound('rate');
}

/** Pieces at hand of some parts, and the other live setup that names each, if any. */
async function piecesOf(partIds: readonly string[], setupId: string | null): Promise<OwnedPiece[]> {
  return select<OwnedPiece>(
    `SELECT i.id, i.part_id AS "partId", i.label, i.how, (
         SELECT min(s.name) FROM setup_slots t JOIN setups s ON s.id = t.setup_id
         WHERE t.item_id = i.id AND s.state IN ('building', 'live') AND ($2::uuid IS NULL OR s.id <> $2)) AS "usedIn"
     FROM items i WHERE i.part_id = ANY($1::uuid[]) AND i.how <> 'gone' ORDER BY lower(i.label), i.id`,
    [partIds, setupId],
  );
}

/** All that the core needs to know what some parts cost: prices, pieces, rates, and the all-in-ones to compare with. */
export async function costGroundsFor(s: Services, body: CostBody): Promise<CostGrounds> {
  const ids = body.parts.map((p) => p.id);
  const part = `p.id, p.kind, p.maker || ' ' || p.model || CASE WHEN p.variant <> '' THEN ' ' || p.variant ELSE '' END AS name`;
  const parts = await select<{
    id: string;
    kind: CostGrounds['parts'][number]['kind'];
    name: string;
  }>(`SELECT ${part} FROM parts p WHERE p.id = ANY($1::uuid[])`, [ids]);
  const whole = await select<{
    id: string;
    kind: CostGrounds['parts'][number]['kind'];
    name: string;
  }>(
    `SELECT ${part} FROM parts p WHERE p.kind = 'dock' AND p.retired_at IS NULL AND p.spec ->> 'form' = 'all-in-one'
       AND EXISTS (SELECT 1 FROM prices c WHERE c.part_id = p.id AND c.kind = 'offer' AND c.withdrawn_at IS NULL) ORDER BY name, p.id LIMIT 50`,
  );
  const first = [...ids, ...whole.map((w) => w.id)];
  const boxes = await pricesWhere('(c.part_id = ANY($1::uuid[]) OR c.with_ids && $1::uuid[])', [
    first,
  ]);
  // What is in a box with a part of the plan is priced too: the dock alone is the box less the rest.
  const others = [...new Set(boxes.flatMap((b) => [b.partId, ...b.withIds]))].filter(
    (id) => !first.includes(id),
  );
  const more = others.length > 0 ? await pricesWhere('c.part_id = ANY($1::uuid[])', [others]) : [];
  const names = await select<{ id: string; name: string }>(
    `SELECT ${part} FROM parts p WHERE p.id = ANY($1::uuid[])`,
    [others],
  );
  const known = new Map(parts.map((p) => [p.id, p]));
  return {
    asOf: s.now().toISOString().slice(0, 10),
    oldDays: new RuleBook(await houseRules()).get('cost.oldDays'),
    parts: body.parts.flatMap(({ slot, id }) => {
      const p = known.get(id);
      return p ? [{ slot, ...p }] : [];
    }),
    allInOne: whole.map((w) => ({ ...w, slot: '' })),
    names: Object.fromEntries(names.map((n) => [n.id, n.name])),
    prices: [...boxes, ...more.filter((m) => !boxes.some((b) => b.id === m.id))],
    rates: await listRates(),
    pieces: await piecesOf(ids, body.setupId ?? null),
  };
}
