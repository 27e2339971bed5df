import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { formatWhole, rate } from '@ruddy/core/base/text';
import { MAX_CHARS, readReport } from '@ruddy/core/bring-up';
import { readProblemText } from '@ruddy/core/bring-up/text';
import { endsInSlot } from '@ruddy/core/chain';
import { evidenceWords } from '@ruddy/core/compatibility/text';
import { verdictSentence } from '@ruddy/core/plan/text';
import { PlanCost } from './plan-cost';
import { SetupEditor } from '../setups/setup-editor';
import { Preview } from '../setups/preview';
import { TermWord } from '../platform/glossary/term';
import { Keys } from '../platform/shell/keys';
import { day } from '../platform/shared/format';
import { renderWhenIdle } from '../platform/shared/render-when-idle';
import { CheckTable } from '../bring-up/check-table';
import { EvidencePanel } from '../compatibility/evidence-panel';
import { HopTable } from './hop-table';
import { OtherCards } from './other-cards';
import { PowerWorking } from './power-working';
import { PreFlightList } from './pre-flight-list';
import { RoutesTable } from './routes-table';
import { ToDo } from './to-do';
import { PreviewBar } from './preview-bar';
import { AreaRow } from './area-row';
import { AroundPanel } from './around-panel';
import { Budgets } from './budgets';
import { CostPanel } from './cost-panel';
import { WorthPanel } from '../buy/worth-panel';
import { costWords } from './cost-words';
import { DockedPanel } from './docked-panel';
import { FitDrawing } from './fit-drawing';
import { FramesPanel } from './frames-panel';
import { PlanFrames } from './plan-frames';
import { LoadsPanel } from './loads-panel';
import { PartsPanel } from './parts-panel';
import { ItemsElsewhere } from '../workshop/items-elsewhere';
import { PortRoles } from './port-roles';
import { Fold } from '../platform/kit/fold';

/** Plan: the parts, what to do about them, and the working of the link. */
@Component({
  imports: [
    Fold,
    PartsPanel,
    ItemsElsewhere,
    AroundPanel,
    LoadsPanel,
    DockedPanel,
    ToDo,
    AreaRow,
    PreviewBar,
    EvidencePanel,
    HopTable,
    Budgets,
    FramesPanel,
    PowerWorking,
    FitDrawing,
    RoutesTable,
    PreFlightList,
    OtherCards,
    CostPanel,
    WorthPanel,
    PortRoles,
    CheckTable,
    RouterLink,
    TermWord,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './plan-page.html',
  styleUrl: './plan-page.scss',
  providers: [PlanFrames],
})
export class PlanPage {
  readonly editor = inject(SetupEditor);
  readonly trial = inject(Preview);
  readonly frames = inject(PlanFrames);
  readonly #cost = inject(PlanCost);
  readonly part = input<string>();
  readonly open = input<string>();
  readonly panel = viewChild(PartsPanel);
  readonly toDo = viewChild(ToDo);
  readonly routes = viewChild(RoutesTable);
  readonly hops = viewChild(HopTable);

  readonly evaluation = computed(() => this.trial.shown()?.evaluation ?? null);
  /** How much of what stands under the first screen is made. */
  readonly below = renderWhenIdle(
    () => this.evaluation() !== null || this.editor.judging() !== null,
    6,
  );
  readonly chain = computed(() => this.trial.shown()?.chain ?? null);
  readonly before = computed(() => this.trial.before()?.evaluation ?? null);
  readonly dropProblem = signal<string | null>(null);
  readonly over = signal(false);
  /** The budgets say something only once a dock and a card are chosen. */
  readonly budgeted = computed(() => {
    const c = this.chain();
    return c !== null && c.card !== null && (c.dock !== null || endsInSlot(c.path));
  });
  readonly sentence = computed(() => {
    const e = this.evaluation();
    return e ? verdictSentence(e) : 'Judging the chain …';
  });
  /** What to look for once it is up, folded to one line. */
  readonly readOutWords = computed(() => {
    const r = this.evaluation()?.predicted.link.readouts;
    const span =
      r?.gen && r.lanes
        ? `×${formatWhole(r.lanes)} Gen${formatWhole(r.gen)} at the slot`
        : 'slot not known';
    const copy = r?.copy ? `${rate(r.copy.down)} Gb/s copied to the card` : 'copy rate not known';
    return `Expected read-outs under load: ${span}, ${copy}`;
  });
  readonly tally = computed(() => this.evaluation()?.observed ?? null);
  readonly logWords = computed(() => {
    const t = this.tally();
    if (!t) return 'Nothing logged for exactly this chain.';
    return `${evidenceWords(t)}${t.exact.newest ? ` Newest ${day(t.exact.newest)}.` : ''}`;
  });

  readonly costLine = computed(() => {
    const c = this.#cost.cost();
    return c ? `${costWords(c)}.` : 'Reading the prices …';
  });
  readonly costWas = computed(() => {
    const c = this.#cost.before();
    return c ? `Before: ${costWords(c)}.` : null;
  });

  /** A report dropped on the parts fills the host. */
  async dropped(event: DragEvent): Promise<void> {
    event.preventDefault();
    this.over.set(false);
    const file = event.dataTransfer?.files[0];
    if (!file) return;
    const tooBig = {
      ok: false,
      problem: { code: 'too-big', chars: file.size, most: MAX_CHARS },
    } as const;
    const read = file.size > MAX_CHARS ? tooBig : readReport(await file.text());
    this.dropProblem.set(read.ok ? null : `${file.name}: ${readProblemText(read.problem)}`);
    if (read.ok) this.panel()?.fromReport(read.report);
  }

  constructor() {
    inject(Keys).bind([
      { key: 'f', what: 'First finding', run: () => this.toDo()?.focusFirst() },
      { key: 'y', what: 'Try the first fix', run: () => this.toDo()?.tryFirst() },
      { key: 'k', what: 'Keep what is tried', run: () => this.trial.keep() },
      { key: 'z', what: 'Put back what is tried', run: () => this.trial.putBack() },
      { key: 'm', what: 'Routes of this host', run: () => this.routes()?.show() },
      { key: 'w', what: 'Working of the link', run: () => this.hops()?.openAll() },
      ...['system', 'port', 'cable', 'dock', 'card', 'screen', 'supply', 'use'].map((p, i) => ({
        key: String(i + 1),
        what: `Choose the ${['host', 'port', 'cable', 'dock', 'card', 'screen', 'supply', 'use'][i] ?? ''}`,
        run: () => this.panel()?.focus(p),
      })),
    ]);
    inject(DestroyRef).onDestroy(() => this.trial.putBack());
    effect(() => {
      const part = this.part();
      const panel = this.panel();
      const open = this.open();
      const hops = this.hops();
      if (part && panel) queueMicrotask(() => panel.focus(part));
      if (open === 'link' && hops) queueMicrotask(() => hops.openAll());
    });
  }
}
