import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { SymptomId } from '@ruddy/core/base';
import { SYMPTOM_GROUPS, SYMPTOM_WORDS } from '@ruddy/core/troubleshoot/text';
import { Fold } from '../platform/kit/fold';
import { MatCheckboxModule } from '@angular/material/checkbox';

/** Everything that may be seen, to tick; groups with nothing ticked may be folded away. */
@Component({
  selector: 'rb-symptom-list',
  imports: [Fold, MatCheckboxModule],
  host: { '[class.wide-list]': 'open()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (g of groups(); track g.name) {
      <rb-fold
        [open]="open() || g.n > 0"
        name="{{ g.name }}{{ g.n > 0 ? ', ' + g.n + ' seen' : '' }}"
      >
        @for (s of g.of; track s) {
          <mat-checkbox [checked]="value().includes(s)" (change)="flip(s)">{{
            words[s]
          }}</mat-checkbox>
        }
      </rb-fold>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      align-items: start;
      grid-template-columns: minmax(0, 1fr);
    }
    :host(.wide-list) {
      grid-template-columns: repeat(auto-fit, minmax(min(280px, 100%), 1fr));
      gap: 16px;
    }
    mat-checkbox {
      display: block;
    }
  `,
})
export class SymptomList {
  readonly value = input.required<readonly SymptomId[]>();
  readonly open = input(false);
  readonly changed = output<SymptomId[]>();
  readonly words = SYMPTOM_WORDS;
  readonly groups = computed(() =>
    SYMPTOM_GROUPS.map((g) => ({ ...g, n: g.of.filter((s) => this.value().includes(s)).length })),
  );

  flip(s: SymptomId): void {
    const now = this.value();
    this.changed.emit(now.includes(s) ? now.filter((x) => x !== s) : [...now, s]);
  }
}
