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
import { Api } from '../platform/api/api';
import type { Judgement } from './setups';

/** Simulated benches. */
@Injectable({ providedIn: 'root' })
export class BenchesData {
  readonly #api = inject(Api);

  list(setupId?: string): Observable<{ items: BenchRow[] }> {
    return this.#api.get('/benches', { setupId });
  }

  lay(body: Omit<BenchBody, 'id'>): Observable<Bench> {
    return this.#api.post('/benches', { id: v7(), ...body });
  }

  one(id: string): Observable<Bench> {
    return this.#api.get(`/benches/${id}`);
  }

  act(id: string, act: Act): Observable<Bench> {
    return this.#api.post(`/benches/${id}/acts`, { id: v7(), act });
  }

  clock(id: string, body: ClockBody): Observable<Bench> {
    return this.#api.post(`/benches/${id}/clock`, body);
  }

  read(id: string): Observable<BenchReading> {
    return this.#api.post(`/benches/${id}/read`, {});
  }

  tree(id: string): Observable<{ entries: TreeEntry[] }> {
    return this.#api.get(`/benches/${id}/tree`);
  }

  clear(id: string): Observable<{ removed: string }> {
    return this.#api.delete(`/benches/${id}`);
  }

  /** Judge the chain that lies on a bench, for what it should carry. */
  judge(chain: Chain): Observable<Judgement> {
    const supplies = chain.supplies.map(({ feeds, spec }) => ({ feeds, spec }));
    const picture = chain.picture.map(({ by, plug, screen }) => ({ by, plug, screen }));
    const path = chain.path?.map((p) => p.spec) ?? null;
    return this.#api.post('/evaluate', { chain: { ...chain, path, supplies, picture } });
  }
}
