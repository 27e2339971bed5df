import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Express } from 'express';
import { streamEvent, type StreamEvent } from '@ruddy/core/bench/contract';
import { patient } from '../../scripts/lib/patience.mjs';

/** An app that really listens, for clients that stay connected. */
export async function listen(app: Express): Promise<{ url: string; server: Server }> {
  const server = createServer(app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, server };
}

export interface Client {
  readonly events: StreamEvent[];
  /** Id of the last event, with which a browser comes back. */
  lastId: string;
  comments: number;
  ended: boolean;
  until(done: (events: StreamEvent[]) => boolean): Promise<void>;
  close(): void;
}

/** Watch a stream as a browser does: lines to events, ids kept, comments counted. */
export async function watch(
  url: string,
  topics: readonly string[],
  after = '',
  lastId = '',
): Promise<Client> {
  const stop = new AbortController();
  const query = `topics=${topics.join(',')}${after ? `&after=${after}` : ''}`;
  const headers: Record<string, string> = lastId ? { 'last-event-id': lastId } : {};
  const r = await fetch(`${url}/api/stream?${query}`, { signal: stop.signal, headers });
  if (!r.ok || !r.body) throw new Error(`${r.status} ${await r.text()}`);
  const waiting = new Set<() => void>();
  const client: Client = {
    events: [],
    lastId,
    comments: 0,
    ended: false,
    until: (done) =>
      new Promise((resolve, reject) => {
        const late = setTimeout(
          () => reject(new Error(`waited too long; ${client.events.length} events so far`)),
          patient(15_000),
        );
        const look = () => {
          if (!done(client.events)) return;
          clearTimeout(late);
          waiting.delete(look);
          resolve();
        };
        waiting.add(look);
        look();
      }),
    close: () => stop.abort(),
  };
  const decoder = new TextDecoder();
  void (async () => {
    let rest = '';
    try {
      for await (const chunk of r.body as unknown as AsyncIterable<Uint8Array>) {
        const blocks = (rest + decoder.decode(chunk, { stream: true })).split('\n\n');
        rest = blocks.pop() ?? '';
        for (const block of blocks) {
          if (block.startsWith(':')) client.comments++;
          client.lastId = /^id: (.*)$/m.exec(block)?.[1] ?? client.lastId;
          const data = /^data: (.*)$/m.exec(block)?.[1];
          if (data) client.events.push(streamEvent.parse(JSON.parse(data)));
        }
        for (const look of [...waiting]) look();
      }
    } catch (e) {
      if (!stop.signal.aborted) throw e;
    } finally {
      client.ended = true;
    }
  })();
  return client;
}

/** Numbers of one bench's events as they came. */
export function seqs(events: readonly StreamEvent[], bench: string): number[] {
  return events.flatMap((e) =>
    e.kind === 'bench' && e.topic === `bench/${bench}` ? [e.event.seq] : [],
  );
}
