import { HttpClient } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import type {
  CostBody,
  CostGrounds,
  PriceBody,
  PriceEntry,
  RateBody,
  RateEntry,
} from '@ruddy/core/buy/contract';
import type { PartKind } from '@ruddy/core/parts';
import type {
  FactBody,
  RowOutcome,
  ImportRow,
  ItemBody,
  ItemEntry,
  Job,
  PartPatch,
  RegisterRow,
  Revision,
} from '@ruddy/core/parts/contract';
import type { Bundle, ShareReport } from '@ruddy/core/workshop/contract';
import { Api } from '../platform/api/api';

interface List<T> {
  items: T[];
}

/** Pieces, prices, rates, the past of parts, files in and out. */
@Injectable({ providedIn: 'root' })
export class CatalogueData {
  readonly #api = inject(Api);
  readonly #http = inject(HttpClient);

  items(part: string): Observable<List<ItemEntry>> {
    return this.#api.get(`/parts/${part}/items`);
  }

  addItem(body: ItemBody): Observable<ItemEntry> {
    return this.#api.post('/items', body);
  }

  patchItem(
    id: string,
    patch: Partial<Omit<ItemBody, 'id' | 'partId'>>,
    rev: number,
  ): Observable<ItemEntry> {
    return this.#api.patch(`/items/${id}`, patch, rev);
  }

  addFact(body: FactBody): Observable<ItemEntry> {
    return this.#api.post('/item-facts', body);
  }

  register(): Observable<List<RegisterRow>> {
    return this.#api.get('/cables');
  }

  prices(part: string): Observable<List<PriceEntry>> {
    return this.#api.get(`/parts/${part}/prices`);
  }

  addPrice(body: PriceBody): Observable<List<PriceEntry>> {
    return this.#api.post('/prices', body);
  }

  withdrawPrice(id: string): Observable<unknown> {
    return this.#api.delete(`/prices/${id}`);
  }

  rates(): Observable<List<RateEntry>> {
    return this.#api.get('/rates');
  }

  addRate(body: RateBody): Observable<List<RateEntry>> {
    return this.#api.post('/rates', body);
  }

  withdrawRate(id: string): Observable<unknown> {
    return this.#api.delete(`/rates/${id}`);
  }

  cost(body: CostBody): Observable<CostGrounds> {
    return this.#api.post('/cost', body);
  }

  revisions(part: string): Observable<List<Revision>> {
    return this.#api.get(`/parts/${part}/revisions`);
  }

  bulk(ids: readonly string[], patch: PartPatch): Observable<{ changed: number }> {
    return this.#api.post('/parts/bulk', { ids, patch });
  }

  /** Send a file as it lies on the disk: the browser streams it, the page does not read it. */
  import(file: Blob, of: { kind: PartKind; mode: 'try' | 'store'; name: string }): Observable<Job> {
    const type = /\.json$/i.test(of.name) ? 'application/json' : 'text/csv';
    const headers = { 'content-type': type };
    // A blob takes its type with it, whatever the header says.
    const body = file.slice(0, file.size, type);
    return this.#api.guard(
      this.#http.post<Job>('/api/imports', body, { headers, params: { ...of } }),
    );
  }

  job(id: string): Observable<Job> {
    return this.#api.get(`/jobs/${id}`);
  }

  cancel(id: string): Observable<Job> {
    return this.#api.post(`/jobs/${id}/cancel`, {});
  }

  fates(
    id: string,
    q: { after?: number; fate?: RowOutcome; limit?: number },
  ): Observable<{ items: ImportRow[]; next: number | null }> {
    return this.#api.get(`/jobs/${id}/rows`, { ...q });
  }

  columns(kind: PartKind): Observable<List<{ column: string; what: string }>> {
    return this.#api.get(`/columns/${kind}`);
  }

  shareReport(setup: string): Observable<ShareReport> {
    return this.#api.get(`/setups/${setup}/share`);
  }

  shareFile(setup: string, prices: boolean): Observable<Bundle> {
    return this.#api.get(`/setups/${setup}/share-file`, { prices });
  }
}
