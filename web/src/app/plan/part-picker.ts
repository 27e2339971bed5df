import {
  ChangeDetectionStrategy,
  Component,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import {
  MatAutocompleteModule,
  type MatAutocompleteSelectedEvent,
  MatAutocompleteTrigger,
} from '@angular/material/autocomplete';
import { catchError, debounceTime, forkJoin, of, Subject, switchMap } from 'rxjs';
import { partName } from '@ruddy/core/chain';
import type { PartKind } from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import { PartsData } from '../parts/parts';
import { facts } from '../parts/part-facts';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatIconModule } from '@angular/material/icon';
import { MatTooltipModule } from '@angular/material/tooltip';

/** Choose one part of a kind by typing its name; a part not in the list can be described on the spot. */
@Component({
  selector: 'rb-part-picker',
  imports: [
    MatTooltipModule,
    MatIconModule,
    MatInputModule,
    MatFormFieldModule,
    MatAutocompleteModule,
    MatButtonModule,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <!-- A list hears of no Tab before it was drawn: who tabs on quickly would leave it open over what comes next. -->
    <mat-form-field floatLabel="always">
      <mat-label>{{ label() }}</mat-label>
      <input
        #box
        matInput
        [id]="inputId()"
        type="text"
        autocomplete="off"
        placeholder="not chosen"
        [matAutocomplete]="auto"
        [value]="name()"
        (focus)="words.next(''); box.select()"
        (input)="typed()"
        (keydown.tab)="trigger().closePanel()"
        (keydown.shift.tab)="trigger().closePanel()"
        (blur)="left()"
      />
      @if (editable() && name() !== '') {
        <button
          matSuffix
          mat-icon-button
          type="button"
          (click)="edit.emit()"
          [attr.aria-label]="'Edit ' + name()"
          matTooltip="Edit"
        >
          <mat-icon svgIcon="edit" />
        </button>
      }
      @if (removable()) {
        <button
          matSuffix
          mat-icon-button
          type="button"
          (click)="chosen.emit(null)"
          [attr.aria-label]="'Remove ' + label() + ' ' + name()"
          matTooltip="Remove"
        >
          <mat-icon svgIcon="close" />
        </button>
      }
      <mat-autocomplete
        #auto="matAutocomplete"
        [displayWith]="show"
        (optionSelected)="pick($event)"
        (closed)="closed()"
      >
        @for (p of options(); track p.id) {
          <mat-option [value]="p">
            {{ nameOf(p.spec) }}
            <span class="hint">{{ factsOf(p) }}</span>
          </mat-option>
        }
        @for (k of kinds(); track k) {
          <mat-option [value]="k"
            >Not in the list: describe {{ kinds().length > 1 ? 'the ' + k : 'it' }} …</mat-option
          >
        }
      </mat-autocomplete>
    </mat-form-field>
  `,
  styles: `
    mat-form-field {
      width: 100%;
    }
  `,
})
export class PartPicker {
  readonly #data = inject(PartsData);
  /** Kinds that may be chosen here: a segment of the path is a cable or an adapter. */
  readonly kinds = input.required<readonly PartKind[]>();
  readonly label = input.required<string>();
  readonly inputId = input.required<string>();
  /** The name of what is chosen now, empty when nothing is. */
  readonly name = input('');
  readonly removable = input(false);
  /** What is chosen can be edited on the spot. */
  readonly editable = input(false);
  readonly chosen = output<Part | null>();
  readonly describe = output<PartKind>();
  readonly edit = output();

  readonly words = new Subject<string>();
  readonly options = signal<Part[]>([]);
  readonly box = viewChild.required<ElementRef<HTMLInputElement>>('box');
  readonly trigger = viewChild.required(MatAutocompleteTrigger);
  /** Words stand in the field that nothing was chosen from yet: a judgement that arrives meanwhile leaves them. */
  #typing = false;
  readonly nameOf = partName;
  readonly factsOf = facts;

  constructor() {
    this.words
      .pipe(
        debounceTime(120),
        switchMap((q) =>
          forkJoin(
            this.kinds().map((kind) => this.#data.list({ kind, q: q.trim(), limit: 50 })),
          ).pipe(catchError(() => of([]))),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((pages) => this.options.set(pages.flatMap((p) => p.items)));
    effect(() => {
      const name = this.name();
      if (!this.#typing) this.box().nativeElement.value = name;
    });
  }

  readonly show = (v: Part | string | null): string =>
    v && typeof v === 'object' ? partName(v.spec) : this.name();

  typed(): void {
    this.#typing = true;
    const words = this.box().nativeElement.value;
    // Enter must not take a part that the words no longer fit while the answer is on its way.
    const wanted = words.toLowerCase().split(/\s+/);
    this.options.update((all) =>
      all.filter((p) => wanted.every((word) => partName(p.spec).toLowerCase().includes(word))),
    );
    this.words.next(words);
  }

  pick(e: MatAutocompleteSelectedEvent): void {
    this.#typing = false;
    const value = e.option.value as Part | PartKind;
    if (typeof value === 'string') {
      this.box().nativeElement.value = this.name();
      this.describe.emit(value);
    } else this.chosen.emit(value);
  }

  /** A list that closes after the field was left takes the words with it. */
  closed(): void {
    if (this.#typing && document.activeElement !== this.box().nativeElement) this.left();
  }

  /** Words that were typed but not chosen from go: the field always shows what the chain holds. */
  left(): void {
    if (this.trigger().panelOpen) return;
    this.#typing = false;
    this.box().nativeElement.value = this.name();
  }
}
