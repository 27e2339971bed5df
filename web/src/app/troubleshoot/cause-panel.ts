import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { FormControl, FormGroup } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import type { CauseId, SymptomId, TestId } from '@ruddy/core/base';
import { sentence } from '@ruddy/core/plan/text';
import {
  type Figure,
  figureLimits,
  likelihood,
  movesOf,
  posterior,
  bayesFactors,
  weight,
} from '@ruddy/core/troubleshoot';
import {
  CAUSE_WORDS,
  pullWords,
  suspicionPercent,
  SYMPTOM_WORDS,
  TEST_WORDS,
} from '@ruddy/core/troubleshoot/text';
import { SetupEditor } from '../setups/setup-editor';
import { TroubleData } from './trouble';
import { TroubleStore } from './trouble-store';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { readyToSend } from '../platform/kit/problems';
import { Acts } from '../platform/kit/ask';

interface Row {
  readonly key: string;
  readonly name: string;
  readonly figure: Figure;
  readonly weight: boolean;
  readonly form: FormGroup<{ value: FormControl<number | null>; reason: FormControl<string> }>;
  readonly valueMeta: FieldMeta;
  readonly whyMeta: FieldMeta;
}

/** A figure with the form that sets it: a likelihood in per cent, a weight as it is. */
function rowOf(name: string, figure: Figure, weight: boolean): Row {
  return {
    key: figure.key,
    name,
    figure,
    weight,
    form: new FormGroup({
      value: new FormControl<number | null>(null),
      reason: new FormControl('', { nonNullable: true }),
    }),
    valueMeta: { label: `Set, ${name}`, input: 'number', ...(!weight && { unit: '%' }) },
    whyMeta: { label: `Why, ${name}`, input: 'text', max: 300 },
  };
}

const MOVES = 4;

/** One suspect opened: what speaks for and against it, what would change it, and every figure with its source, to be set otherwise. */
@Component({
  selector: 'rb-cause-panel',
  imports: [Cell, Field, MatButtonModule, Rows],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './cause-panel.html',
  styleUrl: './cause-panel.scss',
})
export class CausePanel {
  readonly causePanelColumns: readonly ShortColumn[] = [
    { key: 'howOftenGiven', name: 'How often, given this cause' },
    { key: 'used', name: 'Used' },
    { key: 'whereFrom', name: 'Where from' },
    { key: 'setOtherwise', name: 'Set otherwise' },
  ];
  readonly #acts = inject(Acts);
  readonly store = inject(TroubleStore);
  readonly #data = inject(TroubleData);
  readonly cause = input.required<CauseId>();
  readonly back = output();
  readonly mend = output<CauseId>();
  readonly problem = signal<string | null>(null);
  readonly said = signal<string | null>(null);
  readonly all = signal(false);
  readonly everyMeta: FieldMeta = {
    label: 'Every figure of this cause, not only those in use',
    input: 'flag',
  };
  readonly words = CAUSE_WORDS;

  readonly #editor = inject(SetupEditor);
  readonly #p = computed(() => {
    const net = this.store.net();
    const s = this.store.standing();
    return net && s ? { net, s, p: posterior(net, s.clues) } : null;
  });
  readonly percent = computed(() => {
    const now = this.#p();
    return now ? suspicionPercent(now.p[now.net.causes.indexOf(this.cause())] ?? 0) : '';
  });
  readonly prior = computed(() => {
    const now = this.#p();
    if (!now) return '';
    const lift = now.net.lifts.find((l) => l.cause === this.cause());
    const share = suspicionPercent(now.net.prior[now.net.causes.indexOf(this.cause())] ?? 0);
    return `Before anything was seen: ${share} of what this chain can have${lift ? `, ${lift.times} times its weight ${this.#because(lift.code)}` : ''}.`;
  });
  readonly reasons = computed(() => {
    const now = this.#p();
    if (!now) return [];
    return bayesFactors(now.net, now.s.clues, this.cause()).map(({ clue, times }) => ({
      name: this.#clue(clue.kind, clue.id, clue.yes),
      words: pullWords(times),
    }));
  });
  /** Tests whose answer would move this cause most, with what it would be then. */
  readonly moves = computed(() => {
    const now = this.#p();
    if (!now) return [];
    return movesOf(now.net, now.s.clues, now.p, now.s.refused, this.cause())
      .slice(0, MOVES)
      .map((r) => ({
        what: TEST_WORDS[r.test].what,
        yes: `${TEST_WORDS[r.test].yes}: ${suspicionPercent(r.yes)}`,
        no: `${TEST_WORDS[r.test].no}: ${suspicionPercent(r.no)}`,
      }));
  });
  /** Figures of this cause: those in use now, or all of them. */
  readonly rows = computed<Row[]>(() => {
    const now = this.#p();
    const c = this.cause();
    const tables = this.store.tables();
    if (!now) return [];
    const direct = now.net.facts.direct && !now.net.facts.tunnel;
    const used = new Set<string>([
      ...now.s.clues.symptoms,
      ...now.s.clues.answers.map((a) => a.test),
    ]);
    const symptoms = (Object.keys(SYMPTOM_WORDS) as SymptomId[]).filter(
      (s) => this.all() || used.has(s),
    );
    const tests = now.net.tests.filter((t) => this.all() || used.has(t));
    const first = weight(tables, c);
    return [
      rowOf('Weight before anything is seen', first, true),
      ...symptoms.map((s) => {
        const figure = likelihood(tables, 'symptom', s, c, direct);
        return rowOf(`Seen: ${SYMPTOM_WORDS[s].toLowerCase()}`, figure, false);
      }),
      ...tests.map((t: TestId) => {
        const figure = likelihood(tables, 'test', t, c);
        return rowOf(`${TEST_WORDS[t].what}: ${TEST_WORDS[t].yes.toLowerCase()}`, figure, false);
      }),
    ];
  });
  readonly fromLog = computed(() => {
    const rows = this.rows();
    const counted = rows.filter((r) => r.figure.count.n > 0).length;
    const set = rows.filter((r) => r.figure.set !== null).length;
    return `${rows.length} figures shown: ${counted} moved by counts of the log, ${set} set here, the others as they shipped (judgement).`;
  });

  shown(r: Row): string {
    return r.weight ? r.figure.value.toFixed(2) : `${(r.figure.value * 100).toFixed(1)} %`;
  }

  source({ figure: f, weight }: Row): string {
    const unit = (v: number) => (weight ? String(v) : `${Math.round(v * 1000) / 10} %`);
    const log = f.count.n > 0 ? `log: ${f.count.k} of ${f.count.n}` : 'log: none';
    return `${f.set === null ? `start ${unit(f.start)}` : `set to ${unit(f.set)}, start ${unit(f.start)}`}; ${log}`;
  }

  /** Sets a figure as typed; empty, it is the default again. */
  set(r: Row, box: HTMLElement): void {
    const limits = figureLimits(r.key);
    if (!limits || !readyToSend(r.form, box)) return;
    const { value: typed, reason } = r.form.getRawValue();
    const scale = r.weight ? 1 : 100;
    const value = typed === null ? null : typed / scale;
    this.said.set(null);
    if (value !== null && (value < limits.lo || value > limits.hi))
      return this.problem.set(
        `Not saved. ${r.name}: from ${limits.lo * scale} to ${limits.hi * scale}${r.weight ? '' : ' %'}.`,
      );
    if (value !== null && reason.trim() === '')
      return this.problem.set(`Not saved. ${r.name}: give the reason for another figure.`);
    const rev = this.store.tablesRead()?.figures.find((f) => f.key === r.key)?.rev ?? 0;
    this.#acts.run(this.#data.setFigure({ key: r.key, value, reason: reason.trim() }, rev), {
      line: this.problem,
      then: (t) => {
        this.store.took(t);
        this.said.set(`Saved: ${r.name}${value === null ? ', the default' : ''}.`);
      },
    });
  }

  reasonOf(key: string): string {
    return this.store.tablesRead()?.figures.find((f) => f.key === key)?.reason ?? '';
  }

  /** What the plan, or somebody who was asked, says that makes it likelier. */
  #because(code: string): string {
    const f = this.#editor.judgement()?.evaluation.findings.find((x) => x.code === code);
    return f ? `because the plan says "${sentence(f).what}"` : 'because of what was said at first';
  }

  #clue(kind: 'symptom' | 'test' | 'fix', id: string, yes: boolean): string {
    if (kind === 'symptom') return SYMPTOM_WORDS[id as SymptomId];
    if (kind === 'fix')
      return `Mended without change: ${CAUSE_WORDS[id as CauseId].what.toLowerCase()}`;
    const t = TEST_WORDS[id as TestId];
    return `${t.what}: ${(yes ? t.yes : t.no).toLowerCase()}`;
  }
}
