import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  linkedSignal,
  resource,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { type SpendingOption, worthOf } from '@ruddy/core/buy';
import { worthSentence } from '@ruddy/core/buy/text';
import { eightyBand, type NoForecast, type TitleForecast } from '@ruddy/core/runs';
import type { FramesAsked } from '@ruddy/core/runs/contract';
import { ApiClient } from '../platform/api/api-client';
import { PlanCost } from '../plan/plan-cost';
import { SetupEditor } from '../setups/setup-editor';
import { CARRIED_META, NOW_META } from './wanted';
import { WaysTable } from './ways-table';
import { Fold } from '../platform/kit/fold';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';

interface Machine {
  kind: 'laptop' | 'desktop';
  name: string;
  netMinor: number | null;
  fps: SpendingOption['fps'];
}
const KIND = {
  set: 'This plan',
  keep: 'Current setup',
  laptop: 'Laptop',
  desktop: 'Desktop',
} as const;

/** Is this plan worth it: against what is there, a laptop, a desktop, use by use, with the line that decided. */
@Component({
  selector: 'rb-worth-panel',
  imports: [Field, Fold, RouterLink, WaysTable],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-fold id="worth" [name]="sentence()">
      @if (uses().length === 0) {
        <p class="quiet">
          Nothing can be told yet: choose dock and card; a title needs figures or runs, and the host
          its index.
        </p>
      } @else {
        <div class="asks">
          <rb-field [meta]="useMeta()" [value]="at()" (changed)="at.set($event)" />
          <rb-field [meta]="nowMeta" [value]="nowFps()" (changed)="nowFps.set($event)" />
          <rb-field [meta]="targetMeta" [value]="wanted()" (changed)="wanted.set($event)" />
          <rb-field [meta]="carried" [value]="portable()" (changed)="portable.set($event)" />
        </div>
        @if (present(); as words) {
          <p class="hint">Current setup: {{ words }}</p>
        }
        <rb-ways-table [rows]="worth()?.rows ?? []" [kinds]="kinds" [currency]="currency()" />
      }
      <p><a routerLink="/scout">Search for other sets</a></p>
    </rb-fold>
  `,
  styles: `
    .asks {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 16px;
      align-items: end;
    }
    .asks rb-field {
      flex: 0 1 180px;
    }
  `,
})
export class WorthPanel {
  readonly #api = inject(ApiClient);
  readonly #editor = inject(SetupEditor);
  readonly #plan = inject(PlanCost);
  readonly forecasts = input.required<readonly (TitleForecast | NoForecast)[]>();
  readonly #of = computed(() => this.#editor.stored()?.id ?? '');
  readonly at = linkedSignal<string, number>({ source: this.#of, computation: () => 0 });
  readonly nowFps = linkedSignal<string, number | null>({
    source: this.#of,
    computation: () => null,
  });
  readonly wanted = linkedSignal<string, number | null>({
    source: this.#of,
    computation: () => null,
  });
  readonly portable = linkedSignal<string, boolean>({ source: this.#of, computation: () => false });
  readonly useMeta = computed<FieldMeta>(() => ({
    label: 'Use',
    input: 'choice',
    options: this.uses().map((u, value) => ({ value, label: u.name })),
  }));
  readonly nowMeta = NOW_META;
  readonly targetMeta: FieldMeta = {
    label: 'Target frame rate',
    input: 'number',
    unit: 'fps',
    min: 1,
    max: 1000,
  };
  readonly carried = CARRIED_META;
  readonly kinds = KIND;
  readonly present = computed(() => this.#editor.fields()?.present ?? '');
  readonly currency = computed(() => this.#plan.cost()?.currency ?? 'EUR');
  /** Titles of which frames can be told here. */
  readonly uses = computed(() =>
    this.forecasts().flatMap((f) =>
      'missing' in f
        ? []
        : [
            {
              name: `${f.title} at ${f.resolution.replace('x', '×')}`,
              titleId: f.titleId,
              resolution: f.resolution,
              fps: eightyBand(f.forecast.fps),
            },
          ],
    ),
  );
  readonly use = computed(() => this.uses()[this.at()] ?? this.uses()[0] ?? null);
  readonly #machines = resource<
    readonly Machine[],
    { titleId: string; resolution: string; currency: string } | undefined
  >({
    params: () => {
      const use = this.use();
      return use
        ? { titleId: use.titleId, resolution: use.resolution, currency: this.currency() }
        : undefined;
    },
    loader: async ({ params }) => {
      const frames: FramesAsked = { titleIds: [params.titleId], resolutions: [params.resolution] };
      const found = await firstValueFrom(
        this.#api.call('POST /api/scout/machines', {
          body: {
            frames,
            currency: params.currency,
          },
        }),
      );
      return found.items;
    },
  });

  readonly worth = computed(() => {
    const use = this.use();
    const cost = this.#plan.cost();
    if (!use) return null;
    const target = this.wanted();
    const keeps = (
      kind: SpendingOption['kind'],
      fps: SpendingOption['fps'],
    ): SpendingOption['keeps'] => [
      ...(target === null || (fps !== null && fps.mid >= target) ? (['target'] as const) : []),
      ...(this.portable() && kind !== 'desktop' ? (['portable'] as const) : []),
    ];
    const way = (
      kind: SpendingOption['kind'],
      name: string,
      netMinor: number | null,
      fps: SpendingOption['fps'],
    ): SpendingOption => ({
      kind,
      name,
      netMinor,
      fps,
      keeps: keeps(kind, fps),
    });
    // A part without a price leaves the sum open; the system is nobody's purchase.
    const open =
      cost === null ||
      cost.lines.some(
        (l) => l.minor === null && l.part.kind !== 'system' && l.part.slot !== 'host',
      );
    const net = cost && !open ? cost.netMinor - hostMinor(cost.lines) - cost.resaleMinor : null;
    const now = this.nowFps();
    const keep = now === null ? [] : [way('keep', '', 0, { lo: now, mid: now, hi: now })];
    const machines = this.#machines.hasValue() ? this.#machines.value() : [];
    const others = machines.map((m) =>
      way(m.kind, m.name, m.netMinor === null ? null : m.netMinor - (cost?.sellsMinor ?? 0), m.fps),
    );
    return worthOf(way('set', '', net, use.fps), [...keep, ...others]);
  });
  readonly sentence = computed(() => {
    const w = this.worth();
    return w ? worthSentence(w, this.currency()) : 'nothing can be told yet.';
  });
}

/** The host is there whatever is bought. */
function hostMinor(lines: readonly { part: { slot: string }; minor: number | null }[]): number {
  return lines.filter((l) => l.part.slot === 'host').reduce((sum, l) => sum + (l.minor ?? 0), 0);
}
