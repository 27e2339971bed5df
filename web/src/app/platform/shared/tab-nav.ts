import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';

export interface Tab {
  readonly path: string;
  readonly name: string;
}

/** Pages of one place, side by side; the one in view is marked by weight and a line. */
@Component({
  selector: 'rb-tab-nav',
  imports: [RouterLink, RouterLinkActive],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<nav [attr.aria-label]="label()">
    @for (t of tabs(); track t.path) {
      <a [routerLink]="t.path" routerLinkActive="here" ariaCurrentWhenActive="page">{{ t.name }}</a>
    }
  </nav>`,
  styles: `
    nav {
      display: flex;
      flex-wrap: wrap;
      gap: 4px;
      border-bottom: 1px solid var(--line);
      margin-top: 4px;
    }
    a {
      color: var(--ink);
      text-decoration: none;
      padding: 6px 16px 4px;
      border-bottom: 3px solid transparent;
    }
    a.here {
      font-weight: 600;
      border-bottom-color: var(--brick);
      background: var(--sheet);
    }
  `,
})
export class TabNav {
  readonly label = input.required<string>();
  readonly tabs = input.required<readonly Tab[]>();
}
