import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { figureText, pluralize } from '@ruddy/core/base/text';
import { ALARM_SYMPTOMS, alarmsOf, eightyBand } from '@ruddy/core/runs';
import {
  advisedText,
  alarmText,
  experimentText,
  FALSE_ALARM_WORDS,
  FRAME_STAGE_NAMES,
  frameEvidenceText,
  frameLimiterText,
  overheadText,
  restsOnText,
  signText,
  unusedText,
  usedText,
} from '@ruddy/core/runs/text';
import { Fold } from '../platform/kit/fold';
import { day } from '../platform/shared/format';
import { mainValue, unitOf } from './run-groups';
import { ModelStore } from './model-store';
import { StatedStore } from './stated-store';
import { TitleRuns } from './title-runs';

/** Runs an alarm names before it counts the rest. */
const MOST_NAMED = 4;

const percent = (v: number) => Math.round(v * 100);

/** What limits the run that is looked at: shares with their intervals, what the runs show, what to run next; alarms before all. */
@Component({
  selector: 'rb-limits-panel',
  imports: [Fold, MatButtonModule, MatCheckboxModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 id="limits-h">What limits</h2>
    @if (store.problem(); as why) {
      <p class="problem" role="alert">{{ why }}</p>
    }
    @for (a of alarms(); track $index) {
      <p class="alarm">
        <strong>Look here.</strong> {{ a.words }}
        <span class="hint">{{ a.from }}</span>
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
    @if (model.problem(); as why) {
      <p class="problem" role="alert">{{ why }}</p>
    }
    @if (answer(); as a) {
      <p class="verdict" [attr.aria-busy]="model.busy()">{{ words() }}</p>
      <ul class="shares" aria-label="What 1 % more speed of each would bring, in %">
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
      @if (overhead(); as o) {
        <p>Link overhead {{ o }}</p>
      }
      <ul class="evidence">
        @for (e of evidence(); track e) {
          <li>{{ e }}</li>
        }
      </ul>
      <p class="advice"><strong>Measure next:</strong> {{ advice().first }}</p>
      @if (advice().others.length > 0) {
        <p class="hint">Or {{ advice().others.join(', or ') }}.</p>
      }
      @if (best(); as id) {
        <button mat-button type="button" class="small" (click)="stated.setImpossible(id, true)">
          This cannot be done here
        </button>
      }
      @for (i of impossible(); track i.id) {
        <p class="hint">
          Not advised: {{ i.words }}.
          <button
            mat-button
            type="button"
            class="small"
            [attr.aria-label]="'It can be done: ' + i.words"
            (click)="stated.setImpossible(i.id, false)"
          >
            It can be done
          </button>
        </p>
      }
      <rb-fold [name]="rests()" [inner]="true">
        <p>{{ restsOn() }}</p>
        <ul class="used">
          @for (e of used(); track e.id) {
            <li>
              <mat-checkbox [checked]="e.used" (change)="model.toggle(e.id, $event.checked)">{{
                e.words
              }}</mat-checkbox>
            </li>
          }
          @for (u of unused(); track u.words) {
            <li class="hint">Not used: {{ u.words }}</li>
          }
        </ul>
      </rb-fold>
    } @else if (model.working() || store.all() === null) {
      <p class="quiet">Computing from the runs …</p>
    } @else if (model.here() === null) {
      <p class="quiet">
        What limits is told from frames at a known resolution. Say the resolution of this run under
        “Say more”.
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
    .shares,
    .used {
      list-style: none;
      padding: 0;
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
  readonly store = inject(TitleRuns);
  readonly model = inject(ModelStore);
  readonly stated = inject(StatedStore);
  readonly answer = this.model.answer;
  readonly rate = FALSE_ALARM_WORDS;
  readonly words = computed(() => {
    const a = this.answer();
    return a ? frameLimiterText(a.limiter, a.refined) : '';
  });
  /** Shares that say something, the largest first. */
  readonly shares = computed(() =>
    (this.answer()?.limiter.shares ?? [])
      .filter((s) => s.band.hi > 0.03)
      .map((s) => ({
        name: FRAME_STAGE_NAMES[s.stage],
        mid: percent(s.share),
        lo: percent(s.band.lo),
        hi: percent(s.band.hi),
      })),
  );
  readonly overhead = computed(() => {
    const overhead = this.answer()?.overhead;
    return overhead ? overheadText(overhead) : '';
  });
  readonly evidence = computed(() => this.store.signs().map(signText));
  readonly alarms = computed(() => {
    const group = this.store.group();
    if (!group) return [];
    const overhead = this.model.overhead();
    const seen = overhead && eightyBand(overhead.ms);
    return alarmsOf(group, this.store.groups(), this.store.pairs().pairs, seen).map((a) => ({
      id: a.id,
      words: alarmText(a),
      from: this.#named(a.runs),
      see: ALARM_SYMPTOMS[a.id] ?? null,
    }));
  });
  /** The runs an alarm stands on, by their days; those of other setups by their names too. */
  #named(ids: readonly string[]): string {
    const own = this.store.first()?.setupId;
    const runs = (this.store.all() ?? []).filter((r) => ids.includes(r.id));
    const names = runs.map((r) => {
      const fps = mainValue(r);
      const where = r.setupId === own ? '' : `${r.setupName}, `;
      return `${where}${day(r.happenedAt)}${fps === null ? '' : `, ${figureText(fps)} ${unitOf(r)}`}`;
    });
    const said = names.slice(0, MOST_NAMED).join('; ');
    const more = names.length > MOST_NAMED ? ` and ${names.length - MOST_NAMED} more` : '';
    return names.length === 0 ? '' : `From: ${said}${more}.`;
  }

  readonly advice = computed(() => {
    const a = this.answer();
    const name = (id: string) => this.store.setupName(id);
    return advisedText(a?.advised ?? [], name, a?.limiter.limiter.kind === 'stage');
  });
  /** Id of the run that is advised first. */
  readonly best = computed(() => this.answer()?.advised[0]?.experiment.id ?? null);
  readonly impossible = computed(() =>
    [...this.stated.impossible()].map((id) => ({
      id,
      words: experimentText(id, (setup) => this.store.setupName(setup)),
    })),
  );
  readonly rests = computed(() => {
    const a = this.answer();
    return a ? usedText(a) : '';
  });
  readonly restsOn = computed(() => {
    const a = this.answer();
    return a ? restsOnText(a.restsOn) : '';
  });
  readonly used = computed(() => {
    const odd = this.answer()?.contradictions ?? [];
    return this.model.evidence().evidence.map((e) => ({
      id: e.id,
      used: !this.model.leftOut().has(e.id),
      words: `${frameEvidenceText(e)}${odd.includes(e.id) ? '; does not fit the others' : ''}`,
    }));
  });
  readonly unused = computed(() => {
    const reasons = [
      ...this.model.evidence().unused.map((u) => u.why),
      ...(this.answer()?.unused ?? []).map((u) => u.why),
    ];
    return [...new Set(reasons)].map((why) => ({
      words: `${pluralize(reasons.filter((r) => r === why).length, 'run')}: ${unusedText(why)}`,
    }));
  });
}
