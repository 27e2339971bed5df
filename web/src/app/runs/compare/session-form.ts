import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { repeatsText } from '@ruddy/core/base/text';
import {
  type Dimension,
  DIMENSIONS,
  type Factor,
  FACTS,
  leastReachable,
  MAX_REPEATS,
  planSession,
  repeatsFor,
  scatterOf,
  SWAP_MINUTES,
} from '@ruddy/core/runs';
import type { RunEntry, SessionBody } from '@ruddy/core/runs/contract';
import { groupRuns, mainValues } from '../run-groups';
import { Choice } from '../../platform/shared/choice';
import { pluralize, readNumber } from '../../platform/shared/format';

/** What is asked, and what varies for it. Everything else is to be held. */
const QUESTIONS: readonly { value: string; label: string; varies: Dimension }[] = [
  { value: 'panel', label: 'What does the way back to the panel cost?', varies: 'screenPath' },
  { value: 'card', label: 'Does the bigger card pay?', varies: 'card' },
  { value: 'link', label: 'What does the link cost against another?', varies: 'link' },
  { value: 'cable', label: 'Does the cable matter?', varies: 'cable' },
  { value: 'host', label: 'Does the host matter?', varies: 'host' },
  { value: 'lid', label: 'Lid open or closed?', varies: 'lid' },
  { value: 'power', label: 'Which power mode?', varies: 'powerMode' },
  { value: 'driver', label: 'Did the driver change anything?', varies: 'driver' },
  { value: 'devices', label: 'Card, processor, or both?', varies: 'deviceSet' },
];
const USUAL: Partial<Record<Dimension, string>> = {
  screenPath: "Screen on the card; Host's own panel",
  lid: 'open; closed',
  resolution: '1920x1080; 2560x1440',
  powerMode: 'Performance; Quiet',
};

/** Plan a session: the question fixes what varies; at which levels, along what else, and how small a difference shall be told apart. */
@Component({
  selector: 'rb-session-form',
  imports: [Choice, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './session-form.html',
  styles: `
    :host,
    .grid {
      display: grid;
      gap: 8px 16px;
    }
    .grid {
      grid-template-columns: repeat(auto-fit, minmax(220px, 1fr));
    }
  `,
})
export class SessionForm {
  readonly counted = pluralize;
  readonly runs = input.required<readonly RunEntry[]>();
  readonly setupId = input('');
  readonly planned = output<SessionBody>();
  readonly questions = QUESTIONS;
  readonly facts = FACTS;
  readonly question = signal('panel');
  readonly name = signal('');
  readonly title = signal('');
  readonly titles = computed(() => [...new Set(this.runs().map((r) => r.title))].sort());
  readonly levels = signal(USUAL.screenPath ?? '');
  readonly along = signal('');
  readonly alongLevels = signal('');
  readonly percent = signal('5');
  readonly minutes = signal(String(SWAP_MINUTES.screenPath));
  readonly problem = signal<string | null>(null);
  readonly varies = computed(
    () => QUESTIONS.find((q) => q.value === this.question())?.varies ?? 'screenPath',
  );
  readonly others = computed(() => DIMENSIONS.filter((d) => d !== this.varies()));
  /** Levels that runs here already have, to choose from. */
  readonly known = computed(() => this.#valuesOf(this.varies()));
  readonly scatter = computed(() => scatterOf(groupRuns(this.runs()).map(mainValues)));
  readonly #asked = computed(() => {
    const p = readNumber(this.percent());
    return p.ok && p.value !== null && p.value > 0 ? p.value : null;
  });
  /** Null where no difference is asked for, or one that no number of repeats tells apart. */
  readonly repeats = computed(() => {
    const asked = this.#asked();
    return asked === null ? null : repeatsFor(asked, this.scatter());
  });
  readonly repeatsSaid = computed(() => {
    const repeats = this.repeats();
    const scatter = this.scatter();
    return this.#asked() === null
      ? ''
      : repeatsText({ repeats, least: leastReachable(scatter), scatter, most: MAX_REPEATS });
  });
  readonly preview = computed(() => {
    const factors = this.#factors();
    const repeats = this.repeats();
    return typeof factors === 'string' || repeats === null ? null : planSession(factors, repeats);
  });

  choose(q: string | null): void {
    if (!q) return;
    this.question.set(q);
    const d = this.varies();
    this.levels.set(USUAL[d] ?? this.#valuesOf(d).slice(0, 3).join('; '));
    this.minutes.set(String(SWAP_MINUTES[d]));
  }

  chooseAlong(d: string): void {
    this.along.set(d);
    this.alongLevels.set(
      d === ''
        ? ''
        : (USUAL[d as Dimension] ??
            this.#valuesOf(d as Dimension)
              .slice(0, 3)
              .join('; ')),
    );
  }

  #valuesOf(d: Dimension): string[] {
    return [...new Set(this.runs().map((r) => r.facts[d]))].filter((v) => v !== '');
  }

  #factors(): Factor[] | string {
    const split = (text: string) =>
      [...new Set(text.split(';').map((s) => s.trim()))].filter((s) => s !== '');
    const minutes = readNumber(this.minutes());
    if (!minutes.ok || minutes.value === null || minutes.value < 0)
      return 'Minutes to change it: a number, not below 0';
    const first: Factor = {
      dimension: this.varies(),
      levels: split(this.levels()),
      minutes: minutes.value,
    };
    if (first.levels.length < 2)
      return `${FACTS[first.dimension]}: at least two, with a semicolon between`;
    if (this.along() === '') return [first];
    const d = this.along() as Dimension;
    const second: Factor = {
      dimension: d,
      levels: split(this.alongLevels()),
      minutes: SWAP_MINUTES[d],
    };
    return second.levels.length < 2
      ? `${FACTS[d]}: at least two, with a semicolon between`
      : [first, second];
  }

  plan(): void {
    const factors = this.#factors();
    const repeats = this.repeats();
    const percent = this.#asked();
    if (typeof factors === 'string') return this.problem.set(factors);
    if (percent === null) return this.problem.set('Difference: a number above 0');
    if (repeats === null) return this.problem.set(`Difference: ${this.repeatsSaid()}`);
    const question = QUESTIONS.find((q) => q.value === this.question())?.label ?? '';
    this.problem.set(null);
    this.planned.emit({
      id: v7(),
      name: this.name().trim() || question,
      question,
      title: this.title().trim(),
      factors: factors.map((f) => ({ ...f, levels: [...f.levels] })),
      repeats,
      percent,
      setupIds: this.setupId() ? [this.setupId()] : [],
    });
  }
}
