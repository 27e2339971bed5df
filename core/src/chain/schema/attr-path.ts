import type * as z from 'zod';
import {
  adapterSchema,
  attributesOf,
  type AttrMeta,
  cableSchema,
  cardSchema,
  dockSchema,
  hostSchema,
  installedSchema,
  screenSchema,
  settingsSchema,
  socketSchema,
  supplySchema,
  systemSchema,
  useSchema,
} from '../../parts';
import type { AttrPath } from './chain';
import { loadSchema } from './loads';

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
 * The metadata an attribute path points to, with the noun of its part.
 * @param path of an attribute, or of a whole slot
 * @returns part and metadata; `meta` is null of a whole slot and of an unknown path
 */
export function describePath(path: AttrPath): { part: string; meta: AttrMeta | null } {
  const keys = path.split('/');
  const slot = keys[0] ?? '';
  const last = keys[keys.length - 1] ?? '';
  if (keys.length === 1) return { part: SLOT_NAMES[slot] ?? path, meta: null };
  const socket = slot === 'host' && keys[1] === 'sockets';
  const schemas = socket ? [socketSchema as z.ZodObject] : (SCHEMAS[slot] ?? []);
  const found = schemas.flatMap(attributesOf).find(([key]) => key === last);
  return {
    part: socket ? `${keys[2] ?? ''} port`.trim() : (SLOT_NAMES[slot] ?? path),
    meta: found?.[1] ?? null,
  };
}
