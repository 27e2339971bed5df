import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  Injector,
  viewChild,
} from '@angular/core';
import { MatBadgeModule } from '@angular/material/badge';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatToolbarModule } from '@angular/material/toolbar';
import { MatTooltipModule } from '@angular/material/tooltip';
import { RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { from, switchMap } from 'rxjs';
import { ApiClient } from './platform/api/api-client';
import { ComparisonList } from './setups/comparison-list';
import { Keys } from './platform/shell/keys';
import { SearchBox } from './platform/shell/search-box';
import { Session } from './platform/api/session';
import { Skip } from './platform/kit/skip';
import { SignIn } from './platform/shell/sign-in';
import { UserMenu } from './platform/shell/user-menu';
import { ServerClock } from './platform/shared/server-clock';

/** The shell: top bar, keys, and the page. A nav item appears with the page it leads to. */
@Component({
  selector: 'rb-root',
  imports: [
    RouterOutlet,
    RouterLink,
    RouterLinkActive,
    MatBadgeModule,
    MatButtonModule,
    MatIconModule,
    MatMenuModule,
    MatToolbarModule,
    MatTooltipModule,
    SearchBox,
    SignIn,
    Skip,
    UserMenu,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './app.html',
  styleUrl: './app.scss',
})
export class App {
  readonly #injector = inject(Injector);
  readonly keys = inject(Keys);
  readonly session = inject(Session);
  readonly comparisonList = inject(ComparisonList);
  readonly comparedIds = computed(() =>
    (this.comparisonList.runs.list().length > 0 ? [] : this.comparisonList.plans())
      .map((p) => p.id)
      .join(),
  );
  /** Runs are compared from everywhere but the pages of plans. */
  readonly comparisonPath = computed(() =>
    this.comparisonList.runs.list().length > 0 ? '/compare/runs' : '/compare/plans',
  );
  // Asked for at once, so that every form that opens later has the server's day.
  protected readonly clock = inject(ServerClock);
  // By its name in the template: by its class it could not come after the first page.
  readonly search = viewChild<SearchBox>('searchBox');
  readonly nav = [
    { path: '/setups', name: 'Setups' },
    { path: '/scout', name: 'Scout' },
    { path: '/compatibility', name: 'Compatibility' },
    { path: '/parts', name: 'Parts' },
    { path: '/bench', name: 'Bench' },
    { path: '/workshop', name: 'Workshop' },
  ];
  readonly waitingWords = computed(() =>
    this.keys
      .places()
      .map((p) => `${p.key} ${p.what}`)
      .join(' · '),
  );

  constructor() {
    inject(ApiClient).confirmation = () =>
      from(import('./platform/shell/password-dialog')).pipe(
        switchMap((m) => m.askPassword(this.#injector)),
      );
    this.keys.bind([
      { key: '/', what: 'Search parts and setups', run: () => this.search()?.focus() },
      { key: '?', what: 'Keyboard shortcuts', run: () => this.showKeys() },
    ]);
  }

  showKeys(): void {
    void import('./platform/shell/keys-dialog').then((m) => m.openKeys(this.#injector));
  }
}
