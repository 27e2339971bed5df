import type { Origin } from '@ruddy/core/base/contract';
import type { LoadReport } from '@ruddy/core/parts/contract';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { HttpProblem } from '../http/problem';

type CaptureInFile = Bundle['captures'][number];

/** One file on its way in. */
export interface Load {
  bundle: Bundle;
  origin: Origin;
  by: string;
  now: Date;

  /** The file's name, for entries that stand alone. */
  cameFrom: string;
  /** Id in the file to id here: parts that are already known under another id are met here. */
  parts: Map<string, string>;
  items: Map<string, string>;
  /** Titles that are already known under another id are met here. */
  titles: Map<string, string>;
  report: LoadReport;
  /** Values of runs, one after another: they are most of a large file. */
  captures: AsyncIterable<CaptureInFile> | Iterable<CaptureInFile>;
  /** Says what is being loaded. */
  step: (message: string) => Promise<void>;
}

export function count(l: Load, fate: 'stored' | 'same', kind: string): void {
  l.report[fate][kind] = (l.report[fate][kind] ?? 0) + 1;
}

/** A refusal inside the loader, with the place in the file in front. */
export function at(place: string, error: unknown): never {
  if (error instanceof HttpProblem && !error.more.errors?.some((e) => e.path.startsWith(place)))
    throw new HttpProblem(error.status, 'Not saved', {
      detail: `${place}: ${error.more.detail ?? error.title}`,
      errors: [{ path: place, message: error.more.detail ?? error.title }],
    });
  throw error;
}
