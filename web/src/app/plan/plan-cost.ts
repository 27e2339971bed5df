import { computed, effect, inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { catchError, debounceTime, of, Subject, switchMap } from 'rxjs';
import { type Cost, costOf } from '@ruddy/core/buy';
import type { CostGrounds } from '@ruddy/core/buy/contract';
import type { Chain } from '@ruddy/core/chain';
import { placesOf } from '@ruddy/core/setups';
import type { ApiError } from '../platform/api/api-client';
import { CatalogueData } from '../parts/catalogue';
import { SetupEditor } from '../setups/setup-editor';
import { applyPatch, type Fields } from '../setups/setup-patches';
import { Preview } from '../setups/preview';

const ASK_AFTER_MS = 150;

interface Asked {
  setupId: string;
  parts: { slot: string; id: string }[];
}

/** The parts of a plan that cost something: all but the other cards for the same dock. */
export function costParts(f: Pick<Fields, 'slots'>): { slot: string; id: string }[] {
  return [...placesOf(f.slots)]
    .filter(([slot]) => !slot.startsWith('spares/'))
    .map(([slot, id]) => ({ slot, id }));
}

/** What a plan costs on what is known; parts the grounds do not hold yet are left out. */
export function costFrom(
  grounds: CostGrounds,
  fields: Pick<Fields, 'slots' | 'cost'>,
  chain: Chain,
): Cost {
  const known = new Map(grounds.parts.map((p) => [p.id, p]));
  const parts = costParts(fields).flatMap(({ slot, id }) => {
    const p = known.get(id);
    return p ? [{ ...p, slot }] : [];
  });
  const names = new Map(Object.entries(grounds.names));
  return costOf({
    ...grounds,
    parts,
    names,
    chain,
    named: fields.slots.items,
    settings: fields.cost,
  });
}

/**
 * The money of the setup that is open: what is known of its parts is asked for when they change, the sums are made here. While something
 * is tried, both sums are there: of what is, and with it.
 */
@Injectable()
export class PlanCost {
  readonly #editor = inject(SetupEditor);
  readonly #trial = inject(Preview);
  readonly #data = inject(CatalogueData);
  readonly #ask = new Subject<Asked>();
  readonly grounds = signal<CostGrounds | null>(null);
  readonly problem = signal<string | null>(null);

  /** The fields as shown: with what is tried. */
  readonly fields = computed<Fields | null>(() => {
    const fields = this.#editor.fields();
    const trying = this.#trial.now();
    return fields && trying ? applyPatch(fields, trying.patch) : fields;
  });
  readonly cost = computed(() => this.#cost(this.fields(), this.#trial.shown()?.chain));
  /** Of what is, while something is tried. */
  readonly before = computed(() =>
    this.#trial.now() ? this.#cost(this.#editor.fields(), this.#trial.before()?.chain) : null,
  );

  constructor() {
    this.#ask
      .pipe(
        debounceTime(ASK_AFTER_MS),
        switchMap((body) =>
          this.#data.cost(body).pipe(
            catchError((e: ApiError) => {
              this.problem.set(e.message);
              return of(null);
            }),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((g) => {
        if (!g) return;
        this.problem.set(null);
        this.grounds.set(g);
      });
    let last = '';
    effect(() => {
      const now = this.fields();
      const is = this.#editor.fields();
      const setup = this.#editor.stored();
      if (!now || !is || !setup) return;
      const shown = costParts(now);
      const before = costParts(is).map((p) => ({ ...p, slot: `was/${p.slot}`.slice(0, 40) }));
      const body = {
        setupId: setup.id,
        parts: [...shown, ...before.filter((b) => !shown.some((s) => s.id === b.id))],
      };
      const key = JSON.stringify(body);
      if (key === last) return;
      last = key;
      this.#ask.next(body);
    });
  }

  #cost(fields: Fields | null, chain: Chain | undefined): Cost | null {
    const grounds = this.grounds();
    return grounds && fields && chain ? costFrom(grounds, fields, chain) : null;
  }
}
