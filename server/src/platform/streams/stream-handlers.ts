import { streamContracts } from '@ruddy/core/bench/contract';
import { readPositions, type StreamEvent, type TopicKind } from '@ruddy/core/bench/contract';
import { actorOf } from '../access/visit';
import { HttpProblem, notFound } from '../http/problem';
import { implement } from '../http/route';
import { TOPICS } from '../../topics';

/** How long a browser waits before it comes back, ms. */
const RETRY_MS = 1000;

export const streamRoutes = implement(streamContracts, {
  'GET /api/stream': async ({ query, actor, visit }, s, req, res) => {
    if (!s.streams) throw new HttpProblem(503, 'No streams here');
    if (!s.streams.room(actor.id))
      throw new HttpProblem(503, 'Too many open streams', {
        detail: 'Too many tabs are open on this server; close some',
      });
    const topics = [...new Set(query.topics.split(','))];
    // A browser that comes back says what it saw last; that is newer than what the address says.
    const seen = readPositions(query.after);
    for (const [t, seq] of readPositions(req.header('last-event-id') ?? '')) seen.set(t, seq);
    for (const t of topics) {
      const [kind, id = ''] = t.split('/') as [TopicKind, string];
      // A resumed topic that no longer exists gets an event that says so; the other topics continue.
      if (!seen.has(t) && !(await TOPICS[kind].exists(id))) throw notFound(kind);
    }
    res.writeHead(200, {
      'Content-Type': 'text/event-stream',
      'Cache-Control': 'no-store',
      'X-Accel-Buffering': 'no',
    });
    res.write(`retry: ${RETRY_MS}\n\n`);
    const { close, ready } = s.streams.open(
      new Map(topics.map((t) => [t, seen.get(t) ?? 0])),
      {
        send: (id: string, event: StreamEvent) =>
          res.write(`id: ${id}\ndata: ${JSON.stringify(event)}\n\n`),
        // Ends the stream when the session has expired. A failed session lookup is ignored and retried at the next
        // heartbeat.
        comment: () => {
          res.write(': here\n\n');
          actorOf(s, visit).then(
            (still) => {
              if (!still) res.end();
            },
            () => undefined,
          );
        },
        close: () => res.end(),
      },
      actor.id,
    );
    res.on('drain', ready);
    res.on('close', close);
  },
});
