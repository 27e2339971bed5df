import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { ScoutAskInput, ScoutGrounds, SearchEntry } from '@ruddy/core/buy/contract';
import type { ReleaseSpec } from '@ruddy/core/parts';
import type { FeedEntry, NewsEntry } from '@ruddy/core/workshop/contract';
import { ApiClient } from '../platform/api/api-client';

/** What a search needs, and searches that were kept. */
@Injectable({ providedIn: 'root' })
export class ScoutData {
  readonly #api = inject(ApiClient);

  grounds(ask: ScoutAskInput): Observable<ScoutGrounds> {
    return this.#api.call('POST /api/scout/grounds', { body: ask });
  }
  searches(): Observable<{ items: SearchEntry[] }> {
    return this.#api.call('GET /api/searches');
  }
  keep(body: { id: string; name: string; ask: ScoutAskInput }): Observable<SearchEntry> {
    return this.#api.call('POST /api/searches', { body });
  }
  change(
    id: string,
    patch: { name?: string; ask?: ScoutAskInput },
    rev: number,
  ): Observable<SearchEntry> {
    return this.#api.call('PATCH /api/searches/:id', {
      params: { id },
      body: patch,
      revision: rev,
    });
  }
  remove(id: string): Observable<{ removed: boolean }> {
    return this.#api.call('DELETE /api/searches/:id', { params: { id } });
  }
}

export type FeedSaid = Pick<FeedEntry, 'name' | 'url' | 'near' | 'everyHours'>;

/** Feeds of releases and their news. */
@Injectable({ providedIn: 'root' })
export class NewsData {
  readonly #api = inject(ApiClient);

  feeds(): Observable<{ items: FeedEntry[] }> {
    return this.#api.call('GET /api/feeds');
  }
  add(body: FeedSaid & { id: string }): Observable<FeedEntry> {
    return this.#api.call('POST /api/feeds', { body });
  }
  change(id: string, patch: Partial<FeedSaid>, rev: number): Observable<FeedEntry> {
    return this.#api.call('PATCH /api/feeds/:id', { params: { id }, body: patch, revision: rev });
  }
  remove(id: string): Observable<{ removed: boolean }> {
    return this.#api.call('DELETE /api/feeds/:id', { params: { id } });
  }
  read(id: string): Observable<FeedEntry> {
    return this.#api.call('POST /api/feeds/:id/read', { params: { id }, body: {} });
  }
  news(): Observable<{ items: NewsEntry[]; concerns: number }> {
    return this.#api.call('GET /api/news');
  }
  /** The state has no revision: the last word counts. */
  mark(id: string, state: 'new' | 'read'): Observable<NewsEntry> {
    return this.#api.call('PATCH /api/news/:id', { params: { id }, body: { state } });
  }
  release(newsId: string, id: string, spec: ReleaseSpec): Observable<NewsEntry> {
    return this.#api.call('POST /api/news/:id/release', {
      params: { id: newsId },
      body: { id, spec },
    });
  }
}
