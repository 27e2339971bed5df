import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { FAULT_IDS, type FaultId, faultsOf } from '@ruddy/core/bench';
import { FAULT_STRENGTH, FAULT_WORDS } from '@ruddy/core/bench/text';
import { BenchStore } from './bench-store';

/** Faults that sit in the bench, and the place to hide another; only those this chain can have are offered. */
@Component({
  selector: 'rb-fault-panel',
  imports: [MatButtonModule],
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
      <div class="field">
        <label for="fault">Hide a fault</label>
        <select id="fault" #fault (change)="picked.set($any(fault.value))">
          <option value="" [selected]="picked() === null">choose one of {{ can().length }}</option>
          @for (id of can(); track id) {
            <option [value]="id" [selected]="id === picked()">{{ words[id] }}</option>
          }
        </select>
      </div>
      <div class="field">
        <label for="strength">Strength, {{ percent() }} %</label>
        <input
          id="strength"
          #slide
          type="range"
          min="5"
          max="100"
          step="5"
          [value]="percent()"
          (input)="percent.set(+slide.value)"
        />
        <span class="hint">{{ decides() }}</span>
      </div>
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
    input[type='range'] {
      accent-color: var(--brick);
      width: 100%;
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
