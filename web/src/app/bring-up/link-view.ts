import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import type { ReadingEntry } from '@ruddy/core/bring-up/contract';
import { BringUpRun } from './bring-up-run';
import { LinkReadings } from './link-readings';
import { SetupEditor } from '../setups/setup-editor';
import { SetupsData } from '../setups/setups';
import { clock, day } from '../platform/shared/format';
import { Keys } from '../platform/shell/keys';
import { HeldPanel } from './held-panel';
import { ReadingFields } from './reading-fields';
import { TakeBack } from '../plan/record/take-back';
import { Acts } from '../platform/kit/ask';

/** The link check by itself: take a reading, see it held against this chain, and what was stored before. */
@Component({
  selector: 'rb-link-view',
  imports: [ReadingFields, HeldPanel, TakeBack],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (readings.problem(); as why) {
      <p class="problem" role="alert">{{ why }}</p>
    }
    <div class="columns">
      <section class="sheet" aria-labelledby="read-h">
        <h2 id="read-h" class="eyebrow">Take a reading</h2>
        <rb-reading-fields />
      </section>
      <section class="sheet" aria-labelledby="held-h">
        <h2 id="held-h" class="eyebrow">
          {{
            readings.draft() !== null
              ? 'As typed, not stored yet'
              : readings.shown()
                ? 'The newest reading'
                : 'What to look for'
          }}
        </h2>
        <rb-held-panel />
      </section>
      <section class="sheet" aria-labelledby="kept-h">
        <h2 id="kept-h" class="eyebrow">Saved readings {{ readings.entries()?.length ?? '' }}</h2>
        @if (problem(); as why) {
          <p class="problem" role="alert">{{ why }}</p>
        }
        <ol class="kept">
          @for (e of readings.entries(); track e.id) {
            <li [class]="e.overall">
              <time [attr.datetime]="e.happenedAt">{{ when(e) }}</time>
              <p>{{ e.sentence }}</p>
              @if (through(e); as words) {
                <p class="quiet">{{ words }}</p>
              }
              @if (e.reading.note) {
                <p class="quiet">{{ e.reading.note }}</p>
              }
              <rb-take-back [what]="'the reading of ' + when(e)" (said)="strike(e.id, $event)" />
            </li>
          } @empty {
            <li class="none">
              {{
                readings.entries() === null ? 'Reading the readings …' : '0 readings stored yet.'
              }}
            </li>
          }
        </ol>
      </section>
    </div>
  `,
  styleUrl: './link-view.scss',
})
export class LinkView {
  readonly #acts = inject(Acts);
  readonly readings = inject(LinkReadings);
  readonly #run = inject(BringUpRun);
  readonly #editor = inject(SetupEditor);
  readonly #data = inject(SetupsData);
  /** `1` when Plan sent a person here to paste. */
  readonly paste = input(false);
  readonly fields = viewChild(ReadingFields);
  readonly problem = signal<string | null>(null);
  readonly id = computed(() => this.#editor.stored()?.id ?? null);

  constructor() {
    inject(Keys).bind([
      // Ten keys, one line in the list of keys.
      ...[...'0123456789'].map((d) => ({
        key: d,
        what: d === '0' ? 'A digit goes into the copy rate' : '',
        run: () => this.fields()?.digit(d),
      })),
      { key: 'p', what: 'Paste a report', run: () => this.fields()?.box().focus() },
    ]);
    effect(() => {
      const paste = this.paste();
      const fields = this.fields();
      if (paste && fields) queueMicrotask(() => fields.box().focus());
    });
  }

  when(e: ReadingEntry): string {
    return `${day(e.happenedAt.slice(0, 10))}, ${clock(e.happenedAt)}`;
  }

  through(e: ReadingEntry): string {
    const { cable, piece } = e.through;
    return [piece, cable].filter((s) => s !== '').join(', ');
  }

  strike(corrects: string, reason: string): void {
    const id = this.id();
    if (!id) return;
    this.#acts.run(this.#data.retract(id, { corrects, reason }), {
      line: this.problem,
      then: () => {
        this.readings.reload();
        this.#run.reload();
      },
    });
  }
}
