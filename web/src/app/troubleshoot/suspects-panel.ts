import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import type { CauseId } from '@ruddy/core/base';
import { CAUSES, titleShare, wholePercents } from '@ruddy/core/troubleshoot';
import { CAUSE_WORDS, suspicionPercent } from '@ruddy/core/troubleshoot/text';
import { pluralize } from '../platform/shared/format';
import { TroubleStore } from './trouble-store';
import { Fold } from '../platform/kit/fold';
import { MatButtonModule } from '@angular/material/button';

const SHOWN = 5;

/** Who is suspected how much; each opens with its reasons. This title against the whole chain, and two at once. */
@Component({
  selector: 'rb-suspects-panel',
  imports: [Fold, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 id="suspects-h">Suspicion</h2>
    <ol>
      @for (s of top(); track s.cause) {
        <li>
          <button
            mat-button
            type="button"
            class="line"
            [attr.aria-pressed]="s.cause === opened()"
            (click)="open.emit(s.cause)"
          >
            <span class="suspect">
              <span>{{ s.what }}</span>
              <b>{{ s.percent }} %</b>
              <span class="track" aria-hidden="true"><i [style.width.%]="s.percent"></i></span>
            </span>
          </button>
        </li>
      }
    </ol>
    <rb-fold name="{{ counted(rest().length, 'more cause') }}, {{ restPercent() }} % together">
      <ul>
        @for (s of rest(); track s.cause) {
          <li>
            <button
              mat-button
              type="button"
              class="line"
              [attr.aria-pressed]="s.cause === opened()"
              (click)="open.emit(s.cause)"
            >
              <span class="suspect"
                ><span>{{ s.what }}</span> <b>{{ s.percent }}</b></span
              >
            </button>
          </li>
        }
      </ul>
    </rb-fold>
    @if (perTitle() > 0) {
      <p>
        This title or program: <b>{{ perTitle() }}&nbsp;%</b>; the whole chain:
        <b>{{ 100 - perTitle() }}&nbsp;%</b>. Two sizes of one title, and a title of another engine,
        tell them apart.
      </p>
    }
    @if (pair(); as p) {
      <p>
        Two at once: <b>{{ p.percent }}&nbsp;%</b>, likeliest {{ p.words }}.
      </p>
    }
    <p class="hint">{{ from() }}</p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      align-content: start;
      grid-template-columns: minmax(0, 1fr);
    }
    ol,
    ul {
      list-style: none;
      display: grid;
      gap: 2px;
    }
    .suspect {
      width: 100%;
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      gap: 2px 8px;
    }
    .track {
      grid-column: 1 / -1;
      height: 8px;
      background: var(--sunk);
      border: 1px solid var(--line);
    }
    .track i {
      display: block;
      height: 100%;
      background: var(--ink2);
    }
  `,
})
export class SuspectsPanel {
  readonly store = inject(TroubleStore);
  readonly opened = input<CauseId | null>(null);
  readonly open = output<CauseId>();
  readonly counted = pluralize;
  readonly #all = computed(() => this.store.advice()?.suspects ?? []);
  readonly #whole = computed(() => {
    const all = this.#all();
    const top = all.slice(0, SHOWN).map((s) => s.p);
    return wholePercents([...top, Math.max(0, 1 - top.reduce((a, b) => a + b, 0))]);
  });
  readonly top = computed(() =>
    this.#all()
      .slice(0, SHOWN)
      .map((s, i) => ({
        cause: s.cause,
        what: CAUSE_WORDS[s.cause].what,
        percent: this.#whole()[i] ?? 0,
      })),
  );
  readonly rest = computed(() =>
    this.#all()
      .slice(SHOWN)
      .filter((s) => s.p > 0)
      .map((s) => ({
        cause: s.cause,
        what: CAUSE_WORDS[s.cause].what,
        percent: suspicionPercent(s.p),
      })),
  );
  readonly restPercent = computed(() => this.#whole()[SHOWN] ?? 0);
  readonly perTitle = computed(() => {
    const share = titleShare(this.#all());
    return share < 0.005 ? 0 : Math.round(share * 100);
  });
  readonly pair = computed(() => {
    const p = this.store.pair();
    if (!p || p.share < 0.02) return null;
    return {
      percent: Math.round(p.share * 100),
      words: p.causes.map((c) => CAUSE_WORDS[c].what.toLowerCase()).join(' with '),
    };
  });
  /** How much of it comes from the log and from the workshop. */
  readonly from = computed(() => {
    const t = this.store.tablesRead();
    if (!t) return 'Counts of the log are being read …';
    const cases =
      t.cases === 0
        ? 'no search with its cause found yet'
        : `${pluralize(t.cases, 'search', 'searches')} with the cause found`;
    const set =
      t.figures.length === 0
        ? 'none set by this workshop'
        : `${t.figures.length} set by this workshop`;
    return `Figures: judgement to start with, moved by ${cases}; ${set}. Open a cause to see and change its own. ${Object.keys(CAUSES).length - this.#all().length} causes cannot be on this chain.`;
  });
}
