import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  signal,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import {
  FormControl,
  FormGroup,
  type FormGroupDirective,
  ReactiveFormsModule,
} from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { v7 } from 'uuid';
import {
  CLAIM_MEASURES,
  MEASURE_IDS,
  type MeasureId,
  TAG_IDS,
  type TagId,
  TAGS,
} from '@ruddy/core/compatibility';
import { claimBody, type ClaimEntry } from '@ruddy/core/compatibility/contract';
import { CLAIM_STATES, claimRange, claimWhere, claimWords } from '@ruddy/core/compatibility/text';
import { LogData } from './log';
import { pluralize, day } from '../platform/shared/format';
import { Acts } from '../platform/kit/ask';
import { readyToSend, zodForm } from '../platform/kit/problems';
import { CompatNav } from './compat-nav';
import { Fold } from '../platform/kit/fold';
import { Skip } from '../platform/kit/skip';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';

interface Condition {
  readonly tag: TagId;
  readonly has: string;
}

/** Rules people state, each held against what this workshop measured. */
@Component({
  imports: [Skip, Field, ReactiveFormsModule, Fold, CompatNav, MatButtonModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './claims-page.html',
  styleUrl: './stated.scss',
})
export class ClaimsPage {
  readonly #log = inject(LogData);
  readonly #acts = inject(Acts);
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly items = signal<ClaimEntry[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly line = signal<string | null>(null);
  readonly where = signal<readonly Condition[]>([]);
  readonly states = CLAIM_STATES;
  readonly range = claimRange;
  readonly whereWords = claimWhere;
  readonly day = day;
  readonly headline = computed(() => {
    const all = this.items();
    if (!all) return 'Comparing the claims with the log …';
    if (all.length === 0) return '0 claims stated yet.';
    const fails = all.filter((c) => c.judged.state === 'fails').length;
    const holds = all.filter((c) => c.judged.state === 'holds').length;
    return `${pluralize(all.length, 'claim')}: ${holds} mostly ${holds === 1 ? 'holds' : 'hold'}, ${fails} mostly ${fails === 1 ? 'does' : 'do'} not, the rest is open.`;
  });
  /** Made once a form: sending it twice states it once. */
  #id = v7();
  readonly form = new FormGroup(
    {
      words: new FormControl('', { nonNullable: true }),
      measure: new FormControl<MeasureId>(MEASURE_IDS[0] as MeasureId, { nonNullable: true }),
      lo: new FormControl<number | null>(null),
      hi: new FormControl<number | null>(null),
      source: new FormControl('', { nonNullable: true }),
      statedOn: new FormControl<string | null>(null),
    },
    { validators: zodForm(claimBody, (raw: object) => ({ id: this.#id, ...raw })) },
  );
  readonly tag = new FormControl<TagId>(TAG_IDS[0] as TagId, { nonNullable: true });
  readonly has = new FormControl('', { nonNullable: true });
  readonly #measure = toSignal(this.form.controls.measure.valueChanges, {
    initialValue: MEASURE_IDS[0] as MeasureId,
  });
  readonly wordsMeta: FieldMeta = {
    label: 'Claim',
    input: 'text',
    max: 200,
    placeholder: 'A 40 Gb/s link costs 20 %',
  };
  readonly measureMeta: FieldMeta = {
    label: 'Measure',
    input: 'choice',
    options: MEASURE_IDS.map((value) => ({ value, label: CLAIM_MEASURES[value].name })),
  };
  readonly tagMeta: FieldMeta = {
    label: 'Condition on',
    input: 'choice',
    options: TAG_IDS.map((value) => ({ value, label: TAGS[value] })),
  };
  readonly hasMeta: FieldMeta = { label: 'Contains', input: 'text', max: 80 };
  readonly sourceMeta: FieldMeta = {
    label: 'Source',
    input: 'text',
    max: 200,
    placeholder: 'no names',
  };
  readonly onMeta: FieldMeta = { label: 'Stated on', input: 'day', placeholder: 'not set' };

  constructor() {
    this.#acts.read(this.#log.claims(), {
      line: this.problem,
      then: (r) => this.items.set(r.items),
    });
  }

  words(c: ClaimEntry): string {
    return claimWords(c, c.judged);
  }

  endMeta(label: string): FieldMeta {
    return { label, input: 'number', unit: CLAIM_MEASURES[this.#measure()].unit };
  }

  unit(measure: string): string {
    return CLAIM_MEASURES[measure as MeasureId]?.unit ?? '';
  }

  addWhere(): void {
    const has = this.has.value.trim();
    if (has === '' || this.where().length >= 4) return;
    this.where.update((w) => [...w, { tag: this.tag.value, has }]);
    this.has.reset();
  }

  dropWhere(i: number): void {
    this.where.update((w) => w.filter((_, k) => k !== i));
  }

  state(of: FormGroupDirective): void {
    if (!readyToSend(this.form, this.#el)) return;
    const where = [...this.where()];
    const body = claimBody.parse({ id: this.#id, ...this.form.getRawValue(), where });
    this.#acts.send(this.form, this.#log.addClaim(body), {
      line: this.line,
      done: 'Claim added and compared with the log.',
      then: (r) => {
        this.items.set(r.items);
        this.#id = v7();
        of.resetForm();
        this.where.set([]);
      },
    });
  }

  withdraw(c: ClaimEntry): void {
    this.#acts.run(this.#log.withdrawClaim(c.id), {
      done: `Deleted: "${c.words}".`,
      failed: 'Not deleted.',
      then: (r) => this.items.set(r.items),
    });
  }
}
