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
import type { ProfileEntry, ProfilePatch } from '@ruddy/core/runs/contract';
import type { ApiError } from '../platform/api/api-client';
import { RunsData } from './runs';
import { TitleRuns } from './title-runs';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { Fold } from '../platform/kit/fold';

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

/** What a person states of the title: start values where nothing was measured, its engine, its year as a test. */
@Component({
  selector: 'rb-title-section',
  imports: [Field, Fold, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-fold [(open)]="opened" [name]="headline()">
      @if (problem(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
      @if (profile(); as p) {
        <h3>Start values, where nothing was measured</h3>
        <p class="hint">
          For a host and a card of index 100. They are where the model starts from; every run counts
          for more. All four, or none.
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
  readonly #data = inject(RunsData);
  readonly #store = inject(TitleRuns);
  readonly changed = output();
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
  readonly profile = signal<ProfileEntry | null>(null);
  readonly problem = signal<string | null>(null);
  readonly draft = signal<Partial<Record<ParamKey, number>>>({});
  readonly #titleId = computed(() => this.#store.first()?.titleId ?? null);
  readonly headline = computed(() => {
    const title = this.#store.first()?.title ?? 'The title';
    const p = this.profile();
    return `${title}: ${p?.params ? 'start values stated' : 'no start values'}`;
  });
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
      const profiles = await firstValueFrom(this.#data.profiles());
      if (id === this.#titleId()) this.profile.set(profiles.find((p) => p.id === id) ?? null);
    } catch (e) {
      this.problem.set(`What is known of the title could not be read: ${(e as ApiError).message}`);
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
      this.changed.emit();
    } catch (e) {
      this.problem.set(`Not kept: ${(e as ApiError).message}`);
    }
  }
}
