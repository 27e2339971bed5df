import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { FAULT_IDS, type FaultId, faultsOf } from '@ruddy/core/bench';
import { FAULT_STRENGTH, FAULT_WORDS } from '@ruddy/core/bench/text';
import { BenchStore } from './bench-store';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { Slider } from '../platform/kit/slider';

/** Faults that sit in the bench, and the place to hide another; only those this chain can have are offered. */
@Component({
  selector: 'rb-fault-panel',
  imports: [Field, MatButtonModule, Slider],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="quiet">{{ summary() }}</p>
    <ul>
      @for (f of inIt(); track f.id) {
        <li>
          <span>{{ words[f.id] }}, {{ f.percent }} %</span>
          <button
            mat-button
            type="button"
            [attr.aria-label]="'Mend: ' + words[f.id]"
            (click)="set(f.id, 0)"
          >
            Mend
          </button>
        </li>
      }
    </ul>
    <div class="add">
      <rb-field [meta]="faultMeta()" [value]="picked()" (changed)="picked.set($event)" />
      <rb-slider
        label="Strength, {{ percent() }} %"
        [min]="5"
        [max]="100"
        [step]="5"
        [value]="percent()"
        words="{{ percent() }} %"
        (changed)="percent.set($event)"
      />
      <span class="hint">{{ decides() }}</span>
      <button mat-stroked-button type="button" [disabled]="picked() === null" (click)="hide()">
        Hide it
      </button>
    </div>
  `,
  styles: `
    ul {
      list-style: none;
    }
    li {
      display: flex;
      justify-content: space-between;
      align-items: center;
    }
    .add {
      display: grid;
      gap: 8px;
      margin-top: 8px;
    }
  `,
})
export class FaultPanel {
  readonly store = inject(BenchStore);
  readonly words = FAULT_WORDS;
  readonly picked = signal<FaultId | null>(null);
  readonly percent = signal(100);
  readonly inIt = computed(() => {
    const faults = this.store.bench()?.faults ?? {};
    return FAULT_IDS.flatMap((id) => {
      const strength = faults[id];
      return strength ? [{ id, percent: Math.round(strength * 100) }] : [];
    });
  });
  readonly can = computed(() => {
    const bench = this.store.bench();
    const s = this.store.state();
    return bench ? faultsOf({ ...bench.chain, socket: s?.plugged ?? bench.chain.socket }) : [];
  });
  readonly faultMeta = computed<FieldMeta>(() => ({
    label: 'Hide a fault',
    input: 'choice',
    placeholder: `choose one of ${this.can().length}`,
    options: this.can().map((value) => ({ value, label: FAULT_WORDS[value] })),
  }));
  readonly summary = computed(() => {
    const n = this.inIt().length;
    return n === 0
      ? '0 faults hidden: this bench is sound.'
      : `${n} ${n === 1 ? 'fault' : 'faults'} hidden.`;
  });
  readonly decides = computed(() => {
    const id = this.picked();
    return (id && FAULT_STRENGTH[id]) ?? '';
  });

  hide(): void {
    const id = this.picked();
    if (id) this.set(id, this.percent() / 100);
    this.picked.set(null);
  }

  set(id: FaultId, strength: number): void {
    this.store.act({ act: 'fault', id, strength });
  }
}
