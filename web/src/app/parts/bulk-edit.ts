import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { FormControl } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import type * as z from 'zod';
import {
  attributesOf,
  type AttrMeta,
  PART_SCHEMAS,
  type PartKind,
  type SourceMap,
} from '@ruddy/core/parts';
import { CatalogueData } from './catalogue';
import type { ApiError } from '../platform/api/api-client';
import { pluralize } from '../platform/shared/format';
import { AttrField } from './attr-field';
import { readField, type FieldValue } from './form-model';
import { KIND_WORDS } from './part-facts';
import { SourceFields } from './source-fields';

/** One attribute of many parts at once, or their retirement: all of them or none. In: kind, ids. Out: what was done. */
@Component({
  selector: 'rb-bulk-edit',
  imports: [AttrField, SourceFields, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="bulk" aria-label="Change the chosen parts">
      <div class="field">
        <label for="bulk-attr">Attribute</label>
        <select id="bulk-attr" #pick (change)="choose(pick.value)">
          <option value="">choose one</option>
          @for (a of attributes(); track a[0]) {
            <option [value]="a[0]" [selected]="a[0] === key()">{{ a[1].label }}</option>
          }
        </select>
      </div>
      @if (meta(); as m) {
        <rb-attr-field key="bulk-value" [meta]="m" [control]="control" [error]="problem()" />
        <rb-source-fields name="the new value" [source]="source()" (changed)="source.set($event)" />
        <button mat-flat-button type="button" (click)="store()">Store for {{ many() }}</button>
      } @else if (problem(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
      <button mat-stroked-button type="button" (click)="retire(true)">Archive {{ many() }}</button>
      <button mat-stroked-button type="button" (click)="retire(false)">
        Bring {{ many() }} back
      </button>
      <button mat-button type="button" (click)="closed.emit()">Close</button>
    </section>
  `,
  styles: `
    .bulk {
      display: flex;
      flex-wrap: wrap;
      align-items: end;
      gap: 8px 16px;
      padding: 8px;
      background: var(--select);
    }
  `,
})
export class BulkEdit {
  readonly #data = inject(CatalogueData);
  readonly kind = input.required<PartKind>();
  readonly ids = input.required<readonly string[]>();
  readonly changed = output<string>();
  readonly closed = output();
  readonly key = signal('');
  readonly problem = signal<string | null>(null);
  readonly source = signal<SourceMap[string] | null>(null);
  readonly control = new FormControl<FieldValue>('');
  readonly attributes = computed(() =>
    attributesOf(PART_SCHEMAS[this.kind()] as z.ZodObject).filter(
      ([k, m]) => m.input !== 'list' && k !== 'model',
    ),
  );
  readonly meta = computed<AttrMeta | null>(
    () => this.attributes().find(([k]) => k === this.key())?.[1] ?? null,
  );
  readonly many = computed(() =>
    pluralize(this.ids().length, KIND_WORDS[this.kind()].one, KIND_WORDS[this.kind()].many),
  );

  choose(key: string): void {
    this.key.set(key);
    this.problem.set(null);
    const meta = this.meta();
    this.control.setValue(
      meta?.input === 'choice' ? (meta.unsure ? null : (meta.options?.[0]?.value ?? null)) : '',
    );
  }

  store(): void {
    const meta = this.meta();
    if (!meta) return;
    const read = readField(meta, this.control.value);
    if (!read.ok) {
      this.problem.set(`${meta.label}: ${read.why}`);
      return;
    }
    const source = this.source();
    this.#send(
      { spec: { [this.key()]: read.value }, ...(source && { sources: { [this.key()]: source } }) },
      `${meta.label} stored for ${this.many()}.`,
    );
  }

  retire(retired: boolean): void {
    this.#send({ retired }, `${this.many()} ${retired ? 'retired' : 'back in the lists'}.`);
  }

  #send(patch: Parameters<CatalogueData['bulk']>[1], words: string): void {
    this.problem.set(null);
    this.#data.bulk(this.ids(), patch).subscribe({
      next: () => this.changed.emit(words),
      error: (e: ApiError) => this.problem.set(`Nothing stored. ${e.message}`),
    });
  }
}
