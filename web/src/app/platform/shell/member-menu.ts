import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { Session } from '../api/session';

/** Who is here, the way to one's own password, and the way out. */
@Component({
  selector: 'rb-member-menu',
  imports: [MatButtonModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (session.signsIn()) {
      @if (session.member(); as m) {
        <a
          routerLink="/workshop/members"
          [queryParams]="{ mine: '1' }"
          [attr.aria-label]="m.name + ', ' + m.role + ': my password'"
          >{{ m.name }}</a
        >
        <button mat-button type="button" (click)="leave()">Sign out</button>
      }
    } @else if (session.member(); as m) {
      <span class="hint">{{ m.name }}</span>
    }
  `,
  styles: `
    :host {
      white-space: nowrap;
    }
    a {
      color: var(--ink);
    }
    @media (max-width: 719px) {
      .hint {
        display: none;
      }
    }
  `,
})
export class MemberMenu {
  readonly session = inject(Session);

  leave(): void {
    this.session.signOut().subscribe({ error: () => this.session.look() });
  }
}
