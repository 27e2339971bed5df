import type { RequestHandler } from 'express';
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import { database } from '../db/database';

interface OpenRequest {
  readonly method: string;
  readonly path: string;
  readonly began: number;
}

/** Limits of the buckets of answer times, s. */
const BUCKETS_S = [0.005, 0.02, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10];

interface Pool {
  readonly size: number;
  readonly using: number;
  readonly waiting: number;
}
const pool = (): Pool =>
  (database() as unknown as { connectionManager: { pool: Pool } }).connectionManager.pool;

/** What else is counted when somebody asks. */
export interface Counts {
  readonly jobs: () => number;
  /** Work that waits for a thread. */
  readonly threads: () => number;
}

/** What a process does, as numbers: answer times by route, jobs, threads, connections, memory, delay of the event loop. */
export class Meter {
  readonly registry = new Registry();
  readonly #open = new Set<OpenRequest>();
  readonly #answers = new Histogram({
    name: 'ruddy_request_seconds',
    help: 'Time to answer, by route',
    labelNames: ['method', 'route', 'status'],
    buckets: BUCKETS_S,
    registers: [this.registry],
  });

  constructor(counts: Counts) {
    collectDefaultMetrics({ register: this.registry });
    this.#gauge('ruddy_requests_open', 'Requests not answered yet', () => this.#open.size);
    this.#gauge('ruddy_jobs_running', 'Jobs of this process', counts.jobs);
    this.#gauge('ruddy_threads_waiting', 'Work that waits for a thread', counts.threads);
    this.#gauge('ruddy_connections', 'Connections to the database', () => pool().size);
    this.#gauge('ruddy_connections_used', 'Of them in use', () => pool().using);
    this.#gauge('ruddy_connections_waiting', 'Work that waits for one', () => pool().waiting);
  }

  #gauge(name: string, help: string, value: () => number): void {
    new Gauge({
      name,
      help,
      registers: [this.registry],
      collect() {
        this.set(value());
      },
    });
  }

  /** Measures each request from when it came to when its answer has left. */
  handler(): RequestHandler {
    return (req, res, next) => {
      const open = { method: req.method, path: req.path, began: performance.now() };
      this.#open.add(open);
      res.once('close', () => {
        this.#open.delete(open);
        // The pattern of the route, never the address: ids would make a series each.
        const route = String(res.locals['route'] ?? 'page');
        const labels = { method: req.method, route, status: res.statusCode };
        this.#answers.observe(labels, (performance.now() - open.began) / 1000);
      });
      next();
    };
  }

  /** Requests that are being answered and for how long, ms, the oldest first. */
  running(): { request: string; ms: number }[] {
    const now = performance.now();
    return [...this.#open].map((o) => ({
      request: `${o.method} ${o.path}`,
      ms: Math.round(now - o.began),
    }));
  }
}
