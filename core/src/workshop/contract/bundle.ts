import * as z from 'zod';
import { RULE_IDS, type RuleId } from '../../base';
import { fileId, instant } from '../../base/contract';
import {
  attemptEvent,
  endedEvent,
  goodEvent,
  stepEvent,
  storedReading,
  struckEvent,
  usedEvent,
} from '../../bring-up/contract';
import { priceInFile, rateInFile, searchInFile } from '../../buy/contract';
import { chainSchema } from '../../chain';
import {
  claimInFile,
  EVENT_KINDS,
  outcomeBody,
  titleNoteInFile,
} from '../../compatibility/contract';
import { factInFile, itemInFile, partInFile } from '../../parts/contract';
import {
  captureInFile,
  csvMapping,
  profileInFile,
  statedFigureInFile,
  runInFile,
  saidBody,
  sessionInFile,
} from '../../runs/contract';
import { setupBody, wholeSlots } from '../../setups/contract';
import { figureInFile, troubleEvent } from '../../troubleshoot/contract';
import { loanInFile } from './loans';
import { memberInFile } from './members';
import { feedInFile } from './news';

const setupInFile = setupBody.extend({
  id: fileId,
  slots: wholeSlots(fileId),
  clonedFrom: fileId.nullable().default(null),
  createdAt: instant,
});

/** The number a fact had in its setup; 0: not set, then facts go by when they were recorded. */
const fileSeq = z.number().int().min(0).max(1e9).default(0);

export const outcomeInFile = outcomeBody.extend({
  id: fileId,
  /** Null where the file does not hold the setup: then `unit` names what counts once, and the chain must be given. */
  setupId: fileId.nullable(),
  unit: fileId.optional(),
  /** The file it came from before, if any. */
  cameFrom: z.string().trim().max(200).default(''),
  corrects: fileId.nullable().default(null),
  recordedAt: instant,
  seq: fileSeq,
  /**
   * The chain of the day, whole or as an index into the file's list of chains; absent, the setup's chain in this
   * file.
   */
  chain: z.union([chainSchema, z.number().int().min(0)]).optional(),
});

const eventInFile = z.strictObject({
  id: fileId,
  setupId: fileId,
  kind: z.enum(EVENT_KINDS).exclude(['outcome', 'price', 'run']),
  body: z.record(z.string(), z.unknown()),
  happenedAt: instant,
  recordedAt: instant,
  corrects: fileId.nullable().default(null),
  /** What stays here when something is shared: words, and where a photo lies. */
  private: z.record(z.string(), z.unknown()).nullable().default(null),
  seq: fileSeq,
});

/** What was said of a run later, as it is kept: under its run, with words of one's own apart. */
export const runSaid = saidBody
  .omit({ id: true, saw: true, channels: true })
  .extend({ run: z.string() });

/** What the body of an event must hold, for the kinds that are read again. */
export const EVENT_BODIES: Partial<Record<(typeof EVENT_KINDS)[number], z.ZodType>> = {
  reading: storedReading,
  attempt: attemptEvent,
  step: stepEvent,
  ended: endedEvent,
  struck: struckEvent,
  good: goodEvent,
  'run-said': runSaid,
  used: usedEvent,
  trouble: troubleEvent,
};

export const ruleEntry = z.strictObject({
  id: z.enum(RULE_IDS as [RuleId, ...RuleId[]]),
  value: z.number(),
  reason: z.string().trim().max(400, { error: 'Reason: at most 400 characters' }),
});

/** The open file format: all data of a workshop in one file, read by one loader. */
export const bundleSchema = z.strictObject({
  format: z.literal('ruddy-bridge/bundle', { error: 'format: must be "ruddy-bridge/bundle"' }),
  version: z.literal(1, { error: 'version: this program reads version 1' }),
  parts: z.array(partInFile).max(20_000),
  setups: z.array(setupInFile).max(20_000).default([]),
  items: z.array(itemInFile).max(50_000).default([]),
  itemFacts: z.array(factInFile).max(200_000).default([]),
  prices: z.array(priceInFile).max(200_000).default([]),
  rates: z.array(rateInFile).max(20_000).default([]),
  events: z.array(eventInFile).max(200_000).default([]),
  /** Chains as they were that several entries share. */
  chains: z.array(chainSchema).max(50_000).default([]),
  outcomes: z.array(outcomeInFile).max(200_000).default([]),
  rules: z.array(ruleEntry).max(200).default([]),
  /** Figures of the troubleshooter that the workshop set. */
  figures: z.array(figureInFile).max(20_000).default([]),
  profiles: z.array(profileInFile).max(5000).default([]),
  statedFigures: z.array(statedFigureInFile).max(20_000).default([]),
  runs: z.array(runInFile).max(50_000).default([]),
  captures: z.array(captureInFile).max(200_000).default([]),
  mappings: z.array(csvMapping).max(2000).default([]),
  sessions: z.array(sessionInFile).max(2000).default([]),
  claims: z.array(claimInFile).max(2000).default([]),
  titleNotes: z.array(titleNoteInFile).max(20_000).default([]),
  searches: z.array(searchInFile).max(2000).default([]),
  feeds: z.array(feedInFile).max(200).default([]),
  members: z.array(memberInFile).max(2000).default([]),
  loans: z.array(loanInFile).max(50_000).default([]),
});
export type OutcomeInFile = z.infer<typeof outcomeInFile>;
export type Bundle = z.infer<typeof bundleSchema>;

/** What removing the demo data would do: what goes, and what stays because own data needs it. */
export const demoReport = z.object({
  parts: z.number().int(),
  setups: z.number().int(),
  outcomes: z.number().int(),
  adopted: z.array(z.object({ kind: z.string(), name: z.string(), because: z.string() })),
});
export type DemoReport = z.infer<typeof demoReport>;

const counted = z.array(z.object({ what: z.string(), n: z.number().int() }));
/** What leaves with a share file and what stays here. */
export const shareReportSchema = z.object({ leaves: counted, stays: counted });
export type ShareReport = z.infer<typeof shareReportSchema>;
