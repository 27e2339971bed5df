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
import type { Encoding } from '@ruddy/core/base/contract';
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
import { ApiClient } from '../platform/api/api-client';

interface List<T> {
  items: T[];
}

/** Items, prices, rates, the past of parts, files in and out. */
@Injectable({ providedIn: 'root' })
export class CatalogueData {
  readonly #api = inject(ApiClient);

  items(part: string): Observable<List<ItemEntry>> {
    return this.#api.call('GET /api/parts/:id/items', { params: { id: part } });
  }

  addItem(body: ItemBody): Observable<ItemEntry> {
    return this.#api.call('POST /api/items', { body });
  }

  patchItem(
    id: string,
    patch: Partial<Omit<ItemBody, 'id' | 'partId'>>,
    rev: number,
  ): Observable<ItemEntry> {
    return this.#api.call('PATCH /api/items/:id', { params: { id }, body: patch, revision: rev });
  }

  addFact(body: FactBody): Observable<ItemEntry> {
    return this.#api.call('POST /api/item-facts', { body });
  }

  register(): Observable<List<RegisterRow>> {
    return this.#api.call('GET /api/cables');
  }

  prices(part: string): Observable<List<PriceEntry>> {
    return this.#api.call('GET /api/parts/:id/prices', { params: { id: part } });
  }

  addPrice(body: PriceBody): Observable<List<PriceEntry>> {
    return this.#api.call('POST /api/prices', { body });
  }

  withdrawPrice(id: string): Observable<unknown> {
    return this.#api.call('DELETE /api/prices/:id', { params: { id } });
  }

  rates(): Observable<List<RateEntry>> {
    return this.#api.call('GET /api/rates');
  }

  addRate(body: RateBody): Observable<List<RateEntry>> {
    return this.#api.call('POST /api/rates', { body });
  }

  withdrawRate(id: string): Observable<unknown> {
    return this.#api.call('DELETE /api/rates/:id', { params: { id } });
  }

  cost(body: CostBody): Observable<CostGrounds> {
    return this.#api.call('POST /api/cost', { body });
  }

  revisions(part: string): Observable<List<Revision>> {
    return this.#api.call('GET /api/parts/:id/revisions', { params: { id: part } });
  }

  bulk(ids: readonly string[], patch: PartPatch): Observable<{ changed: number }> {
    return this.#api.call('POST /api/parts/bulk', { body: { ids, patch } });
  }

  /** Send a file as it lies on the disk: the browser streams it, the page does not read it. */
  import(
    file: Blob,
    of: { kind: PartKind; mode: 'try' | 'store'; name: string; encoding: Encoding | null },
  ): Observable<Job> {
    const type = /\.json$/i.test(of.name) ? 'application/json' : 'text/csv';
    // A blob takes its type with it, whatever the header says.
    const body = file.slice(0, file.size, type);
    return this.#api.upload('POST /api/imports', { query: of }, body);
  }

  job(id: string): Observable<Job> {
    return this.#api.call('GET /api/jobs/:id', { params: { id } });
  }

  cancel(id: string): Observable<Job> {
    return this.#api.call('POST /api/jobs/:id/cancel', { params: { id }, body: {} });
  }

  fates(
    id: string,
    q: { after?: number; fate?: RowOutcome; limit?: number },
  ): Observable<{ items: ImportRow[]; next: number | null }> {
    return this.#api.call('GET /api/jobs/:id/rows', { params: { id }, query: q });
  }

  columns(kind: PartKind): Observable<List<{ column: string; what: string }>> {
    return this.#api.call('GET /api/columns/:kind', { params: { kind } });
  }

  shareReport(setup: string): Observable<ShareReport> {
    return this.#api.call('GET /api/setups/:id/share', { params: { id: setup } });
  }

  shareFile(setup: string, prices: boolean): Observable<Bundle> {
    return this.#api.call('GET /api/setups/:id/share-file', {
      params: { id: setup },
      query: { prices },
    });
  }
}
