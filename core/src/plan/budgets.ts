import { exact, fits, type Range, type RuleId } from '../base';
import type { AttrPath } from '../chain';
import type { StaticFacts } from './body';

/** Something needed against something there: figure, limit, and where it becomes uncomfortable. */
export interface Budget {
  readonly area: 'power' | 'plugs' | 'charging' | 'fit' | 'cooling' | 'screen';
  /** Which of several: the supply, the side of the card, the screen. */
  readonly name: string;
  readonly unit: string;
  readonly need: Range | null;
  readonly have: Range | null;
  /** Comfortable up to here; null when there is no such line. */
  readonly comfortable: number | null;
  readonly state: 'fits' | 'tight' | 'may' | 'over' | 'unknown';
  /** Attributes that would have to be known. */
  readonly open: readonly AttrPath[];
}

function budget(b: Omit<Budget, 'state' | 'comfortable'> & { comfortable?: number }): Budget {
  const f = fits(b.need, b.have);
  const comfortable = b.comfortable ?? null;
  const tight = f === 'yes' && comfortable !== null && b.need !== null && b.need.hi > comfortable;
  return {
    ...b,
    comfortable,
    state:
      f === null ? 'unknown' : f === 'no' ? 'over' : f === 'may' ? 'may' : tight ? 'tight' : 'fits',
  };
}

type Rule = (id: RuleId) => number;
type Feeder = StaticFacts['power']['feeders'][number];

/** Plugs of a supply on its card; where they cannot be matched, the side that was counted. */
function plugBudgets({ at, name, plugs, counted }: Feeder): Budget[] {
  if (plugs)
    return plugs.wants === 0
      ? []
      : [
          budget({
            area: 'plugs',
            name,
            unit: plugs.wants === 1 ? 'plug' : 'plugs',
            need: exact(plugs.wants),
            have: { lo: plugs.wants - plugs.short.hi, hi: plugs.wants - plugs.short.lo },
            open: [],
          }),
        ];
  if (!counted || counted.card === counted.supply) return [];
  return [
    budget({
      area: 'plugs',
      name,
      unit: 'plugs',
      need: counted.card ? exact(0) : null,
      have: counted.supply ? exact(0) : null,
      open: counted.card ? [`${at}/cables8Pin`] : ['card/plugs8Pin'],
    }),
  ];
}

function powerBudgets(body: StaticFacts, rule: Rule): Budget[] {
  return body.power.feeders.flatMap((f) => [
    budget({
      area: 'power',
      name: f.name,
      unit: 'W',
      need: f.load,
      have: f.rated,
      ...(f.rated && { comfortable: (f.rated.lo * rule('power.comfortPercent')) / 100 }),
      open: f.open,
    }),
    ...plugBudgets(f),
  ]);
}

function chargingBudget({ charging: c }: StaticFacts): Budget[] {
  if (!c.hasBattery || (c.by !== 'link' && c.by !== 'own-lead')) return [];
  const { drawW: need, contract: have, open } = c;
  return [budget({ area: 'charging', name: '', unit: 'W', need, have, open })];
}

function coolingBudget({ cooling: c }: StaticFacts): Budget[] {
  if (!c) return [];
  const have = exact(c.limitK);
  return [budget({ area: 'cooling', name: '', unit: 'K', need: c.riseK, have, open: c.open })];
}

/** Gb/s of a screen; one that fits only compressed needs as much less. */
function screenBudgets({ pictures }: StaticFacts, rule: Rule): Budget[] {
  return pictures.map((p) => {
    const ratio = p.verdict === 'compressed' ? rule('screen.compression') : 1;
    return budget({
      area: 'screen',
      name: p.name,
      unit: 'Gb/s',
      need: p.needGbps === null ? null : exact(p.needGbps / ratio),
      have: p.haveGbps === null ? null : exact(p.haveGbps),
      open: p.open,
    });
  });
}

/**
 * The budgets of a chain beside its link.
 * @param body facts that are the same in every completion
 * @param rule reads a house rule
 * @returns budgets in the order a person checks them, each in its unit
 */
export function budgetsOf(body: StaticFacts, rule: Rule): Budget[] {
  const fit = (body.fit?.rows ?? []).map((r) =>
    budget({ area: 'fit', name: r.what, unit: r.unit, need: r.need, have: r.have, open: r.open }),
  );
  return [
    ...powerBudgets(body, rule),
    ...chargingBudget(body),
    ...fit,
    ...coolingBudget(body),
    ...screenBudgets(body, rule),
  ];
}
