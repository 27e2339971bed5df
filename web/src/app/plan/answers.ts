import { inject, Injectable } from '@angular/core';
import { map, switchMap, throwError, type Observable } from 'rxjs';
import type { AttrPath } from '@ruddy/core/chain';
import type { HostSpec, SourceMap, SourceNote } from '@ruddy/core/parts';
import type { ItemEntry, Part, PartPatch } from '@ruddy/core/parts/contract';
import type { SetupPatch } from '@ruddy/core/setups/contract';
import { CatalogueData } from '../parts/catalogue';
import { PartsData } from '../parts/parts';
import type { Fields } from '../setups/setup-patches';

/** What of a setup its questions are about. */
export type ChainFields = Pick<Fields, 'slots' | 'installed' | 'settings'>;

/** Where an attribute of a chain is stored: an attribute of a part, or a field of the setup itself. */
export type AnswerPlace =
  | {
      readonly of: 'part';
      readonly id: string;
      readonly attr: string;
      readonly socket: string | null;
      /** The very item that stands there; null where none is named, or where the attribute is one of a port. */
      readonly item: string | null;
    }
  | { readonly of: 'setup'; readonly was: unknown; readonly patch: (value: unknown) => SetupPatch };

export type PartPlace = Extract<AnswerPlace, { of: 'part' }>;
type Differs = ItemEntry['differs'];
const GONE = new Error('The item is gone; name another on Plan.');

const PATH_KEYS = 'abcdef';

/** Where the answer to a question about a setup goes; null where its part is not chosen, or for what is asked elsewhere. */
export function placeOf(path: AttrPath, fields: ChainFields): AnswerPlace | null {
  const [slot = '', a = '', b = '', c] = path.split('/');
  const { slots } = fields;
  const part = (
    id: string | null | undefined,
    attr: string,
    at: string,
    socket: string | null = null,
  ): AnswerPlace | null =>
    id && attr
      ? { of: 'part', id, attr, socket, item: socket === null ? (slots.items[at] ?? null) : null }
      : null;
  const i = PATH_KEYS.indexOf(a);
  switch (slot) {
    case 'host':
      return a === 'sockets' ? part(slots.host, c ?? '', 'host', b) : part(slots.host, a, 'host');
    case 'dock':
    case 'card':
    case 'system':
      return part(slots[slot], a, slot);
    case 'path':
      return part(slots.path?.[i], b, `path/${i}`);
    case 'supplies':
      return part(slots.supplies[i]?.part, b, `supplies/${i}`);
    case 'picture':
      return part(slots.screens[i]?.part, b, `screens/${i}`);
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

function patchOf(
  spec: Part['spec'],
  attr: string,
  socket: string | null,
  value: unknown,
): Record<string, unknown> {
  if (socket === null) return { [attr]: value };
  return {
    sockets: (spec as HostSpec).sockets.map((s) =>
      s.key === socket ? { ...s, [attr]: value } : s,
    ),
  };
}

/** An answer that was stored, and how to take it back. */
export interface Stored {
  readonly undo: () => Observable<unknown>;
}

/** Answers about parts, written where the part is kept, each with where it came from and the day. */
@Injectable({ providedIn: 'root' })
export class Answers {
  readonly #parts = inject(PartsData);
  readonly #catalogue = inject(CatalogueData);

  /** Store a value with its source; the part is read anew, so that nobody else's change is lost. */
  save(place: PartPlace, value: unknown, source: SourceNote): Observable<Stored> {
    const { id, attr, socket } = place;
    const key = socket === null ? attr : `sockets/${socket}/${attr}`;
    return this.#parts.one(id).pipe(
      switchMap((was) => {
        const sources = { ...was.sources, [key]: source };
        return this.#patch(was, patchOf(was.spec, attr, socket, value), sources).pipe(
          map((now): Stored => ({
            undo: () =>
              this.#patch(
                now,
                patchOf(now.spec, attr, socket, valueAt(was.spec, attr, socket)),
                was.sources,
              ),
          })),
        );
      }),
    );
  }

  /** Store a value of one very item with its source; its part, and every other item of it, stays as it is. */
  saveItem({ id, attr, item }: PartPlace, value: unknown, source: SourceNote): Observable<Stored> {
    const change = (differs: (was: Differs) => Differs) =>
      this.#catalogue.items(id).pipe(
        switchMap(({ items }) => {
          const own = items.find((x) => x.id === item);
          return own
            ? this.#catalogue.patchItem(own.id, { differs: differs(own.differs) }, own.rev)
            : throwError(() => GONE);
        }),
      );
    let before: Differs[string] | undefined;
    return change((was) => {
      before = was[attr];
      return { ...was, [attr]: { value, source } };
    }).pipe(
      map((): Stored => ({
        undo: () =>
          change(({ [attr]: gone, ...rest }) => {
            void gone;
            return before ? { ...rest, [attr]: before } : rest;
          }),
      })),
    );
  }

  #patch(part: Part, spec: Record<string, unknown>, sources: SourceMap): Observable<Part> {
    const patch: PartPatch = { spec, sources };
    return this.#parts.patch(part.id, patch, part.rev);
  }
}
