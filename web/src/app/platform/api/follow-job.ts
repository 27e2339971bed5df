import { filter, map, type Observable, startWith, switchMap, takeWhile } from 'rxjs';
import type { Job } from '@ruddy/core/parts/contract';
import type { Live } from './live';

/** A job from when it was asked for to its end, each time it says how far it is. */
export function followJob(live: Live, asked: Observable<Job>): Observable<Job> {
  return asked.pipe(
    switchMap((job) =>
      live.watch(`job/${job.id}`, 0).pipe(
        map((e) => (e.kind === 'job' ? e.job : null)),
        filter((now) => now !== null),
        startWith(job),
      ),
    ),
    takeWhile((job) => job.state === 'running', true),
  );
}
