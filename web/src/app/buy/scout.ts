import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type { ScoutAskInput, ScoutGrounds, SearchEntry } from '@ruddy/core/buy/contract';
import type { ReleaseSpec } from '@ruddy/core/parts';
import type { FeedEntry, NewsEntry } from '@ruddy/core/workshop/contract';
import { Api } from '../platform/api/api';

/** What a search needs, and searches that were kept. */
@Injectable({ providedIn: 'root' })
export class ScoutData {
  readonly #api = inject(Api);

  grounds(ask: ScoutAskInput): Observable<ScoutGrounds> {
    return this.#api.post('/scout/grounds', ask);
  }
  searches(): Observable<{ items: SearchEntry[] }> {
    return this.#api.get('/searches');
  }
  keep(body: { id: string; name: string; ask: ScoutAskInput }): Observable<SearchEntry> {
    return this.#api.post('/searches', body);
  }
  change(
    id: string,
    patch: { name?: string; ask?: ScoutAskInput },
    rev: number,
  ): Observable<SearchEntry> {
    return this.#api.patch(`/searches/${id}`, patch, rev);
  }
  remove(id: string): Observable<{ removed: boolean }> {
    return this.#api.delete(`/searches/${id}`);
  }
}

export type FeedSaid = Pick<FeedEntry, 'name' | 'url' | 'near' | 'everyHours'>;

/** Feeds of releases and their news. */
@Injectable({ providedIn: 'root' })
export class NewsData {
  readonly #api = inject(Api);

  feeds(): Observable<{ items: FeedEntry[] }> {
    return this.#api.get('/feeds');
  }
  add(body: FeedSaid & { id: string }): Observable<FeedEntry> {
    return this.#api.post('/feeds', body);
  }
  change(id: string, patch: Partial<FeedSaid>, rev: number): Observable<FeedEntry> {
    return this.#api.patch(`/feeds/${id}`, patch, rev);
  }
  remove(id: string): Observable<{ removed: boolean }> {
    return this.#api.delete(`/feeds/${id}`);
  }
  read(id: string): Observable<FeedEntry> {
    return this.#api.post(`/feeds/${id}/read`, {});
  }
  news(): Observable<{ items: NewsEntry[]; concerns: number }> {
    return this.#api.get('/news');
  }
  /** The state has no revision: the last word counts. */
  mark(id: string, state: 'new' | 'read'): Observable<NewsEntry> {
    return this.#api.patch(`/news/${id}`, { state }, 0);
  }
  release(newsId: string, id: string, spec: ReleaseSpec): Observable<NewsEntry> {
    return this.#api.post(`/news/${newsId}/release`, { id, spec });
  }
}
