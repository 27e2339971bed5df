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

/** The budgets of a chain beside its link, in the order a person checks them. */
export function budgetsOf(body: StaticFacts, rule: (id: RuleId) => number): Budget[] {
  const power = body.power.feeders.flatMap((f): Budget[] => [
    budget({
      area: 'power',
      name: f.name,
      unit: 'W',
      need: f.load,
      have: f.rated,
      ...(f.rated && { comfortable: (f.rated.lo * rule('power.comfortPercent')) / 100 }),
      open: f.open,
    }),
    ...(f.plugs && f.plugs.wants > 0
      ? [
          budget({
            area: 'plugs',
            name: f.name,
            unit: f.plugs.wants === 1 ? 'plug' : 'plugs',
            need: exact(f.plugs.wants),
            have: { lo: f.plugs.wants - f.plugs.short.hi, hi: f.plugs.wants - f.plugs.short.lo },
            open: [],
          }),
        ]
      : !f.plugs && f.counted && f.counted.card !== f.counted.supply
        ? [
            budget({
              area: 'plugs',
              name: f.name,
              unit: 'plugs',
              need: f.counted.card ? exact(0) : null,
              have: f.counted.supply ? exact(0) : null,
              open: f.counted.card ? [`${f.at}/cables8Pin`] : ['card/plugs8Pin'],
            }),
          ]
        : []),
  ]);
  const c = body.charging;
  const charging =
    c.hasBattery && (c.by === 'link' || c.by === 'own-lead')
      ? [
          budget({
            area: 'charging',
            name: '',
            unit: 'W',
            need: c.drawW,
            have: c.contract,
            open: c.open,
          }),
        ]
      : [];
  const fit = (body.fit?.rows ?? []).map((r) =>
    budget({ area: 'fit', name: r.what, unit: r.unit, need: r.need, have: r.have, open: r.open }),
  );
  const cool = body.cooling;
  const cooling = cool
    ? [
        budget({
          area: 'cooling',
          name: '',
          unit: 'K',
          need: cool.riseK,
          have: exact(cool.limitK),
          open: cool.open,
        }),
      ]
    : [];
  const screens = body.pictures.map((p) =>
    budget({
      area: 'screen',
      name: p.name,
      unit: 'Gb/s',
      need:
        p.needGbps === null
          ? null
          : exact(
              p.verdict === 'compressed' ? p.needGbps / rule('screen.compression') : p.needGbps,
            ),
      have: p.haveGbps === null ? null : exact(p.haveGbps),
      open: p.open,
    }),
  );
  return [...power, ...charging, ...fit, ...cooling, ...screens];
}
