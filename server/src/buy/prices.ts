import { type Attributes, Op, type WhereOptions } from 'sequelize';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { partName } from '@ruddy/core/chain';
import { PartModel } from '../parts/models/part';
import { piecesOf } from './queries/pieces-of';
import type * as z from 'zod';
import { RuleBook } from '@ruddy/core/base';
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

/** A price as a bundle holds it. */
export function priceInFile(p: PriceModel): Bundle['prices'][number] {
  const { id, partId, itemId, kind, minor, currency, condition, onDate, source, note } = p;
  const { withIds, beforeMinor, discountPercent } = p;
  return {
    id,
    partId,
    itemId,
    kind,
    minor,
    currency,
    condition,
    onDate,
    source,
    note,
    withIds,
    beforeMinor,
    discountPercent,
  };
}

async function pricesWhere(where: WhereOptions<Attributes<PriceModel>>): Promise<PriceEntry[]> {
  const rows = await PriceModel.findAll({
    where: { [Op.and]: [where, { withdrawnAt: null }] },
    order: [['onDate', 'DESC'], ['createdAt', 'DESC'], 'id'],
  });
  return rows.map((p) => ({
    ...priceInFile(p),
    origin: p.origin,
    recordedAt: p.createdAt.toISOString(),
  }));
}

/** Prices of a part, and of boxes it is in, newest first. */
export function pricesOf(partId: string): Promise<PriceEntry[]> {
  return pricesWhere({ [Op.or]: [{ partId }, { withIds: { [Op.contains]: [partId] } }] });
}

/** Every price that stands, in a fixed order. */
export function allPrices(): Promise<PriceEntry[]> {
  return pricesWhere({});
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
  const known = await PartModel.findAll({ where: { id: ids }, attributes: ['id'], raw: true });
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
  const rows = await RateModel.findAll({
    where: { withdrawnAt: null },
    order: [['onDate', 'DESC'], 'fromCur', 'toCur', 'id'],
  });
  return rows.map(({ id, fromCur: from, toCur: to, rate, onDate, source, origin }) => ({
    id,
    from,
    to,
    rate,
    onDate,
    source,
    origin,
  }));
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

type NamedPart = Pick<CostGrounds['parts'][number], 'id' | 'kind' | 'name'>;
const named = (p: PartModel): NamedPart => ({ id: p.id, kind: p.kind, name: partName(p.spec) });

async function partsNamed(ids: readonly string[]): Promise<NamedPart[]> {
  return (await PartModel.findAll({ where: { id: [...ids] } })).map(named);
}

/** Enclosures with a built-in card that have an offer, for comparison. */
async function offeredAllInOnes(): Promise<NamedPart[]> {
  const offers = await PriceModel.findAll({
    where: { kind: 'offer', withdrawnAt: null },
    attributes: ['partId'],
    group: 'partId',
  });
  const docks = await PartModel.findAll({
    where: {
      id: offers.map((o) => o.partId),
      kind: 'dock',
      retiredAt: null,
      spec: { form: 'all-in-one' },
    },
    order: ['maker', 'model', 'variant', 'id'],
    limit: 50,
  });
  return docks.map(named);
}

/** All that the core needs to know what some parts cost: prices, pieces, rates, and the all-in-ones to compare with. */
export async function costGroundsFor(s: Services, body: CostBody): Promise<CostGrounds> {
  const ids = body.parts.map((p) => p.id);
  const parts = await partsNamed(ids);
  const whole = await offeredAllInOnes();
  const first = [...ids, ...whole.map((w) => w.id)];
  const boxes = await pricesWhere({
    [Op.or]: [{ partId: first }, { withIds: { [Op.overlap]: first } }],
  });
  // What is in a box with a part of the plan is priced too: the dock alone is the box less the rest.
  const others = [...new Set(boxes.flatMap((b) => [b.partId, ...b.withIds]))].filter(
    (id) => !first.includes(id),
  );
  const more = others.length > 0 ? await pricesWhere({ partId: others }) : [];
  const names = await partsNamed(others);
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
