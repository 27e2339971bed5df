import { attributesOf, type AttrMeta } from './meta';
import { cableSchema, cardSchema, dockSchema, hostSchema, socketSchema } from './parts';
import type { AttrPath } from './chain';

const SLOT_NAMES: Record<string, string> = {
  host: 'host',
  socket: 'port',
  path: 'cable',
  dock: 'dock',
  card: 'card',
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
  const schema = socket ? socketSchema : { host: hostSchema, path: cableSchema, dock: dockSchema, card: cardSchema }[slot];
  const found = schema && attributesOf(schema).find(([key]) => key === last);
  return { part: socket ? `${keys[2] ?? ''} port`.trim() : (SLOT_NAMES[slot] ?? path), meta: found?.[1] ?? null };
}
