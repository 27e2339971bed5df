import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
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
import type { ApiError } from '../platform/api/api-client';
import { LogData } from './log';
import { pluralize, day, readNumber } from '../platform/shared/format';
import { CompatNav } from './compat-nav';

interface Condition {
  readonly tag: TagId;
  readonly has: string;
}

/** Rules people state, each held against what this workshop measured. */
@Component({
  imports: [CompatNav, MatButtonModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './claims-page.html',
  styleUrl: './stated.scss',
})
export class ClaimsPage {
  readonly #log = inject(LogData);
  readonly items = signal<ClaimEntry[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly errors = signal<ReadonlyMap<string, string>>(new Map());
  readonly where = signal<readonly Condition[]>([]);
  readonly said = signal('');
  readonly measures = MEASURE_IDS.map((id) => ({ id, ...CLAIM_MEASURES[id] }));
  readonly tags = TAG_IDS.map((id) => ({ id, name: TAGS[id] }));
  readonly states = CLAIM_STATES;
  readonly range = claimRange;
  readonly whereWords = claimWhere;
  readonly day = day;
  readonly headline = computed(() => {
    const all = this.items();
    if (!all) return 'Holding the claims against the log …';
    if (all.length === 0) return '0 claims stated yet.';
    const fails = all.filter((c) => c.judged.state === 'fails').length;
    const holds = all.filter((c) => c.judged.state === 'holds').length;
    return `${pluralize(all.length, 'claim')}: ${holds} mostly ${holds === 1 ? 'holds' : 'hold'}, ${fails} mostly ${fails === 1 ? 'does' : 'do'} not, the rest is open.`;
  });
  /** Made once a form: sending it twice states it once. */
  #id = v7();

  constructor() {
    this.#log.claims().subscribe({
      next: (r) => this.items.set(r.items),
      error: (e: ApiError) => this.problem.set(e.message),
    });
  }

  words(c: ClaimEntry): string {
    return claimWords(c, c.judged);
  }

  unit(measure: string): string {
    return CLAIM_MEASURES[measure as MeasureId]?.unit ?? '';
  }

  addWhere(tag: string, has: string): boolean {
    if (has.trim() === '' || this.where().length >= 4) return false;
    this.where.update((w) => [...w, { tag: tag as TagId, has: has.trim() }]);
    return true;
  }

  dropWhere(i: number): void {
    this.where.update((w) => w.filter((_, k) => k !== i));
  }

  state(event: Event, form: HTMLFormElement): void {
    event.preventDefault();
    const f = Object.fromEntries(new FormData(form)) as Record<string, string>;
    const errors = new Map<string, string>();
    const end = (key: 'lo' | 'hi') => {
      const read = readNumber(f[key] ?? '');
      if (!read.ok) errors.set(key, read.why);
      return read.ok ? read.value : null;
    };
    const body = {
      id: this.#id,
      words: f['words'] ?? '',
      measure: f['measure'],
      lo: end('lo'),
      hi: end('hi'),
      where: [...this.where()],
      source: f['source'] ?? '',
      statedOn: f['on'] || null,
    };
    const parsed = claimBody.safeParse(body);
    if (!parsed.success)
      for (const i of parsed.error.issues) errors.set(String(i.path[0] ?? ''), i.message);
    this.errors.set(errors);
    if (!parsed.success || errors.size > 0) return;
    this.#log.addClaim(parsed.data).subscribe({
      next: (r) => {
        this.items.set(r.items);
        this.said.set('Stated, and held against the log.');
        this.#id = v7();
        form.reset();
        this.where.set([]);
      },
      error: (e: ApiError) =>
        this.errors.set(
          new Map(e.problem.errors?.map((x) => [x.path, x.message]) ?? [['', e.message]]),
        ),
    });
  }

  withdraw(c: ClaimEntry): void {
    this.#log.withdrawClaim(c.id).subscribe({
      next: (r) => {
        this.items.set(r.items);
        this.said.set(`Taken back: "${c.words}".`);
      },
      error: (e: ApiError) => this.problem.set(e.message),
    });
  }
}
