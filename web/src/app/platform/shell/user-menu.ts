import { ChangeDetectionStrategy, Component, computed, inject, Injector } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import { RouterLink } from '@angular/router';
import { catchError, EMPTY } from 'rxjs';
import { Session } from '../api/session';
import { type Theme, ThemeChoice } from './theme';

const THEMES: readonly { readonly value: Theme; readonly name: string }[] = [
  { value: 'system', name: 'Colours: as the system' },
  { value: 'light', name: 'Colours: light' },
  { value: 'dark', name: 'Colours: dark' },
];

/** The menu of the present member: colours, keyboard shortcuts, account, sign-out. */
@Component({
  selector: 'rb-user-menu',
  imports: [MatButtonModule, MatIconModule, MatMenuModule, MatTooltipModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      mat-icon-button
      type="button"
      [matMenuTriggerFor]="menu"
      [attr.aria-label]="name()"
      [matTooltip]="name()"
    >
      <mat-icon svgIcon="account_circle" />
    </button>
    <mat-menu #menu>
      @for (t of themes; track t.value) {
        <button
          mat-menu-item
          role="menuitemradio"
          [attr.aria-checked]="theme.theme() === t.value"
          (click)="theme.set(t.value)"
        >
          <mat-icon
            [svgIcon]="
              theme.theme() === t.value ? 'radio_button_checked' : 'radio_button_unchecked'
            "
          />{{ t.name }}
        </button>
      }
      <button mat-menu-item (click)="showKeys()">
        <mat-icon svgIcon="keyboard" />Keyboard shortcuts
      </button>
      @if (session.signsIn() && session.member()) {
        <a mat-menu-item routerLink="/account"><mat-icon svgIcon="password" />My account</a>
        <button mat-menu-item (click)="leave()"><mat-icon svgIcon="logout" />Sign out</button>
      }
    </mat-menu>
  `,
  styles: `
    :host {
      display: flex;
    }
  `,
})
export class UserMenu {
  readonly #injector = inject(Injector);
  readonly session = inject(Session);
  readonly theme = inject(ThemeChoice);
  readonly themes = THEMES;
  readonly name = computed(() => {
    const m = this.session.member();
    return m && this.session.signsIn() ? `${m.name}, ${m.role}` : 'Settings of this browser';
  });

  showKeys(): void {
    void import('./keys-dialog').then((m) => m.openKeys(this.#injector));
  }

  leave(): void {
    this.session
      .signOut()
      .pipe(
        catchError(() => {
          this.session.look();
          return EMPTY;
        }),
      )
      .subscribe();
  }
}
