import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  output,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { firstValueFrom } from 'rxjs';
import { v7 } from 'uuid';
import { figureText } from '@ruddy/core/base/text';
import type { FitEntry, ProfileEntry, ProfilePatch } from '@ruddy/core/runs/contract';
import { fitText, signed, TERM_STATES, termText } from '@ruddy/core/runs/text';
import type { ApiError } from '../platform/api/api-client';
import { RunsData } from './runs';
import { day } from '../platform/shared/format';
import { TollStore } from './toll-store';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { Fold } from '../platform/kit/fold';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';

const start = (label: string, unit: string): FieldMeta => ({
  label,
  input: 'number',
  unit,
  placeholder: 'not set',
});
const PARAMS = [
  { key: 'cpuMs', meta: start('Processor per frame', 'ms') },
  { key: 'cardMs', meta: start('Card per frame at 1920x1080', 'ms') },
  { key: 'trafficMB', meta: start('Traffic per frame', 'MB') },
  { key: 'workingGB', meta: start('Memory wanted', 'GB') },
] as const;
type ParamKey = (typeof PARAMS)[number]['key'];

/** What is known of the title: its calibrations with what is fitted and what is not, start values where nothing was measured, its year. */
@Component({
  selector: 'rb-title-section',
  imports: [Cell, Field, Fold, MatButtonModule, Rows],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-fold [(open)]="opened" [name]="headline()">
      @if (problem(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
      <p class="row">
        <button mat-stroked-button type="button" [disabled]="working()" (click)="calibrate()">
          {{ working() ? 'Calibrating …' : 'Calibrate from its runs' }}
        </button>
        <span class="hint"
          >A calibration is kept under its day: runs that come later are held against what it
          predicted.</span
        >
      </p>
      @if (newest(); as f) {
        <p>{{ words() }}</p>
        <rb-rows label="What was fitted" [columns]="whatWasFittedColumns" [rows]="terms()">
          <ng-template rbCell="what" [rbCellOf]="terms()" let-t>{{ t.name }}</ng-template>
          <ng-template rbCell="value95" [rbCellOf]="terms()" let-t>{{ t.value }}</ng-template>
          <ng-template rbCell="howItStands" [rbCellOf]="terms()" let-t>{{ t.state }}</ng-template>
        </rb-rows>
        <rb-fold
          [inner]="true"
          name="{{ f.fit.residuals.length }} kinds of run beside the fit, the worst {{
            worst()
          }} off"
        >
          <ul>
            @for (r of residuals(); track $index) {
              <li>{{ r }}</li>
            }
          </ul>
        </rb-fold>
        @if (fits().length > 1) {
          <p class="hint">Earlier: {{ earlier() }}</p>
        }
      }
      @if (profile(); as p) {
        <h3>Start values, where nothing was measured</h3>
        <p class="hint">
          For a host and a card of index 100. They serve on Plan until a calibration does better;
          all four, or none.
        </p>
        <div class="row">
          @for (f of params; track f.key) {
            <rb-field
              class="narrow"
              [meta]="f.meta"
              [value]="shown(f.key)"
              (changed)="type(f.key, $event)"
            />
          }
          <rb-field
            class="narrow"
            [meta]="year"
            [value]="p.year"
            (changed)="say({ year: $event })"
          />
        </div>
        <rb-field [meta]="engine" [value]="p.engine" (changed)="say({ engine: $event })" />
        @if (draftWords(); as words) {
          <p class="hint">{{ words }}</p>
        }
        @if (p.params) {
          <button mat-button type="button" (click)="say({ params: null })">
            Take the start values away
          </button>
        }
      }
    </rb-fold>
  `,
  styleUrl: './section.scss',
})
export class TitleSection {
  readonly whatWasFittedColumns: readonly ShortColumn[] = [
    { key: 'what', name: 'What' },
    { key: 'value95', name: 'Value (95 %)', figure: true },
    { key: 'howItStands', name: 'How it stands' },
  ];
  readonly #data = inject(RunsData);
  readonly #store = inject(TollStore);
  readonly calibrated = output();
  readonly params = PARAMS;
  readonly year: FieldMeta = {
    label: 'Synthetic test of the year',
    input: 'number',
    placeholder: 'a title',
  };
  readonly engine: FieldMeta = {
    label: 'Engine it is built on',
    input: 'text',
    max: 60,
    placeholder: 'not set',
    help: 'Titles of one engine tend to fail alike; a search for a cause holds them against the others.',
  };
  readonly opened = signal(false);
  readonly fits = signal<readonly FitEntry[]>([]);
  readonly profile = signal<ProfileEntry | null>(null);
  readonly problem = signal<string | null>(null);
  readonly working = signal(false);
  readonly draft = signal<Partial<Record<ParamKey, number>>>({});
  readonly #titleId = computed(() => this.#store.first()?.titleId ?? null);
  readonly newest = computed(() => this.fits()[0] ?? null);
  readonly headline = computed(() => {
    const title = this.#store.first()?.title ?? 'The title';
    const f = this.newest();
    const p = this.profile();
    if (f)
      return `${title}: calibrated ${day(f.madeAt)} from ${f.fit.runs} runs${f.fit.refused ? ', not used' : ''}`;
    return `${title}: 0 calibrations${p?.params ? ', start values alone' : ''}`;
  });
  readonly words = computed(() => {
    const f = this.newest();
    return f ? fitText(f.fit) : '';
  });
  readonly terms = computed(() =>
    (this.newest()?.fit.terms ?? []).map((t) => ({ ...termText(t), state: TERM_STATES[t.state] })),
  );
  readonly residuals = computed(() =>
    (this.newest()?.fit.residuals ?? []).map((r) => {
      const off = (r.fittedMs / r.ms - 1) * 100;
      const megapixels = figureText(r.pixels / 1e6);
      return `${r.host}, ${r.card}, ${megapixels} megapixels at ${figureText(r.downGbps)} Gb/s${r.panel ? ', on the panel' : ''}: ${figureText(r.ms)} ms, fitted ${figureText(r.fittedMs)}, ${signed(off)}`;
    }),
  );
  readonly worst = computed(() => {
    const list = (this.newest()?.fit.residuals ?? []).map((r) => Math.abs(r.fittedMs / r.ms - 1));
    return `${(Math.max(0, ...list) * 100).toFixed(1)} %`;
  });
  readonly earlier = computed(() =>
    this.fits()
      .slice(1)
      .map((f) => `${day(f.madeAt)} from ${f.fit.runs} runs${f.fit.refused ? ', not used' : ''}`)
      .join('; '),
  );
  /** What is still missing of the four while they are typed. */
  readonly draftWords = computed(() => {
    const left = PARAMS.filter((f) => this.draft()[f.key] === undefined && !this.profile()?.params);
    return Object.keys(this.draft()).length > 0 && left.length > 0
      ? `Still missing: ${left.map((f) => f.meta.label).join('; ')}.`
      : null;
  });

  constructor() {
    effect(() => {
      const id = this.#titleId();
      if (id) untracked(() => void this.#read(id));
    });
  }

  async #read(id: string): Promise<void> {
    this.draft.set({});
    try {
      const [fits, profiles] = await Promise.all([
        firstValueFrom(this.#data.fits(id)),
        firstValueFrom(this.#data.profiles()),
      ]);
      if (id !== this.#titleId()) return;
      this.fits.set(fits);
      this.profile.set(profiles.find((p) => p.id === id) ?? null);
    } catch (e) {
      this.problem.set(`What is known of the title could not be read: ${(e as ApiError).message}`);
    }
  }

  async calibrate(): Promise<void> {
    const id = this.#titleId();
    if (!id) return;
    this.working.set(true);
    this.problem.set(null);
    try {
      const made = await firstValueFrom(this.#data.calibrate(id, { id: v7() }));
      if (id === this.#titleId()) this.fits.update((all) => [made, ...all]);
      this.calibrated.emit();
    } catch (e) {
      this.problem.set(`Not calibrated: ${(e as ApiError).message}`);
    } finally {
      this.working.set(false);
    }
  }

  shown(key: ParamKey): number | null {
    return this.draft()[key] ?? this.profile()?.params?.[key] ?? null;
  }

  /** A start value was typed: kept once all four are there. */
  type(key: ParamKey, value: number | null): void {
    if (value === null) {
      const label = PARAMS.find((f) => f.key === key)?.meta.label ?? '';
      return this.problem.set(`${label}: a number is missing`);
    }
    this.problem.set(null);
    this.draft.update((d) => ({ ...d, [key]: value }));
    const all = { ...this.profile()?.params, ...this.draft() };
    if (PARAMS.every((f) => all[f.key] !== undefined))
      void this.say({ params: all as Required<typeof all> });
  }

  async say(patch: ProfilePatch): Promise<void> {
    const p = this.profile();
    if (!p) return;
    this.problem.set(null);
    try {
      this.profile.set(await firstValueFrom(this.#data.patchProfile(p, patch)));
      this.draft.set({});
      this.calibrated.emit();
    } catch (e) {
      this.problem.set(`Not kept: ${(e as ApiError).message}`);
    }
  }
}
