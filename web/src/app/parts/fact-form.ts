import { ChangeDetectionStrategy, Component, inject, input, output, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { v7 } from 'uuid';
import { SOFTWARE_NAMES, type SoftwareRole } from '@ruddy/core/parts';
import type { FactBody, ItemEntry } from '@ruddy/core/parts/contract';
import type { ApiError } from '../platform/api/api-client';
import { CatalogueData } from './catalogue';
import { readNumber } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { WordAsks } from '../platform/shared/word-asks';

/** Something seen on a piece: a rate read through it, a version found on it, a fault. It stays; a mistake is noted as another one. */
@Component({
  selector: 'rb-fact-form',
  imports: [MatButtonModule, WordAsks],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form
      (submit)="$event.preventDefault(); store()"
      novalidate
      [attr.aria-label]="'Seen on ' + piece().label"
    >
      <div class="field">
        <label for="fact-kind">What was seen</label>
        <select id="fact-kind" #pick (change)="kind.set($any(pick.value))">
          <option value="measured">a rate read through it</option>
          <option value="version">a version on it</option>
          <option value="fault">a fault</option>
        </select>
      </div>
      @if (kind() === 'measured') {
        <div class="field">
          <label for="fact-gbps">Rate, Gb/s</label>
          <input
            id="fact-gbps"
            #gbps
            inputmode="decimal"
            autocomplete="off"
            [value]="rate()"
            (input)="rate.set(gbps.value)"
          />
        </div>
      }
      @if (kind() === 'version') {
        <div class="field">
          <label for="fact-role">Of</label>
          <select id="fact-role" #of (change)="role.set($any(of.value))">
            @for (r of roles; track r[0]) {
              <option [value]="r[0]" [selected]="r[0] === role()">{{ r[1] }}</option>
            }
          </select>
        </div>
      }
      <div class="field">
        <label for="fact-words">{{
          kind() === 'version' ? 'Version' : kind() === 'fault' ? 'What is wrong' : 'Where and how'
        }}</label>
        <input
          id="fact-words"
          #said
          maxlength="200"
          autocomplete="off"
          [value]="words()"
          (input)="words.set(said.value)"
        />
      </div>
      <div class="field">
        <label for="fact-on">On</label>
        <input
          id="fact-on"
          #on
          type="date"
          [value]="date()"
          [max]="clock.today()"
          (change)="date.set(on.value)"
        />
      </div>
      <rb-word-asks [words]="words()" />
      @if (problem(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
      <p>
        <button mat-flat-button type="submit">Store it</button>
        <button mat-button type="button" (click)="closed.emit()">Cancel</button>
      </p>
    </form>
  `,
  styles: `
    form {
      display: grid;
      gap: 8px;
      padding: 8px;
      background: var(--sunk);
    }
  `,
})
export class FactForm {
  readonly #data = inject(CatalogueData);
  readonly clock = inject(ServerClock);
  readonly piece = input.required<ItemEntry>();
  readonly noted = output();
  readonly closed = output();
  readonly roles = Object.entries(SOFTWARE_NAMES) as [SoftwareRole, string][];
  readonly kind = signal<FactBody['kind']>('measured');
  readonly rate = signal('');
  readonly role = signal<SoftwareRole>('dockFirmware');
  readonly words = signal('');
  readonly date = signal(this.clock.today());
  readonly problem = signal<string | null>(null);

  store(): void {
    const kind = this.kind();
    const read = readNumber(this.rate());
    if (kind === 'measured' && (!read.ok || read.value === null)) {
      this.problem.set(
        `Nothing stored. Rate: ${read.ok ? 'type what was read, in Gb/s' : read.why}`,
      );
      return;
    }
    const gbps = kind === 'measured' && read.ok ? read.value : null;
    const role = kind === 'version' ? this.role() : null;
    const body = {
      id: v7(),
      itemId: this.piece().id,
      kind,
      happenedOn: this.date(),
      gbps,
      role,
      words: this.words().trim(),
    };
    this.#data.addFact(body).subscribe({
      next: () => this.noted.emit(),
      error: (e: ApiError) => this.problem.set(`Nothing stored. ${e.message}`),
    });
  }
}
