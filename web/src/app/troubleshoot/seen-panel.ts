import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { sinceWords } from '@ruddy/core/bring-up/text';
import type { TroubleNote } from '@ruddy/core/troubleshoot';
import { noteWords } from '@ruddy/core/troubleshoot/text';
import { clock, pluralize, day } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { SymptomList } from './symptom-list';
import { TroubleStore } from './trouble-store';

/** What is seen, what was tried, what changed since it was good, and what the runs at hand say. */
@Component({
  selector: 'rb-seen-panel',
  imports: [MatButtonModule, RouterLink, SymptomList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 id="seen-h" tabindex="-1">What you see</h2>
    <rb-symptom-list [value]="symptoms()" (changed)="store.see($event)" />
    <h3>Tried, {{ tried().length }}</h3>
    @if (tried().length === 0) {
      <p class="quiet">Nothing yet.</p>
    }
    <ol class="tried">
      @for (t of tried(); track t.id) {
        <li>
          <span class="hint">{{ t.at }}</span> {{ t.words }}
        </li>
      }
    </ol>
    @if (tried().length > 0) {
      <button mat-button type="button" (click)="store.undo()">Take the last one back</button>
    }
    <h3>Since it was good</h3>
    @if (!store.goodKnown()) {
      <p class="quiet">
        Not known: no state of this setup is marked as good.
        <a routerLink="../record">Mark one on Record</a> when it runs.
      </p>
    } @else if (since().length === 0) {
      <p class="quiet">
        Nothing that was noted changed since the last known good. An update that nobody noted may
        have.
      </p>
    } @else {
      <ul>
        @for (s of since(); track s) {
          <li>{{ s }}</li>
        }
      </ul>
      <p class="hint">
        {{ counted(since().length, 'change') }} since the last known good; it counts as an answer.
      </p>
    }
    @if (runs().length > 0) {
      <h3>Your runs say</h3>
      <ul>
        @for (r of runs(); track $index) {
          <li>{{ r }}</li>
        }
        @for (e of engines(); track e) {
          <li>{{ e }}</li>
        }
      </ul>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      align-content: start;
    }
    .tried {
      display: grid;
      gap: 6px;
      list-style: none;
    }
    ul {
      padding-left: 18px;
    }
  `,
})
export class SeenPanel {
  readonly store = inject(TroubleStore);
  readonly #clock = inject(ServerClock);
  readonly counted = pluralize;
  readonly symptoms = computed(() => this.store.standing()?.clues.symptoms ?? []);
  /** Everything but the beginning, newest first. */
  readonly tried = computed(() => {
    const notes = this.store.current()?.notes.slice(1) ?? [];
    const when = (at: string) => (this.#clock.isToday(at) ? clock(at) : day(at));
    return notes
      .map((n) => ({ id: n.id, at: when(n.at), words: noteWords(n.note as TroubleNote) }))
      .reverse();
  });
  readonly since = computed(() => this.store.since().map(sinceWords));
  /** Titles of one engine that fail alike put the fault there, not on the chain. */
  readonly engines = computed(() =>
    this.store
      .fromRuns()
      .engines.map(
        (e) => `Engine ${e.engine}: ${e.flat} of ${e.flat + e.falling} titles flat over sizes.`,
      ),
  );
  readonly runs = computed(() =>
    this.store.fromRuns().pairs.map((p) => {
      const [a, b] = p.fps.map((f) => f.toFixed(0));
      const says =
        p.flat === null
          ? 'does not tell'
          : p.flat
            ? 'flat: not held by the card'
            : 'falls: the card holds it';
      return `${p.title}: ${a} frames/s at ${p.from}, ${b} at ${p.to}; ${says}.`;
    }),
  );
}
