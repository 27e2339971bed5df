import type { Observable } from 'rxjs';
import type { BringUp } from '@ruddy/core/bring-up/contract';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
} from '@angular/core';
import { FormControl, FormGroup, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { ORDER_IDS, type OrderId } from '@ruddy/core/base';
import { type TriedRow, tryBody } from '@ruddy/core/bring-up/contract';
import { ORDER_WORDS, PURPOSE_WORDS } from '@ruddy/core/bring-up/text';
import { SOFTWARE_NAMES, type SoftwareRole } from '@ruddy/core/parts';
import { SYMPTOM_WORDS } from '@ruddy/core/troubleshoot/text';
import { BringUpRun } from './bring-up-run';
import { SetupEditor } from '../setups/setup-editor';
import { SetupsData } from '../setups/setups';
import { TakeBack } from '../plan/record/take-back';
import { clock, day } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { Fold } from '../platform/kit/fold';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { readyToSend } from '../platform/kit/problems';
import { Acts } from '../platform/kit/ask';

const WORKED = [
  { value: 'yes', label: 'the card came up' },
  { value: 'no', label: 'it did not' },
];

/** The time line: attempts newest first with what was met at them, and how each order went on this host. */
@Component({
  selector: 'rb-attempt-line',
  imports: [Field, Fold, MatButtonModule, TakeBack],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './attempt-line.html',
  styleUrl: './attempt-line.scss',
})
export class AttemptLine {
  readonly #acts = inject(Acts);
  readonly run = inject(BringUpRun);
  readonly #editor = inject(SetupEditor);
  readonly #data = inject(SetupsData);
  readonly #clock = inject(ServerClock);
  readonly form = new FormGroup({
    order: new FormControl<OrderId>('all-off', { nonNullable: true }),
    worked: new FormControl<'yes' | 'no'>('yes', { nonNullable: true }),
    on: new FormControl<string | null>(this.#clock.today(), Validators.required),
    build: new FormControl('', { nonNullable: true }),
  });
  readonly fields: readonly (readonly [FieldMeta, FormControl])[] = [
    [
      {
        label: 'Order tried',
        input: 'choice',
        options: ORDER_IDS.map((value) => ({ value, label: ORDER_WORDS[value].name })),
      },
      this.form.controls.order,
    ],
    [{ label: 'Result', input: 'choice', options: WORKED }, this.form.controls.worked],
    [{ label: 'Date', input: 'day' }, this.form.controls.on],
    [{ label: 'System build then', input: 'text', max: 60 }, this.form.controls.build],
  ];
  readonly problem = signal<string | null>(null);
  readonly day = day;
  readonly build = this.run.build;

  constructor() {
    effect(() => {
      const build = this.build();
      const control = this.form.controls.build;
      if (control.pristine) control.setValue(build);
    });
  }

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

  add(box: HTMLElement): void {
    if (!readyToSend(this.form, box)) return;
    const { worked, ...given } = this.form.getRawValue();
    const body = tryBody.safeParse({ ...given, id: v7(), worked: worked === 'yes' });
    if (!body.success) return this.problem.set(`Not saved. ${body.error.issues[0]?.message ?? ''}`);
    this.#add((id) => this.#data.addTry(id, body.data));
  }

  strike(corrects: string, reason: string): void {
    this.#add((id) => this.#data.retract(id, { corrects, reason }));
  }

  #add(store: (id: string) => Observable<BringUp>): void {
    const id = this.#editor.stored()?.id;
    if (!id) return;
    this.#acts.run(store(id), { line: this.problem, then: () => this.run.reload() });
  }
}
