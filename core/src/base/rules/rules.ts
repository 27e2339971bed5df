import { BODY_RULES } from './body-rules';
import { BRING_UP_RULES } from './bring-up-rules';
import { LINK_RULES } from './link-rules';
import { LOG_RULES } from './log-rules';
import { MONEY_RULES } from './money-rules';
import type { Rule } from './types';

/**
 * Every house rule. The page, the API and the assumptions that an evaluation returns are all made from this table; a new rule is one
 * more line in the file of its subject.
 */
export const RULES = {
  ...LINK_RULES,
  ...BODY_RULES,
  ...BRING_UP_RULES,
  ...MONEY_RULES,
  ...LOG_RULES,
};

export type RuleId = keyof typeof RULES;
export const RULE_IDS = Object.keys(RULES) as RuleId[];

/** Only what the workshop changed; everything else is the default. */
export type HouseRules = Partial<Record<RuleId, number>>;

export interface Assumption {
  readonly rule: RuleId;
  readonly value: number;
  readonly unit: string;
  readonly setBy: 'default' | 'house';
}

/** Reads rules and remembers which were read, so that every one used can be returned. */
export class RuleBook {
  readonly #used = new Set<RuleId>();
  readonly #house: HouseRules;

  constructor(house: HouseRules) {
    this.#house = house;
  }

  get(id: RuleId): number {
    this.#used.add(id);
    return this.#house[id] ?? RULES[id].default;
  }

  /** The rules read so far, in the order of the table. */
  assumptions(): Assumption[] {
    return RULE_IDS.filter((id) => this.#used.has(id)).map((rule) => ({
      rule,
      value: this.#house[rule] ?? RULES[rule].default,
      unit: RULES[rule].unit,
      setBy: this.#house[rule] === undefined ? 'default' : 'house',
    }));
  }
}

/**
 * Why a value cannot be a house rule.
 * @param id the rule
 * @param value the value in the unit of the rule
 * @returns a sentence for people; null where it can
 */
export function ruleProblem(id: RuleId, value: number): string | null {
  const rule: Rule = RULES[id];
  if (!Number.isFinite(value) || value < rule.min || value > rule.max)
    return `${rule.label}: from ${rule.min} to ${rule.max} ${rule.unit}`;
  return rule.whole && !Number.isInteger(value)
    ? `${rule.label}: a whole number of ${rule.unit}`
    : null;
}
