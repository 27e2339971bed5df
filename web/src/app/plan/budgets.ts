import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Range } from '@ruddy/core/base';
import { figure, hoursText, rate } from '@ruddy/core/base/text';
import type { Budget, Evaluation } from '@ruddy/core/plan';
import { LinkBudget } from './link-budget';
import { Fold } from '../platform/kit/fold';

interface Row {
  readonly key: string;
  readonly name: string;
  readonly words: string;
  readonly was: string;
  readonly state: Budget['state'];
  /** Per cent of the limit; over 100 it breaks out of its frame. */
  readonly lo: number;
  readonly hi: number;
  readonly notch: number | null;
  /** Near enough to its limit to be shown unfolded; plugs that are all there never are. */
  readonly close: boolean;
  readonly hint: string;
}

const AREA: Record<Budget['area'], string> = {
  power: 'Power',
  plugs: 'Power plugs',
  charging: 'Charging',
  fit: 'Room',
  cooling: 'Air',
  screen: 'Screen',
};
const FIT: Record<string, string> = {
  length: 'Length',
  height: 'Height',
  slots: 'Width',
  bend: 'Bend of the plug',
  weight: 'Weight',
};
const STATE: Record<Budget['state'], string> = {
  fits: 'fits',
  tight: 'tight',
  may: 'may not fit',
  over: 'too much',
  unknown: 'not known',
};
/** Below this share of the limit a budget folds away. */
const ROOMY = 60;

function one(r: Range | null, unit: string): string {
  if (!r) return 'not known';
  return unit === 'Gb/s' ? rate(r) : figure(r, unit === 'slots' || unit === 'K' ? 1 : 0);
}

/** What is needed of what is there, for each subject; while a change is tried, what it was before. */
@Component({
  selector: 'rb-budgets',
  imports: [Fold, LinkBudget, NgTemplateOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './budgets.html',
  styleUrl: './budgets.scss',
})
export class Budgets {
  readonly evaluation = input.required<Evaluation>();
  readonly before = input<Evaluation | null>(null);
  readonly stateOf = (r: Row) => STATE[r.state];
  readonly rows = computed(() => {
    const old = this.before()?.predicted.budgets ?? null;
    return this.evaluation().predicted.budgets.map((b, i) => this.#row(b, old, i));
  });
  readonly tight = computed(() =>
    this.rows().filter(
      (r) => r.state !== 'unknown' && (r.close || r.state !== 'fits' || r.was !== ''),
    ),
  );
  readonly roomy = computed(() =>
    this.rows().filter((r) => r.state !== 'unknown' && !this.tight().includes(r)),
  );
  readonly open = computed(() => this.rows().filter((r) => r.state === 'unknown'));
  readonly openWords = computed(() =>
    this.open()
      .map((r) => r.name.toLowerCase())
      .join(', '),
  );
  readonly wasLink = computed(() => {
    const [was, now] = [this.before(), this.evaluation()].map(
      (e) => e?.predicted.link.usable?.down ?? null,
    );
    return this.before() && rate(was) !== rate(now) ? `was ${rate(was)} Gb/s` : '';
  });

  #row(b: Budget, old: readonly Budget[] | null, i: number): Row {
    const name =
      b.area === 'fit'
        ? (FIT[b.name] ?? b.name)
        : b.area === 'screen'
          ? `Screen ${b.name}`
          : AREA[b.area];
    const most = b.have?.lo ?? 0;
    const share = (x: number | undefined) =>
      most > 0 && x !== undefined && Number.isFinite(x) ? Math.min(118, (100 * x) / most) : 0;
    const words =
      b.area === 'charging' && b.have && b.need
        ? `${one(b.have, 'W')} W in, ${one(b.need, 'W')} W drawn`
        : `${one(b.need, b.unit)} of ${one(b.have, b.unit)} ${b.unit}`;
    const same = old?.find(
      (o) => o.area === b.area && (o.name === b.name || b.area === 'power' || b.area === 'plugs'),
    );
    const changed =
      same &&
      (one(same.need, b.unit) !== one(b.need, b.unit) ||
        one(same.have, b.unit) !== one(b.have, b.unit));
    return {
      key: `${b.area} ${b.name} ${i}`,
      name,
      words,
      was: changed ? `was ${one(same.need, b.unit)} of ${one(same.have, b.unit)} ${b.unit}` : '',
      state: b.state,
      lo: share(b.need?.lo),
      hi: share(b.need?.hi),
      notch: b.comfortable !== null && most > 0 ? (100 * b.comfortable) / most : null,
      close: b.area !== 'plugs' && share(b.need?.hi) >= ROOMY,
      hint: this.#hint(b),
    };
  }

  #hint(b: Budget): string {
    if (b.area === 'power') {
      const wall = this.evaluation().predicted.body.power.feeders.find(
        (f) => f.name === b.name,
      )?.wall;
      return [b.name, wall ? `${figure(wall)} W from the wall` : '']
        .filter((s) => s !== '')
        .join('; ');
    }
    const { hours } = this.evaluation().predicted.body.charging;
    return b.area === 'charging' && hours ? `Empty after ${hoursText(hours)}.` : '';
  }
}
