import * as z from 'zod';
import {
  adapterSchema,
  cableSchema,
  cardSchema,
  dockSchema,
  hostSchema,
  installedSchema,
  NO_SETTINGS,
  NOTHING_INSTALLED,
  screenSchema,
  settingsSchema,
  supplySchema,
  systemSchema,
  usesSchema,
} from '../../parts';
import { loadsSchema } from './loads';

const key = z.string().min(1).max(40);
/** What a supply of its own feeds. */
export const FEEDS = { dock: 'The dock', card: 'The card', both: 'Dock and card' } as const;
export const feeds = z.enum(Object.keys(FEEDS) as [keyof typeof FEEDS, ...(keyof typeof FEEDS)[]]);
/** Where a screen hangs and by which plug. */
export const SHOWN_BY = { card: 'On the card', dock: "On the dock's own output" } as const;
export const shownBy = z.enum(['card', 'dock']);
export const VIDEO_PLUGS = { displayport: 'DisplayPort', hdmi: 'HDMI' } as const;
export const videoPlug = z.enum(['displayport', 'hdmi']);

/**
 * One chain of whole parts. `null` means: not chosen yet. An empty path means: no separate cable.
 * The socket in use may be a slot inside the host, which the first adapter then fills; a path that
 * ends in a card slot needs no dock.
 */
export const chainSchema = z
  .strictObject({
    host: hostSchema.nullable(),
    socket: z.string().max(40).nullable(),
    path: z
      .array(
        z.strictObject({
          key: z.string().min(1).max(40),
          spec: z.union([cableSchema, adapterSchema]),
        }),
      )
      .max(6)
      .nullable(),
    dock: dockSchema.nullable(),
    card: cardSchema.nullable(),
    loads: loadsSchema.default([]),
    supplies: z
      .array(z.strictObject({ key, feeds, spec: supplySchema }))
      .max(3)
      .default([]),
    picture: z
      .array(z.strictObject({ key, by: shownBy, plug: videoPlug, screen: screenSchema }))
      .max(4)
      .default([]),
    system: systemSchema.nullable().default(null),
    installed: installedSchema.default(NOTHING_INSTALLED),
    settings: settingsSchema.default(NO_SETTINGS),
    uses: usesSchema.default([]),
  })
  .superRefine((c, ctx) => {
    if (c.socket !== null && c.host && !c.host.sockets.some((s) => s.key === c.socket))
      ctx.addIssue({
        code: 'custom',
        path: ['socket'],
        message: `The host has no socket "${c.socket}"`,
      });
    if (c.path && new Set(c.path.map((p) => p.key)).size !== c.path.length)
      ctx.addIssue({
        code: 'custom',
        path: ['path'],
        message: 'Two pieces of the path have the same key',
      });
  });

export type Chain = z.infer<typeof chainSchema>;

export type Supplied = Chain['supplies'][number];
export type Shown = Chain['picture'][number];

export const SLOTS = [
  'host',
  'socket',
  'path',
  'dock',
  'card',
  'loads',
  'supplies',
  'picture',
  'system',
  'installed',
  'settings',
  'uses',
] as const;
export type Slot = (typeof SLOTS)[number];

/** Keys, not indices: `host/sockets/left-rear/lanes`, `path/a/lengthMm`, `dock/slotGen`, `loads/hub/downGbps`. */
export type AttrPath = string;
