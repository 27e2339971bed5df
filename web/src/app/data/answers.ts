import { inject, Injectable } from '@angular/core';
import { map, switchMap, type Observable } from 'rxjs';
import type { Part, PartPatch, SetupPatch } from '@ruddy/core/api';
import type { AttrPath, HostSpec, SourceMap, SourceNote } from '@ruddy/core/schema';
import { PartsData } from './parts';
import type { Fields } from './setup-patches';

/** What of a setup its questions are about. */
export type ChainFields = Pick<Fields, 'slots' | 'installed' | 'settings'>;

/** Where an attribute of a chain is stored: an attribute of a part, or a field of the setup itself. */
export type AnswerPlace =
  | { readonly of: 'part'; readonly id: string; readonly attr: string; readonly socket: string | null }
  | { readonly of: 'setup'; readonly was: unknown; readonly patch: (value: unknown) => SetupPatch };

const PATH_KEYS = 'abcdef';

/** Where the answer to a question about a setup goes; null where its part is not chosen, or for what is asked elsewhere. */
export function placeOf(path: AttrPath, fields: ChainFields): AnswerPlace | null {
  const [slot = '', a = '', b = '', c] = path.split('/');
  const { slots } = fields;
  const part = (id: string | null | undefined, attr: string, socket: string | null = null): AnswerPlace | null =>
    id && attr ? { of: 'part', id, attr, socket } : null;
  switch (slot) {
    case 'host':
      return a === 'sockets' ? part(slots.host, c ?? '', b) : part(slots.host, a);
    case 'dock':
    case 'card':
    case 'system':
      return part(slots[slot], a);
    case 'path':
      return part(slots.path?.[PATH_KEYS.indexOf(a)], b);
    case 'supplies':
      return part(slots.supplies[PATH_KEYS.indexOf(a)]?.part, b);
    case 'picture':
      return part(slots.screens[PATH_KEYS.indexOf(a)]?.part, b);
    case 'installed':
    case 'settings':
      return {
        of: 'setup',
        was: (fields[slot] as Record<string, unknown>)[a] ?? null,
        patch: (value) => ({ [slot]: { ...fields[slot], [a]: value } }) as SetupPatch,
      };
    default:
      return null;
  }
}

/** The value a part has for an attribute, of itself or of one of its ports. */
function valueAt(spec: Part['spec'], attr: string, socket: string | null): unknown {
  const owner = socket === null ? spec : (spec as HostSpec).sockets.find((s) => s.key === socket);
  return (owner as Record<string, unknown> | undefined)?.[attr] ?? null;
}

function patchOf(spec: Part['spec'], attr: string, socket: string | null, value: unknown): Record<string, unknown> {
  if (socket === null) return { [attr]: value };
  return { sockets: (spec as HostSpec).sockets.map((s) => (s.key === socket ? { ...s, [attr]: value } : s)) };
}

/** An answer that was stored, and how to take it back. */
export interface Stored {
  readonly undo: () => Observable<Part>;
}

/** Answers about parts, written where the part is kept, each with where it came from and the day. */
@Injectable({ providedIn: 'root' })
export class Answers {
  readonly #parts = inject(PartsData);

  /** Store a value with its source; the part is read anew, so that nobody else's change is lost. */
  save(place: Extract<AnswerPlace, { of: 'part' }>, value: unknown, source: SourceNote): Observable<Stored> {
    const { id, attr, socket } = place;
    const key = socket === null ? attr : `sockets/${socket}/${attr}`;
    return this.#parts.one(id).pipe(
      switchMap((was) => {
        const sources = { ...was.sources, [key]: source };
        return this.#patch(was, patchOf(was.spec, attr, socket, value), sources).pipe(
          map((now): Stored => ({
            undo: () => this.#patch(now, patchOf(now.spec, attr, socket, valueAt(was.spec, attr, socket)), was.sources),
          })),
        );
      }),
    );
  }

  #patch(part: Part, spec: Record<string, unknown>, sources: SourceMap): Observable<Part> {
    const patch: PartPatch = { spec, sources };
    return this.#parts.patch(part.id, patch, part.rev);
  }
}
