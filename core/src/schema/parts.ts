import * as z from 'zod';
import { cardSchema, type CardSpec } from './card';
import { dockSchema, type DockSpec } from './dock';
import { hostSchema, type HostSpec } from './host';
import { adapterSchema, cableSchema, type AdapterSpec, type CableSpec } from './pieces';

/** Every kind of part with its schema: a new kind is a line here. */
export const PART_SCHEMAS = {
  host: hostSchema,
  cable: cableSchema,
  adapter: adapterSchema,
  dock: dockSchema,
  card: cardSchema,
} as const;
export const PART_KINDS = ['host', 'cable', 'adapter', 'dock', 'card'] as const;
export type PartKind = (typeof PART_KINDS)[number];
export const partKind = z.enum(PART_KINDS);

export interface PartSpecs {
  host: HostSpec;
  cable: CableSpec;
  adapter: AdapterSpec;
  dock: DockSpec;
  card: CardSpec;
}
export type AnySpec = PartSpecs[PartKind];
