import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { ALARM_SYMPTOMS, STAGE_IDS } from '@ruddy/core/runs';
import {
  adviceText,
  alarmText,
  evidenceText,
  FALSE_ALARM_WORDS,
  limiterText,
  stageName,
  swapText,
} from '@ruddy/core/runs/text';
import { TollStore } from './toll-store';

const percent = (v: number) => Math.round(v * 100);

/** What limits the run that is looked at: shares with their intervals, the evidence, what to do; alarms before all. */
@Component({
  selector: 'rb-limits-panel',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 id="limits-h">What limits</h2>
    @if (store.problem(); as why) {
      <p class="problem" role="alert">{{ why }}</p>
    }
    @for (a of alarms(); track $index) {
      <p class="alarm">
        <strong>Look here.</strong> {{ a.words }}
        @if (a.see) {
          <a
            [routerLink]="['../troubleshoot']"
            [queryParams]="{ see: a.see, from: 'alarm:' + a.id }"
            >Find the cause</a
          >
        }
      </p>
    }
    @if (alarms().length > 0) {
      <p class="hint">{{ rate }}</p>
    }
    @if (limiter(); as l) {
      <p class="verdict">{{ words() }}</p>
      <ul class="shares">
        @for (s of shares(); track s.name) {
          <li>
            <span>{{ s.name }}</span>
            <span class="figure"
              ><b>{{ s.mid }} %</b>, <span class="hint">{{ s.lo }} to {{ s.hi }}</span></span
            >
            <span class="track" aria-hidden="true"
              ><i class="mid" [style.width.%]="s.mid"></i
              ><i class="range" [style.left.%]="s.lo" [style.width.%]="s.hi - s.lo"></i
            ></span>
          </li>
        }
      </ul>
      <ol class="evidence">
        @for (e of evidence(); track e) {
          <li>{{ e }}</li>
        }
      </ol>
      <p class="advice">
        <strong>{{ l.swap ? 'Decide it:' : 'Do:' }}</strong> {{ advice() }}
        @if (l.swap?.setupId; as id) {
          <a [routerLink]="['/setups', id, 'runs']">Open it</a>
        }
      </p>
    } @else if (store.judging() || store.all() === null) {
      <p class="quiet">Judging the runs …</p>
    } @else if (store.cell() === null) {
      <p class="quiet">
        What limits is judged from frames at a known resolution. Say the resolution of this run
        under “Say more”.
      </p>
    } @else {
      <p class="quiet">
        Nothing explains these figures together: a link overhead longer than the frame, or sizes
        that do not fit. Look at their settings.
      </p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      grid-template-columns: minmax(0, 1fr);
    }
    .verdict {
      font-weight: 600;
    }
    ul,
    ol {
      display: grid;
      gap: 4px;
    }
    .shares {
      list-style: none;
    }
    .shares li {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      gap: 0 8px;
    }
    .track {
      grid-column: 1 / -1;
      position: relative;
      height: 10px;
      background: var(--sunk);
      border: 1px solid var(--line);
    }
    .mid {
      position: absolute;
      inset: 0 auto 0 0;
      background: var(--teal);
    }
    .range {
      position: absolute;
      top: 3px;
      bottom: 3px;
      border: 1px solid var(--ink);
      border-width: 0 1px;
      background: linear-gradient(var(--ink), var(--ink)) center / 100% 1px no-repeat;
    }
    .evidence {
      padding-left: 20px;
      font-size: 13px;
      line-height: 18px;
    }
    .alarm {
      border-left: 4px solid var(--ochre);
      background: var(--ochre-tint);
      padding: 4px 8px;
      font-size: 13px;
      line-height: 18px;
    }
    .advice {
      border-top: 1px solid var(--line);
      padding-top: 8px;
    }
  `,
})
export class LimitsPanel {
  readonly store = inject(TollStore);
  readonly limiter = this.store.limiter;
  readonly rate = FALSE_ALARM_WORDS;
  readonly words = computed(() => {
    const l = this.limiter();
    return l ? limiterText(l) : '';
  });
  /** Shares that say something, the largest first. */
  readonly shares = computed(() => {
    const shares = this.limiter()?.judged.shares;
    if (!shares) return [];
    return STAGE_IDS.filter(
      (s) => shares[s].hi > 0.03 || s === 'cpu' || s === 'card' || s === 'link',
    )
      .sort((a, b) => shares[b].mid - shares[a].mid)
      .map((s) => ({
        name: stageName(s),
        mid: percent(shares[s].mid),
        lo: percent(shares[s].lo),
        hi: percent(shares[s].hi),
      }));
  });
  readonly evidence = computed(() => (this.limiter()?.evidence ?? []).map(evidenceText));
  readonly alarms = computed(() =>
    this.store
      .alarms()
      .map((a) => ({ id: a.id, words: alarmText(a), see: ALARM_SYMPTOMS[a.id] ?? null })),
  );
  readonly advice = computed(() => {
    const l = this.limiter();
    if (!l) return '';
    return l.swap
      ? swapText(l.swap, l.swap.setupId ? this.store.setupName(l.swap.setupId) : '')
      : adviceText(l);
  });
}
