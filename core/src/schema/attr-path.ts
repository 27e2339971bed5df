import type * as z from 'zod';
import { attributesOf, type AttrMeta } from './meta';
import { cardSchema } from './card';
import type { AttrPath, Chain } from './chain';
import { dockSchema } from './dock';
import { hostSchema, socketSchema } from './host';
import { loadSchema } from './loads';
import { adapterSchema, cableSchema } from './pieces';
import { screenSchema } from './screen';
import { supplySchema } from './supply';
import { installedSchema, settingsSchema, systemSchema, useSchema } from './system';

const SLOT_NAMES: Record<string, string> = {
  host: 'host',
  socket: 'port',
  path: 'cable',
  dock: 'dock',
  card: 'card',
  loads: 'dock',
  supplies: 'supply',
  picture: 'screen',
  system: 'system',
  installed: 'software',
  settings: 'docked host',
  uses: 'use',
};

/** Schemas an attribute of a slot may belong to. */
const SCHEMAS: Record<string, readonly z.ZodObject[]> = {
  host: [hostSchema],
  path: [cableSchema, adapterSchema],
  dock: [dockSchema],
  card: [cardSchema],
  loads: [loadSchema],
  supplies: [supplySchema],
  picture: [screenSchema],
  system: [systemSchema],
  installed: [installedSchema],
  settings: [settingsSchema],
  uses: [useSchema],
};

/**
 * The metadata an attribute path points to, with the house noun of its part.
 * A path that names a whole slot (`dock`) has no attribute: `meta` is null.
 * An unknown path gives `{part: path, meta: null}`.
 */
export function describePath(path: AttrPath): { part: string; meta: AttrMeta | null } {
  const keys = path.split('/');
  const slot = keys[0] ?? '';
  const last = keys[keys.length - 1] ?? '';
  if (keys.length === 1) return { part: SLOT_NAMES[slot] ?? path, meta: null };
  const socket = slot === 'host' && keys[1] === 'sockets';
  const schemas = socket ? [socketSchema as z.ZodObject] : (SCHEMAS[slot] ?? []);
  const found = schemas.flatMap(attributesOf).find(([key]) => key === last);
  return { part: socket ? `${keys[2] ?? ''} port`.trim() : (SLOT_NAMES[slot] ?? path), meta: found?.[1] ?? null };
}

/** The value a chain has at an attribute path; undefined where the path leads to no attribute of it. */
function valueAt(chain: Chain, path: AttrPath): unknown {
  const [slot = '', key = '', ...rest] = path.split('/');
  const last = rest[rest.length - 1] ?? key;
  const of = (owner: unknown) => (owner as Record<string, unknown> | null | undefined)?.[last];
  switch (slot) {
    case 'host':
      return key === 'sockets' ? of(chain.host?.sockets.find((s) => s.key === rest[0])) : of(chain.host);
    case 'path':
      return of(chain.path?.find((p) => p.key === key)?.spec);
    case 'supplies':
      return of(chain.supplies.find((s) => s.key === key)?.spec);
    case 'picture':
      return of(chain.picture.find((s) => s.key === key)?.screen);
    case 'dock':
    case 'card':
    case 'system':
    case 'installed':
    case 'settings':
      return rest.length === 0 && key !== '' ? of(chain[slot]) : undefined;
    default:
      return undefined;
  }
}

/**
 * Is an attribute of a chain known exactly: a number, a word or a text, and neither "not sure", nor one of several, nor a range? What is
 * known is never asked.
 *
 * Example: `card/lengthMm` of a chain whose card is 240 mm long: true; of one with 230 to 250 mm: false.
 */
export function knownAt(chain: Chain, path: AttrPath): boolean {
  const value = valueAt(chain, path);
  return typeof value === 'number' || (typeof value === 'string' && value !== '');
}
