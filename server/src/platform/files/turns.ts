import { HttpProblem } from '../http/problem';

/** Files of one member that may wait for their turn. */
export const MOST_WAITING = 8;

interface Queue {
  last: Promise<unknown>;
  size: number;
}
const queues = new Map<string, Queue>();

/**
 * Does one thing a member at a time; what else the member asks for waits.
 * @param memberId whose
 * @param work begins once everything before it has ended
 * @throws HttpProblem 429 when too much waits already
 */
export function inTurn<T>(memberId: string, work: () => Promise<T>): Promise<T> {
  const queue = queues.get(memberId) ?? { last: Promise.resolve(), size: 0 };
  if (queue.size > MOST_WAITING)
    throw new HttpProblem(429, `${MOST_WAITING} files of yours are waiting`, {
      detail: `${MOST_WAITING} files of yours are waiting already; send this one when they are through`,
    });
  queues.set(memberId, queue);
  queue.size += 1;
  const mine = queue.last.then(work);
  const over = () => {
    queue.size -= 1;
    if (queue.size === 0) queues.delete(memberId);
  };
  queue.last = mine.then(over, over);
  return mine;
}
