import type { AttrPath, Chain } from '../chain';
import type { StaticFacts } from './body';
import type { FindingCode } from './codes';
import type { Finding } from './finding';

/** The areas a chain is judged in, in the order a person checks them. */
export const JUDGED_AREAS = [
  'link',
  'plugs',
  'watts',
  'room',
  'software',
  'charging',
  'air',
  'picture',
  'handling',
] as const;
export type JudgedArea = (typeof JUDGED_AREAS)[number];

/** Areas that can stop a chain; the others at most call for care. */
export const STOPPING_AREAS: readonly JudgedArea[] = ['link', 'plugs', 'watts', 'room', 'software'];

/**
 * State of one area over every completion of the unknown values. `good`: no completion is stopped or calls for care.
 * `care`: none is stopped, some call for care. `stops`: every one is stopped. `open`: completions differ on whether
 * the chain works or, in an area that cannot stop it, on whether it calls for care; or a value is missing that the
 * comparison needs. `none`: does not apply to this chain.
 */
export type AreaState = 'good' | 'care' | 'stops' | 'open' | 'none';

export interface AreaVerdict {
  readonly area: JudgedArea;
  readonly state: AreaState;
  /** Attributes that would have to be known, in the order they are worth asking. */
  readonly open: readonly AttrPath[];
  readonly because: readonly FindingCode[];
}

/** How many of the areas that apply are known. */
export interface Coverage {
  readonly known: number;
  readonly of: number;
}

const BY_SUBJECT: Record<string, JudgedArea> = {
  link: 'link',
  cable: 'link',
  dock: 'link',
  host: 'link',
  path: 'handling',
  power: 'watts',
  fit: 'room',
  software: 'software',
  charging: 'charging',
  cooling: 'air',
  screen: 'picture',
  route: 'handling',
  preflight: 'handling',
};
const APART: Partial<Record<FindingCode, JudgedArea | null>> = {
  'power/plugs-short': 'plugs',
  'power/cpu-plug': 'plugs',
  'power/no-supply': 'plugs',
  'link/all-off': 'handling',
  'card/inner-switch': 'link',
  // Neither says anything of one area: a name that promises more, and a log that contradicts the whole.
  'card/name-trap': null,
  'log/contradiction': null,
  'plan/unchosen': null,
};

/**
 * The area a finding is judged in.
 * @param code of the finding
 * @returns the area; null for one that concerns none of them alone
 */
export function areaOf(code: FindingCode): JudgedArea | null {
  const apart = APART[code];
  return apart !== undefined ? apart : (BY_SUBJECT[code.slice(0, code.indexOf('/'))] ?? null);
}

/** The slots each area cannot be judged without. */
const NEEDS: Partial<Record<JudgedArea, readonly string[]>> = {
  link: ['socket', 'path', 'dock', 'card'],
  plugs: ['card', 'dock'],
  watts: ['card', 'dock'],
  room: ['card', 'dock'],
};

/** Does an area apply to this chain at all? */
function applies(area: JudgedArea, chain: Chain, body: StaticFacts): boolean {
  const { charging, cooling, power } = body;
  switch (area) {
    case 'plugs':
      return (
        chain.card === null ||
        power.feeders.some((f) => f.shortage !== null) ||
        power.unfed !== null
      );
    case 'room':
      return chain.dock === null ? chain.card === null : chain.dock.form === 'enclosure';
    case 'charging':
      return (
        charging.hasBattery &&
        charging.by !== 'charger' &&
        charging.by !== null &&
        chain.dock !== null
      );
    case 'air':
      return cooling !== null;
    case 'picture':
      return body.pictures.length > 0;
    default:
      return true;
  }
}

/**
 * The state of one area from its findings. A missing figure makes a possible finding, so it leaves its area open and never good.
 */
function stateOf(area: JudgedArea, own: readonly Finding[], unchosen: boolean): AreaState {
  const some = (severity: string, certainty?: string) =>
    own.some(
      (f) => f.severity === severity && (certainty === undefined || f.certainty === certainty),
    );
  if (some('blocks', 'certain')) return 'stops';
  if (some('blocks') || unchosen) return 'open';
  if (!some('care')) return 'good';
  return STOPPING_AREAS.includes(area) || !some('care', 'possible') ? 'care' : 'open';
}

/**
 * Every area of a chain with its state.
 * @param chain the chain
 * @param body facts that are the same in every completion
 * @param findings of the chain
 * @returns areas in the order of `JUDGED_AREAS`
 */
export function areasOf(
  chain: Chain,
  body: StaticFacts,
  findings: readonly Finding[],
): AreaVerdict[] {
  const missing = findings
    .filter((f) => f.code === 'plan/unchosen')
    .flatMap((f) => f.slots as readonly string[]);
  return JUDGED_AREAS.map((area) => {
    const own = findings.filter((f) => areaOf(f.code) === area);
    const unchosen = missing.filter((slot) => NEEDS[area]?.includes(slot));
    const state = stateOf(area, own, unchosen.length > 0);
    const weighs = own.filter((f) => f.severity !== 'note');
    if (weighs.length === 0 && !applies(area, chain, body))
      return { area, state: 'none', open: [], because: [] };
    const decides = weighs.filter((f) => f.severity === 'blocks');
    const paths = [...decides, ...weighs.filter((f) => f.severity !== 'blocks')].flatMap(
      (f) => f.hangsOn,
    );
    return {
      area,
      state,
      open: [...new Set([...unchosen, ...paths])],
      because: [...new Set(weighs.map((f) => f.code))],
    };
  });
}

/**
 * Areas that are known among those that apply.
 * @param areas with their states
 * @returns how many are known, and of how many
 */
export function coverageOf(areas: readonly AreaVerdict[]): Coverage {
  const of = areas.filter((a) => a.state !== 'none');
  return { known: of.filter((a) => a.state !== 'open').length, of: of.length };
}
