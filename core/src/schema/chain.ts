import * as z from 'zod';
import { cardSchema } from './card';
import { dockSchema } from './dock';
import { hostSchema } from './host';
import { installedSchema, loadsSchema, NOTHING_INSTALLED } from './loads';
import { adapterSchema, cableSchema, isAdapter } from './pieces';

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
      .array(z.strictObject({ key: z.string().min(1).max(40), spec: z.union([cableSchema, adapterSchema]) }))
      .max(6)
      .nullable(),
    dock: dockSchema.nullable(),
    card: cardSchema.nullable(),
    loads: loadsSchema.default([]),
    installed: installedSchema.default(NOTHING_INSTALLED),
  })
  .superRefine((c, ctx) => {
    if (c.socket !== null && c.host && !c.host.sockets.some((s) => s.key === c.socket))
      ctx.addIssue({ code: 'custom', path: ['socket'], message: `The host has no socket "${c.socket}"` });
    if (c.path && new Set(c.path.map((p) => p.key)).size !== c.path.length)
      ctx.addIssue({ code: 'custom', path: ['path'], message: 'Two pieces of the path have the same key' });
  });

export type Chain = z.infer<typeof chainSchema>;

/** Does the path itself end in a card slot, so that no dock is needed? */
export function endsInSlot(path: Chain['path']): boolean {
  const last = path?.[path.length - 1]?.spec;
  return last !== undefined && isAdapter(last) && last.farEnd === 'pcie-slot';
}

export const SLOTS = ['host', 'socket', 'path', 'dock', 'card', 'loads'] as const;
export type Slot = (typeof SLOTS)[number];

/** Keys, not indices: `host/sockets/left-rear/lanes`, `path/a/lengthMm`, `dock/slotGen`, `loads/hub/downGbps`. */
export type AttrPath = string;
