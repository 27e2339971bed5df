import { inject, Injectable, signal } from '@angular/core';
import { lastValueFrom, tap } from 'rxjs';
import type { Encoding } from '@ruddy/core/base/contract';
import type { Job, LoadReport } from '@ruddy/core/parts/contract';
import { ApiError } from '../platform/api/api-client';
import { followJob } from '../platform/api/follow-job';
import { Live } from '../platform/api/live';
import { asksEncoding } from '../platform/kit/encoding-choice';
import { pluralize } from '../platform/shared/format';
import { WorkshopData } from './workshop';

export type FileLoaded =
  | { ok: true; words: string; report: LoadReport }
  | { ok: false; why: string; asksEncoding: boolean };

/** Files in the open format, in: a share of a plan as well as the export of everything. All of a file is stored or nothing. */
@Injectable({ providedIn: 'root' })
export class BundleFile {
  readonly #data = inject(WorkshopData);
  readonly #live = inject(Live);
  /** The file that is being loaded; null while none is. */
  readonly job = signal<Job | null>(null);

  /** Load a file; says what it brought, or why nothing was stored. */
  async load(file: File, encoding: Encoding | null = null): Promise<FileLoaded> {
    const followed = followJob(this.#live, this.#data.load(file, encoding)).pipe(
      tap((job) => this.job.set(job)),
    );
    try {
      const { result, message, state } = await lastValueFrom(followed);
      const report = result?.loaded;
      if (report)
        return { ok: true, report, words: `From ${file.name}: ${countsSentence(report)}.` };
      const why =
        state === 'cancelled'
          ? `${file.name}: ${message}`
          : `Not saved from ${file.name}. ${message.replace('Not saved. ', '')}`;
      return { ok: false, why, asksEncoding: false };
    } catch (error) {
      const why = error instanceof ApiError ? error.message : String(error);
      const said = `Not saved from ${file.name}. ${why}`;
      return { ok: false, why: said, asksEncoding: asksEncoding(error) };
    } finally {
      this.job.set(null);
    }
  }
}

/** What the lists of a file hold, one and many, in the order they are said. */
const KINDS: Readonly<Record<string, readonly [one: string, many: string]>> = {
  setups: ['setup', 'setups'],
  parts: ['part', 'parts'],
  items: ['item', 'items'],
  itemFacts: ['note on items', 'notes on items'],
  outcomes: ['log entry', 'log entries'],
  events: ['event', 'events'],
  runs: ['run', 'runs'],
  captures: ['channel of runs', 'channels of runs'],
  profiles: ['title', 'titles'],
  statedFigures: ['stated figure', 'stated figures'],
  titleNotes: ['note on titles', 'notes on titles'],
  sessions: ['planned session', 'planned sessions'],
  claims: ['claim', 'claims'],
  prices: ['price', 'prices'],
  rates: ['exchange rate', 'exchange rates'],
  searches: ['search', 'searches'],
  rules: ['house rule', 'house rules'],
  figures: ['figure of the troubleshooter', 'figures of the troubleshooter'],
  feeds: ['feed', 'feeds'],
  members: ['member', 'members'],
  loans: ['loan', 'loans'],
};

/** "85 runs", "1 title", in the order of the table. */
function counted(fate: Readonly<Record<string, number>>): string {
  return Object.entries(KINDS)
    .flatMap(([kind, [one, many]]) => (fate[kind] ? [pluralize(fate[kind], one, many)] : []))
    .join(', ');
}

function countsSentence({ stored, same }: LoadReport): string {
  const here = counted(same);
  const fresh = counted(stored);
  return [
    fresh === '' ? 'nothing new' : `stored ${fresh}`,
    ...(here === '' ? [] : [`already here ${here}`]),
  ].join('; ');
}
