import { inject, Injectable, signal } from '@angular/core';
import { v7 } from 'uuid';
import type { Outcome, StepId } from '@ruddy/core/base';
import type { Step } from '@ruddy/core/bring-up';
import type { StepBody } from '@ruddy/core/bring-up/contract';
import type { CameBackWrong } from '@ruddy/core/setups';
import { SetupEditor } from '../setups/setup-editor';

export interface Draft {
  readonly installed: Readonly<Record<string, string>>;
  readonly settings: Readonly<Record<string, string | null>>;
  readonly wrong: readonly CameBackWrong[];
  readonly outcome: Outcome | null;
  readonly good: boolean;
  readonly note: string;
}
const FRESH: Draft = {
  installed: {},
  settings: {},
  wrong: [],
  outcome: null,
  good: true,
  note: '',
};

/** What is typed at steps and not noted yet; looking at another step loses none of it. */
@Injectable()
export class StepDrafts {
  readonly #editor = inject(SetupEditor);
  readonly #all = signal<Partial<Record<StepId, Draft>>>({});

  of(id: StepId): Draft {
    return this.#all()[id] ?? FRESH;
  }

  change(id: StepId, change: Partial<Draft>): void {
    this.#all.update((all) => ({ ...all, [id]: { ...(all[id] ?? FRESH), ...change } }));
  }

  /** Drops what the server has confirmed. What was refused, or is on its way, stays as typed. */
  confirmed(steps: readonly { readonly step: StepId; readonly state: string }[]): void {
    const last = new Map(steps.map((s) => [s.step, s.state]));
    const open = Object.entries(this.#all()).filter(([id]) => last.get(id as StepId) !== 'done');
    this.#all.set(Object.fromEntries(open));
  }

  /** The version or setting as it stands at a step: as typed, otherwise as the setup has it. */
  version(id: StepId, role: string): string {
    return this.of(id).installed[role] ?? this.#versions()[role] ?? '';
  }

  setting(id: StepId, key: string): string | null {
    const typed = this.of(id).settings[key];
    if (typed !== undefined) return typed;
    const value = (this.#editor.fields()?.settings as Record<string, unknown> | undefined)?.[key];
    return typeof value === 'string' ? value : null;
  }

  #versions(): Record<string, string> {
    return { ...this.#editor.fields()?.installed };
  }

  /** What goes with a step that is done: what was met at it, changed or not. */
  met(
    step: Step,
  ): Partial<Pick<StepBody, 'installed' | 'settings' | 'wrong' | 'outcome' | 'ends'>> {
    const d = this.of(step.id);
    const roles = step.fields.flatMap((f) => (f.kind === 'version' ? [f.role] : []));
    const keys = step.fields.flatMap((f) => (f.kind === 'setting' ? [f.key] : []));
    const met: Record<string, unknown> = {
      installed: Object.fromEntries(roles.map((r) => [r, this.version(step.id, r).trim()])),
      settings: Object.fromEntries(keys.map((k) => [k, this.setting(step.id, k)])),
    };
    if (step.fields.some((f) => f.kind === 'wrong')) met['wrong'] = d.wrong;
    if (d.outcome !== null && step.fields.some((f) => f.kind === 'outcome'))
      met['outcome'] = {
        id: v7(),
        outcome: d.outcome,
        note: d.note,
        good: d.good && d.outcome !== 'fails',
      };
    return met;
  }
}
