import { ChangeDetectionStrategy, Component } from '@angular/core';
import { RouterLink } from '@angular/router';

@Component({
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<div class="page">
    <h1>This address leads to 0 pages.</h1>
    <p>
      It may have been mistyped, or the page is not built yet.
      <a routerLink="/setups">Go to Setups</a>
    </p>
  </div>`,
})
export class NotFound {}
