import { inject, Injectable, InjectionToken, signal } from '@angular/core';
import { Observable, Subject } from 'rxjs';
import { writePositions } from '@ruddy/core/bench';
import { apiUrl } from './api-client';
import type { StreamEvent } from '@ruddy/core/bench/contract';

/** Makes the browser's own stream reader; tests put another in its place. */
export const STREAM_READER = new InjectionToken<(url: string) => EventSource>('stream reader', {
  factory: () => (url) => new EventSource(url),
});

const AGAIN_MS = 2000;

/**
 * The one live stream of this tab. In: topics that somebody watches, each from after a number. Out: their events in order, each once,
 * whatever happened to the connection in between. It is opened with the first watcher and closed with the last.
 */
@Injectable({ providedIn: 'root' })
export class Live {
  readonly #reader = inject(STREAM_READER);
  readonly #topics = new Map<
    string,
    { seen: number; events: Subject<StreamEvent>; watchers: number }
  >();
  #source: EventSource | null = null;
  #opened = '';
  #due: ReturnType<typeof setTimeout> | null = null;
  /** Is the stream connected? Null while nothing is watched. */
  readonly connected = signal<boolean | null>(null);

  watch(topic: string, after: number): Observable<StreamEvent> {
    return new Observable<StreamEvent>((out) => {
      const known = this.#topics.get(topic) ?? {
        seen: after,
        events: new Subject<StreamEvent>(),
        watchers: 0,
      };
      known.watchers++;
      // A second watcher that knows less makes the stream begin anew from there; the first drops what it has.
      if (after < known.seen) {
        known.seen = after;
        this.#opened = '';
      }
      this.#topics.set(topic, known);
      let last = after;
      const inner = known.events.subscribe({
        next: (e) => {
          const seq = seqOf(e);
          if (seq !== null && seq <= last) return;
          last = seq ?? last;
          out.next(e);
          if (e.kind === 'gone') out.complete();
        },
      });
      this.#later(0);
      return () => {
        inner.unsubscribe();
        known.watchers--;
        if (known.watchers === 0 && this.#topics.get(topic) === known) this.#topics.delete(topic);
        this.#later(0);
      };
    });
  }

  /** Several changes at once open one stream. */
  #later(ms: number): void {
    if (this.#due) clearTimeout(this.#due);
    this.#due = setTimeout(() => this.#open(), ms);
  }

  #open(): void {
    this.#due = null;
    const wanted = [...this.#topics.keys()].sort().join();
    if (wanted === this.#opened && this.#source) return;
    this.#source?.close();
    this.#source = null;
    this.#opened = wanted;
    if (wanted === '') {
      this.connected.set(null);
      return;
    }
    const after = writePositions(new Map([...this.#topics].map(([t, { seen }]) => [t, seen])));
    const source = this.#reader(apiUrl('GET /api/stream', { query: { topics: wanted, after } }));
    this.#source = source;
    source.onopen = () => this.connected.set(true);
    source.onmessage = (m: MessageEvent<string>) => this.#take(JSON.parse(m.data) as StreamEvent);
    source.onerror = () => {
      if (this.#source !== source) return;
      this.connected.set(false);
      // The browser comes back by itself after a broken connection; after a refusal it does not.
      if (source.readyState !== 2) return;
      this.#opened = '';
      this.#later(AGAIN_MS);
    };
  }

  #take(e: StreamEvent): void {
    const topic = this.#topics.get(e.topic);
    if (!topic) return;
    topic.seen = Math.max(topic.seen, seqOf(e) ?? 0);
    if (e.kind === 'gone') this.#topics.delete(e.topic);
    topic.events.next(e);
  }
}

function seqOf(e: StreamEvent): number | null {
  return e.kind === 'bench' ? e.event.seq : e.kind === 'job' ? e.seq : null;
}
