import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { type Outcome, OUTCOMES } from '@ruddy/core/base';
import { pinsLeft, type StepStatus } from '@ruddy/core/bring-up';
import { pinWords } from '@ruddy/core/compatibility/text';
import { attributesOf, settingsSchema, SOFTWARE_NAMES, type SoftwareRole } from '@ruddy/core/parts';
import { CAME_BACK_WRONG, type CameBackWrong } from '@ruddy/core/setups';
import { BringUpRun } from './bring-up-run';
import { SetupEditor } from '../setups/setup-editor';
import { OUTCOME_WORDS } from '../plan/record/outcome-form';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';
import { Choice } from '../platform/kit/choice';
import { ButtonsPanel } from './buttons-panel';
import { ProfilesPanel } from './profiles-panel';
import { ProgramsPanel } from './programs-panel';
import { StepDrafts } from './step-draft';
import { Field } from '../platform/kit/field';

const SETTINGS = new Map(attributesOf(settingsSchema));

const versionMeta = (role: SoftwareRole): FieldMeta => ({
  label: SOFTWARE_NAMES[role],
  input: 'text',
  max: 60,
  placeholder: 'not known',
});

/** What is noted at a step: versions with what they were, settings, what came back wrong, the outcome. */
@Component({
  selector: 'rb-step-fields',
  imports: [ButtonsPanel, Choice, Field, ProfilesPanel, ProgramsPanel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (v of versions(); track v.role) {
      <div>
        <rb-field
          [meta]="v.meta"
          [live]="true"
          [value]="drafts.version(id(), v.role)"
          (changed)="version(v.role, $event)"
        />
        <span class="hint">{{ before(v.role) }}</span>
        @if (pinLeft(v.role); as words) {
          <p class="pin" role="alert">{{ words }}</p>
        }
      </div>
    }
    @for (s of settings(); track s.key) {
      <rb-choice
        [label]="s.label"
        [options]="s.options"
        [value]="drafts.setting(id(), s.key)"
        (chosen)="setting(s.key, $event)"
        [named]="true"
      />
    }
    @if (has('profiles')) {
      <rb-profiles-panel />
    }
    @if (has('programs')) {
      <rb-programs-panel />
    }
    @if (has('buttons')) {
      <rb-buttons-panel />
    }
    @if (asks('wrong')) {
      <rb-choice
        label="Came back wrong"
        [options]="wrongs"
        [value]="drafts.of(id()).wrong"
        (chosen)="wrong($event)"
        [named]="true"
      />
      <span class="hint">{{ wrongSoFar() }}</span>
    }
    @if (asks('outcome')) {
      <rb-choice
        label="How it went"
        [options]="outcomes"
        [value]="drafts.of(id()).outcome"
        (chosen)="outcome($event)"
        [named]="true"
      />
      <rb-field
        [meta]="good"
        [value]="drafts.of(id()).good"
        (changed)="drafts.change(id(), { good: $event })"
      />
      <rb-field
        [meta]="note"
        [live]="true"
        [value]="drafts.of(id()).note"
        (changed)="drafts.change(id(), { note: $event })"
      />
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr);
      gap: 12px;
    }
    :host:empty {
      display: none;
    }
    .pin {
      border-left: 4px solid var(--ochre);
      padding-left: 8px;
    }
  `,
})
export class StepFields {
  readonly drafts = inject(StepDrafts);
  readonly #editor = inject(SetupEditor);
  readonly #run = inject(BringUpRun);
  readonly standing = input.required<StepStatus>();
  readonly id = computed(() => this.standing().step.id);
  readonly good: FieldMeta = {
    label: 'Mark as the last known good, with the current versions',
    input: 'flag',
  };
  readonly note: FieldMeta = { label: 'Note, stays private', input: 'area', max: 2000 };
  readonly wrongs = optionsOf(CAME_BACK_WRONG);
  readonly outcomes = OUTCOMES.map((value) => ({ value, label: OUTCOME_WORDS[value] }));

  readonly versions = computed(() =>
    this.standing().step.fields.flatMap((f) =>
      f.kind === 'version' ? [{ role: f.role, meta: versionMeta(f.role) }] : [],
    ),
  );
  readonly settings = computed(() =>
    this.standing().step.fields.flatMap((f) => {
      const meta = f.kind === 'setting' ? SETTINGS.get(f.key) : undefined;
      return f.kind === 'setting' && meta
        ? [{ key: f.key, label: meta.label, options: meta.options ?? [] }]
        : [];
    }),
  );

  has(panel: string): boolean {
    return this.standing().step.fields.some((f) => f.kind === 'docked' && f.panel === panel);
  }

  asks(kind: string): boolean {
    return this.standing().step.fields.some((f) => f.kind === kind);
  }

  /** What came back wrong at this step before, and how often. */
  readonly wrongSoFar = computed(() => {
    const mine = this.#run
      .steps()
      .filter((s) => s.step === this.id() && s.state === 'done' && s.wrong !== null);
    const counts = Object.entries(CAME_BACK_WRONG).flatMap(([key, label]) => {
      const n = mine.filter((s) => s.wrong?.some((w) => w === key)).length;
      return n === 0 ? [] : [`${label.toLowerCase()} ${n} of ${mine.length}`];
    });
    return mine.length === 0
      ? 'Not looked at before.'
      : `So far: ${counts.join(', ') || `nothing in ${mine.length}`}.`;
  });

  /** What the setup had before this step. */
  before(role: SoftwareRole): string {
    const typed = this.drafts.of(this.id()).installed[role];
    const stored = this.#editor.fields()?.installed[role] ?? '';
    if (typed === undefined || typed.trim() === stored)
      return stored === '' ? '' : 'as noted before';
    return `before: ${stored || 'not known'}`;
  }

  /** Said while it is typed, before the step is noted. */
  pinLeft(role: SoftwareRole): string | null {
    const pins = (this.#editor.fields()?.pins ?? []).filter((p) => p.role === role);
    const left = pinsLeft(pins, { [role]: this.drafts.version(this.id(), role) })[0];
    return left ? pinWords({ ...left, name: SOFTWARE_NAMES[role] }) : null;
  }

  version(role: SoftwareRole, value: string): void {
    this.drafts.change(this.id(), {
      installed: { ...this.drafts.of(this.id()).installed, [role]: value },
    });
  }

  setting(key: string, value: string | null): void {
    this.drafts.change(this.id(), {
      settings: { ...this.drafts.of(this.id()).settings, [key]: value },
    });
  }

  wrong(value: string | null): void {
    const list = this.drafts.of(this.id()).wrong;
    const w = value as CameBackWrong;
    this.drafts.change(this.id(), {
      wrong: list.includes(w) ? list.filter((x) => x !== w) : [...list, w],
    });
  }

  outcome(value: string | null): void {
    this.drafts.change(this.id(), { outcome: value as Outcome | null });
  }
}
