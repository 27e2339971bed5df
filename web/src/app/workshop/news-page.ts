import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { v7 } from 'uuid';
import { SOFTWARE_NAMES } from '@ruddy/core/parts';
import { concernsHere } from '@ruddy/core/workshop';
import type { NewsEntry } from '@ruddy/core/workshop/contract';
import { NewsData } from '../buy/scout';
import { pluralize, day, orEmpty } from '../platform/shared/format';
import { PartsNav } from '../parts/parts-nav';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { Acts, ask, State, valueOf } from '../platform/kit/ask';

/** News of the feeds: what concerns parts that are here or symptoms that were logged stands first. */
@Component({
  imports: [Field, MatButtonModule, PartsNav, RouterLink, State],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="page">
      <h1>{{ headline() }}</h1>
      <rb-state [of]="list" what="the news" />
      <div class="columns">
        <rb-parts-nav here="news" />
        <div>
          <div class="tools">
            <rb-field [meta]="every" [value]="all() === 'true'" (changed)="show($event)" />
            <a routerLink="/workshop/feeds">Feeds and when they are read</a>
          </div>
          @for (n of shown(); track n.id) {
            <article class="sheet" [attr.aria-label]="n.title">
              <h2>{{ n.title }}</h2>
              <p class="hint">
                {{ n.feed }}, {{ date(n) }}{{ n.state === 'new' ? '' : ', ' + words[n.state] }}
              </p>
              @if (n.touches.length > 0 || n.symptoms.length > 0) {
                <p class="flag">
                  @if (n.touches.length > 0) {
                    Concerns {{ parts(n) }}.
                  }
                  @if (n.symptoms.length > 0) {
                    Speaks of
                    {{ n.symptoms.length === 1 ? 'a logged symptom' : 'logged symptoms' }}:
                    {{ n.symptoms.join('; ') }}.
                  }
                </p>
              }
              <p>{{ n.text }}</p>
              <p class="acts">
                @if (n.releaseId; as id) {
                  <a mat-stroked-button [routerLink]="['/parts/release', id]"
                    >Which setups it touches, and mark it installed</a
                  >
                } @else if (n.draft; as d) {
                  <button mat-flat-button type="button" [disabled]="working()" (click)="release(n)">
                    Add it as {{ names[d.what].toLowerCase() }} {{ d.variant }}
                  </button>
                  <span class="hint"
                    >of {{ d.maker }} {{ d.model }}; then see which setups it touches</span
                  >
                } @else {
                  <span class="hint">No part and version can be told from it.</span>
                }
                @if (n.url) {
                  <a [href]="n.url" target="_blank" rel="noopener noreferrer">Its page</a>
                }
                @if (n.state === 'new') {
                  <button
                    mat-button
                    type="button"
                    [attr.aria-label]="'Read: ' + n.title"
                    (click)="mark(n, 'read')"
                  >
                    Read
                  </button>
                } @else if (n.state === 'read') {
                  <button
                    mat-button
                    type="button"
                    [attr.aria-label]="'New again: ' + n.title"
                    (click)="mark(n, 'new')"
                  >
                    New again
                  </button>
                }
              </p>
            </article>
          }
        </div>
      </div>
    </div>
  `,
  styleUrl: '../parts/parts-frame.scss',
  styles: `
    article {
      padding: 12px 16px;
      margin-bottom: 12px;
    }
    h2 {
      margin: 0;
    }
    .flag {
      border-left: 4px solid var(--ochre);
      background: var(--ochre-tint);
      padding: 6px 12px;
    }
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 16px;
      align-items: center;
    }
  `,
})
export class NewsPage {
  readonly #data = inject(NewsData);
  readonly #router = inject(Router);
  readonly all = input('', { transform: orEmpty });
  readonly every: FieldMeta = { label: 'Also show what concerns no part you own', input: 'flag' };
  readonly #acts = inject(Acts);
  readonly list = ask(() => this.#data.news());
  readonly items = computed(() => valueOf(this.list)?.items ?? null);
  readonly working = signal(false);
  readonly names = SOFTWARE_NAMES;
  readonly words = { new: '', read: 'read', kept: 'noted as a release' };
  readonly shown = computed(() =>
    (this.items() ?? []).filter((n) => this.all() === 'true' || concernsHere(n)),
  );
  readonly headline = computed(() => {
    const all = this.items();
    if (!all) return 'Reading the news …';
    if (all.length === 0) return '0 items of news: name a feed under Workshop and read it.';
    const ours = all.filter(concernsHere);
    const fresh = ours.filter((n) => n.state === 'new');
    const first = fresh[0] ? ` First: ${fresh[0].title}.` : '';
    return `${ours.length} of ${pluralize(all.length, 'item')} ${ours.length === 1 ? 'concerns' : 'concern'} parts or symptoms here, ${fresh.length} new.${first}`;
  });

  show(every: boolean): void {
    void this.#router.navigate([], {
      queryParams: { all: every ? 'true' : null },
      queryParamsHandling: 'merge',
    });
  }
  date(n: NewsEntry): string {
    return day(n.publishedAt ?? n.readAt);
  }
  parts(n: NewsEntry): string {
    return n.touches
      .map(
        (t) => `${t.name}${t.here ? '' : ' (not here)'}${t.by === 'name' ? ', by its name' : ''}`,
      )
      .join('; ');
  }
  #put(n: NewsEntry): void {
    this.list.update(
      (now) => now && { ...now, items: now.items.map((x) => (x.id === n.id ? n : x)) },
    );
  }
  mark(n: NewsEntry, state: 'new' | 'read'): void {
    this.#acts.run(this.#data.mark(n.id, state), { then: (next) => this.#put(next) });
  }
  /** Into the catalogue, and on to the setups it touches. */
  release(n: NewsEntry): void {
    if (!n.draft) return;
    this.working.set(true);
    this.#acts.run(this.#data.release(n.id, v7(), n.draft), {
      then: (next) => {
        this.#put(next);
        void this.#router.navigate(['/parts/release', next.releaseId]);
      },
      otherwise: () => this.working.set(false),
    });
  }
}
