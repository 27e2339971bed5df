import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { NgTemplateOutlet } from '@angular/common';
import { RouterLink } from '@angular/router';
import { MatButtonModule } from '@angular/material/button';
import { rate } from '@ruddy/core/base/text';
import type { Chain } from '@ruddy/core/chain';
import {
  adjustmentsFor,
  type Evaluation,
  type Finding,
  type FindingCode,
  questionsOf,
} from '@ruddy/core/plan';
import type { FixRow } from '@ruddy/core/plan/contract';
import { coverageWords, sentence, VERDICT_LABELS } from '@ruddy/core/plan/text';
import { SetupEditor } from '../setups/setup-editor';
import { SetupsData } from '../setups/setups';
import { Preview } from '../setups/preview';
import { pluralize } from '../platform/shared/format';
import { AnswerList } from './answer-list';
import { fixPriceWords } from './cost-words';
import { Fold } from '../platform/kit/fold';
import { Acts } from '../platform/kit/ask';

interface FindingLine {
  finding: Finding;
  what: string;
  why: string;
  todo: string;
  /** Which finding, where several have one code. */
  key: string;
  /** Something can be tried about it. */
  tries: boolean;
  /** Gone with what is tried just now. */
  gone: boolean;
}

/** Findings that stand before all others: what can hurt somebody, destroy gear, or lock out. */
const CAUTIONS: readonly FindingCode[] = [
  'link/all-off',
  'link/looks-like-video',
  'fit/open-board',
  'route/opening',
  'route/cutting',
  'power/two-on-card',
  'power/beside',
  'power/cpu-plug',
];
/** Nothing here is a fault of a part: there is nothing to try. */
const NOT_TRIED: readonly FindingCode[] = ['plan/unchosen', 'log/contradiction', 'power/used'];

const CARING = 'Warnings';
/** Which finding, where several have one code. */
function keyOf(f: Finding): string {
  return `${f.code} ${f.about ?? ''}`;
}

/** What to do about a chain, worst first, and what can be tried about each finding. */
@Component({
  selector: 'rb-to-do',
  imports: [Fold, NgTemplateOutlet, RouterLink, MatButtonModule, AnswerList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './to-do.html',
  styleUrl: './to-do.scss',
})
export class ToDo {
  readonly #acts = inject(Acts);
  readonly #editor = inject(SetupEditor);
  readonly #data = inject(SetupsData);
  readonly trial = inject(Preview);
  readonly priceWords = fixPriceWords;
  readonly coverage = coverageWords;
  readonly evaluation = input.required<Evaluation | null>();
  readonly chain = input.required<Chain | null>();
  /** While a change is tried: what it leads to. */
  readonly after = input<Evaluation | null>(null);
  readonly firstFinding = viewChild<ElementRef<HTMLElement>>('finding');
  readonly verdicts = VERDICT_LABELS;
  readonly rate = rate;
  readonly counted = pluralize;

  /** The finding whose fixes are open, with what was found. */
  readonly asking = signal<string | null>(null);
  readonly fixes = signal<{ key: string; items: FixRow[]; tried: number } | null>(null);
  readonly problem = signal<string | null>(null);

  readonly told = computed<FindingLine[]>(() => {
    const chain = this.chain();
    const left = this.after() && new Set(this.after()?.findings.map(keyOf));
    return (this.evaluation()?.findings ?? []).map((finding) => {
      const tries =
        finding.severity === 'note'
          ? chain !== null && adjustmentsFor(finding, chain).length > 0
          : !NOT_TRIED.includes(finding.code);
      return {
        finding,
        ...sentence(finding),
        key: keyOf(finding),
        tries,
        gone: left !== null && !left.has(keyOf(finding)),
      };
    });
  });
  /** Made by what is tried and by nothing before it. */
  readonly fresh = computed(() => {
    const had = new Set(this.evaluation()?.findings.map(keyOf));
    return (this.after()?.findings ?? [])
      .filter((f) => f.severity !== 'note' && !had.has(keyOf(f)))
      .map((finding) => ({ finding, ...sentence(finding), key: keyOf(finding) }));
  });
  readonly groups = computed(() => {
    const of = (severity: string, certainty?: string) =>
      this.told().filter(
        (t) =>
          t.finding.severity === severity &&
          t.finding.code !== 'plan/unchosen' &&
          (certainty === undefined || t.finding.certainty === certainty),
      );
    const may = of('blocks', 'possible');
    // What is certain stands apart from what only may be: the second hangs on something to verify.
    return [
      { name: 'Blockers', list: of('blocks', 'certain') },
      ...(may.length > 0 ? [{ name: 'May stop it', list: may }] : []),
      { name: CARING, list: of('care') },
    ];
  });
  /** What stops or may stop it stands before the questions, what only needs care after them. */
  readonly stopping = computed(() => this.groups().filter((g) => g.name !== CARING));
  readonly caring = computed(() => this.groups().filter((g) => g.name === CARING));
  readonly cautions = computed(() => this.told().filter((t) => CAUTIONS.includes(t.finding.code)));
  readonly notes = computed(() =>
    this.told().filter((t) => t.finding.severity === 'note' && !CAUTIONS.includes(t.finding.code)),
  );
  readonly missing = computed(() => this.told().filter((t) => t.finding.code === 'plan/unchosen'));
  readonly verify = computed(() => {
    const e = this.evaluation();
    return e ? questionsOf(e) : [];
  });
  readonly deciding = computed(() => this.verify().filter((v) => v.decides));
  readonly others = computed(() => this.verify().filter((v) => !v.decides));

  focusFirst(): void {
    this.firstFinding()?.nativeElement.focus();
  }

  /** Try the first finding that has something to try. */
  tryFirst(): void {
    const first = this.groups()
      .flatMap((g) => g.list)
      .find((t) => t.tries);
    if (first) this.ask(first);
  }

  /** Look for what takes a finding away, and try the best of it at once. */
  ask(t: FindingLine): void {
    const fields = this.#editor.fields();
    if (!fields) return;
    this.trial.putBack();
    this.problem.set(null);
    this.fixes.set(null);
    this.asking.set(t.key);
    const { code, about } = t.finding;
    const finding = { code, ...(about !== undefined && { about }) };
    this.#acts.read(this.#data.fixes(fields, finding), {
      line: this.problem,
      then: (found) => {
        if (this.asking() !== t.key) return;
        this.fixes.set({ key: t.key, ...found });
        const [best] = found.items;
        if (best) this.trial.start(best);
      },
    });
  }

  close(): void {
    this.asking.set(null);
    this.fixes.set(null);
  }
}
