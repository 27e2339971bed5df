import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatChipsModule } from '@angular/material/chips';
import { MatIconModule } from '@angular/material/icon';
import { debounceTime } from 'rxjs';
import { OUTCOMES } from '@ruddy/core/base';
import { PROVENANCE_LABELS } from '@ruddy/core/compatibility';
import { PORT_STANDARDS } from '@ruddy/core/parts';
import { OUTCOME_WORDS } from '../plan/record/outcome-form';
import { ask, valueOf } from '../platform/kit/ask';
import { Field } from '../platform/kit/field';
import type { FieldMeta, Option } from '../platform/kit/meta';
import { day } from '../platform/shared/format';
import { LogData } from './log';
import { FILTER_KEYS, type FilterKey } from './log-keys';

export type Filters = Readonly<Partial<Record<FilterKey, string>>>;

const optionsOf = (words: Readonly<Record<string, string>>): Option[] =>
  Object.entries(words).map(([value, label]) => ({ value, label }));
const METAS: Readonly<Record<FilterKey, FieldMeta>> = {
  q: { label: 'Find', input: 'text', placeholder: 'part, setup, symptom, fix', max: 100 },
  outcome: {
    label: 'Newest status',
    input: 'choice',
    placeholder: 'all',
    options: OUTCOMES.map((o) => ({ value: o, label: OUTCOME_WORDS[o] })),
  },
  standard: {
    label: 'Port',
    input: 'choice',
    placeholder: 'all',
    options: optionsOf(PORT_STANDARDS),
  },
  host: { label: 'Host', input: 'suggest' },
  dock: { label: 'Dock', input: 'suggest' },
  card: { label: 'Card', input: 'suggest' },
  controller: { label: 'Controller', input: 'text', placeholder: 'built-in, separate, a class' },
  system: { label: 'System or build', input: 'text', placeholder: 'name, platform or build' },
  symptom: { label: 'Symptom', input: 'text', placeholder: 'black screen' },
  fix: { label: 'Fix', input: 'text', placeholder: 'firmware, cable' },
  since: { label: 'From', input: 'day' },
  until: { label: 'To', input: 'day' },
  known: {
    label: 'Known from',
    input: 'choice',
    placeholder: 'all',
    options: [...optionsOf(PROVENANCE_LABELS), { value: 'file', label: 'From a file' }],
  },
};
/** In view at once; the others open under "More filters". */
const FIRST: readonly FilterKey[] = ['q', 'outcome', 'standard'];
/** What entries can share with what is asked for. */
const NEAR_TO: readonly FilterKey[] = ['host', 'dock', 'card', 'standard'];
const TYPING_MS = 150;

/** Filters of the log, as fields; those that are set stand below as chips. The address of the page holds them. */
@Component({
  selector: 'rb-log-finder',
  imports: [ReactiveFormsModule, MatButtonModule, MatChipsModule, MatIconModule, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'dense' },
  template: `
    <form [formGroup]="form" class="line" role="search" aria-label="Filter the log">
      @for (k of first; track k) {
        <rb-field [meta]="metas()[k]" [control]="form.controls[k]" />
      }
      <button
        mat-stroked-button
        type="button"
        [attr.aria-expanded]="folded()"
        (click)="folded.set(!folded())"
      >
        <mat-icon svgIcon="tune" />More filters
      </button>
    </form>
    @if (folded()) {
      <div class="grid">
        @for (k of more; track k) {
          <rb-field [meta]="metas()[k]" [control]="form.controls[k]" />
        }
        <rb-field [meta]="nearMeta()" [control]="near" />
      </div>
    }
    @if (set().length > 0 || isNear()) {
      <mat-chip-set aria-label="Filters that are set">
        @if (isNear()) {
          <mat-chip (removed)="near.setValue(false)">
            Near matches too
            <button matChipRemove aria-label="Remove filter Near matches too">
              <mat-icon svgIcon="close" />
            </button>
          </mat-chip>
        }
        @for (s of set(); track s.key) {
          <mat-chip (removed)="form.controls[s.key].setValue('')">
            {{ s.text }}
            <button matChipRemove [attr.aria-label]="'Remove filter ' + s.text">
              <mat-icon svgIcon="close" />
            </button>
          </mat-chip>
        }
        <button mat-button type="button" (click)="cleared.emit()">Clear filters</button>
      </mat-chip-set>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 12px 16px 4px;
    }
    .line,
    .grid {
      display: grid;
      grid-template-columns: minmax(220px, 2fr) minmax(140px, 1fr) minmax(160px, 1fr) auto;
      gap: 12px;
      align-items: center;
    }
    .grid {
      grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
      padding-top: 12px;
    }
    mat-chip-set {
      display: block;
      padding-top: 8px;
    }
    @media (max-width: 719px) {
      .line {
        grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
      }
    }
  `,
})
export class LogFinder {
  readonly #log = inject(LogData);
  readonly filters = input.required<Filters>();
  readonly isNear = input(false);
  readonly changed = output<Record<string, string | null>>();
  readonly nearChanged = output<boolean>();
  readonly cleared = output();

  readonly first = FIRST;
  readonly more = FILTER_KEYS.filter((k) => !FIRST.includes(k));
  readonly folded = signal(false);
  /** Names of parts are read when the fields open; without them the fields still take text. */
  readonly names = ask(
    () => this.#log.names(),
    () => this.folded() || undefined,
  );
  readonly form = new FormGroup(
    Object.fromEntries(FILTER_KEYS.map((k) => [k, new FormControl<string | null>('')])) as Record<
      FilterKey,
      FormControl<string | null>
    >,
  );
  readonly near = new FormControl(false, { nonNullable: true });
  readonly canNear = computed(() => NEAR_TO.some((k) => (this.filters()[k] ?? '') !== ''));
  readonly nearMeta = computed<FieldMeta>(() => ({
    label: 'Near matches too, nearest first',
    input: 'flag',
    help: this.canNear() ? '' : 'Needs a host, dock, card or port to be near to',
  }));
  readonly metas = computed<Readonly<Record<FilterKey, FieldMeta>>>(() => {
    const names = valueOf(this.names);
    const suggest = (k: 'host' | 'dock' | 'card'): FieldMeta => ({
      ...METAS[k],
      options: names?.[k].map((n) => ({ value: n, label: n })) ?? [],
    });
    return { ...METAS, host: suggest('host'), dock: suggest('dock'), card: suggest('card') };
  });
  readonly set = computed(() =>
    FILTER_KEYS.filter((k) => k !== 'q' && (this.filters()[k] ?? '') !== '').map((key) => {
      const value = this.filters()[key] ?? '';
      const label = METAS[key].options?.find((o) => o.value === value)?.label;
      const text = METAS[key].input === 'day' ? day(value) : (label ?? value);
      return { key, text: `${METAS[key].label}: ${text}` };
    }),
  );

  constructor() {
    effect(() => {
      const now = Object.fromEntries(FILTER_KEYS.map((k) => [k, this.filters()[k] ?? null]));
      const near = this.isNear();
      untracked(() => {
        this.#show(now);
        this.near.setValue(near, { emitEvent: false });
      });
    });
    this.form.valueChanges
      .pipe(debounceTime(TYPING_MS), takeUntilDestroyed())
      .subscribe(() => this.#tell());
    this.near.valueChanges.pipe(takeUntilDestroyed()).subscribe((on) => this.nearChanged.emit(on));
  }

  /** Shows the filters of the address; text that is being typed stays as it is. */
  #show(now: Record<string, string | null>): void {
    for (const k of FILTER_KEYS)
      if ((this.form.controls[k].value ?? '').trim() !== (now[k] ?? ''))
        this.form.controls[k].setValue(now[k] ?? null, { emitEvent: false });
  }

  #tell(): void {
    const changes = FILTER_KEYS.filter((k) => this.form.controls[k].valid)
      .map((k) => [k, (this.form.controls[k].value ?? '').trim()] as const)
      .filter(([k, value]) => value !== (this.filters()[k] ?? ''))
      .map(([k, value]) => [k, value || null] as const);
    if (changes.length > 0) this.changed.emit(Object.fromEntries(changes));
  }
}
