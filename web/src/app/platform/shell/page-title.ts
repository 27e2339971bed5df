import { inject, Injectable } from '@angular/core';
import { Title } from '@angular/platform-browser';
import { TitleStrategy, type RouterStateSnapshot } from '@angular/router';

/** "Plan – Ruddy Bridge" in the browser's tab. */
@Injectable()
export class PageTitle extends TitleStrategy {
  readonly #title = inject(Title);

  override updateTitle(snapshot: RouterStateSnapshot): void {
    const page = this.buildTitle(snapshot);
    this.#title.setTitle(page ? `${page} – Ruddy Bridge` : 'Ruddy Bridge');
  }
}
