import * as z from 'zod';
import { fileId, instant, origin, uuid } from '../../base/contract';
import { COMPARISONS, type StatedFigure } from '../frame-model/stated-figure';
import { statedSettingsSchema as settings } from '../schema';

const figure = (label: string, min: number, max: number) => {
  const error = `${label}: a number from ${min} to ${max.toLocaleString('en')}`;
  return z.number({ error }).min(min, { error }).max(max, { error });
};
const text = (label: string, most: number) =>
  z
    .string()
    .trim()
    .max(most, { error: `${label}: at most ${most} characters` })
    .default('');

const otherPicture = settings.pick({ resolution: true, screenPath: true }).shape;

const fps = figure('Frames/s', 0.1, 10_000);
const compared = {
  amount: figure('How much', 0.1, 10_000),
  how: z.enum(Object.keys(COMPARISONS) as [keyof typeof COMPARISONS], { error: 'How: choose one' }),
  about: z.boolean().default(false),
};

/** What is stated, where the rig of the other side is told as `rig`. */
const saidOf = <R extends z.ZodType>(rig: R) =>
  z
    .discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('frames'), fps, about: z.boolean().default(false) }),
      z.strictObject({
        kind: z.literal('bound'),
        fps,
        side: z.enum(['at-least', 'at-most'], { error: 'At least or at most: choose one' }),
      }),
      z.strictObject({ kind: z.literal('held') }),
      z.strictObject({ kind: z.literal('points'), points: figure('Points', 0.1, 1e9) }),
      z.strictObject({
        kind: z.literal('ratio'),
        other: z.strictObject({ rig, ...otherPicture }),
        ...compared,
      }),
      z.strictObject({ kind: z.literal('cards'), other: z.strictObject({ rig }), ...compared }),
    ])
    .refine((s) => !('how' in s) || s.how !== 'slower' || s.amount < 100, {
      path: ['amount'],
      error: 'How much: below 100 % slower',
    });

/** What the kinds need of the settings, told beside what else is wrong: a size, or the limit that held. */
interface Given {
  readonly settings?: Partial<z.output<typeof settings>>;
  readonly said?: { readonly kind?: string };
}
const sizeGiven = ({ settings: s, said }: Given) => said?.kind === 'cards' || s?.resolution !== '';
const limitGiven = ({ settings: s, said }: Given) => said?.kind !== 'held' || Boolean(s?.capFps);
const SIZE = {
  path: ['settings', 'resolution'],
  error: 'Resolution: say at which, like 2560x1440',
  when: () => true,
};
const LIMIT = {
  path: ['settings', 'capFps'],
  error: 'Limit: say at how many frames/s',
  when: () => true,
};

/** The chain of a setup as it stands now, with another card where one is named, or that card in a desktop slot of another machine. */
export const statedRigBody = z.strictObject({
  setupId: uuid,
  cardId: uuid.nullable().default(null),
  slot: z.boolean().default(false),
});

/** A figure that somebody states of a title. */
export const statedFigureBody = z
  .strictObject({
    id: uuid,
    titleId: uuid,
    rig: statedRigBody,
    settings,
    said: saidOf(statedRigBody),
    /** Where it was read or heard. */
    note: text('Where from', 300),
  })
  .refine(sizeGiven, SIZE)
  .refine(limitGiven, LIMIT);
export type StatedFigureBody = z.input<typeof statedFigureBody>;

const rate = z.number().min(0).max(1e6);
const range = z.strictObject({ lo: rate, hi: rate }).nullable();
/** A rig as the frame model sees it, kept as it was when the figure was stated. */
const rigFacts = z.strictObject({
  host: z.string().max(200),
  card: z.string().max(200),
  hostIndex: range,
  cardIndex: range,
  down: range,
  up: range,
  latencyUs: rate,
  memoryGB: range,
  boardW: range,
  memoryMHz: range,
  slot: z.boolean(),
});

const kept = { settings, rig: rigFacts, said: saidOf(rigFacts), note: text('Where from', 300) };
export const statedFigureEntry = z.object({
  id: uuid,
  titleId: uuid,
  title: z.string(),
  at: instant,
  origin,
  ...kept,
});
export type StatedFigureEntry = z.infer<typeof statedFigureEntry> & StatedFigure;
export const statedFigureInFile = z
  .strictObject({ id: fileId, titleId: fileId, at: instant, ...kept })
  .refine(sizeGiven, SIZE)
  .refine(limitGiven, LIMIT);
export type StatedFigureKept = Pick<StatedFigureEntry, 'settings' | 'rig' | 'said' | 'note'>;
export const statedFigureList = z.object({ items: z.array(statedFigureEntry) });
