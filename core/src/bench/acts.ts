import * as z from 'zod';
import { SECURITY_LEVELS } from '../bring-up';
import {
  adapterSchema,
  cableSchema,
  cardSchema,
  dockSchema,
  hostSchema,
  supplySchema,
} from '../parts';
import { FAULT_IDS } from './faults';

const on = z.boolean();
const act = <T extends string, S extends z.ZodRawShape>(name: T, shape: S) =>
  z.strictObject({ act: z.literal(name), ...shape });

/** Another part on the bench, or none. A path is laid as a whole, host side first. */
const place = [
  act('place-host', { spec: hostSchema.nullable() }),
  act('place-path', { spec: z.array(z.union([cableSchema, adapterSchema])).max(6) }),
  act('place-dock', { spec: dockSchema.nullable() }),
  act('place-card', { spec: cardSchema.nullable() }),
  act('place-supply', { spec: supplySchema.nullable() }),
] as const;

/** What hands do at a bench. A person may do them in any order; the bench answers as hardware would. */
export const actSchema = z.discriminatedUnion('act', [
  ...place,
  act('plug', { socket: z.string().min(1).max(40) }),
  act('unplug', {}),
  act('card', { in: on }),
  act('power-plugs', { in: on }),
  act('mains', { on }),
  act('dock', { on }),
  act('host', { to: z.enum(['on', 'off', 'asleep', 'awake']) }),
  act('key', {}),
  act('approve', { how: z.enum(['none', 'once', 'always']) }),
  act('security', { level: z.enum(SECURITY_LEVELS) }),
  act('driver', { in: on }),
  act('load', { on }),
  act('traffic', { on }),
  act('screen', { in: on }),
  act('fault', { id: z.enum(FAULT_IDS), strength: z.number().min(0).max(1) }),
]);
export type Act = z.infer<typeof actSchema>;

/** An act and the bench time at which it was done, ms. */
export interface TimedAct {
  readonly ms: number;
  readonly act: Act;
}
