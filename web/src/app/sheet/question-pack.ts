import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { type Chain, partName, portName } from '@ruddy/core/chain';
import { packText } from '@ruddy/core/chain/text';
import type { SetupEvent } from '@ruddy/core/compatibility/contract';
import { NOTHING_INSTALLED, PORT_STANDARDS } from '@ruddy/core/parts';
import { verdictSentence } from '@ruddy/core/plan/text';
import { installedWords } from '@ruddy/core/setups/text';
import { BringUpRun } from '../bring-up/bring-up-run';
import { LinkReadings } from '../bring-up/link-readings';
import { SetupEditor } from '../setups/setup-editor';
import { SetupsData } from '../setups/setups';
import { linesOf, type Line } from '../plan/record/record-lines';
import { day } from '../platform/shared/format';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { Acts } from '../platform/kit/ask';

/** What was tried, newest first, at most. */
const TRIED = 15;
const READ = 5;
const TRIES: readonly Line['group'][] = ['start', 'step', 'fault', 'outcome', 'version', 'parts'];

function partsOf(c: Chain): { noun: string; name: string }[] {
  const port = c.host?.sockets.find((s) => s.key === c.socket);
  const standard =
    port && typeof port.standard === 'string'
      ? PORT_STANDARDS[port.standard]
      : 'standard not known';
  return [
    { noun: 'Host', name: partName(c.host) },
    { noun: 'Port', name: port ? `${portName(port)}, ${standard}` : '' },
    ...(c.path ?? []).map((p) => ({ noun: 'Cable or adapter', name: partName(p.spec) })),
    { noun: 'Dock', name: partName(c.dock) },
    { noun: 'Card', name: partName(c.card) },
    ...c.supplies.map((s) => ({ noun: 'Supply', name: partName(s.spec) })),
    ...c.picture.map((p) => ({ noun: 'Screen', name: partName(p.screen) })),
    { noun: 'System', name: partName(c.system) },
  ].filter((p) => p.name !== '');
}

/** One page to ask others with, to print or copy. Notes, names of setups and items, and serial numbers are not in it. */
@Component({
  selector: 'rb-question-pack',
  imports: [Field, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (problem(); as why) {
      <p class="problem" role="alert">{{ why }}</p>
    }
    <div class="screen-only">
      <rb-field [meta]="seen" [live]="true" [value]="typed()" (changed)="typed.set($event)" />
      <p>
        <button mat-flat-button type="button" (click)="copy()">Copy the page</button>
        <span role="status">{{ said() }}</span>
      </p>
      <p class="hint">
        Left out: notes, names of the setup and its items, serial numbers, people. Read it before it
        goes out.
      </p>
    </div>
    <pre #page tabindex="0" aria-label="Question pack">{{ text() }}</pre>
  `,
  styles: `
    .screen-only {
      display: grid;
      gap: 4px;
      max-width: 720px;
    }
    pre {
      font-family: inherit;
      white-space: pre-wrap;
      overflow-wrap: anywhere;
      border: 1px solid var(--line);
      padding: 12px;
      max-width: 720px;
      margin-top: 8px;
    }
  `,
})
export class QuestionPack {
  readonly #acts = inject(Acts);
  readonly #data = inject(SetupsData);
  readonly #run = inject(BringUpRun);
  readonly #readings = inject(LinkReadings);
  readonly #editor = inject(SetupEditor);
  readonly page = viewChild.required<ElementRef<HTMLElement>>('page');
  readonly events = signal<SetupEvent[]>([]);
  readonly problem = signal<string | null>(null);
  readonly seen: FieldMeta = {
    label: 'Current symptoms',
    input: 'area',
    max: 1000,
    help: 'One a line; not stored',
  };
  readonly typed = signal('');
  readonly said = signal('');
  readonly #lines = computed(() =>
    linesOf(this.events(), (id) => this.#run.title(id)).filter((l) => l.corrections.length === 0),
  );
  /** What was seen when it last went wrong. */
  readonly #symptoms = computed(() => {
    const bad = this.#lines().find((l) => l.group === 'fault' && l.event.kind === 'outcome');
    const of = bad?.event.body['symptoms'];
    const on = bad ? day(bad.event.happenedAt.slice(0, 10)) : '';
    return Array.isArray(of) ? of.map((s) => `${String(s)} (${on})`) : [];
  });
  readonly text = computed(() => {
    const j = this.#editor.judgement();
    const own = this.typed()
      .split('\n')
      .map((l) => l.trim())
      .filter((l) => l !== '');
    const good = this.#run.stored()?.good;
    return packText({
      parts: j ? partsOf(j.chain) : [],
      installed: j?.chain.installed ?? NOTHING_INSTALLED,
      predicted: j ? verdictSentence(j.evaluation) : 'not judged yet',
      symptoms: [...new Set([...own, ...this.#symptoms()])],
      tried: this.#lines()
        .filter(
          (l) => TRIES.includes(l.group) && l.event.kind !== 'created' && l.event.kind !== 'cloned',
        )
        .slice(0, TRIED)
        .map((l) => ({
          on: day(l.event.happenedAt.slice(0, 10)),
          what: l.event.kind === 'outcome' ? 'Outcome' : l.kind,
          ended: [l.what, ...l.more.filter((m) => !m.startsWith('Note:'))].join('; '),
        })),
      readings: (this.#readings.entries() ?? [])
        .slice(0, READ)
        .map((r) => ({ on: day(r.happenedAt.slice(0, 10)), words: r.sentence })),
      lastGood: good
        ? `${day(good.at.slice(0, 10))}, ${installedWords(good.installed) || 'versions not noted'}`
        : '',
    });
  });

  constructor() {
    effect(() => {
      const id = this.#editor.stored()?.id;
      if (id)
        untracked(() =>
          this.#acts.read(this.#data.record(id), {
            line: this.problem,
            then: (r) => this.events.set(r.items),
          }),
        );
    });
  }

  copy(): void {
    navigator.clipboard.writeText(this.text()).then(
      () => this.said.set('Copied.'),
      () => {
        // Where the browser does not let a page copy, the text is marked so that the person can.
        const range = document.createRange();
        range.selectNodeContents(this.page().nativeElement);
        const marked = window.getSelection();
        marked?.removeAllRanges();
        marked?.addRange(range);
        this.said.set('Marked: copy it with Ctrl+C.');
      },
    );
  }
}
