import * as z from 'zod';
import { cardSchema, type CardSpec } from './card';
import { dockSchema, type DockSpec } from './dock';
import { hostSchema, type HostSpec } from './host';
import { desktopSchema, type DesktopSpec, laptopSchema, type LaptopSpec } from './machine';
import { adapterSchema, type AdapterSpec, cableSchema, type CableSpec } from './pieces';
import {
  releaseSchema,
  type ReleaseSpec,
  requirementSchema,
  type RequirementSpec,
} from './release';
import { screenSchema, type ScreenSpec } from './screen';
import { supplySchema, type SupplySpec } from './supply';
import { systemSchema, type SystemSpec } from './system';

/**
 * Every kind of entry of the catalogue with its schema: a new kind is a line here. Releases and requirements are entries like parts:
 * they are listed, searched, edited, retired and carried in files the same way.
 */
export const PART_SCHEMAS = {
  host: hostSchema,
  cable: cableSchema,
  adapter: adapterSchema,
  dock: dockSchema,
  card: cardSchema,
  supply: supplySchema,
  screen: screenSchema,
  system: systemSchema,
  release: releaseSchema,
  requirement: requirementSchema,
  laptop: laptopSchema,
  desktop: desktopSchema,
} as const;
export const PART_KINDS = [
  'host',
  'cable',
  'adapter',
  'dock',
  'card',
  'supply',
  'screen',
  'system',
  'release',
  'requirement',
  'laptop',
  'desktop',
] as const;
export type PartKind = (typeof PART_KINDS)[number];
export const partKind = z.enum(PART_KINDS);

export interface PartSpecs {
  host: HostSpec;
  cable: CableSpec;
  adapter: AdapterSpec;
  dock: DockSpec;
  card: CardSpec;
  supply: SupplySpec;
  screen: ScreenSpec;
  system: SystemSpec;
  release: ReleaseSpec;
  requirement: RequirementSpec;
  laptop: LaptopSpec;
  desktop: DesktopSpec;
}
export type AnySpec = PartSpecs[PartKind];
