import { ChangeDetectionStrategy, Component, computed, effect, ElementRef, inject, input, viewChild } from '@angular/core';
import { RouterLink } from '@angular/router';
import { describePath } from '@ruddy/core/schema';
import { headline, minutesOf, rate, sentence, whole } from '@ruddy/core/texts';
import type { Finding, FindingCode } from '@ruddy/core/plan';
import { successes, failures } from '@ruddy/core/log';
import { SetupEditor } from '../data/setup-editor';
import { Keys } from '../shell/keys';
import { day } from '../shared/format';
import { CheckTable } from '../bring-up/check-table';
import { HopTable } from './hop-table';
import { LinkBudget } from './link-budget';
import { LoadsPanel } from './loads-panel';
import { PartsPanel } from './parts-panel';
import { PortRoles } from './port-roles';

interface Told {
  finding: Finding;
  what: string;
  why: string;
  todo: string;
}

/** Findings that stand before all others: what can destroy gear. */
const CAUTIONS: readonly FindingCode[] = ['link/all-off', 'link/looks-like-video'];

/** Plan: the parts, what to do about them, and the working of the link. */
@Component({
  imports: [PartsPanel, LoadsPanel, HopTable, LinkBudget, PortRoles, CheckTable, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './plan-page.html',
  styleUrl: './plan-page.scss',
})
export class PlanPage {
  readonly editor = inject(SetupEditor);
  readonly part = input<string>();
  readonly open = input<string>();
  readonly panel = viewChild(PartsPanel);
  readonly firstFinding = viewChild<ElementRef<HTMLElement>>('finding');
  readonly hops = viewChild(HopTable);

  readonly evaluation = computed(() => this.editor.judgement()?.evaluation ?? null);
  readonly sentence = computed(() => {
    const e = this.evaluation();
    return e ? headline(e) : 'Judging the chain …';
  });
  readonly told = computed<Told[]>(() =>
    (this.evaluation()?.findings ?? []).map((finding) => ({ finding, ...sentence(finding) })),
  );
  readonly #blocks = computed(() =>
    this.told().filter((t) => t.finding.severity === 'blocks' && t.finding.code !== 'plan/unchosen'),
  );
  readonly care = computed(() => this.told().filter((t) => t.finding.severity === 'care'));
  /** What is certain stands apart from what only may be: the second hangs on something to verify. */
  readonly groups = computed(() => {
    const blocks = (certainty: string) => this.#blocks().filter((t) => t.finding.certainty === certainty);
    const may = blocks('possible');
    return [
      { name: 'Stops it', list: blocks('certain') },
      ...(may.length > 0 ? [{ name: 'May stop it', list: may }] : []),
      { name: 'Needs care', list: this.care() },
    ];
  });
  readonly cautions = computed(() => this.told().filter((t) => CAUTIONS.includes(t.finding.code)));
  readonly notes = computed(() => this.told().filter((t) => t.finding.severity === 'note' && !CAUTIONS.includes(t.finding.code)));
  readonly missing = computed(() => this.told().filter((t) => t.finding.code === 'plan/unchosen'));
  readonly verify = computed(() =>
    (this.evaluation()?.toVerify ?? []).flatMap(({ path, decides }) => {
      const { part, meta } = describePath(path);
      return meta
        ? [
            {
              path,
              decides,
              part,
              label: meta.label,
              how: meta.findOut?.how ?? '',
              minutes: meta.findOut ? minutesOf(meta.findOut.minutes) : '',
            },
          ]
        : [];
    }),
  );
  /** What to look for once it is up, folded to one line. */
  readonly readOutWords = computed(() => {
    const r = this.evaluation()?.predicted.link.readouts;
    const span = r?.gen && r.lanes ? `×${whole(r.lanes)} Gen${whole(r.gen)} at the slot` : 'slot not known';
    const copy = r?.copy ? `${rate(r.copy.down)} Gb/s copied to the card` : 'copy rate not known';
    return `Expected read-outs under load: ${span}, ${copy}`;
  });
  readonly tally = computed(() => this.evaluation()?.observed?.exact ?? null);
  readonly logWords = computed(() => {
    const t = this.tally();
    if (!t || t.n === 0) return 'Nothing logged for exactly this chain.';
    if (t.n === 1) return `One entry only: it ${successes(t) === 1 ? 'worked' : 'failed'}. It counts, but it proves little.`;
    return `${successes(t)} of ${t.n} worked, ${failures(t)} failed; newest ${t.newest ? day(t.newest) : ''}.`;
  });
  readonly rate = rate;

  constructor() {
    inject(Keys).bind([
      { key: 'f', what: 'First finding', run: () => this.firstFinding()?.nativeElement.focus() },
      { key: 'w', what: 'Working of the link', run: () => this.hops()?.openAll() },
      ...['system', 'port', 'cable', 'dock', 'card'].map((p, i) => ({
        key: String(i + 1),
        what: `Choose the ${['host', 'port', 'cable', 'dock', 'card'][i] ?? ''}`,
        run: () => this.panel()?.focus(p),
      })),
    ]);
    effect(() => {
      const [part, panel, open, hops] = [this.part(), this.panel(), this.open(), this.hops()];
      if (part && panel) queueMicrotask(() => panel.focus(part));
      if (open === 'link' && hops) queueMicrotask(() => hops.openAll());
    });
  }
}
