import { inject, Injectable } from '@angular/core';
import type { Observable } from 'rxjs';
import { v7 } from 'uuid';
import type { Act } from '@ruddy/core/bench';
import type {
  Bench,
  BenchBody,
  BenchReading,
  BenchRow,
  ClockBody,
  TreeEntry,
} from '@ruddy/core/bench/contract';
import type { Chain } from '@ruddy/core/chain';
import { ApiClient } from '../platform/api/api-client';
import type { Judgement } from './setups';

/** Simulated benches. */
@Injectable({ providedIn: 'root' })
export class BenchesData {
  readonly #api = inject(ApiClient);

  list(setupId?: string): Observable<{ items: BenchRow[] }> {
    return this.#api.call('GET /api/benches', { query: { setupId } });
  }

  lay(body: Omit<BenchBody, 'id'>): Observable<Bench> {
    return this.#api.call('POST /api/benches', { body: { id: v7(), ...body } });
  }

  one(id: string): Observable<Bench> {
    return this.#api.call('GET /api/benches/:id', { params: { id } });
  }

  act(id: string, act: Act): Observable<Bench> {
    return this.#api.call('POST /api/benches/:id/acts', {
      params: { id },
      body: { id: v7(), act },
    });
  }

  clock(id: string, body: ClockBody): Observable<Bench> {
    return this.#api.call('POST /api/benches/:id/clock', { params: { id }, body });
  }

  read(id: string): Observable<BenchReading> {
    return this.#api.call('POST /api/benches/:id/read', { params: { id }, body: {} });
  }

  tree(id: string): Observable<{ entries: TreeEntry[] }> {
    return this.#api.call('GET /api/benches/:id/tree', { params: { id } });
  }

  clear(id: string): Observable<{ removed: string }> {
    return this.#api.call('DELETE /api/benches/:id', { params: { id } });
  }

  /** Judge the chain that lies on a bench, for what it should carry. */
  judge(chain: Chain): Observable<Judgement> {
    const supplies = chain.supplies.map(({ feeds, spec }) => ({ feeds, spec }));
    const picture = chain.picture.map(({ by, plug, screen }) => ({ by, plug, screen }));
    const path = chain.path?.map((p) => p.spec) ?? null;
    return this.#api.call('POST /api/evaluate', {
      body: { chain: { ...chain, path, supplies, picture } },
    });
  }
}
