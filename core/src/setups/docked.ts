import * as z from 'zod';
import { nameLine, textLine } from '../base/contract';

const say = (label: string, min: number, max: number, unit: string) =>
  `${label}: a number from ${min} to ${max}${unit ? ` ${unit}` : ''}, or nothing`;

function figure(label: string, unit: string, min: number, max: number) {
  const error = say(label, min, max, unit);
  return z.number({ error }).min(min, { error }).max(max, { error }).nullable().default(null);
}
const words = (label: string, most: number) => textLine(label, most).default('');

/** How the host is set in one of its two states. The three power limits differ by how long they may last. */
export const profileSchema = z.strictObject({
  powerMode: words('Power mode', 60),
  sustainedW: figure('Sustained power', 'W', 1, 400),
  minutesW: figure('Two-minute power', 'W', 1, 400),
  peakW: figure('Peak power', 'W', 1, 600),
  tempLimitC: figure('Temperature limit', '°C', 40, 115),
  sharedGB: figure('Memory shared with internal graphics', 'GB', 0, 128),
  resolution: words('Resolution', 40),
  scalingPercent: figure('Scaling', '%', 50, 500),
  note: words('Note', 300),
});
export type Profile = z.infer<typeof profileSchema>;

export const COUPLED_ACTS = {
  'dock-on': 'Dock switched on',
  'dock-off': 'Dock switched off',
  'host-on': 'Host switched on',
  'host-off': 'Host shut down',
  'host-sleep': 'Host put to sleep',
  plug: 'Link cable plugged',
  unplug: 'Link cable unplugged',
} as const;
export type CoupledAct = keyof typeof COUPLED_ACTS;

/** What the other side did. */
export const COUPLED_SEEN = {
  nothing: 'nothing',
  starts: 'the other side starts',
  stops: 'the other side stops',
  sleeps: 'the other side sleeps',
  crash: 'it crashed',
} as const;
export type CoupledSeen = keyof typeof COUPLED_SEEN;

const couplingSchema = z.strictObject({
  act: z.enum(Object.keys(COUPLED_ACTS) as [CoupledAct, ...CoupledAct[]]),
  /** Was the other side running meanwhile? */
  other: z.enum(['on', 'off']),
  seen: z.enum(Object.keys(COUPLED_SEEN) as [CoupledSeen, ...CoupledSeen[]]),
});
export type Coupling = z.infer<typeof couplingSchema>;

export const USED_CARD = {
  outside: 'the outside card',
  inside: 'the inside graphics',
  software: 'none: software',
} as const;
export const FORCED_BY = {
  nothing: 'by itself',
  system: 'system setting per program',
  driver: "the driver's own panel",
  program: "the program's own setting",
  start: 'a start option',
  'internal-off': 'internal graphics off',
} as const;

const programSchema = z.strictObject({
  name: nameLine('Program', 80),
  uses: z.enum(['outside', 'inside', 'software']).nullable().default(null),
  forced: z
    .enum(Object.keys(FORCED_BY) as [keyof typeof FORCED_BY, ...(keyof typeof FORCED_BY)[]])
    .default('nothing'),
  note: words('Note', 200),
});
export type Program = z.infer<typeof programSchema>;

const tuningSchema = z.strictObject({
  what: nameLine('Step', 80),
  from: words('Before', 40),
  to: words('After', 40),
  /** What it gained in the same run, %; less than 0 lost. */
  gainPercent: figure('Gained', '%', -100, 500),
  on: z.iso.date({ error: 'Day: a date like 2026-11-03' }),
});
export type Tuning = z.infer<typeof tuningSchema>;

const NO_PROFILE: Profile = profileSchema.parse({});

/** What belongs to living with the dock: both states of the host, what each button does, which program uses which card. */
export const dockedSchema = z.strictObject({
  docked: profileSchema.default(NO_PROFILE),
  undocked: profileSchema
    .extend({ internalGraphics: z.enum(['on', 'off']).nullable().default(null) })
    .default({ ...NO_PROFILE, internalGraphics: null }),
  buttons: z.array(couplingSchema).max(14, { error: 'Buttons: at most 14' }).default([]),
  programs: z.array(programSchema).max(60, { error: 'Programs: at most 60' }).default([]),
  tuning: z.array(tuningSchema).max(60, { error: 'Tuning: at most 60 steps' }).default([]),
});
export type Docked = z.infer<typeof dockedSchema>;
export const NO_DOCKED: Docked = dockedSchema.parse({});

/** What may come back wrong after docking or undocking. */
export const CAME_BACK_WRONG = {
  resolution: 'Resolution',
  scaling: 'Scaling',
  refresh: 'Refresh rate',
  place: 'Windows on the wrong screen',
  approval: 'Approval asked again',
  card: 'Programs on the wrong card',
  sound: 'Sound',
  power: 'Power limits',
  memory: 'Shared memory',
  sleep: 'Does not wake',
} as const;
export type CameBackWrong = keyof typeof CAME_BACK_WRONG;
