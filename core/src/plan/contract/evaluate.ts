import * as z from 'zod';
import { type HouseRules, RULE_IDS, type RuleId, ruleProblem, RULES } from '../../base';
import { isoDate, uuid } from '../../base/contract';
import { chainSchema, feeds, loadsSchema, shownBy, videoPlug } from '../../chain';
import {
  adapterSchema,
  cableSchema,
  cardSchema,
  dockSchema,
  hostSchema,
  installedSchema,
  releaseSchema,
  requirementSchema,
  screenSchema,
  settingsSchema,
  supplySchema,
  systemSchema,
  usesSchema,
} from '../../parts';
import type { Evaluation } from '../types';
import { framesAsked } from '../../runs/contract';
import { JUDGED_AREAS } from '../areas';

/** A part of the catalogue, or one very piece of it, which may differ. */
const byId = z.strictObject({ id: uuid, piece: uuid.optional() });

/** A chain whose parts are given whole or by id. */
export const chainInput = z.strictObject({
  host: z.union([byId, hostSchema]).nullable(),
  socket: z.string().max(40, { error: 'Port: at most 40 characters' }).nullable(),
  path: z
    .array(z.union([byId, cableSchema, adapterSchema]))
    .max(6, { error: 'Path: at most 6 pieces' })
    .nullable(),
  dock: z.union([byId, dockSchema]).nullable(),
  card: z.union([byId, cardSchema]).nullable(),
  /** What else hangs on the dock; left out, nothing. */
  loads: loadsSchema.optional(),
  installed: installedSchema.optional(),
  supplies: z
    .array(z.strictObject({ feeds, spec: z.union([byId, supplySchema]) }))
    .max(3)
    .optional(),
  picture: z
    .array(z.strictObject({ by: shownBy, plug: videoPlug, screen: z.union([byId, screenSchema]) }))
    .max(4)
    .optional(),
  system: z.union([byId, systemSchema]).nullable().optional(),
  settings: settingsSchema.optional(),
  uses: usesSchema.optional(),
});
export type ChainInput = z.infer<typeof chainInput>;

/** The workshop's own values of rules, checked against each rule's limits. */
export const houseRulesSchema = z
  .partialRecord(z.enum(RULE_IDS as [RuleId, ...RuleId[]]), z.number())
  .superRefine((rules, ctx) => {
    for (const [id, value] of Object.entries(rules) as [RuleId, number][]) {
      const problem = ruleProblem(id, value);
      if (problem) ctx.addIssue({ code: 'custom', path: [id], message: problem });
    }
  }) as z.ZodType<HouseRules>;

const ONE_CHAIN = { error: 'Give either a chain or a setupId', path: ['chain'] };
/** Exactly one of `chain` and `setupId`; `patch` replaces whole slots before judging. */
const whichChain = {
  chain: chainInput.optional(),
  setupId: uuid.optional(),
  patch: chainInput.partial().optional(),
};
const namesOne = (b: { chain?: unknown; setupId?: unknown }) =>
  (b.chain === undefined) !== (b.setupId === undefined);

export const evaluateBody = z
  .strictObject({
    ...whichChain,
    evidence: z.enum(['none', 'log']).default('none'),
    asOf: isoDate.optional(),
    rules: houseRulesSchema.optional(),
    /** Requirements and releases to apply; absent, those of the catalogue that match this chain. */
    requirements: z.array(requirementSchema).max(200).optional(),
    releases: z.array(releaseSchema).max(200).optional(),
  })
  .refine(namesOne, ONE_CHAIN);

/** Frames to expect of titles on a chain. */
export const forecastBody = z
  .strictObject({
    ...whichChain,
    rules: houseRulesSchema.optional(),
    frames: framesAsked,
    /** The thorough answer, which takes several times as long as the first one. */
    refined: z.boolean().default(false),
  })
  .refine(namesOne, ONE_CHAIN);

export const judgedArea = z.enum(JUDGED_AREAS);
export const coverageSchema = z.object({ known: z.number().int(), of: z.number().int() });
const areaVerdict = z.looseObject({
  area: judgedArea,
  state: z.enum(['good', 'care', 'stops', 'open', 'none']),
  /** Attributes that would have to be known, the deciding ones first. */
  open: z.array(z.string()),
  because: z.array(z.string()),
});

/** The core's own result: described for readers of the API, not checked again. */
const evaluation = z.looseObject({
  core: z.string(),
  asOf: z.string(),
  predicted: z.looseObject({
    areas: z.array(areaVerdict),
    coverage: coverageSchema,
    verdict: z.looseObject({ state: z.enum(['works', 'care', 'blocked', 'unknown']) }),
  }),
  findings: z.array(z.looseObject({ code: z.string() })),
  toVerify: z.array(z.looseObject({ path: z.string(), decides: z.boolean() })),
  assumptions: z.array(z.looseObject({ rule: z.string(), value: z.number() })),
}) as unknown as z.ZodType<Evaluation, Evaluation>;

/** The answer: chain as judged, sentence and evaluation. */
export const evaluateResponse = z.object({
  sentence: z.string(),
  chain: chainSchema,
  evaluation,
});

export const ruleRow = z.object({
  id: z.enum(RULE_IDS as [RuleId, ...RuleId[]]),
  label: z.string(),
  unit: z.string(),
  default: z.number(),
  min: z.number(),
  max: z.number(),
  why: z.string(),
  source: z.string(),
  value: z.number().nullable(),
  reason: z.string(),
  rev: z.number().int(),
});
export type RuleRow = z.infer<typeof ruleRow>;

/**
 * The row of a rule that the workshop has not changed.
 * @param id the rule
 * @returns the row
 */
export function defaultRow(id: RuleId): RuleRow {
  const { label, unit, default: value, min, max, reason: why, source } = RULES[id];
  return {
    id,
    label,
    unit,
    default: value,
    min,
    max,
    why,
    source,
    value: null,
    reason: '',
    rev: 0,
  };
}

/** A workshop's own value; null goes back to the default. A value needs its reason. */
export const rulePut = z
  .strictObject({
    value: z.number().nullable(),
    reason: z.string().trim().max(400, { error: 'Reason: at most 400 characters' }),
  })
  .refine((b) => b.value === null || b.reason.length > 0, {
    error: 'Reason: say why this differs from the default',
    path: ['reason'],
  });
