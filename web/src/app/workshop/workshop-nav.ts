import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';

@Component({
  selector: 'rb-workshop-nav',
  imports: [RouterLink, RouterLinkActive],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<nav aria-label="Workshop">
    <a routerLink="/workshop/rules" routerLinkActive="here" ariaCurrentWhenActive="page">House rules</a>
    <a routerLink="/workshop/data" routerLinkActive="here" ariaCurrentWhenActive="page">Data</a>
  </nav>`,
  styles: `
    nav {
      display: flex;
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
export class WorkshopNav {}
