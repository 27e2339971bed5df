import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { catchError, EMPTY, type MonoTypeOperatorFunction } from 'rxjs';
import { v7 } from 'uuid';
import { partName } from '@ruddy/core/chain';
import type { AnySpec, PartKind, SourceMap } from '@ruddy/core/parts';
import type { Part, PartBody, PartPatch } from '@ruddy/core/parts/contract';
import { ApiError } from '../platform/api/api-client';
import { PartsData } from './parts';
import { Keys } from '../platform/shell/keys';
import { pluralize, orEmpty } from '../platform/shared/format';
import { partRefusals, type Errors } from './form-model';
import { KIND_WORDS } from './part-facts';
import { PartForm, type FormPart } from './part-form';
import { PartList, type ListQuery } from './part-list';
import { PartsNav } from './parts-nav';
import { PastPanel } from './past-panel';
import { ItemsPanel } from './items-panel';
import { PricesPanel } from '../buy/prices-panel';
import { TouchedSetups } from '../plan/touched-setups';
import { Acts } from '../platform/kit/ask';

/** The catalogue: kinds, list, editor. */
@Component({
  imports: [
    PartForm,
    PartList,
    PartsNav,
    ItemsPanel,
    PricesPanel,
    PastPanel,
    TouchedSetups,
    RouterLink,
    MatButtonModule,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './parts-page.html',
  styleUrl: './parts-page.scss',
})
export class PartsPage {
  readonly #acts = inject(Acts);
  readonly #data = inject(PartsData);
  readonly #router = inject(Router);

  /** What the page that opens next says and shows: navigation opens it anew. */
  #sayNext: string | null = null;
  #draftNext: Partial<AnySpec> = {};

  readonly kind = input.required<PartKind>();
  readonly id = input<string>();
  readonly q = input('', { transform: orEmpty });
  readonly retired = input('', { transform: orEmpty });

  readonly where = input('', { transform: orEmpty });
  readonly owned = input('', { transform: orEmpty });
  /** Which side of the part is open: its values, items, prices or past. */
  readonly show = input('', { transform: orEmpty });

  readonly words = KIND_WORDS;
  readonly name = partName;
  readonly none: SourceMap = {};
  readonly list = viewChild(PartList);
  readonly form = viewChild(PartForm);
  readonly query = computed<ListQuery>(() => ({
    q: this.q(),
    where: this.where(),
    owned: this.owned() === '1',
    retired: this.retired() === '1',
  }));
  readonly face = computed(() => this.faces().find(([f]) => f === this.show())?.[0] ?? 'values');
  readonly openProblem = signal<string | null>(null);
  readonly part = signal<Part | null>(null);
  readonly draft = signal<Partial<AnySpec>>({});
  readonly refused = signal<Errors>(new Map());
  readonly said = signal<string | null>(null);
  readonly stale = signal<Part | null>(null);
  readonly isNew = computed(() => this.id() === 'new');
  readonly headline = computed(() => {
    const list = this.list();
    if (!list?.rows()) return 'Reading the catalogue …';
    const word = KIND_WORDS[this.kind()];
    const { q, where, owned } = this.query();
    const found =
      (q ? ` called "${q}"` : '') + (where ? ' of that kind' : '') + (owned ? ' that you own' : '');
    return list.total() === 0 && found === ''
      ? `0 ${word.many} in the catalogue yet. Add the first one.`
      : `${pluralize(list.total(), word.one, word.many)}${found} in the catalogue.`;
  });
  readonly faces = computed<[string, string][]>(() => {
    const p = this.part();
    const thing = p && !['system', 'release', 'requirement'].includes(p.kind);
    return [
      ['values', 'Values'],
      ...(thing
        ? ([
            ['pieces', `Items ${p.pieces}`],
            ['prices', 'Prices'],
          ] as [string, string][])
        : []),
      ['past', `Past ${p?.rev ?? ''}`.trim()],
    ];
  });

  constructor() {
    inject(Keys).bind([{ key: 'n', what: 'New part of this kind', run: () => this.create() }]);
    effect(() => {
      const id = this.id();
      untracked(() => this.#open(id));
    });
  }

  narrow(query: Record<string, string | null>): void {
    void this.#router.navigate([], {
      queryParams: query,
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }

  /** The list, and the part that is open, anew. */
  reload(): void {
    this.list()?.reload();
    const p = this.part();
    if (p)
      this.#acts.read(this.#data.one(p.id), {
        line: this.openProblem,
        then: (now) => this.part.set(now),
      });
  }

  create(): void {
    void this.#router.navigate(['/parts', this.kind(), 'new'], {
      queryParams: { show: null },
      queryParamsHandling: 'merge',
    });
  }

  /** A copy in the form, not stored until saved; its variant says that it is one. */
  copy(): void {
    const p = this.part();
    if (!p) return;
    const spec = { ...structuredClone(p.spec), variant: `${p.spec.variant} copy`.trim() };
    this.#draftNext = spec;
    void this.#router.navigate(['/parts', p.kind, 'new']);
  }

  save({ spec, sources }: FormPart): void {
    const p = this.part();
    this.refused.set(new Map());
    this.said.set(null);
    if (p) this.#patch(p, { spec: spec as unknown as Record<string, unknown>, sources });
    else
      this.#data
        .create({ id: v7(), kind: this.kind(), spec, sources } as PartBody)
        .pipe(this.#orRefuse())
        .subscribe((made) => {
          this.list()?.reload();
          this.#sayNext = 'Saved.';
          void this.#router.navigate(['/parts', made.kind, made.id]);
        });
  }

  retire(retired: boolean): void {
    const p = this.part();
    if (p) this.#patch(p, { retired });
  }

  /** Changed elsewhere: take the stored values, or put these over them. */
  takeStored(): void {
    const stored = this.stale();
    if (stored) this.#show(stored);
  }
  overwrite(mine: FormPart | null | undefined): void {
    const stored = this.stale();
    if (stored && mine)
      this.#patch(stored, {
        spec: mine.spec as unknown as Record<string, unknown>,
        sources: mine.sources,
      });
  }

  /** Put values of before over those of now, as a new revision. */
  restore(past: Pick<FormPart, 'spec' | 'sources'>): void {
    const p = this.part();
    if (p)
      this.#patch(p, {
        spec: past.spec as unknown as Record<string, unknown>,
        sources: past.sources,
      });
  }

  #patch(p: Part, patch: PartPatch): void {
    this.#data
      .patch(p.id, patch, p.rev)
      .pipe(this.#orRefuse())
      .subscribe((now) => {
        this.#show(now);
        this.list()?.reload();
        this.said.set(
          patch.retired === undefined
            ? 'Saved.'
            : patch.retired
              ? 'Archived: it leaves the lists, what uses it keeps it.'
              : 'Back in the lists.',
        );
      });
  }

  /** What the server refused stands at the fields; of a part that was changed elsewhere, the stored one is offered. */
  #orRefuse(): MonoTypeOperatorFunction<Part> {
    return catchError((e: ApiError) => {
      this.#refuse(e);
      return EMPTY;
    });
  }

  #refuse(e: ApiError): void {
    if (e.code === 'stale-revision') {
      this.stale.set(e.problem.current as Part);
      return;
    }
    this.refused.set(partRefusals(e));
  }

  #open(id: string | undefined): void {
    this.said.set(this.#sayNext);
    this.#sayNext = null;
    if (!id || id === 'new') {
      this.part.set(null);
      this.stale.set(null);
      this.refused.set(new Map());
      this.draft.set(this.#draftNext);
      this.#draftNext = {};
      return;
    }
    this.#acts.read(this.#data.one(id), {
      line: this.openProblem,
      then: (p) => this.#show(p),
    });
  }

  #show(p: Part): void {
    this.part.set(p);
    this.draft.set(p.spec);
    this.stale.set(null);
    this.refused.set(new Map());
  }
}
