import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  untracked,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { type Purpose, PURPOSES } from '@ruddy/core/base';
import { linkCheckHeadline, progressHeadline, startHeadline } from '@ruddy/core/bring-up/text';
import { BringUpRun } from './bring-up-run';
import { LinkHealth } from './link-health';
import { LinkReadings } from './link-readings';
import { SetupEditor } from '../setups/setup-editor';
import { orEmpty, pluralize } from '../platform/shared/format';
import { DockedView } from './docked-view';
import { HealthView } from './health-view';
import { LinkView } from './link-view';
import { StepsView } from './steps-view';

const VIEWS = [
  { key: 'bring-up', name: 'Steps', query: {} },
  { key: 'link', name: 'Link check', query: { view: 'link' } },
  { key: 'health', name: 'Link health', query: { view: 'health' } },
  { key: 'docked', name: 'Docked and undocked', query: { view: 'docked' } },
  { key: 'undock', name: 'Undock', query: { list: 'undock' } },
  { key: 'dock-again', name: 'Dock again', query: { list: 'dock-again' } },
];

/** Bringing it up: the list step by step, the link check, its health over time, and living with the dock. */
@Component({
  imports: [RouterLink, StepsView, LinkView, HealthView, DockedView],
  providers: [LinkHealth],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bring-up-page.html',
  styleUrl: './bring-up-page.scss',
})
export class BringUpPage {
  readonly editor = inject(SetupEditor);
  readonly readings = inject(LinkReadings);
  readonly run = inject(BringUpRun);
  readonly health = inject(LinkHealth);
  readonly paste = input('', { transform: orEmpty });
  readonly view = input('', { transform: orEmpty });
  readonly list = input('', { transform: orEmpty });
  readonly views = VIEWS;

  /** Which view is open; somebody sent here to paste lands at the link check. */
  readonly current = computed(() => {
    const view = this.paste() === '1' ? 'link' : this.view();
    return view === 'link' || view === 'health' || view === 'docked' ? view : this.#purpose();
  });
  readonly #purpose = computed<Purpose>(
    () => PURPOSES.find((p) => p === this.list()) ?? 'bring-up',
  );
  readonly sentence = computed(() => {
    const e = this.editor.judgement()?.evaluation ?? null;
    const facts = this.run.facts();
    if (!e || !facts) return 'Judging the chain …';
    switch (this.current()) {
      case 'link':
        return linkCheckHeadline(this.readings.check(), e);
      case 'health':
        return this.health.sentence();
      case 'docked':
        return this.#dockedWords();
      default: {
        if (this.run.stored() === null && !this.run.problem()) return 'Reading the attempts …';
        const n = this.run.attempts().filter((a) => a.purpose === this.#purpose()).length;
        return this.run.attempt()
          ? progressHeadline(this.run.list(), this.run.progress(), facts)
          : startHeadline(this.#purpose(), this.run.list(), n);
      }
    }
  });

  constructor() {
    effect(() => {
      const purpose = this.#purpose();
      const link = this.current() === 'link';
      untracked(() => {
        this.run.purpose.set(purpose);
        this.run.atLink.set(link);
      });
    });
  }

  #dockedWords(): string {
    const d = this.editor.fields()?.docked;
    const noted = (p: object) => Object.values(p).filter((v) => v !== null && v !== '').length;
    const a = noted(d?.docked ?? {});
    const b = noted(d?.undocked ?? {});
    return `${pluralize(a, 'setting')} noted docked, ${b} undocked; ${pluralize(d?.programs.length ?? 0, 'program')}, ${pluralize(d?.tuning.length ?? 0, 'tuning step')}.`;
  }
}
