import { listen } from '../db/notify';
import pg from 'pg';
import { writePositions } from '@ruddy/core/bench';
import type { TopicKind } from '@ruddy/core/bench/contract';
import type { LiveStreams, Services, Sink } from '../http/route';
import { TOPICS } from '../../topics';

const POLL_MS = 2000;
const COMMENT_MS = 15_000;
const AGAIN_MS = 1000;
/** A tab has one stream: so many of a process, and of one member, are more than people open. */
const MOST = 400;
const MAX_PER_MEMBER = 60;

/** One stream of one client: what it watches and how far it has seen each. */
class Watch {
  readonly seen: Map<string, number>;
  paused = false;
  closed = false;
  readonly #busy = new Set<string>();
  readonly #again = new Set<string>();

  constructor(
    readonly services: Services,
    readonly sink: Sink,
    seen: ReadonlyMap<string, number>,
    readonly memberId: string,
  ) {
    this.seen = new Map(seen);
  }

  /** Send what a topic has after what was seen. Called while at it, it looks once more afterwards. */
  async pump(topic: string): Promise<void> {
    if (this.closed || this.paused || !this.seen.has(topic)) return;
    if (this.#busy.has(topic)) {
      this.#again.add(topic);
      return;
    }
    this.#busy.add(topic);
    try {
      do {
        this.#again.delete(topic);
        while ((await this.#batch(topic)) > 0);
      } while (this.#again.has(topic));
    } finally {
      this.#busy.delete(topic);
    }
  }

  async #batch(topic: string): Promise<number> {
    const [kind, id = ''] = topic.split('/') as [TopicKind, string];
    const list = await TOPICS[kind].after(this.services, id, this.seen.get(topic) ?? 0);
    if (this.closed || this.paused) return 0;
    if (list === null) {
      this.seen.delete(topic);
      this.sink.send(writePositions(this.seen), { kind: 'gone', topic, id });
      return 0;
    }
    for (const { seq, event } of list) {
      this.seen.set(topic, seq);
      // What was handed over counts as sent; what comes after waits in its table until the client has room again.
      this.paused = !this.sink.send(writePositions(this.seen), event);
      if (this.paused) return 0;
    }
    return list.length;
  }
}

/**
 * All streams of this process. Woken by a database notification of any process, and every two seconds in case one was
 * missed; watched benches are advanced here. No state that another process could need is held in memory.
 */
export class Streams implements LiveStreams {
  readonly #watches = new Set<Watch>();
  readonly #timers = new Map<string, NodeJS.Timeout>();
  #listener: pg.Client | null = null;
  #poll: NodeJS.Timeout | null = null;
  #comments: NodeJS.Timeout | null = null;
  #closed = false;

  constructor(
    readonly services: Services,
    /** Address of the database for one plain connection that listens; null: polling alone. */
    readonly url: string | null,
  ) {}

  /** Open a stream over topics from after the numbers given; gives the way to close it and to say it has room again. */
  open(
    topics: ReadonlyMap<string, number>,
    sink: Sink,
    memberId = '',
  ): { close: () => void; ready: () => void } {
    const watch = new Watch(this.services, sink, topics, memberId);
    this.#watches.add(watch);
    this.#begin();
    for (const topic of topics.keys()) {
      void this.#pump(watch, topic);
      this.#tick(topic, 0);
    }
    return {
      close: () => {
        watch.closed = true;
        this.#watches.delete(watch);
        if (this.#watches.size === 0) void this.#rest();
      },
      ready: () => {
        watch.paused = false;
        for (const topic of watch.seen.keys()) void this.#pump(watch, topic);
      },
    };
  }

  room(memberId: string): boolean {
    if (this.#watches.size >= MOST) return false;
    let own = 0;
    for (const w of this.#watches) if (w.memberId === memberId) own++;
    return own < MAX_PER_MEMBER;
  }

  /** End every stream; clients come back to whoever answers then. */
  async close(): Promise<void> {
    this.#closed = true;
    for (const w of this.#watches) {
      w.closed = true;
      w.sink.close();
    }
    this.#watches.clear();
    await this.#rest();
  }

  #begin(): void {
    if (this.#poll || this.#closed) return;
    this.#poll = setInterval(() => this.#wakeAll(), POLL_MS);
    this.#comments = setInterval(() => this.#watches.forEach((w) => w.sink.comment()), COMMENT_MS);
    void this.#listen();
  }

  async #rest(): Promise<void> {
    for (const t of [this.#poll, this.#comments]) if (t) clearInterval(t);
    this.#poll = this.#comments = null;
    for (const t of this.#timers.values()) clearTimeout(t);
    this.#timers.clear();
    const listener = this.#listener;
    this.#listener = null;
    await listener?.end().catch(() => undefined);
  }

  /** One plain connection that listens. While it is away the poll does its work; it is tried again with every poll. */
  async #listen(): Promise<void> {
    if (this.#listener || this.url === null) return;
    const client = new pg.Client({
      connectionString: this.url,
      application_name: 'ruddy-bridge-streams',
    });
    this.#listener = client;
    const lost = () => {
      if (this.#listener === client) this.#listener = null;
    };
    client.on('error', lost);
    client.on('end', lost);
    client.on('notification', (n) => this.#wake(n.payload ?? ''));
    try {
      await client.connect();
      await listen(client);
      this.#wakeAll();
    } catch {
      lost();
    }
  }

  #wakeAll(): void {
    void this.#listen();
    for (const w of this.#watches) for (const topic of w.seen.keys()) void this.#pump(w, topic);
    for (const topic of this.#watched()) if (!this.#timers.has(topic)) this.#tick(topic, 0);
  }

  #wake(topic: string): void {
    for (const w of this.#watches) if (w.seen.has(topic)) void this.#pump(w, topic);
    if (this.#watched().has(topic)) this.#tick(topic, 0);
  }

  #watched(): Set<string> {
    return new Set([...this.#watches].flatMap((w) => [...w.seen.keys()]));
  }

  /** A database that is away for a moment costs a poll, not the stream. */
  async #pump(watch: Watch, topic: string): Promise<void> {
    await watch.pump(topic).catch((e: unknown) => this.#unexpected(e));
  }

  #unexpected(e: unknown): void {
    if (!this.#closed) this.services.unexpected?.(e);
  }

  /** Move a watched topic on by itself, and again when it says so. A change made elsewhere sets the timer anew. */
  #tick(topic: string, ms: number): void {
    const [kind, id = ''] = topic.split('/') as [TopicKind, string];
    const move = TOPICS[kind].tick;
    if (!move || this.#closed) return;
    clearTimeout(this.#timers.get(topic));
    const again = (next: number | null) => {
      if (next === null || !this.#watched().has(topic)) this.#timers.delete(topic);
      else this.#tick(topic, Math.min(next, 60_000));
    };
    const timer = setTimeout(() => {
      move(this.services, id).then(again, (e: unknown) => {
        this.#unexpected(e);
        again(AGAIN_MS);
      });
    }, ms);
    this.#timers.set(topic, timer);
  }
}
