import type { Observable } from 'rxjs';
import type { BringUp } from '@ruddy/core/bring-up/contract';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { ORDER_IDS, type OrderId } from '@ruddy/core/base';
import { type TriedRow, tryBody } from '@ruddy/core/bring-up/contract';
import { ORDER_WORDS, PURPOSE_WORDS } from '@ruddy/core/bring-up/text';
import { SOFTWARE_NAMES, type SoftwareRole } from '@ruddy/core/parts';
import { SYMPTOM_WORDS } from '@ruddy/core/troubleshoot/text';
import type { ApiError } from '../platform/api/api-client';
import { BringUpRun } from './bring-up-run';
import { SetupEditor } from '../setups/setup-editor';
import { SetupsData } from '../setups/setups';
import { TakeBack } from '../plan/record/take-back';
import { Choice } from '../platform/shared/choice';
import { clock, day } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { Fold } from '../platform/kit/fold';

const WORKED = [
  { value: 'yes', label: 'the card came up' },
  { value: 'no', label: 'it did not' },
];

/** The time line: attempts newest first with what was met at them, and how each order went on this host. */
@Component({
  selector: 'rb-attempt-line',
  imports: [Fold, MatButtonModule, Choice, TakeBack],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './attempt-line.html',
  styleUrl: './attempt-line.scss',
})
export class AttemptLine {
  readonly run = inject(BringUpRun);
  readonly #editor = inject(SetupEditor);
  readonly #data = inject(SetupsData);
  readonly #clock = inject(ServerClock);
  readonly orderOptions = ORDER_IDS.map((value) => ({ value, label: ORDER_WORDS[value].name }));
  readonly workedOptions = WORKED;
  readonly order = signal<OrderId>('all-off');
  readonly worked = signal<'yes' | 'no'>('yes');
  readonly problem = signal<string | null>(null);
  readonly day = day;
  readonly today = computed(() => this.#clock.today());
  readonly build = this.run.build;

  readonly attempts = computed(() =>
    [...this.run.attempts()].reverse().map((a) => {
      const mine = this.run.steps().filter((s) => s.attempt === a.id);
      const settled = new Map(mine.map((s) => [s.step, s.state]));
      const done = [...settled.values()].filter((s) => s === 'done').length;
      const lines = mine.flatMap((s) => {
        const versions = s.noted.filter((n) => n.from !== n.to && n.what in SOFTWARE_NAMES);
        const met = versions.map(
          (n) =>
            `${SOFTWARE_NAMES[n.what as SoftwareRole]} ${n.from || 'not known'} to ${n.to || 'not known'}`,
        );
        const failed =
          s.state === 'failed'
            ? [
                `failed: ${this.run.title(s.step)}; ${s.symptom ? SYMPTOM_WORDS[s.symptom].toLowerCase() : s.reason}`,
              ]
            : [];
        return [...met, ...failed].map((words) => ({ at: clock(s.at), words }));
      });
      return {
        id: a.id,
        head: `${PURPOSE_WORDS[a.purpose]}, attempt ${a.no}`,
        when: `${day(a.startedAt.slice(0, 10))}, ${clock(a.startedAt)}`,
        order: ORDER_WORDS[a.order].name,
        how: a.ended ? a.ended.outcome : `going on, ${done} done`,
        lines,
      };
    }),
  );
  readonly tried = computed(() => [...(this.run.stored()?.tried ?? [])].reverse());
  readonly counts = computed(() => {
    const tried = this.tried();
    const builds = [...new Set(tried.map((t) => t.build))];
    return builds.map((build) => ({
      build:
        build === ''
          ? 'build not noted'
          : build === this.build()
            ? `build ${build}, now`
            : `build ${build}`,
      orders: ORDER_IDS.flatMap((id) => {
        const mine = tried.filter((t) => t.build === build && t.order === id);
        return mine.length === 0
          ? []
          : [
              {
                name: ORDER_WORDS[id].name,
                words: `${mine.filter((t) => t.worked).length} of ${mine.length}`,
              },
            ];
      }),
    }));
  });

  tryWords(t: TriedRow): string {
    const where = t.setupId === this.#editor.stored()?.id ? '' : `, ${t.setup}`;
    return `${day(t.at.slice(0, 10))}: ${ORDER_WORDS[t.order].name}, ${t.worked ? 'came up' : 'did not come up'}${t.build ? `, build ${t.build}` : ''}${where}`;
  }

  chosen(what: 'order' | 'worked', value: string | null): void {
    if (value === null) return;
    if (what === 'order') this.order.set(value as OrderId);
    else this.worked.set(value as 'yes' | 'no');
  }

  add(e: Event, on: string, build: string): void {
    e.preventDefault();
    const body = tryBody.safeParse({
      id: v7(),
      order: this.order(),
      on,
      build,
      worked: this.worked() === 'yes',
    });
    if (!body.success)
      return this.problem.set(`Nothing stored. Day: ${body.error.issues[0]?.message ?? ''}`);
    this.#add((id) => this.#data.addTry(id, body.data));
  }

  strike(corrects: string, reason: string): void {
    this.#add((id) => this.#data.retract(id, { corrects, reason }));
  }

  #add(store: (id: string) => Observable<BringUp>): void {
    const id = this.#editor.stored()?.id;
    if (!id) return;
    store(id).subscribe({
      next: () => {
        this.problem.set(null);
        this.run.reload();
      },
      error: (e: ApiError) => this.problem.set(`Nothing stored. ${e.message}`),
    });
  }
}
