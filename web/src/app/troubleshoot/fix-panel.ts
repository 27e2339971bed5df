import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { CauseId } from '@ruddy/core/base';
import { CAUTION_TEXTS } from '@ruddy/core/bring-up/text';
import { CAUSES, type FixResult } from '@ruddy/core/troubleshoot';
import {
  CAUSE_WORDS,
  cautionsOfFix,
  FIX_WORDS,
  SYMPTOM_WORDS,
} from '@ruddy/core/troubleshoot/text';
import { pluralize } from '../platform/shared/format';
import { TroubleStore } from './trouble-store';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';

const RISKS = [
  '',
  'It needs care.',
  'It can lock you out or leave a part dead: everything above first.',
  'It is a matter of trust: judge the source before you let it in.',
] as const;

/** The fix of a cause: cautions, what to do, what to look at again, and what came of it. */
@Component({
  selector: 'rb-fix-panel',
  imports: [Field, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 id="fix-h" tabindex="-1">Mend: {{ what().what }}</h2>
    <article class="sheet">
      @for (c of cautions(); track c) {
        <p class="caution"><strong>Caution</strong> {{ c }}</p>
      }
      @if (risk()) {
        <p>
          <strong>{{ risk() }}</strong>
        </p>
      }
      <p class="big">{{ what().help }}</p>
      <p>
        {{ minutes() }}. It helps in about {{ cures() }} of 10 cases where this is the cause
        (judgement).
      </p>
      <h3>Then look again</h3>
      <ul>
        @for (s of again(); track s) {
          <li>{{ s }}?</li>
        }
      </ul>
      <rb-field [meta]="saidMeta" [live]="true" [value]="said()" (changed)="said.set($event)" />
      <div class="actions" role="group" aria-label="What came of it">
        @for (r of results; track r.id) {
          <button mat-stroked-button type="button" class="tall" (click)="done(r.id, said())">
            {{ r.words }}
          </button>
        }
        <button mat-button type="button" class="tall" (click)="back.emit()">
          Not mended, back to the tests
        </button>
      </div>
      <p class="hint">
        "Better, not well" keeps this cause as found and begins anew with what is still seen: two
        faults at once happen. "No change" speaks against it.
      </p>
    </article>
  `,
  styles: `
    article {
      padding: 16px;
      display: grid;
      gap: 12px;
      margin-top: 12px;
    }
    ul {
      padding-left: 18px;
    }
    .big {
      font-size: 16px;
      line-height: 24px;
    }
    .actions {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
    .tall {
      min-height: 56px;
    }
  `,
})
export class FixPanel {
  readonly store = inject(TroubleStore);
  readonly cause = input.required<CauseId>();
  readonly back = output();
  readonly noted = output<FixResult>();
  readonly said = signal('');
  readonly saidMeta: FieldMeta = { label: 'What was done', input: 'text', max: 300 };
  readonly results = (['solved', 'better', 'no-change', 'stopped'] as const).map((id) => ({
    id,
    words: FIX_WORDS[id],
  }));
  readonly what = computed(() => CAUSE_WORDS[this.cause()]);
  readonly cautions = computed(() => {
    const net = this.store.net();
    return net ? cautionsOfFix(this.cause(), net.facts).map((c) => CAUTION_TEXTS[c]) : [];
  });
  readonly risk = computed(() => RISKS[CAUSES[this.cause()].fix.risk]);
  readonly minutes = computed(
    () => `About ${pluralize(CAUSES[this.cause()].fix.minutes, 'minute')}`,
  );
  readonly cures = computed(() => Math.round(CAUSES[this.cause()].fix.cures * 10));
  readonly again = computed(() =>
    (this.store.standing()?.clues.symptoms ?? []).map((s) => SYMPTOM_WORDS[s]),
  );

  done(result: FixResult, words: string): void {
    this.store.fix(this.cause(), result, words.trim());
    this.noted.emit(result);
  }
}
