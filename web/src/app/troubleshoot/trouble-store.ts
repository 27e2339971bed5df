import { computed, DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { v7 } from 'uuid';
import type { CauseId, SymptomId, TestId } from '@ruddy/core/base';
import { noteMinutes } from '@ruddy/core/bench';
import { sinceGood } from '@ruddy/core/bring-up';
import { classifyRuns } from '@ruddy/core/runs';
import {
  advise,
  type Answer,
  answersOf,
  byPlace,
  type FixResult,
  priorMultipliers,
  priorMultipliersOfEntered,
  netFor,
  NOTHING_SEEN,
  runAnswers,
  type Says,
  seenOf,
  type Tables,
  type TroubleNote,
  troubleState,
  twoAtOnce,
} from '@ruddy/core/troubleshoot';
import type {
  TablesRead,
  TroubleBody,
  TroubleNoteBody,
  TroubleRow,
  Troubles,
} from '@ruddy/core/troubleshoot/contract';
import { CAUSE_WORDS } from '@ruddy/core/troubleshoot/text';
import { OfflineQueue } from '../platform/queue/offline-queue';
import { BringUpRun } from '../bring-up/bring-up-run';
import { LinkReadings } from '../bring-up/link-readings';
import { RunsData } from '../runs/runs';
import { SetupEditor } from '../setups/setup-editor';
import { Posterior } from '../chain/suspicion';
import { TroubleData } from './trouble';
import { ServerClock } from '../platform/shared/server-clock';
import { Acts } from '../platform/kit/ask';

/** A reading that is older says how it was then, not what is wrong now. */
const FRESH_MS = 24 * 3_600_000;

type Closing = Extract<TroubleNote, { what: 'closed' }>;

/**
 * A search for the cause on the setup that is open. In: its chain and plan, the net with what this workshop counted and set, what was
 * noted. Out: the suspects, what to try next, and what a person does with it. What waits to be stored counts already.
 */
@Injectable()
export class TroubleStore {
  readonly #acts = inject(Acts);
  readonly #data = inject(TroubleData);
  readonly #editor = inject(SetupEditor);
  readonly #readings = inject(LinkReadings);
  readonly #run = inject(BringUpRun);
  readonly #runs = inject(RunsData);
  readonly #clock = inject(ServerClock);
  readonly #suspicion = inject(Posterior);
  readonly outbox = inject(OfflineQueue);
  readonly #stored = signal<readonly TroubleRow[] | null>(null);
  readonly tablesRead = signal<TablesRead | null>(null);
  readonly problem = signal<string | null>(null);
  /** A picture comes first: no suspicion is shown before. */
  readonly quiet = signal(false);
  readonly #engines = signal<ReadonlyMap<string, string>>(new Map());
  readonly #runsSeen = signal<Parameters<typeof runAnswers>[0]>([]);
  readonly #id = computed(() => this.#editor.stored()?.id ?? null);

  /** Searches, oldest first, with what still waits to be stored. */
  readonly troubles = computed<readonly TroubleRow[] | null>(() => {
    const stored = this.#stored();
    if (!stored) return null;
    const all = new Map(stored.map((t) => [t.id, { ...t, notes: [...t.notes] }]));
    for (const w of this.outbox.waiting()) {
      if (w.path === 'troubles') {
        const b = w.body as unknown as Required<TroubleBody> & { happenedAt: string };
        const at = b.happenedAt;
        const tests = b.answers.map((a) => ({
          id: a.id,
          at,
          note: {
            what: 'test' as const,
            test: a.test,
            says: a.says,
            by: 'reading' as const,
            words: '',
          },
        }));
        const first = { id: b.id, at, note: { what: 'seen' as const, symptoms: b.symptoms } };
        if (!all.has(b.id))
          all.set(b.id, {
            id: b.id,
            at,
            by: '',
            from: b.from as TroubleRow['from'],
            said: null,
            notes: [first, ...tests],
          });
      } else if (w.path.startsWith('troubles/')) {
        const b = w.body as unknown as TroubleNoteBody & { happenedAt: string; note: TroubleNote };
        const t = all.get(w.path.split('/')[1] ?? '');
        if (w.path.endsWith('/undo')) t?.notes.pop();
        else if (t && !t.notes.some((n) => n.id === b.id))
          t.notes.push({
            id: b.id,
            at: b.happenedAt,
            note: b.note as TroubleRow['notes'][number]['note'],
          });
      }
    }
    return [...all.values()];
  });
  readonly current = computed<TroubleRow | null>(
    () =>
      [...(this.troubles() ?? [])]
        .reverse()
        .find((t) => !t.notes.some((n) => n.note.what === 'closed')) ?? null,
  );
  readonly past = computed(() =>
    [...(this.troubles() ?? [])].reverse().filter((t) => t.id !== this.current()?.id),
  );
  readonly standing = computed(() => {
    const t = this.current();
    return t
      ? troubleState(
          t.notes.map((n) => n.note as TroubleNote),
          noteMinutes,
        )
      : null;
  });
  readonly tables = computed<Tables>(() => {
    const t = this.tablesRead();
    return {
      edits: Object.fromEntries((t?.figures ?? []).map((f) => [f.key, f.value])),
      counts: t?.counts ?? {},
    };
  });
  readonly net = computed(() => {
    const j = this.#editor.judgement();
    const said = this.current()?.said ?? null;
    return j
      ? netFor(
          j.chain,
          this.tables(),
          [...priorMultipliers(j.evaluation), ...priorMultipliersOfEntered(said)],
          said,
        )
      : null;
  });
  readonly advice = computed(() => {
    const net = this.net();
    const s = this.standing();
    return net && s ? advise(net, s.clues, s.refused) : null;
  });
  readonly pair = computed(() => {
    const net = this.net();
    const s = this.standing();
    return net && s ? twoAtOnce(net, s.clues) : null;
  });
  /** What changed since the state marked as good. */
  readonly since = computed(() => {
    const good = this.#run.stored()?.good;
    const j = this.#editor.judgement();
    return good && j ? sinceGood(good, j.chain) : [];
  });
  readonly goodKnown = computed(() => (this.#run.stored()?.good ?? null) !== null);
  /** Tests that the newest reading, the versions and the runs answer by themselves. */
  readonly known = computed<Answer[]>(() => {
    const newest = this.#readings.entries()?.[0];
    const fresh =
      newest && Date.parse(this.#clock.now()) - Date.parse(newest.happenedAt) < FRESH_MS
        ? newest
        : null;
    const j = this.#editor.judgement();
    const { report } = fresh?.reading ?? {};
    const seen = report && j ? seenOf(report, j.evaluation.predicted.link.kind) : NOTHING_SEEN;
    const read = fresh ? answersOf(seen, this.#readings.check()) : [];
    const changed: Answer[] =
      this.since().length > 0 ? [{ test: 'versions-changed', yes: true }] : [];
    return [...read, ...changed, ...this.fromRuns().answers];
  });
  readonly fromRuns = computed(() => {
    const engines = this.#engines();
    return runAnswers(this.#runsSeen().map((r) => ({ ...r, engine: engines.get(r.title) ?? '' })));
  });

  constructor() {
    effect(() => {
      const id = this.#id();
      untracked(() => {
        this.#stored.set(null);
        if (id) this.#load(id);
      });
    });
    this.#acts.read(this.#data.tables(), {
      line: this.problem,
      failed: 'Counts of the log were not read, the figures are as they shipped:',
      then: (t) => this.tablesRead.set(t),
    });
    this.#acts.read(this.#runs.profiles(), {
      line: this.problem,
      failed: 'Titles were not read:',
      then: (list) => this.#engines.set(new Map(list.map((p) => [p.name, p.engine]))),
    });
    effect(() => {
      const a = this.quiet() ? null : this.advice();
      const cause = a ? CAUSE_WORDS[a.top.cause].what.toLowerCase() : '';
      this.#suspicion.shown.set(a ? { places: byPlace(a.suspects), cause } : null);
    });
    const stop = this.outbox.answer('troubles', (answer) =>
      this.#stored.set((answer as Troubles).troubles),
    );
    inject(DestroyRef).onDestroy(() => {
      stop();
      this.#suspicion.shown.set(null);
    });
  }

  /** Begin to look for the cause of what is seen. Tests already answered by readings that are about it come along. */
  open(
    symptoms: readonly SymptomId[],
    from: TroubleRow['from'] = { kind: 'symptom', what: '' },
  ): void {
    if (symptoms.length === 0 || this.current()) return;
    this.#editor.flush();
    const answers = this.known().map((a) => ({
      id: v7(),
      test: a.test,
      says: a.yes ? 'yes' : 'no',
    }));
    this.outbox.send('troubles', {
      id: v7(),
      symptoms,
      from,
      said: null,
      answers,
      happenedAt: this.#clock.now(),
    });
  }

  see(symptoms: readonly SymptomId[]): void {
    this.#note({ what: 'seen', symptoms });
  }

  answer(test: TestId, says: Says, words = ''): void {
    this.#note({ what: 'test', test, says, by: 'hand', words });
  }

  fix(cause: CauseId, result: FixResult, words = ''): void {
    this.#note({ what: 'fix', cause, result, words });
  }

  close(closing: Omit<Closing, 'what'>, more: Pick<TroubleNoteBody, 'log' | 'retire'> = {}): void {
    this.#note({ what: 'closed', ...closing }, more);
  }

  /** Take the last note back; the first one stays. */
  undo(): void {
    const t = this.current();
    const last = t?.notes[t.notes.length - 1];
    if (!t || !last || t.notes.length < 2) return;
    this.outbox.send(`troubles/${t.id}/undo`, { id: v7() });
  }

  took(tables: TablesRead): void {
    this.tablesRead.set(tables);
  }

  #note(note: TroubleNote, more: Pick<TroubleNoteBody, 'log' | 'retire'> = {}): void {
    const t = this.current();
    if (t)
      this.outbox.send(`troubles/${t.id}/notes`, {
        id: v7(),
        note,
        happenedAt: this.#clock.now(),
        ...more,
      });
  }

  #load(id: string): void {
    this.#acts.read(this.#data.ofSetup(id), {
      line: this.problem,
      failed: 'Searches of this setup were not read:',
      then: (t) => {
        if (this.#id() === id) this.#stored.set(t.troubles);
      },
    });
    this.#acts.read(this.#runs.all({ setupId: id }), {
      line: this.problem,
      failed: 'Runs were not read:',
      then: (items) => {
        if (this.#id() !== id) return;
        const classes = classifyRuns(items);
        this.#runsSeen.set(items.map((r) => ({ ...r, class: classes.get(r.id) })));
      },
    });
  }
}
