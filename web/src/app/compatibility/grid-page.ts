import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { wilson } from '@ruddy/core/base';
import { GRID_AXES } from '@ruddy/core/compatibility';
import type { GridAxes } from '@ruddy/core/compatibility/contract';
import { cellWords } from '@ruddy/core/compatibility/text';
import { pluralize, day, orEmpty } from '../platform/shared/format';
import { CompatNav } from './compat-nav';
import { GridStore } from './grid-store';
import { GridView } from './grid-view';
import { MatButtonModule } from '@angular/material/button';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';

const AXES: Record<GridAxes, string> = {
  'host-dock': 'Hosts and docks',
  'host-card': 'Hosts and cards',
  'dock-card': 'Docks and cards',
};
const THIRD: Record<GridAxes, { noun: string; any: string }> = {
  'host-dock': { noun: 'With card', any: 'whichever card' },
  'host-card': { noun: 'Through dock', any: 'whichever dock: nothing is predicted' },
  'dock-card': { noun: 'On host', any: 'whichever host: nothing is predicted' },
};

/** Two kinds of parts against each other: what is predicted, what was seen, and where they contradict. */
@Component({
  imports: [Field, MatButtonModule, CompatNav, GridView, RouterLink],
  providers: [GridStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './grid-page.html',
  styleUrl: './grid-page.scss',
})
export class GridPage {
  readonly #router = inject(Router);
  readonly store = inject(GridStore);
  readonly axes = input('', { transform: orEmpty });
  readonly scope = input('', { transform: orEmpty });
  readonly third = input('', { transform: orEmpty });
  readonly axesMeta: FieldMeta = {
    label: 'Show',
    input: 'choice',
    options: GRID_AXES.map((value) => ({ value, label: AXES[value] })),
  };
  readonly scopeMeta: FieldMeta = {
    label: 'Parts',
    input: 'choice',
    options: [
      { value: 'own', label: 'Owned or in use' },
      { value: 'all', label: 'All of the catalogue' },
    ],
  };
  readonly thirdMeta = computed<FieldMeta>(() => ({
    label: this.thirdWords().noun,
    input: 'choice',
    placeholder: this.thirdWords().any,
    options: (this.store.answer()?.thirds ?? []).map((t) => ({ value: t.id, label: t.name })),
  }));
  readonly of = computed<GridAxes>(() => GRID_AXES.find((a) => a === this.axes()) ?? 'host-dock');
  readonly name = computed(() => AXES[this.of()]);
  readonly thirdWords = computed(() => THIRD[this.of()]);
  readonly open = signal<{ row: number; col: number } | null>(null);
  readonly headline = computed(() => {
    const a = this.store.answer();
    if (!a) return 'Reading the grid …';
    const seen = this.store.seenCells();
    const against = this.store.contradictions();
    const cells = pluralize(a.rows.length * a.cols.length, 'pair');
    const contradicts =
      against === 0
        ? 'none contradicts its prediction'
        : `${against} ${against === 1 ? 'contradicts its' : 'contradict their'} prediction`;
    return `${cells}, ${seen} seen; ${contradicts}.`;
  });
  readonly left = computed(() => {
    const l = this.store.answer()?.left;
    return l && l.rows + l.cols > 0
      ? `${l.rows + l.cols} more parts are left out: 200 a side are shown.`
      : '';
  });
  readonly cell = computed(() => {
    const a = this.store.answer();
    const o = this.open();
    const row = a?.rows[o?.row ?? -1];
    const col = a?.cols[o?.col ?? -1];
    if (!a || !o || !row || !col) return null;
    const i = o.row * a.cols.length + o.col;
    const p = this.store.predicted(i);
    const s = this.store.seen(i);
    const w = s && s.n > 0 ? wilson(s.worked, s.n) : null;
    const [rowKind, colKind] = this.of().split('-') as [string, string];
    const thirdKind = ['host', 'dock', 'card'].find(
      (k) => k !== rowKind && k !== colKind,
    ) as string;
    return {
      name: `${row.name}, ${col.name}${a.third ? `, ${a.third.name}` : ''}`,
      predicted: p
        ? `${cellWords(p)}${p.socket ? `, by port ${p.socket} and a cable that holds nothing back` : ''}`
        : 'not predicted yet',
      seen: !s
        ? 'Nothing seen of this pair.'
        : `${s.worked} of ${s.n} worked${w ? ` (${(w.lo * 100).toFixed(0)} to ${(w.hi * 100).toFixed(0)} %)` : ''}${s.n === 1 ? '; one entry proves little' : ''}${s.told > 0 ? `; ${s.told} reported by others` : ''}; newest ${day(s.newest)}.`,
      query: {
        [rowKind]: row.name,
        [colKind]: col.name,
        ...(a.third && { [thirdKind]: a.third.name }),
      },
    };
  });

  constructor() {
    effect(() => {
      const third = this.third();
      this.open.set(null);
      this.store.load({
        axes: this.of(),
        scope: this.scope() === 'all' ? 'all' : 'own',
        ...(third && { third }),
      });
    });
  }

  show(query: Record<string, string | null>): void {
    void this.#router.navigate([], {
      queryParams: query,
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }
}
