import * as z from 'zod';
import { cableSchema, cardSchema, dockSchema, hostSchema } from './parts';

/** One chain of whole parts. `null` means: not chosen yet. An empty path means: no separate cable. */
export const chainSchema = z
  .strictObject({
    host: hostSchema.nullable(),
    socket: z.string().max(40).nullable(),
    path: z
      .array(z.strictObject({ key: z.string().min(1).max(40), spec: cableSchema }))
      .max(6)
      .nullable(),
    dock: dockSchema.nullable(),
    card: cardSchema.nullable(),
  })
  .superRefine((c, ctx) => {
    if (c.socket !== null && c.host && !c.host.sockets.some((s) => s.key === c.socket))
      ctx.addIssue({ code: 'custom', path: ['socket'], message: `The host has no socket "${c.socket}"` });
    if (c.path && new Set(c.path.map((p) => p.key)).size !== c.path.length)
      ctx.addIssue({ code: 'custom', path: ['path'], message: 'Two pieces of the path have the same key' });
  });

export type Chain = z.infer<typeof chainSchema>;

export const SLOTS = ['host', 'socket', 'path', 'dock', 'card'] as const;
export type Slot = (typeof SLOTS)[number];

/** Keys, not indices: `host/sockets/left-rear/lanes`, `path/a/lengthMm`, `dock/slotGen`. */
export type AttrPath = string;
