import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router } from '@angular/router';
import { AUDIT_WORDS, auditHeadline } from '@ruddy/core/workshop/text';
import type { AuditRow } from '@ruddy/core/workshop/contract';
import type { AuditKind } from '@ruddy/core/base/contract';
import { apiUrl } from '../platform/api/api-client';
import { PagedList } from '../platform/api/paged-list';
import { Session } from '../platform/api/session';
import { Acts, ask, State, valueOf } from '../platform/kit/ask';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Field } from '../platform/kit/field';
import { type FieldMeta, optionsOf } from '../platform/kit/meta';
import { Rows } from '../platform/kit/rows';
import { clock, day, orEmpty } from '../platform/shared/format';
import { AuditData, type AuditFilter } from './people';
import { WorkshopNav } from './workshop-nav';

const KEYS = ['kind', 'result', 'q', 'from', 'to'] as const;

/** Who did what, from where, and how it ended: for keepers, with filter and download. */
@Component({
  imports: [Cell, Field, MatButtonModule, Rows, State, WorkshopNav],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './audit-page.html',
  styleUrl: './audit-page.scss',
})
export class AuditPage {
  readonly #data = inject(AuditData);
  readonly #acts = inject(Acts);
  readonly #router = inject(Router);
  readonly session = inject(Session);
  readonly kind = input('', { transform: orEmpty });
  readonly result = input('', { transform: orEmpty });
  readonly q = input('', { transform: orEmpty });
  readonly from = input('', { transform: orEmpty });
  readonly to = input('', { transform: orEmpty });
  readonly query = computed(
    () =>
      Object.fromEntries(
        KEYS.map((k) => [k, this[k]()] as const).filter(([, v]) => v !== ''),
      ) as NonNullable<AuditFilter>,
  );
  readonly list = new PagedList<AuditRow, NonNullable<AuditFilter>>((f) =>
    this.#data.list({ ...f, limit: 50 }),
  );
  readonly ruleNow = ask(
    () => this.#data.rule(),
    () => (this.session.may('keeper') ? true : undefined),
  );
  readonly rule = computed(() => valueOf(this.ruleNow) ?? null);
  readonly days = linkedSignal<number | null>(() => this.rule()?.days ?? null);
  readonly problem = signal<string | null>(null);
  readonly headline = computed(() => {
    if (!this.session.may('keeper')) return 'The audit trail is for keepers.';
    const r = this.rule();
    return r
      ? auditHeadline({ ...r, oldest: r.oldest && day(r.oldest) })
      : 'Reading the audit trail …';
  });
  readonly fields: readonly (readonly [(typeof KEYS)[number], FieldMeta])[] = [
    [
      'kind',
      { label: 'What', input: 'choice', placeholder: 'all', options: optionsOf(AUDIT_WORDS) },
    ],
    [
      'result',
      {
        label: 'Result',
        input: 'choice',
        placeholder: 'all',
        options: optionsOf({ done: 'done', refused: 'refused' }),
      },
    ],
    ['q', { label: 'Who, about or address', input: 'text', max: 100 }],
    ['from', { label: 'From', input: 'day' }],
    ['to', { label: 'To', input: 'day' }],
  ];
  readonly daysMeta: FieldMeta = {
    label: 'Keep',
    unit: 'days',
    input: 'number',
    min: 30,
    max: 3650,
  };
  readonly columns: readonly ShortColumn<AuditRow>[] = [
    { key: 'at', name: 'When', text: (e) => `${day(e.at)}, ${clock(e.at)}` },
    { key: 'actor', name: 'Who', text: (e) => e.actor || 'nobody signed in' },
    { key: 'address', name: 'Address', text: (e) => e.address || '–' },
    { key: 'what', name: 'What', text: (e) => this.what(e.kind) },
    { key: 'about', name: 'About', text: (e) => e.about || '–' },
    { key: 'result', name: 'Result' },
    { key: 'request', name: 'Request', text: (e) => e.requestId?.slice(0, 8) ?? '–' },
  ];

  constructor() {
    effect(() => {
      if (this.session.may('keeper')) this.list.load(this.query());
    });
  }

  what(kind: AuditKind): string {
    return AUDIT_WORDS[kind];
  }

  value(key: (typeof KEYS)[number]): string | null {
    return this[key]() || null;
  }

  set(key: (typeof KEYS)[number], value: unknown): void {
    void this.#router.navigate([], {
      queryParams: { [key]: typeof value === 'string' && value !== '' ? value : null },
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }

  fileUrl(format: 'csv' | 'json'): string {
    return apiUrl('GET /api/audit-file', { query: { ...this.query(), format } });
  }

  keep(): void {
    const rule = this.rule();
    const days = this.days();
    if (!rule || days === null) return;
    this.#acts.run(this.#data.keep(days, rule.rev), {
      line: this.problem,
      done: `Kept ${days} days from now on.`,
      then: (r) => {
        this.ruleNow.set(r);
        this.list.load();
      },
    });
  }
}
