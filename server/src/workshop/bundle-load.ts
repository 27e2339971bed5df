import { ruleProblem } from '@ruddy/core/base';
import type { Origin } from '@ruddy/core/base/contract';
import type { LoadReport, PartBody } from '@ruddy/core/parts/contract';
import type { SetupSlots } from '@ruddy/core/setups/contract';
import { type Bundle, EVENT_BODIES } from '@ruddy/core/workshop/contract';
import { col, fn, Op, where } from 'sequelize';
import { addPrice, addRate } from '../buy/prices';
import { loadSearches } from '../buy/scout-load';
import { chainInFile, loadForeign, type Foreign } from '../compatibility/log-load';
import { loadStated } from '../compatibility/stated-load';
import { addFact, createItem } from '../parts/items';
import { PartModel } from '../parts/models/part';
import { createPart } from '../parts/parts';
import { LogEntryModel } from '../plan/models/log-entry';
import { storeOutcome } from '../plan/outcomes';
import { at, count, type Load } from '../platform/db/bundle-tools';
import { contentHash, idFromFile, newId } from '../platform/db/ids';
import { invalid } from '../platform/http/problem';
import { chainOf } from '../setups/chain';
import { addEvent } from '../setups/events';
import { EventModel } from '../setups/models/event';
import { SetupModel } from '../setups/models/setup';
import { putSettingOnce } from '../setups/settings';
import { insertSetup, readSetup } from '../setups/setup-store';
import { figureProblem, settingKey } from '../troubleshoot/figures';
import { loadStatedFigures } from '../runs/stated-figures';
import { loadCaptures, loadRun, loadRunBasics, refigureSaid } from './bundle-runs';
import { addFeed } from './feeds';
import { loadPeople } from './people-load';

async function loadParts(l: Load): Promise<void> {
  for (const [i, p] of l.bundle.parts.entries()) {
    const id = idFromFile(p.id);
    const same = p.retired ? null : await namesake(l, p);
    if (same && same.id !== id) {
      if (contentHash(same.spec) !== contentHash(p.spec))
        throw invalid(
          `parts/${i}/spec`,
          `${p.spec.maker} ${p.spec.model} is known here with other values`,
        );
      l.parts.set(p.id, same.id);
      count(l, 'same', 'parts');
      continue;
    }
    l.parts.set(p.id, id);
    const body = { id, kind: p.kind, spec: p.spec, sources: p.sources } as PartBody;
    const fate = await createPart(body, {
      origin: l.origin,
      at: l.now,
      by: l.by,
      retired: p.retired,
    }).catch((e: unknown) => at(`parts/${i}`, e));
    count(l, fate, 'parts');
  }
}

/** A part here of the same kind and name that is not retired. */
async function namesake(l: Load, p: Bundle['parts'][number]): Promise<PartModel | null> {
  const is = (column: 'maker' | 'model' | 'variant') =>
    where(fn('lower', col(column)), p.spec[column].toLowerCase());
  return PartModel.findOne({
    where: {
      [Op.and]: [{ kind: p.kind, retiredAt: null }, is('maker'), is('model'), is('variant')],
    },
  });
}

/** Pieces with what was seen on them. */
async function loadPieces(l: Load): Promise<void> {
  const made = { origin: l.origin, at: l.now, by: l.by };
  for (const [i, x] of l.bundle.items.entries()) {
    const id = idFromFile(x.id);
    l.items.set(x.id, id);
    const body = { ...x, id, partId: partHere(l, x.partId, `items/${i}/partId`) };
    count(l, await createItem(body, made).catch((e: unknown) => at(`items/${i}`, e)), 'items');
  }
  for (const [i, f] of l.bundle.itemFacts.entries()) {
    const body = {
      ...f,
      id: idFromFile(f.id),
      itemId: l.items.get(f.itemId) ?? idFromFile(f.itemId),
    };
    count(l, await addFact(body, made, `itemFacts/${i}/`), 'itemFacts');
  }
}

async function loadMoney(l: Load): Promise<void> {
  const made = { origin: l.origin, at: l.now, by: l.by };
  for (const [i, p] of l.bundle.prices.entries()) {
    const body = {
      ...p,
      id: idFromFile(p.id),
      partId: partHere(l, p.partId, `prices/${i}/partId`),
      itemId: p.itemId === null ? null : (l.items.get(p.itemId) ?? idFromFile(p.itemId)),
      withIds: p.withIds.map((id) => partHere(l, id, `prices/${i}/withIds`)),
    };
    count(l, await addPrice(body, made, `prices/${i}/`), 'prices');
  }
  for (const r of l.bundle.rates)
    count(l, await addRate({ ...r, id: idFromFile(r.id) }, made), 'rates');
}

/** The id here of a part the file names. */
function partHere(l: Load, id: string, place: string): string {
  const found = l.parts.get(id);
  if (!found) throw invalid(place, `The file holds no part "${id}"`);
  return found;
}

function slotsHere(l: Load, i: number, slots: SetupSlots): SetupSlots {
  const here = (id: string | null, slot: string) => {
    if (id === null) return null;
    const found = l.parts.get(id);
    if (!found) throw invalid(`setups/${i}/slots/${slot}`, `The file holds no part "${id}"`);
    return found;
  };
  return {
    ...slots,
    host: here(slots.host, 'host'),
    dock: here(slots.dock, 'dock'),
    card: here(slots.card, 'card'),
    path: slots.path?.map((p, k) => here(p, `path/${k}`) as string) ?? null,
    system: here(slots.system, 'system'),
    supplies: slots.supplies.map((x, k) => ({
      ...x,
      part: here(x.part, `supplies/${k}/part`) as string,
    })),
    screens: slots.screens.map((x, k) => ({
      ...x,
      part: here(x.part, `screens/${k}/part`) as string,
    })),
    spares: slots.spares.map((x, k) => ({
      ...x,
      part: here(x.part, `spares/${k}/part`) as string,
    })),
    items: Object.fromEntries(
      Object.entries(slots.items).map(([place, id]) => [place, l.items.get(id) ?? idFromFile(id)]),
    ),
  };
}

async function loadSetups(l: Load): Promise<void> {
  const told = new Set(
    l.bundle.events
      .filter((e) => e.kind === 'created' || e.kind === 'cloned')
      .map((e) => idFromFile(e.setupId)),
  );
  const fresh: { id: string; source: string }[] = [];
  for (const [i, s] of l.bundle.setups.entries()) {
    const id = idFromFile(s.id);
    if (await SetupModel.findByPk(id)) {
      count(l, 'same', 'setups');
      continue;
    }
    const made = { origin: l.origin, at: new Date(s.createdAt), by: l.by };
    await insertSetup(
      { ...s, id, slots: slotsHere(l, i, s.slots), clonedFrom: null },
      made,
      `setups/${i}/slots`,
    ).catch((e: unknown) => at(`setups/${i}`, e));
    if (!told.has(id))
      await addEvent({
        id: newId(),
        setupId: id,
        kind: 'created',
        body: { name: s.name },
        happenedAt: made.at,
        recordedAt: made.at,
        origin: l.origin,
        by: l.by,
      });
    if (s.clonedFrom !== null) fresh.push({ id, source: idFromFile(s.clonedFrom) });
    count(l, 'stored', 'setups');
  }
  // Copies point to their originals once all are there; an original that is nowhere is forgotten.
  for (const { id, source } of fresh)
    if (await SetupModel.findByPk(source))
      await SetupModel.update({ clonedFrom: source }, { where: { id } });
}

/** Facts come in the order they had in their setup; a file without numbers goes by when they were recorded. */
async function loadFacts(l: Load): Promise<void> {
  const facts = [
    ...l.bundle.events.map((e, i) => ({ type: 'event' as const, i, e, at: e.recordedAt })),
    ...l.bundle.outcomes.map((e, i) => ({ type: 'outcome' as const, i, e, at: e.recordedAt })),
    ...l.bundle.runs.map((e, i) => ({ type: 'run' as const, i, e, at: e.recordedAt })),
  ].sort((a, b) => a.e.seq - b.e.seq || Date.parse(a.at) - Date.parse(b.at));
  const foreign: Foreign[] = [];
  for (const f of facts) {
    const place = `${f.type}s/${f.i}`;
    if (f.type === 'outcome' && f.e.setupId === null) {
      foreign.push({ entry: f.e, place });
      continue;
    }
    const setupId = idFromFile(f.e.setupId as string);
    if (!(await SetupModel.findByPk(setupId)))
      throw invalid(`${place}/setupId`, `No setup "${f.e.setupId}" in the file or here`);
    if (f.type === 'event') await loadEvent(l, f.e, setupId, place);
    else if (f.type === 'run') await loadRun(l, f.e, setupId, place);
    else await loadOutcome(l, f.e, setupId, place);
  }
  await loadForeign(l, foreign);
}

/** What is stored is read again: a body must be what its kind says. An attempt is named by the id it has here. */
function checkedBody(
  kind: Bundle['events'][number]['kind'],
  body: Record<string, unknown>,
  place: string,
): object {
  const schema = EVENT_BODIES[kind];
  const here = (key: string) =>
    typeof body[key] === 'string' ? { [key]: idFromFile(body[key]) } : {};
  const named = {
    ...body,
    ...here('attempt'),
    ...here('trouble'),
    ...(kind === 'run-said' && { ...here('run'), ...here('titleId') }),
  };
  if (!schema) return named;
  const r = schema.safeParse(named);
  if (r.success) return r.data as object;
  const issue = r.error.issues[0];
  throw invalid(
    `${place}/body/${issue?.path.join('/') ?? ''}`,
    issue?.message ?? `not of the kind "${kind}"`,
  );
}

async function loadEvent(
  l: Load,
  e: Bundle['events'][number],
  setupId: string,
  place: string,
): Promise<void> {
  const id = idFromFile(e.id);
  if (await EventModel.findByPk(id)) return count(l, 'same', 'events');
  const { kind } = e;
  const body = checkedBody(kind, e.body, place);
  const corrects = e.corrects === null ? null : idFromFile(e.corrects);
  if (corrects !== null && !(await EventModel.findByPk(corrects)))
    throw invalid(`${place}/corrects`, `No event "${e.corrects}" before this one`);
  await addEvent({
    id,
    setupId,
    kind,
    body,
    happenedAt: new Date(e.happenedAt),
    recordedAt: new Date(e.recordedAt),
    corrects,
    private: e.private,
    origin: l.origin,
    by: l.by,
  });
  count(l, 'stored', 'events');
}

async function loadOutcome(
  l: Load,
  o: Bundle['outcomes'][number],
  setupId: string,
  place: string,
): Promise<void> {
  const { setupId: _file, recordedAt, seq, chain: given, unit, cameFrom, ...rest } = o;
  void [_file, seq, unit, cameFrom];
  const id = idFromFile(o.id);
  if (await LogEntryModel.findByPk(id)) return count(l, 'same', 'outcomes');
  const { rows, row } = await readSetup(setupId);
  const chain =
    given === undefined ? chainOf(rows, row.details) : chainInFile(l.bundle, given, place);
  const body = { ...rest, id, corrects: o.corrects === null ? null : idFromFile(o.corrects) };
  const made = { origin: l.origin, at: new Date(recordedAt), by: l.by };
  const fate = await storeOutcome(setupId, body, chain, made, `${place}/`).catch((e: unknown) =>
    at(place, e),
  );
  count(l, fate, 'outcomes');
}

/** Parts of a bundle in the order they are loaded: each may name what was loaded before. */
const STAGES: readonly (readonly [message: string, load: (l: Load) => Promise<void>])[] = [
  ['Parts', loadParts],
  ['Items', loadPieces],
  ['Prices', loadMoney],
  ['Setups', loadSetups],
  ['Values of runs', loadCaptures],
  ['Titles', loadRunBasics],
  ['Stated figures', loadStatedFigures],
  ['What happened', loadFacts],
  ['Figures of runs', refigureSaid],
  ['House rules', loadRules],
  ['Figures of the troubleshooter', loadFigures],
  ['Rules and registers', loadStated],
  ['Searches', loadSearches],
  ['Feeds', loadFeeds],
  ['People', loadPeople],
];

export interface LoadedBy {
  readonly origin: Origin;
  readonly by: string;
  readonly now: Date;
  readonly cameFrom?: string;
  /** Values of runs where they are not in the bundle itself. */
  readonly captures?: Load['captures'];
  readonly step?: Load['step'];
}

/**
 * Load a bundle whole or not at all: the demo data, a share file and a full export all come this
 * way. What is already here under the same id stays as it is; loading twice changes nothing.
 */
export async function loadBundle(bundle: Bundle, made: LoadedBy): Promise<LoadReport> {
  const load: Load = {
    ...made,
    bundle,
    cameFrom: made.cameFrom ?? '',
    captures: made.captures ?? bundle.captures,
    step: made.step ?? (() => Promise.resolve()),
    parts: new Map(),
    items: new Map(),
    titles: new Map(),
    report: { stored: {}, same: {} },
  };
  for (const [message, stage] of STAGES) {
    await load.step(message);
    await stage(load);
  }
  return load.report;
}

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

/** Feeds, out of a bundle. */
export async function loadFeeds(l: Load): Promise<void> {
  const made = { origin: l.origin, at: l.now, by: l.by };
  for (const [i, f] of l.bundle.feeds.entries()) {
    const kept = addFeed({ ...f, id: idFromFile(f.id) }, made);
    count(l, await kept.catch((e: unknown) => at(`feeds/${i}`, e)), 'feeds');
  }
}
