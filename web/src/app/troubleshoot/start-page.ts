import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { switchMap } from 'rxjs';
import { v7 } from 'uuid';
import type { SymptomId } from '@ruddy/core/base';
import type { TroubleBody, TroubleSaid } from '@ruddy/core/troubleshoot/contract';
import { SetupsData } from '../setups/setups';
import { TroubleData } from './trouble';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';
import { Choice } from '../platform/kit/choice';
import { pluralize, day } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { Field } from '../platform/kit/field';
import { ask, State, valueOf } from '../platform/kit/ask';
import { Acts } from '../platform/kit/ask';

interface Tile {
  readonly id: SymptomId;
  readonly name: string;
  readonly more: string;
}

/** Eight ways in; everything else that may be seen is asked for on the page of the search. */
const TILES: readonly Tile[] = [
  { id: 'no-picture', name: 'The screen is black', more: 'the host may run, or not' },
  { id: 'crash-on-plug', name: 'The host froze or crashed', more: 'on plugging in or soon after' },
  { id: 'nothing-listed', name: 'The card does not appear', more: 'nothing is listed' },
  {
    id: 'error-no-driver',
    name: 'Listed, but not in use',
    more: 'with an error, or without a driver',
  },
  { id: 'drops-under-load', name: 'It drops out', more: 'in the middle of a run' },
  { id: 'low-copy', name: 'The link is slow', more: 'a low rate, few lanes' },
  { id: 'flat-frames', name: 'Frames disappoint', more: 'the same at every size' },
  { id: 'worked-before', name: 'It worked before', more: 'and something was updated' },
];

const QUESTIONS = [
  {
    key: 'form',
    name: 'What kind of host?',
    of: { laptop: 'Laptop', 'mini-pc': 'Mini PC', handheld: 'Handheld', desktop: 'Desktop' },
  },
  {
    key: 'port',
    name: 'Which port is the dock on?',
    of: {
      'usb-c': 'USB-C',
      oculink: 'OCuLink',
      inside: 'A slot inside',
      'mini-dp': 'The older, small one',
    },
  },
  { key: 'lamp', name: 'Lamp or fan of the dock?', of: { on: 'On', off: 'Dark and still' } },
  {
    key: 'screen',
    name: 'Where does the screen hang?',
    of: { card: 'On the card', panel: "The host's panel", hub: 'On a hub or the dock' },
  },
] as const;

const NOT_SURE: TroubleSaid = { form: null, port: null, lamp: null, screen: null };

/** Something is wrong and there is no setup yet: eight signs, four questions, "not sure" to each of them, and off it goes. */
@Component({
  imports: [Choice, Field, MatButtonModule, RouterLink, State],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './start-page.html',
  styleUrl: './start-page.scss',
})
export class StartPage {
  readonly #acts = inject(Acts);
  readonly #setups = inject(SetupsData);
  readonly #data = inject(TroubleData);
  readonly #router = inject(Router);
  readonly #clock = inject(ServerClock);
  readonly tiles = TILES;
  readonly questions = QUESTIONS.map((q) => ({
    ...q,
    options: [...optionsOf(q.of), { value: 'unsure', label: 'Not sure' }],
  }));
  readonly chosen = signal<readonly SymptomId[]>([]);
  readonly said = signal<TroubleSaid>(NOT_SURE);
  readonly asked = signal<Readonly<Record<string, string>>>({});
  readonly named = ask(() => this.#setups.list({}));
  readonly rows = computed(() => valueOf(this.named)?.items ?? []);
  readonly none: string | null = null;
  readonly setupMeta = computed<FieldMeta>(() => ({
    label: 'Or on one of your setups',
    input: 'choice',
    placeholder: `choose one of ${this.rows().length}`,
    options: this.rows().map((r) => ({ value: r.id, label: r.name })),
  }));
  readonly problem = signal<string | null>(null);
  readonly busy = signal(false);
  readonly headline = computed(() => {
    const n = this.chosen().length;
    return n === 0
      ? 'Fix a problem: choose what you see, 8 signs to start from. No setup is needed.'
      : `${pluralize(n, 'sign')} chosen: 4 questions, "not sure" is a good answer to each.`;
  });

  flip(id: SymptomId): void {
    this.chosen.update((l) => (l.includes(id) ? l.filter((x) => x !== id) : [...l, id]));
  }

  answer(key: keyof TroubleSaid, value: string | null): void {
    this.asked.update((a) => ({ ...a, [key]: value ?? '' }));
    this.said.update((s) => ({ ...s, [key]: value === null || value === 'unsure' ? null : value }));
  }

  /** On a setup that is there: its parts say more than four questions. */
  onSetup(id: string | null): void {
    if (id === null) return;
    void this.#router.navigate(['/setups', id, 'troubleshoot'], {
      queryParams: { see: this.chosen().join(',') || null },
    });
  }

  /** Make a setup for the search only; closing the search can put it aside again. */
  begin(): void {
    if (this.chosen().length === 0)
      return this.problem.set('Nothing begun: choose at least one thing that you see.');
    const id = v7();
    const said = this.said();
    const body: TroubleBody = {
      id: v7(),
      symptoms: [...this.chosen()],
      said,
      answers:
        said.lamp === null
          ? []
          : [{ id: v7(), test: 'dock-dark', says: said.lamp === 'off' ? 'yes' : 'no' }],
      from: { kind: 'symptom', what: '' },
      happenedAt: this.#clock.now(),
    };
    const begun = this.#setups
      .create({ id, name: `Trouble, ${day(this.#clock.now())}` })
      .pipe(switchMap(() => this.#data.open(id, body)));
    this.#acts.run(begun, {
      line: this.problem,
      running: this.busy,
      failed: 'Nothing begun:',
      then: () => void this.#router.navigateByUrl(`/setups/${id}/troubleshoot`),
    });
  }
}
