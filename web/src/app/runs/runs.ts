import { HttpClient, HttpHeaders } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { EMPTY, expand, map, reduce, type Observable } from 'rxjs';
import type { Page } from '@ruddy/core/base/contract';
import type {
  Channel,
  CsvMapping,
  FitBody,
  FitEntry,
  ForecastRow,
  FramesAsked,
  Predictions,
  ProfileBody,
  ProfileEntry,
  ProfilePatch,
  RunBody,
  RunEntry,
  SaidBody,
  SessionBody,
  SessionEntry,
} from '@ruddy/core/runs/contract';
import { Api } from '../platform/api/api';

export interface RunFilterQuery {
  setupId?: string;
  titleId?: string;
  titleIds?: string;
  ids?: string;
  limit?: number;
}
const MOST = 2000;

/** Runs and their values, titles, remembered layouts, planned sessions. */
@Injectable({ providedIn: 'root' })
export class RunsData {
  readonly #api = inject(Api);
  readonly #http = inject(HttpClient);

  /** Every run under a filter, page after page, up to 2000. */
  all(filter: RunFilterQuery): Observable<RunEntry[]> {
    const page = (cursor?: string) =>
      this.#api.get<Page<RunEntry>>('/runs', { ...filter, limit: 500, cursor });
    return page().pipe(
      expand((p, i) => (p.next && (i + 1) * 500 < MOST ? page(p.next) : EMPTY)),
      reduce((all: RunEntry[], p) => [...all, ...p.items], []),
    );
  }

  add(setupId: string, run: RunBody): Observable<RunEntry> {
    return this.#api.post(`/setups/${setupId}/runs`, run);
  }

  say(runId: string, said: SaidBody): Observable<RunEntry> {
    return this.#api.post(`/runs/${runId}/said`, said);
  }

  /** Send packed values under their SHA-256. */
  send(sha256: string, n: number, packed: Uint8Array<ArrayBuffer>): Observable<void> {
    const headers = new HttpHeaders({ 'Content-Type': 'application/octet-stream' });
    return this.#api
      .guard(this.#http.put(`/api/captures/${sha256}?n=${n}`, new Blob([packed]), { headers }))
      .pipe(map(() => undefined));
  }

  /** Packed values of a channel. */
  channel(runId: string, channel: Channel): Observable<ArrayBuffer> {
    return this.#api.guard(
      this.#http.get(`/api/runs/${runId}/channels/${channel}`, { responseType: 'arraybuffer' }),
    );
  }

  profiles(): Observable<ProfileEntry[]> {
    return this.#api.get<{ items: ProfileEntry[] }>('/profiles').pipe(map((p) => p.items));
  }

  /** The id of a title; one of the same name is met. */
  addProfile(p: ProfileBody): Observable<string> {
    return this.#api.post<{ id: string }>('/profiles', p).pipe(map((r) => r.id));
  }

  patchProfile(p: ProfileEntry, patch: ProfilePatch): Observable<ProfileEntry> {
    return this.#api.patch(`/profiles/${p.id}`, patch, p.rev);
  }

  /** Calibrations of a title, newest first. */
  fits(titleId: string): Observable<FitEntry[]> {
    return this.#api
      .get<{ items: FitEntry[] }>(`/profiles/${titleId}/fits`)
      .pipe(map((r) => r.items));
  }

  calibrate(titleId: string, body: FitBody): Observable<FitEntry> {
    return this.#api.post(`/profiles/${titleId}/fits`, body);
  }

  predictions(setupId: string): Observable<Predictions> {
    return this.#api.get('/predictions', { setupId });
  }

  /** Frames to expect on a setup as it stands. */
  forecasts(setupId: string, frames: FramesAsked): Observable<ForecastRow[]> {
    return this.#api
      .post<{ evaluation: { predicted: { forecasts: ForecastRow[] } } }>('/evaluate', {
        setupId,
        frames,
      })
      .pipe(map((r) => r.evaluation.predicted.forecasts));
  }

  mappings(): Observable<CsvMapping[]> {
    return this.#api.get<{ items: CsvMapping[] }>('/csv-mappings').pipe(map((p) => p.items));
  }

  keepMapping(m: CsvMapping): Observable<CsvMapping> {
    return this.#api.post('/csv-mappings', m);
  }

  sessions(): Observable<SessionEntry[]> {
    return this.#api.get<{ items: SessionEntry[] }>('/sessions').pipe(map((p) => p.items));
  }

  addSession(s: SessionBody): Observable<SessionEntry[]> {
    return this.#api.post<{ items: SessionEntry[] }>('/sessions', s).pipe(map((p) => p.items));
  }

  dropSession(id: string): Observable<SessionEntry[]> {
    return this.#api.delete<{ items: SessionEntry[] }>(`/sessions/${id}`).pipe(map((p) => p.items));
  }
}
