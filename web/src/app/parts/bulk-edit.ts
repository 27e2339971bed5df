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
import { attributesOf, PART_SCHEMAS, type PartKind, type SourceMap } from '@ruddy/core/parts';
import { CatalogueData } from './catalogue';
import { pluralize } from '../platform/shared/format';
import { Field } from '../platform/kit/field';
import { fieldOf, type FieldMeta } from '../platform/kit/meta';
import { problemOf } from '../platform/kit/problems';
import { storedValue } from './form-model';
import { KIND_WORDS } from './part-facts';
import { SourceFields } from './source-fields';
import { Acts } from '../platform/kit/ask';

/** One attribute of many parts at once, or their retirement: all of them or none. In: kind, ids. Out: what was done. */
@Component({
  selector: 'rb-bulk-edit',
  imports: [Field, SourceFields, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="bulk" aria-label="Edit the selected parts">
      <rb-field [meta]="pick()" [value]="key() || null" (changed)="choose($event ?? '')" />
      @if (meta(); as m) {
        <div>
          <rb-field [meta]="m" [control]="control" />
          <rb-source-fields
            name="the new value"
            [source]="source()"
            (changed)="source.set($event)"
          />
        </div>
        <button mat-flat-button type="button" (click)="store()">Save for {{ many() }}</button>
      }
      @if (problem(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
      <button mat-stroked-button type="button" (click)="retire(true)">Archive {{ many() }}</button>
      <button mat-stroked-button type="button" (click)="retire(false)">Restore {{ many() }}</button>
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
  readonly #acts = inject(Acts);
  readonly #data = inject(CatalogueData);
  readonly kind = input.required<PartKind>();
  readonly ids = input.required<readonly string[]>();
  readonly changed = output<string>();
  readonly closed = output();
  readonly key = signal('');
  readonly problem = signal<string | null>(null);
  readonly source = signal<SourceMap[string] | null>(null);
  readonly control = new FormControl<unknown>(null);
  readonly attributes = computed(() =>
    attributesOf(PART_SCHEMAS[this.kind()] as z.ZodObject).filter(
      ([k, m]) => m.input !== 'list' && k !== 'model',
    ),
  );
  readonly pick = computed<FieldMeta>(() => ({
    label: 'Attribute',
    input: 'choice',
    placeholder: 'choose one',
    options: this.attributes().map(([value, { label }]) => ({ value, label })),
  }));
  readonly #attribute = computed(() => this.attributes().find(([k]) => k === this.key())?.[1]);
  readonly meta = computed<FieldMeta | null>(() => {
    const meta = this.#attribute();
    return meta ? fieldOf(meta) : null;
  });
  readonly many = computed(() =>
    pluralize(this.ids().length, KIND_WORDS[this.kind()].one, KIND_WORDS[this.kind()].many),
  );

  choose(key: string): void {
    this.key.set(key);
    this.problem.set(null);
    const meta = this.#attribute();
    const first = meta?.unsure ? null : (meta?.options?.[0]?.value ?? null);
    this.control.reset(meta?.input === 'choice' ? first : meta?.input === 'text' ? '' : null);
  }

  store(): void {
    const meta = this.#attribute();
    if (!meta) return;
    this.control.markAsTouched();
    if (problemOf(this.control) !== null) return;
    const source = this.source();
    const value = storedValue(meta, this.control.value);
    this.#send(
      { spec: { [this.key()]: value }, ...(source && { sources: { [this.key()]: source } }) },
      `${meta.label} saved for ${this.many()}.`,
    );
  }

  retire(retired: boolean): void {
    this.#send({ retired }, `${this.many()} ${retired ? 'archived' : 'restored'}.`);
  }

  #send(patch: Parameters<CatalogueData['bulk']>[1], words: string): void {
    this.#acts.run(this.#data.bulk(this.ids(), patch), {
      line: this.problem,
      then: () => this.changed.emit(words),
    });
  }
}
