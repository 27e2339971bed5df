import { inject, Injectable } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import type { LoadReport } from '@ruddy/core/workshop/contract';
import { ApiError } from '../platform/api/api-client';
import { WorkshopData } from './workshop';

export type FileLoaded =
  { ok: true; words: string; report: LoadReport } | { ok: false; why: string };

/** Files in the open format, in: a share of a plan as well as the export of everything. All of a file is stored or nothing. */
@Injectable({ providedIn: 'root' })
export class BundleFile {
  readonly #data = inject(WorkshopData);

  /** Load a file; says what it brought, or why nothing was stored. */
  async load(file: File): Promise<FileLoaded> {
    let bundle: unknown;
    try {
      bundle = JSON.parse(await file.text());
    } catch (error) {
      return {
        ok: false,
        why: `Not saved: ${file.name} is not JSON (${error instanceof Error ? error.message : ''}).`,
      };
    }
    try {
      const report = await firstValueFrom(this.#data.load(bundle));
      return { ok: true, report, words: `From ${file.name}: ${countsSentence(report)}.` };
    } catch (error) {
      const why = error instanceof ApiError ? error.message : String(error);
      return { ok: false, why: `Not saved from ${file.name}. ${why}` };
    }
  }
}

/** Where the name in the file is no word of people. */
const KINDS: Record<string, string> = { itemFacts: 'notes on items' };

function countsSentence(r: LoadReport): string {
  const words = (fate: Record<string, number>) =>
    Object.entries(fate).map(([kind, n]) => `${n} ${KINDS[kind] ?? kind}`);
  const stored = words(r.stored);
  const same = words(r.same);
  return [
    stored.length > 0 ? `stored ${stored.join(', ')}` : 'nothing new',
    same.length > 0 ? `already here ${same.join(', ')}` : '',
  ]
    .filter((s) => s !== '')
    .join('; ');
}
