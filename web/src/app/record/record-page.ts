import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router } from '@angular/router';
import { v7 } from 'uuid';
import type { OutcomeEntry, SetupEvent } from '@ruddy/core/api';
import type { Outcome } from '@ruddy/core/log';
import { SOFTWARE_NAMES, type SoftwareRole } from '@ruddy/core/schema';
import type { ApiProblem } from '../data/api';
import { SetupEditor } from '../data/setup-editor';
import { SetupsData } from '../data/setups';
import { counted, day } from '../shared/format';
import { ServerClock } from '../shared/server-clock';
import { WordAsks } from '../shared/word-asks';
import { OUTCOME_WORDS, OutcomeForm, type Correction } from './outcome-form';
import { versionWords } from './version-words';

interface Line {
  event: SetupEvent;
  kind: string;
  what: string;
  more: string[];
  outcome: Outcome | null;
  correctedBy: string | null;
}

const FILTERS = {
  all: 'everything',
  outcome: 'outcomes',
  reading: 'readings',
  parts: 'parts',
  version: 'versions',
  note: 'notes',
} as const;

function strings(value: unknown): string[] {
  return Array.isArray(value) ? value.map(String) : [];
}

function outcomeLines(body: Record<string, unknown>): string[] {
  const versions = versionWords((body['versions'] ?? {}) as OutcomeEntry['versions']);
  const note = typeof body['note'] === 'string' ? body['note'] : '';
  return [
    versions ? `Under ${versions}` : 'Versions not noted',
    strings(body['symptoms']).length > 0 ? `Seen: ${strings(body['symptoms']).join('; ')}` : '',
    strings(body['fixes']).length > 0 ? `Changed: ${strings(body['fixes']).join('; ')}` : '',
    note ? `Note: ${note}` : '',
  ].filter((s) => s !== '');
}

function lineOf(e: SetupEvent): Omit<Line, 'event' | 'correctedBy'> {
  const b = e.body;
  switch (e.kind) {
    case 'created':
      return { kind: 'Start', what: `Started as "${String(b['name'])}"`, more: [], outcome: null };
    case 'cloned':
      return { kind: 'Start', what: `Copied from "${String(b['from'])}"`, more: [], outcome: null };
    case 'state':
      return { kind: 'State', what: `From ${String(b['from'])} to ${String(b['to'])}`, more: [], outcome: null };
    case 'parts': {
      const list = (b['changes'] ?? []) as { slot: string; from: string; to: string }[];
      return {
        kind: 'Parts',
        what: list.map((c) => `${c.slot}: ${c.from || 'nothing'} to ${c.to || 'nothing'}`).join('; '),
        more: [],
        outcome: null,
      };
    }
    case 'outcome': {
      const outcome = b['outcome'] as Outcome;
      return { kind: 'Outcome', what: OUTCOME_WORDS[outcome], more: outcomeLines(b), outcome };
    }
    case 'reading': {
      const note = String((b['reading'] as { note?: string } | undefined)?.note ?? '');
      return { kind: 'Reading', what: String(b['sentence'] ?? ''), more: note ? [`Note: ${note}`] : [], outcome: null };
    }
    case 'version': {
      const name = SOFTWARE_NAMES[b['what'] as SoftwareRole] ?? 'Version';
      return {
        kind: 'Version',
        what: `${name}: ${String(b['from']) || 'not known'} to ${String(b['to'])}`,
        more: [],
        outcome: null,
      };
    }
    default:
      return { kind: e.kind === 'note' ? 'Note' : 'Name', what: String(b['text'] ?? ''), more: [], outcome: null };
  }
}

/** Record: what happened with this setup, and the place to log the next thing. */
@Component({
  imports: [OutcomeForm, MatButtonModule, WordAsks],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './record-page.html',
  styleUrl: './record-page.scss',
})
export class RecordPage {
  readonly #data = inject(SetupsData);
  readonly #router = inject(Router);
  readonly #clock = inject(ServerClock);
  readonly editor = inject(SetupEditor);
  readonly show = input<string>();
  readonly filters = Object.entries(FILTERS);
  readonly events = signal<SetupEvent[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly noteWords = signal('');
  readonly noteProblem = signal<string | null>(null);
  readonly said = signal<string | null>(null);
  readonly correcting = signal<Correction | null>(null);
  readonly day = day;
  readonly filter = computed(() => Object.keys(FILTERS).find((f) => f === this.show()) ?? 'all');
  readonly id = computed(() => this.editor.stored()?.id ?? null);
  readonly lines = computed<Line[]>(() => {
    const events = this.events() ?? [];
    const corrected = new Map(events.flatMap((e) => (e.corrects ? [[e.corrects, e.id] as const] : [])));
    return events.map((event) => ({ event, ...lineOf(event), correctedBy: corrected.get(event.id) ?? null }));
  });
  readonly shown = computed(() => this.lines().filter((l) => this.filter() === 'all' || l.event.kind === this.filter()));
  readonly headline = computed(() => {
    const lines = this.lines().filter((l) => l.outcome && !l.correctedBy);
    const last = lines[0];
    if (this.events() === null) return 'Reading the record …';
    if (!last) return '0 outcomes logged for this setup yet.';
    return `${counted(lines.length, 'outcome')} logged; the newest, ${day(last.event.happenedAt.slice(0, 10))}: ${last.what.toLowerCase()}.`;
  });

  constructor() {
    effect(() => {
      const id = this.id();
      if (id) untracked(() => this.#load(id));
    });
  }

  choose(filter: string): void {
    void this.#router.navigate([], {
      queryParams: { show: filter === 'all' ? null : filter },
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }

  stored(): void {
    this.correcting.set(null);
    this.said.set('Logged.');
    this.editor.refresh();
    const id = this.id();
    if (id) this.#load(id);
  }

  correct(l: Line): void {
    if (!l.outcome) return;
    this.correcting.set({ id: l.event.id, outcome: l.outcome, happenedOn: l.event.happenedAt.slice(0, 10) });
    queueMicrotask(() => document.querySelector<HTMLElement>('rb-outcome-form input')?.focus());
  }

  addNote(box: HTMLTextAreaElement): void {
    const [id, text] = [this.id(), box.value.trim()];
    if (!id) return;
    if (text === '') {
      this.noteProblem.set('Nothing stored. Note: must not be empty');
      return;
    }
    this.#data.addNote(id, { id: v7(), text, happenedOn: this.#clock.today() }).subscribe({
      next: (r) => {
        box.value = '';
        this.noteWords.set('');
        this.noteProblem.set(null);
        this.events.set(r.items);
      },
      error: (e: ApiProblem) => this.noteProblem.set(`Nothing stored. ${e.message}`),
    });
  }

  #load(id: string): void {
    this.#data
      .record(id)
      .subscribe({ next: (r) => this.events.set(r.items), error: (e: ApiProblem) => this.problem.set(e.message) });
  }
}
