import { ChangeDetectionStrategy, Component, computed, signal } from '@angular/core';
import { type Meaning, statedPercent, threeWays } from '@ruddy/core/runs';
import { lostText } from '@ruddy/core/runs/text';
import { readNumber } from '../../platform/shared/format';
import { Fold } from '../../platform/kit/fold';
import { Field } from '../../platform/kit/field';
import type { FieldMeta } from '../../platform/kit/meta';

const SAID: Readonly<Record<Meaning, (a: string, b: string) => string>> = {
  faster: (a, b) => `${b} is so much faster than ${a}`,
  of: (a, b) => `${b} reaches so much of ${a}`,
  lost: (a, b) => `${b} loses so much of ${a}`,
};

/** Somebody states two figures and a percentage: what does it mean, and does it follow? */
@Component({
  selector: 'rb-stated-panel',
  imports: [Field, Fold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-fold name="Check a percentage somebody states">
      <div class="row">
        <rb-field [meta]="a" [live]="true" [value]="first()" (changed)="first.set($event)" />
        <rb-field [meta]="b" [live]="true" [value]="second()" (changed)="second.set($event)" />
        <rb-field [meta]="p" [live]="true" [value]="percent()" (changed)="percent.set($event)" />
      </div>
      <p role="status">{{ words() }}</p>
    </rb-fold>
  `,
  styles: `
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 16px;
      padding: 8px 0;
    }
    rb-field {
      width: 160px;
    }
  `,
})
export class StatedPanel {
  /** Text, for how many decimals a percentage was stated with counts. */
  readonly a: FieldMeta = { label: 'First, frames/s', input: 'text' };
  readonly b: FieldMeta = { label: 'Second, frames/s', input: 'text' };
  readonly p: FieldMeta = { label: 'Stated, %', input: 'text' };
  readonly first = signal('');
  readonly second = signal('');
  readonly percent = signal('');
  readonly words = computed(() => {
    const [a, b, p] = [this.first(), this.second(), this.percent()].map(readNumber);
    const bad = [a, b, p].find((r) => r && !r.ok);
    if (bad && !bad.ok) return bad.why;
    if (!a?.ok || !b?.ok || !p?.ok || !a.value || !b.value || p.value === null)
      return 'Type two figures and what was said of them.';
    const decimals = /[.,](\d+)$/.exec(this.percent().trim())?.[1]?.length ?? 0;
    const found = statedPercent(a.value, b.value, Math.abs(p.value), decimals);
    const w = threeWays(b.value / a.value);
    const really = `The second is ${w.faster.toFixed(1)} % faster, ${w.of.toFixed(1)} % of, ${lostText(w.lost)} against the first.`;
    if (found.length === 0)
      return `${p.value} % does not follow from ${a.value} and ${b.value} in any reading. ${really}`;
    const list = found.map((f) =>
      f.base === 'a'
        ? SAID[f.meaning]('the first', 'the second')
        : SAID[f.meaning]('the second', 'the first'),
    );
    return `It follows when ${list.join(', or ')}. ${really}`;
  });
}
