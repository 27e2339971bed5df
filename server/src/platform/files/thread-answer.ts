import { Cancelled } from '../jobs/jobs';
import { HttpProblem } from '../http/problem';

/** What comes back from a thread: errors lose their class on the way, so what a person is to read travels as data. */
export type ThreadAnswer<T> =
  | { readonly value: T }
  | { readonly problem: Pick<HttpProblem, 'status' | 'title' | 'more'> }
  | { readonly cancelled: true };

/** In the thread: the result of the work, or its refusal, as data. */
export async function answerOf<T>(work: () => Promise<T>): Promise<ThreadAnswer<T>> {
  try {
    return { value: await work() };
  } catch (error) {
    if (error instanceof Cancelled) return { cancelled: true };
    if (!(error instanceof HttpProblem)) throw error;
    const { status, title, more } = error;
    return { problem: { status, title, more } };
  }
}

/** In the process that asked: the result, or the refusal thrown again. */
export function valueOf<T>(answer: ThreadAnswer<T>): T {
  if ('value' in answer) return answer.value;
  if ('cancelled' in answer) throw new Cancelled();
  const { status, title, more } = answer.problem;
  throw new HttpProblem(status, title, more);
}
