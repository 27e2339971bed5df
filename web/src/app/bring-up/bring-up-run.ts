import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { v7 } from 'uuid';
import {
  type DriverSchool,
  type OrderId,
  type Purpose,
  RuleBook,
  type StepId,
} from '@ruddy/core/base';
import {
  adviseOrder,
  checklist,
  type ListInput,
  noted,
  orderChoices,
  progress,
  slotNames,
  stand,
  stepFacts,
} from '@ruddy/core/bring-up';
import type { AttemptRow, BringUp, StepBody, StepRow } from '@ruddy/core/bring-up/contract';
import { STEP_WORDS } from '@ruddy/core/bring-up/text';
import { NO_DOCKED } from '@ruddy/core/setups';
import { ServerClock } from '../platform/shared/server-clock';
import { OfflineQueue } from '../platform/queue/offline-queue';
import { LinkReadings } from './link-readings';
import { SetupEditor } from '../setups/setup-editor';
import { SetupsData } from '../setups/setups';
import { Acts } from '../platform/kit/ask';

type Sent = Omit<StepBody, 'id' | 'attempt' | 'about' | 'happenedAt'>;

/**
 * A setup being brought up: its attempts, the list of its chain, and how each step stands. In: the setup and its judgement, what was
 * noted, the log. Out: the list, and what a person does with a step. What waits to be stored counts already.
 */
@Injectable()
export class BringUpRun {
  readonly #acts = inject(Acts);
  readonly #data = inject(SetupsData);
  readonly #editor = inject(SetupEditor);
  readonly #readings = inject(LinkReadings);
  readonly #clock = inject(ServerClock);
  readonly outbox = inject(OfflineQueue);
  readonly stored = signal<BringUp | null>(null);
  readonly problem = signal<string | null>(null);
  readonly purpose = signal<Purpose>('bring-up');
  /** The step that is looked at is about the link: the strip is full then. */
  readonly atLink = signal(false);
  readonly #order = signal<OrderId | null>(null);
  readonly #driver = signal<DriverSchool | null>(null);
  readonly #id = computed(() => this.#editor.stored()?.id ?? null);

  readonly attempts = computed<readonly AttemptRow[]>(() => {
    const known = this.stored()?.attempts ?? [];
    const waiting = this.outbox
      .waiting()
      .flatMap((w) => (w.path === 'attempts' ? [w.body as unknown as AttemptRow] : []));
    const fresh = waiting.filter((w) => !known.some((a) => a.id === w.id));
    return [
      ...known,
      ...fresh.map((w, i) => ({
        ...w,
        no: known.length + i + 1,
        build: this.build(),
        startedAt: this.#clock.now(),
        ended: null,
      })),
    ];
  });
  /** The attempt that is going on for this list. */
  readonly attempt = computed(
    () =>
      [...this.attempts()]
        .reverse()
        .find((a) => a.purpose === this.purpose() && a.ended === null) ?? null,
  );
  readonly build = computed(() => this.#editor.fields()?.installed.systemBuild ?? '');
  readonly steps = computed<readonly StepRow[]>(() => {
    const known = this.stored()?.steps ?? [];
    const waiting = this.outbox
      .waiting()
      .flatMap((w) => (w.path === 'steps' ? [w.body as unknown as StepRow] : []));
    const no = (id: string) => this.attempts().find((a) => a.id === id)?.no ?? 0;
    return [
      ...known,
      ...waiting.map((w) => ({
        ...w,
        no: no(w.attempt),
        at: this.#clock.now(),
        by: '',
        noted: [],
      })),
    ];
  });

  readonly #judged = computed(() => this.#editor.judgement());
  readonly #docked = computed(() => this.#editor.fields()?.docked ?? NO_DOCKED);
  readonly choices = computed(() => {
    const j = this.#judged();
    if (!j) return [];
    const { predicted, findings } = j.evaluation;
    return orderChoices({
      kind: predicted.link.kind,
      docked: this.#docked(),
      has: (code) => findings.some((f) => f.code === code),
    });
  });
  readonly advice = computed(() =>
    adviseOrder(this.choices(), this.stored()?.tried ?? [], this.build()),
  );
  /** The order of the attempt; before one, what the person chose or the log leads to. */
  readonly order = computed<OrderId>(() => {
    const mine = this.#order();
    const allowed =
      mine !== null && this.choices().some((c) => c.id === mine && c.state !== 'shut');
    // The chain may have become another since the attempt was begun.
    const begun = this.attempt()?.order;
    if (begun !== undefined && this.choices().some((c) => c.id === begun && c.state !== 'shut'))
      return begun;
    return allowed ? mine : (this.#again() ?? this.advice().order);
  });
  readonly driver = computed<DriverSchool>(() => {
    const rule =
      new RuleBook(this.#readings.house()).get('steps.driverBefore') === 1 ? 'before' : 'after';
    return this.attempt()?.driver ?? this.#driver() ?? rule;
  });
  readonly input = computed<ListInput | null>(() => {
    const j = this.#judged();
    if (!j) return null;
    const attempt = this.attempt();
    return {
      chain: j.chain,
      evaluation: j.evaluation,
      house: this.#readings.house(),
      docked: this.#docked(),
      purpose: this.purpose(),
      order: this.order(),
      driver: this.driver(),
      times: new Map((this.stored()?.times ?? []).map(({ step, ...t }) => [step, t] as const)),
      ...(attempt && { keep: noted(this.steps(), attempt.id) }),
    };
  });
  readonly facts = computed(() => {
    const i = this.input();
    return i ? stepFacts(i) : null;
  });
  readonly now = computed(() => {
    const j = this.#judged();
    return j ? slotNames(j.chain) : {};
  });
  readonly list = computed(() => {
    const i = this.input();
    return i ? stand(checklist(i), this.steps(), this.attempt()?.id ?? null, this.now()) : [];
  });
  readonly progress = computed(() => progress(this.list()));

  constructor() {
    effect(() => {
      const id = this.#id();
      untracked(() => {
        this.stored.set(null);
        this.#order.set(null);
        this.#driver.set(null);
        if (id) this.#open(id);
      });
    });
  }

  /** Leaving goes the way this setup came up last. */
  #again(): OrderId | null {
    if (this.purpose() === 'bring-up') return null;
    const last = [...this.attempts()]
      .reverse()
      .find((a) => a.purpose !== 'undock' && a.ended?.worked === true);
    return last && this.choices().some((c) => c.id === last.order && c.state !== 'shut')
      ? last.order
      : null;
  }

  /** What a step is called on this chain; its short name while that is not judged. */
  title(id: StepId): string {
    const facts = this.facts();
    return facts ? STEP_WORDS[id](facts).title : id;
  }

  choose(order: OrderId): void {
    this.#order.set(order);
  }

  chooseDriver(driver: DriverSchool): void {
    this.#driver.set(driver);
  }

  begin(): void {
    this.#editor.flush();
    this.outbox.send('attempts', {
      id: v7(),
      purpose: this.purpose(),
      order: this.order(),
      driver: this.driver(),
      happenedAt: this.#clock.now(),
    });
  }

  /** Note how a step went. The time is that of the press, also when it is sent later. */
  note(sent: Sent): void {
    const attempt = this.attempt();
    if (!attempt) return;
    this.#editor.flush();
    const step = this.list().find((s) => s.step.id === sent.step)?.step;
    const about = Object.fromEntries(
      (step?.about ?? []).map((slot) => [slot, this.now()[slot] ?? '']),
    );
    this.outbox.send('steps', {
      id: v7(),
      attempt: attempt.id,
      about,
      happenedAt: this.#clock.now(),
      ...this.#blank(),
      ...sent,
    });
  }

  #blank(): object {
    return {
      reason: '',
      symptom: null,
      installed: {},
      settings: {},
      wrong: null,
      outcome: null,
      ends: false,
    };
  }

  end(outcome: 'failed' | 'left'): void {
    const attempt = this.attempt();
    if (attempt)
      this.outbox.send(`attempts/${attempt.id}/end`, {
        id: v7(),
        outcome,
        happenedAt: this.#clock.now(),
      });
  }

  reload(): void {
    const id = this.#id();
    if (id) this.#read(id);
  }

  #open(id: string): void {
    this.outbox.open(id, (answer) => this.#take(answer));
    this.#read(id);
  }

  #read(id: string): void {
    this.#acts.read(this.#data.bringUp(id), {
      line: this.problem,
      failed: 'Attempts were not read:',
      then: (answer) => {
        if (this.#id() === id) this.#take(answer);
      },
    });
  }

  #take(answer: BringUp): void {
    this.problem.set(null);
    this.stored.set(answer);
    this.#editor.adopt(answer.setup);
  }
}
