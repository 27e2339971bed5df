import { inject, Injectable } from '@angular/core';
import { EMPTY, expand, map, reduce, type Observable } from 'rxjs';
import type {
  Channel,
  CsvMapping,
  ProfileBody,
  ProfileEntry,
  ProfilePatch,
  RunBody,
  RunEntry,
  SaidBody,
  SessionBody,
  SessionEntry,
  SettledForecasts,
  StatedFigureBody,
  StatedFigureEntry,
} from '@ruddy/core/runs/contract';
import { ApiClient } from '../platform/api/api-client';

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
  readonly #api = inject(ApiClient);

  /** Every run under a filter, page after page, up to 2000. */
  all(filter: RunFilterQuery): Observable<RunEntry[]> {
    const page = (cursor?: string) =>
      this.#api.call('GET /api/runs', { query: { ...filter, limit: 500, cursor } });
    return page().pipe(
      expand((p, i) => (p.next && (i + 1) * 500 < MOST ? page(p.next) : EMPTY)),
      reduce((all: RunEntry[], p) => [...all, ...p.items], []),
    );
  }

  add(setupId: string, run: RunBody): Observable<RunEntry> {
    return this.#api.call('POST /api/setups/:id/runs', { params: { id: setupId }, body: run });
  }

  say(runId: string, said: SaidBody): Observable<RunEntry> {
    return this.#api.call('POST /api/runs/:id/said', { params: { id: runId }, body: said });
  }

  /** Send packed values under their SHA-256. */
  send(sha256: string, n: number, packed: Uint8Array<ArrayBuffer>): Observable<void> {
    const values = new Blob([packed], { type: 'application/octet-stream' });
    return this.#api
      .upload('PUT /api/captures/:sha256', { params: { sha256 }, query: { n } }, values)
      .pipe(map(() => undefined));
  }

  /** Packed values of a channel. */
  channel(runId: string, channel: Channel): Observable<ArrayBuffer> {
    return this.#api.bytes('GET /api/runs/:id/channels/:channel', {
      params: { id: runId, channel },
    });
  }

  profiles(): Observable<ProfileEntry[]> {
    return this.#api.call('GET /api/profiles').pipe(map((p) => p.items));
  }

  /** The id of a title; one of the same name is met. */
  addProfile(p: ProfileBody): Observable<string> {
    return this.#api.call('POST /api/profiles', { body: p }).pipe(map((r) => r.id));
  }

  patchProfile(p: ProfileEntry, patch: ProfilePatch): Observable<ProfileEntry> {
    return this.#api.call('PATCH /api/profiles/:id', {
      params: { id: p.id },
      body: patch,
      revision: p.rev,
    });
  }

  /** Runs of a setup against the forecasts made of them before, and how well those of the workshop held. */
  settled(setupId: string): Observable<SettledForecasts> {
    return this.#api.call('GET /api/settled-forecasts', { query: { setupId } });
  }

  /** Figures stated with a setup, or of titles it has runs of. */
  stated(setupId: string): Observable<StatedFigureEntry[]> {
    return this.#api
      .call('GET /api/stated-figures', { query: { setupId } })
      .pipe(map((p) => p.items as StatedFigureEntry[]));
  }

  state(body: StatedFigureBody): Observable<unknown> {
    return this.#api.call('POST /api/stated-figures', { body });
  }

  unstate(id: string): Observable<unknown> {
    return this.#api.call('DELETE /api/stated-figures/:id', { params: { id } });
  }

  /** Experiments that cannot be made on a setup, by id. */
  impossible(setupId: string): Observable<string[]> {
    return this.#api
      .call('GET /api/setups/:id/impossible-runs', { params: { id: setupId } })
      .pipe(map((p) => p.items));
  }

  setImpossible(
    setupId: string,
    body: { experiment: string; impossible: boolean },
  ): Observable<string[]> {
    return this.#api
      .call('POST /api/setups/:id/impossible-runs', { params: { id: setupId }, body })
      .pipe(map((p) => p.items));
  }

  mappings(): Observable<CsvMapping[]> {
    return this.#api.call('GET /api/csv-mappings').pipe(map((p) => p.items));
  }

  keepMapping(m: CsvMapping): Observable<CsvMapping> {
    return this.#api.call('POST /api/csv-mappings', { body: m });
  }

  sessions(): Observable<SessionEntry[]> {
    return this.#api.call('GET /api/sessions').pipe(map((p) => p.items));
  }

  addSession(s: SessionBody): Observable<SessionEntry[]> {
    return this.#api.call('POST /api/sessions', { body: s }).pipe(map((p) => p.items));
  }

  dropSession(id: string): Observable<SessionEntry[]> {
    return this.#api.call('DELETE /api/sessions/:id', { params: { id } }).pipe(map((p) => p.items));
  }
}
