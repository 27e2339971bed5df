import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { Router, RouterLink } from '@angular/router';
import { v7 } from 'uuid';
import { rate } from '@ruddy/core/base/text';
import type { SetupRow, Summary } from '@ruddy/core/plan/contract';
import { coverageWords } from '@ruddy/core/plan/text';
import { tollText } from '@ruddy/core/runs/text';
import { SETUP_STATES } from '@ruddy/core/setups';
import type { SetupState } from '@ruddy/core/setups/contract';
import { MiniStrip } from '../chain/strip/mini-strip';
import type { ApiError } from '../platform/api/api-client';
import { BundleFile } from '../workshop/bundle-file';
import { PagedList } from '../platform/api/paged-list';
import { MAX_ASIDE } from '../setups/comparison-list';
import { SetupsData, type SetupFilter } from '../setups/setups';
import { Keys } from '../platform/shell/keys';
import { pluralize, day, orEmpty } from '../platform/shared/format';
import { VerdictChip } from '../chain/verdict/verdict-chip';

const OUTCOME = {
  works: 'worked',
  care: 'worked with care',
  unreliable: 'unreliable',
  fails: 'failed',
} as const;
const DOORS_SHRINK_AT = 3;

/** The start page: how all setups stand, which needs someone first, and the doors to begin. */
@Component({
  imports: [RouterLink, MatButtonModule, MatCheckboxModule, MiniStrip, VerdictChip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './setups-page.html',
  styleUrl: './setups-page.scss',
})
export class SetupsPage {
  readonly #data = inject(SetupsData);
  readonly #router = inject(Router);
  readonly #files = inject(BundleFile);

  readonly q = input('', { transform: orEmpty });
  readonly state = input('', { transform: orEmpty });
  readonly retired = input('', { transform: orEmpty });
  readonly states = SETUP_STATES;
  readonly list = new PagedList<SetupRow, SetupFilter>((f) => this.#data.list(f));
  readonly rows = this.list.rows;
  readonly summary = signal<Summary | null>(null);
  readonly failed = signal<string | null>(null);
  readonly problem = computed(() => this.failed() ?? this.list.problem());
  readonly said = signal<string | null>(null);
  readonly chosen = signal<ReadonlySet<string>>(new Set());
  readonly chosenIds = computed(() => [...this.chosen()].join());
  readonly most = MAX_ASIDE;
  readonly coverage = coverageWords;
  readonly rate = rate;
  /** The toll in ms, as an interval where no more is known; a dash where no pair measures it. */
  readonly tollOf = (r: SetupRow) => (r.toll ? tollText(r.toll, true) : '–');
  readonly day = day;
  readonly outcome = OUTCOME;
  readonly small = computed(() => (this.summary()?.own ?? 0) >= DOORS_SHRINK_AT);

  readonly headline = computed(() => {
    const s = this.summary();
    if (!s) return 'Reading the setups …';
    if (s.n === 0) return 'No setups yet. Start from what is in front of you.';
    const parts = [
      s.works ? `${s.works} ${s.works === 1 ? 'works' : 'work'}` : '',
      s.care ? `${s.care} ${s.care === 1 ? 'needs' : 'need'} care` : '',
      s.blocked ? `${s.blocked} won't work` : '',
      s.unknown ? `${s.unknown} ${s.unknown === 1 ? 'is' : 'are'} not enough known` : '',
    ].filter((x) => x !== '');
    const list =
      parts.length > 1
        ? `${parts.slice(0, -1).join(', ')} and ${parts[parts.length - 1] ?? ''}`
        : (parts[0] ?? '');
    return `${pluralize(s.n, 'setup')}: ${list}.`;
  });

  constructor() {
    inject(Keys).bind([
      { key: 'n', what: 'New setup', run: () => this.create() },
      {
        key: 'x',
        what: 'Choose or leave the row with the focus',
        run: () => this.#toggleFocused(),
      },
      { key: 'ArrowDown', what: 'Next row', run: () => this.#step(1) },
      { key: 'ArrowUp', what: 'Row before', run: () => this.#step(-1) },
    ]);
    effect(() => {
      const state = this.state() as SetupState | '';
      this.list.load({ q: this.q(), retired: this.retired() === '1', ...(state && { state }) });
    });
    this.#summarise();
  }

  /** A plan somebody shared: its parts and itself come in, all or nothing. */
  async openShare(box: HTMLInputElement): Promise<void> {
    const file = box.files?.[0];
    box.value = '';
    if (!file) return;
    this.failed.set(null);
    this.said.set(null);
    const read = await this.#files.load(file);
    if (!read.ok) this.failed.set(read.why);
    else {
      this.said.set(read.words);
      this.#again();
    }
  }

  filter(query: Record<string, string | null>): void {
    void this.#router.navigate([], {
      queryParams: query,
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }

  /** Start a setup and go to a page of it. */
  create(page: 'plan' | 'bring-up' | 'runs' = 'plan'): void {
    const id = v7();
    const used = new Set(this.rows()?.map((r) => r.name));
    const name =
      Array.from({ length: 1000 }, (_, i) => (i === 0 ? 'New setup' : `New setup ${i + 1}`)).find(
        (n) => !used.has(n),
      ) ?? 'New setup';
    this.#data.create({ id, name }).subscribe({
      next: () => void this.#router.navigateByUrl(`/setups/${id}/${page}`),
      error: (e: ApiError) => this.failed.set(`No setup was started: ${e.message}`),
    });
  }

  toggle(id: string): void {
    this.chosen.update((c) => {
      const next = new Set(c);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }

  cloneChosen(): void {
    const row = this.rows()?.find((r) => this.chosen().has(r.id));
    if (!row) return;
    const id = v7();
    this.#data.clone(row.id, { id, name: `${row.name.slice(0, 74)} copy` }).subscribe({
      next: () => void this.#router.navigateByUrl(`/setups/${id}/plan`),
      error: (e: ApiError) => this.failed.set(`No copy was made: ${e.message}`),
    });
  }

  retireChosen(): void {
    for (const row of this.rows()?.filter(
      (r) => this.chosen().has(r.id) && r.state !== 'retired',
    ) ?? [])
      this.#data.patch(row.id, { state: 'retired' }, row.rev).subscribe({
        next: () => this.#again(),
        error: (e: ApiError) => this.failed.set(`${row.name} was not retired: ${e.message}`),
      });
    this.chosen.set(new Set());
  }

  #again(): void {
    this.list.load();
    this.#summarise();
  }

  #summarise(): void {
    this.#data.summary().subscribe({
      next: (s) => this.summary.set(s),
      error: (e: ApiError) => this.failed.set(e.message),
    });
  }

  #links(): HTMLElement[] {
    return [...document.querySelectorAll<HTMLElement>('a.setup-link')];
  }

  #step(by: number): void {
    const links = this.#links();
    const now = links.indexOf(document.activeElement as HTMLElement);
    links[Math.max(0, Math.min(links.length - 1, now + by))]?.focus();
  }

  #toggleFocused(): void {
    const id =
      document.activeElement instanceof HTMLElement
        ? document.activeElement.dataset['id']
        : undefined;
    if (id) this.toggle(id);
  }
}
