import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { forkJoin, map, of, switchMap, type Observable } from 'rxjs';
import { type ComparedPlan, compareRows, compareSentence } from '@ruddy/core/buy/text';
import { decidingOf } from '@ruddy/core/plan';
import type { Setup } from '@ruddy/core/setups/contract';
import { AnswerList } from '../../plan/answer-list';
import type { AnswerTarget } from '../../plan/answer-target';
import { BridgeStrip } from '../../chain/strip/bridge-strip';
import { stripModel, type StripNodeKey } from '../../chain/strip/strip-model';
import { CatalogueData } from '../../parts/catalogue';
import { costFrom, costParts } from '../../plan/plan-cost';
import { SetupsData } from '../../setups/setups';
import { MAX_ASIDE, ComparisonList } from '../../setups/comparison-list';
import { Keys } from '../../platform/shell/keys';
import { pluralize, orEmpty } from '../../platform/shared/format';
import { Fold } from '../../platform/kit/fold';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { Cell } from '../../platform/kit/cell';
import type { ShortColumn } from '../../platform/kit/columns';
import { Rows } from '../../platform/kit/rows';
import { Acts } from '../../platform/kit/ask';

type ComparedRow = ReturnType<typeof compareRows>[number];

interface Plan extends ComparedPlan {
  readonly setup: Setup;
}

/** Which lines of the comparison say that a pier differs. */
const NODE_LINES: Record<StripNodeKey, readonly string[]> = {
  system: ['System', 'Card driver', 'System build', 'Host'],
  port: ['Port', 'Host'],
  cable: ['Cable'],
  dock: ['Dock', 'Dock firmware'],
  card: ['Card'],
  screen: ['Screen'],
};

/** Plans side by side: what differs first, what is equal folded; one scale for all strips. The first plan is the base. */
@Component({
  imports: [AnswerList, BridgeStrip, Cell, Fold, MatButtonModule, MatIconModule, RouterLink, Rows],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './compare-page.html',
  styleUrl: './compare-page.scss',
})
export class ComparePage {
  readonly #acts = inject(Acts);
  readonly #setups = inject(SetupsData);
  readonly #catalogue = inject(CatalogueData);
  readonly #router = inject(Router);
  readonly comparisonList = inject(ComparisonList);
  readonly of = input('', { transform: orEmpty });
  readonly plans = signal<readonly Plan[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly counted = pluralize;

  readonly rows = computed(() => compareRows(this.plans() ?? []));
  readonly differing = computed(() => this.rows().filter((r) => !r.same));
  readonly equal = computed(() => this.rows().filter((r) => r.same));
  readonly columns = computed((): readonly ShortColumn<ComparedRow>[] => [
    { key: 'label', name: `${pluralize(this.differing().length, 'line')} differ` },
    ...(this.plans() ?? []).map((p) => ({ key: p.setup.id, name: p.name })),
  ]);
  readonly equalColumns: readonly ShortColumn<ComparedRow>[] = [
    { key: 'label', name: 'Line', text: (r) => r.label },
    { key: 'value', name: 'All of them', text: (r) => r.cells[0] ?? '' },
  ];
  readonly sentence = computed(() => {
    const plans = this.plans();
    if (!plans)
      return this.problem() === null
        ? 'Reading the plans …'
        : 'The plans could not be read; 0 are compared.';
    return compareSentence(plans);
  });
  /** The strips of all plans to the scale of the one that needs the most; equal parts are faint. */
  readonly strips = computed(() => {
    const plans = this.plans() ?? [];
    const models = plans.map((p) => stripModel(p.name, p.chain, p.evaluation));
    const scaleGbps = models.reduce<32 | 64 | 128>(
      (most, m) => (m.scaleGbps > most ? m.scaleGbps : most),
      32,
    );
    const differs = new Set(this.differing().map((r) => r.label));
    const faint = (Object.keys(NODE_LINES) as StripNodeKey[]).filter(
      (k) => !NODE_LINES[k].some((l) => differs.has(l)),
    );
    return models.map((m) => ({ ...m, scaleGbps, faint: plans.length > 1 ? faint : [] }));
  });

  /** What would have to be known of each plan, answered here. */
  readonly open = computed(() =>
    (this.plans() ?? []).flatMap((p) => {
      const questions = decidingOf(p.evaluation);
      return questions.length > 0
        ? [{ id: p.setup.id, name: p.name, questions, target: this.#target(p.setup) }]
        : [];
    }),
  );

  #target(setup: Setup): AnswerTarget {
    const again = () => this.#load(this.ids());
    return {
      fields: () => setup,
      change: (patch) => {
        const stored = this.#setups
          .one(setup.id)
          .pipe(switchMap(({ rev }) => this.#setups.patch(setup.id, patch, rev)));
        this.#acts.run(stored, { line: this.problem, then: again });
      },
      refresh: again,
    };
  }

  constructor() {
    inject(Keys).bind([
      { key: 's', what: 'Make the second plan the base', run: () => this.swap() },
    ]);
    effect(() => {
      const ids = this.ids();
      untracked(() => this.#load(ids));
    });
  }

  readonly ids = computed(() => {
    const asked = this.of()
      .split(',')
      .filter((id) => id !== '');
    const list = asked.length > 0 ? asked : this.comparisonList.plans().map((p) => p.id);
    return [...new Set(list)].slice(0, MAX_ASIDE);
  });

  /** The second plan becomes the base. */
  swap(): void {
    const [a, b, ...rest] = this.ids();
    if (a !== undefined && b !== undefined) this.#show([b, a, ...rest]);
  }

  leave(p: Plan): void {
    if (this.comparisonList.has(p.setup.id))
      this.comparisonList.toggle({ id: p.setup.id, name: p.name });
    this.#show(this.ids().filter((id) => id !== p.setup.id));
  }

  #show(ids: readonly string[]): void {
    void this.#router.navigate([], {
      queryParams: { of: ids.join() || null },
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }

  #load(ids: readonly string[]): void {
    this.plans.set(null);
    this.problem.set(null);
    const all = ids.length > 0 ? forkJoin(ids.map((id) => this.#plan(id))) : of([]);
    this.#acts.read(all, { line: this.problem, then: (plans) => this.plans.set(plans) });
  }

  #plan(id: string): Observable<Plan> {
    return this.#setups.one(id).pipe(
      switchMap((setup) =>
        forkJoin({
          judgement: this.#setups.judge(setup),
          grounds: this.#catalogue.cost({ setupId: id, parts: costParts(setup) }),
        }).pipe(
          map(({ judgement: { chain, evaluation }, grounds }) => ({
            setup,
            name: setup.name,
            chain,
            evaluation,
            cost: grounds.parts.length > 0 ? costFrom(grounds, setup, chain) : null,
          })),
        ),
      ),
    );
  }
}
