import { slotRows } from '../setups/queries/slot-rows';
import { PartModel } from '../parts/models/part';
import {
  loggedKeysOf,
  type PartForSearch,
  partsForSearch,
  type SearchKind as Kind,
  unitsSeen,
} from './queries/search-input';
import { type HouseRules, RuleBook } from '@ruddy/core/base';
import {
  alone,
  type BoxChoice,
  type Choice,
  collapsed,
  currentOffers,
  inCurrency,
  machineFps,
  type OfferRules,
  type Price,
  type RouteChoice,
  type ScoutInput,
} from '@ruddy/core/buy';
import type { MachineRow, OutrightChoice, ScoutAsk, ScoutGrounds } from '@ruddy/core/buy/contract';
import { type Chain, isAdapter, means, partName } from '@ruddy/core/chain';
import {
  type AnySpec,
  type CardSpec,
  type DockSpec,
  type HostSpec,
  type MachineSpec,
  NO_SETTINGS,
  NOTHING_INSTALLED,
  type PieceSpec,
  type ReleaseSpec,
  type RequirementSpec,
  type ScreenSpec,
  type SupplySpec,
} from '@ruddy/core/parts';
import { cellsOfEvidence, STANDARD_RESOLUTIONS } from '@ruddy/core/runs';
import { invalid } from '../platform/http/problem';
import type { Services } from '../platform/http/route';
import { chainOf } from '../setups/chain';
import { tallies } from '../plan/queries/evidence';
import { frameAsks } from '../runs/frame-titles';
import { allPrices, listRates } from './prices';
import { houseRules } from '../setups/rules';
import { readSetup } from '../setups/setup-store';

/** Parts of a kind at most; those at hand come first, then those that have a price. */
const MOST = 800;
const KINDS: readonly Kind[] = [
  'cable',
  'adapter',
  'dock',
  'card',
  'supply',
  'screen',
  'laptop',
  'desktop',
];
const plain = (name: string) => name.replace(/\s+/g, ' ').trim().toLowerCase();

async function catalogue(
  own: ScoutAsk['own'],
): Promise<{ rows: PartForSearch[]; left: Record<string, number> }> {
  const rows = await partsForSearch(own, KINDS, MOST);
  const left = Object.fromEntries(
    rows.filter((r) => r.total > MOST).map((r) => [r.kind, r.total - MOST]),
  );
  return { rows: rows.map(({ id, kind, spec, owned }) => ({ id, kind, spec, owned })), left };
}

/** System, settings, versions and loads of a setup that has this host; nothing said without one. */
async function baseOf(ask: ScoutAsk): Promise<Chain> {
  const host = await PartModel.findOne({ where: { id: ask.hostId, kind: 'host' } });
  if (!host) throw invalid('hostId', 'No host has this id');
  const empty = {
    host: host.spec as HostSpec,
    socket: null,
    path: null,
    dock: null,
    card: null,
    supplies: [],
    picture: [],
  };
  const plainBase: Chain = {
    ...empty,
    loads: [],
    system: null,
    installed: NOTHING_INSTALLED,
    settings: NO_SETTINGS,
    uses: [],
  };
  if (ask.setupId === null)
    return { ...plainBase, settings: { ...NO_SETTINGS, toPanel: ask.panel ? 'yes' : null } };
  const { row } = await readSetup(ask.setupId);
  const chain = chainOf((await slotRows([ask.setupId])).get(ask.setupId) ?? [], row.details);
  // Versions of the dock and card that stand there now say nothing of others.
  const { hostFirmware, systemBuild, linkFirmware } = chain.installed;
  return {
    ...plainBase,
    system: chain.system,
    loads: chain.loads,
    uses: chain.uses,
    settings: { ...chain.settings, toPanel: ask.panel ? 'yes' : chain.settings.toPanel },
    installed: { ...NOTHING_INSTALLED, hostFirmware, systemBuild, linkFirmware },
  };
}

/** Ways out of a host: a cable, an adapter that ends in a slot or a plug, an adapter with a cable, or a dock's own lead. */
export function routesFor(host: HostSpec, pieces: readonly Choice<PieceSpec>[]): RouteChoice[] {
  return host.sockets.flatMap(({ key: socket, connector }): RouteChoice[] => {
    const cables = pieces.filter((p) => !isAdapter(p.spec));
    const fits = (p: Choice<PieceSpec>, plug: string) =>
      !isAdapter(p.spec) && p.spec.connector === plug;
    const adapters = pieces.filter((p) => isAdapter(p.spec) && p.spec.hostEnd === connector);
    const joined = adapters.flatMap((a) => {
      const far = isAdapter(a.spec) ? a.spec.farEnd : '';
      return [
        { socket, pieces: [a] },
        ...cables.filter((c) => fits(c, far)).map((c) => ({ socket, pieces: [a, c] })),
      ];
    });
    const alone = cables.filter((c) => fits(c, connector)).map((c) => ({ socket, pieces: [c] }));
    // For docks with a fixed lead, and those that plug into a slot.
    return [...alone, ...joined, { socket, pieces: [] }];
  });
}

/** Docks and cards that are sold together, in the currency of the search. */
function boxesOf(prices: readonly Price[], r: OfferRules): BoxChoice[] {
  return currentOffers(prices, 'offer', r)
    .filter((p) => p.withIds.length === 1)
    .flatMap((p) => {
      const minor = inCurrency(p, r.currency, r.rates, r.asOf)?.minor;
      const other = p.withIds[0] as string;
      if (minor === undefined) return [];
      return [
        { dockId: p.partId, cardId: other, minor },
        { dockId: other, cardId: p.partId, minor },
      ];
    });
}

/** Whole machines with what they cost net and the frames they draw. */
export async function machinesFor(
  s: Services,
  frames: Parameters<typeof frameAsks>[0],
  currency: string,
): Promise<MachineRow[]> {
  const [house, rates, prices, asks] = await Promise.all([
    houseRules(),
    listRates(),
    allPrices(),
    frameAsks(frames),
  ]);
  const rows = await PartModel.findAll({
    where: { kind: ['laptop', 'desktop'], retiredAt: null },
    order: ['kind', 'id'],
    limit: 200,
  });
  const asOf = s.now().toISOString().slice(0, 10);
  const r: OfferRules = {
    condition: null,
    currency,
    rates,
    asOf,
    oldDays: new RuleBook(house).get('cost.oldDays'),
  };
  return rows.map(({ id, kind: kindOfMachine, spec: whole }) => {
    const kind = kindOfMachine as MachineRow['kind'];
    const spec = whole as MachineSpec;
    const { minor, resaleMinor } = alone(
      prices.filter((p) => p.partId === id),
      r,
    );
    const netMinor = minor === null ? null : minor - (resaleMinor ?? 0);
    return { kind, name: partName(spec), netMinor, fps: machineFps(spec, asks, house)[0] ?? null };
  });
}

/** What parts of the catalogue cost in this search. */
class SearchPrices {
  readonly #byPart = new Map<string, Price[]>();

  constructor(
    readonly all: readonly Price[],
    readonly rules: OfferRules,
  ) {
    for (const p of all) this.#byPart.set(p.partId, [...(this.#byPart.get(p.partId) ?? []), p]);
  }

  /** A part alone: owned ones cost nothing, and may still be sold. */
  of({ id, owned }: PartForSearch): { minor: number | null; resaleMinor: number | null } {
    const { minor, resaleMinor } = alone(this.#byPart.get(id) ?? [], this.rules);
    return { minor: owned ? 0 : minor, resaleMinor };
  }

  choice<S extends AnySpec>(row: PartForSearch): Choice<S> {
    const name = partName(row.spec as unknown as DockSpec);
    const { minor, resaleMinor } = this.of(row);
    const { id, owned } = row;
    return { id, name, spec: row.spec as S, minor, owned, resaleMinor, alike: [] };
  }
}

/** Releases and requirements of the catalogue. */
async function softwareNotes() {
  const rows = await PartModel.findAll({
    where: { kind: ['release', 'requirement'], retiredAt: null },
    order: ['kind', 'id'],
    limit: 2000,
  });
  const of = <S>(kind: string) => rows.filter((x) => x.kind === kind).map((x) => x.spec as S);
  return {
    requirements: of<RequirementSpec>('requirement'),
    releases: of<ReleaseSpec>('release'),
  };
}

/** The title asked for, at the size asked for and at the usual ones. */
async function framesAskedFor(ask: ScoutAsk) {
  const resolutions = [ask.resolution, ...STANDARD_RESOLUTIONS.filter((x) => x !== ask.resolution)];
  const frames = await frameAsks({
    titleIds: [ask.titleId],
    resolutions,
    panel: ask.panel,
    preset: ask.preset,
    powerMode: '',
    rayTracing: false,
    capFps: null,
  });
  if (frames.length === 0) throw invalid('titleId', 'No title has this id');
  return frames;
}

/** Complete computers, which draw the frames without a link. */
function completeSystems(
  rows: readonly PartForSearch[],
  prices: SearchPrices,
  frames: Awaited<ReturnType<typeof frameAsks>>,
  house: HouseRules,
): OutrightChoice[] {
  return rows
    .filter((row) => row.kind === 'laptop' || row.kind === 'desktop')
    .map((row) => {
      const spec = row.spec as MachineSpec;
      return {
        kind: row.kind as OutrightChoice['kind'],
        id: row.id,
        name: partName(spec),
        ...prices.of(row),
        fps: machineFps(spec, frames, house),
        noiseDb: typeof spec.noiseDb === 'number' ? spec.noiseDb : null,
      };
    });
}

type Named = Choice<{ maker: string; model: string; variant: string }>;

/** Tells what something else is known of by its name: such a part does not stand for others of the same values. */
function knownByName(
  ask: ScoutAsk,
  known: Pick<ScoutInput, 'near' | 'frames' | 'boxes'> & {
    context: Awaited<ReturnType<typeof softwareNotes>>;
  },
): (c: Named) => boolean {
  const logged = new Set(known.near.flatMap((n) => [n.dock, n.card]));
  const measured = new Set(
    known.frames.flatMap((f) => f.title.evidence.flatMap(cellsOfEvidence).map((c) => c.card.id)),
  );
  const { requirements, releases } = known.context;
  return (c) =>
    logged.has(plain(c.name)) ||
    measured.has(c.name) ||
    [...requirements, ...releases].some((x) => means(x, c.spec)) ||
    known.boxes.some((b) => b.dockId === c.id || b.cardId === c.id) ||
    ask.pins.some((p) => [p.dock, p.card, p.supply, ...p.path].includes(c.id));
}

/** Everything a search needs in one go; whoever runs it needs no database. */
export async function scoutGroundsFor(s: Services, ask: ScoutAsk): Promise<ScoutGrounds> {
  const [base, house, { rows, left }, offers, rates] = await Promise.all([
    baseOf(ask),
    houseRules(),
    catalogue(ask.own),
    allPrices(),
    listRates(),
  ]);
  const asOf = s.now().toISOString().slice(0, 10);
  const oldDays = new RuleBook(house).get('cost.oldDays');
  const { condition, currency } = ask;
  const prices = new SearchPrices(offers, { condition, currency, rates, asOf, oldDays });
  const frames = await framesAskedFor(ask);
  const context = { asOf, house, ...(await softwareNotes()) };
  const boxes = boxesOf(offers, prices.rules);
  const near = await unitsSeen();
  const seen = await tallies(await loggedKeysOf(plain(partName(base.host))));
  const apart = knownByName(ask, { near, frames, boxes, context });
  const list = <S extends AnySpec>(...kinds: Kind[]) =>
    rows.filter((row) => kinds.includes(row.kind)).map((row) => prices.choice<S>(row));
  const cut = <S extends { maker: string; model: string; variant: string }>(all: Choice<S>[]) =>
    collapsed(all, apart);
  const screens = list<ScreenSpec>('screen').filter((x) => ask.screens.includes(x.id));
  const input: ScoutInput = {
    base,
    context,
    currency,
    routes: routesFor(base.host as HostSpec, cut(list<PieceSpec>('cable', 'adapter'))),
    docks: cut(list<DockSpec>('dock')),
    cards: cut(list<CardSpec>('card')),
    supplies: cut(list<SupplySpec>('supply')),
    screens: screens.map((x) => ({
      ...x,
      plug: x.spec.dpLevel === 'none' ? 'hdmi' : 'displayport',
    })),
    boxes,
    frames,
    forgotten: ask.forgotten,
    seen: [...seen].flatMap(([key, e]) => (e.exact.n > 0 ? [{ key, tally: e.exact }] : [])),
    near,
    limits: ask.limits,
    weights: ask.weights,
  };
  return {
    input,
    host: partName(base.host),
    title: frames[0]?.title.name ?? '',
    outright: completeSystems(rows, prices, frames, house),
    left,
  };
}
