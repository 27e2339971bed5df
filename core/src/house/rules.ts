/**
 * House rules: every number in the core that a workshop may see differently, with its unit,
 * limits, the reason for the default and where it comes from. The page, the API and the
 * assumptions that an evaluation returns are all made from this one table; a new rule is
 * one more line here.
 */
export interface Rule {
  readonly label: string;
  readonly unit: string;
  readonly default: number;
  readonly min: number;
  readonly max: number;
  readonly whole?: true;
  readonly reason: string;
  readonly source: string;
}

const COMMON = 'common practice, no published source';
const FROM_MEMORY = 'from memory of the PCI Express Base Specification';

export const RULES = {
  'link.flowControlPercent': {
    label: 'Taken by flow control and acknowledges',
    unit: '%',
    default: 2,
    min: 0,
    max: 20,
    reason: 'Update packets and acknowledges share the wire with the data.',
    source: 'house estimate',
  },
  'link.payloadDirectBytes': {
    label: 'Payload of a packet on a direct link',
    unit: 'bytes',
    default: 256,
    min: 64,
    max: 4096,
    whole: true,
    reason: 'The usual Max_Payload_Size of hosts and cards without a tunnel between them.',
    source: FROM_MEMORY,
  },
  'link.payloadTunnelBytes': {
    label: 'Payload of a packet through a tunnel',
    unit: 'bytes',
    default: 128,
    min: 64,
    max: 4096,
    whole: true,
    reason: 'USB4 20 and 40 and Thunderbolt 4 carry 128 bytes; the whole path uses the smallest.',
    source: 'from memory of the USB4 specification',
  },
  'link.payloadTunnelV2Bytes': {
    label: 'Most payload of a packet through an 80 Gb/s tunnel',
    unit: 'bytes',
    default: 256,
    min: 64,
    max: 4096,
    whole: true,
    reason: 'USB4 80 and Thunderbolt 5 allow 128 to 256 bytes; which one a chain uses is seldom known.',
    source: 'from memory of the USB4 specification',
  },
  'link.headerDownBytes': {
    label: 'Header of a packet, host to card',
    unit: 'bytes',
    default: 20,
    min: 12,
    max: 40,
    whole: true,
    reason: 'The card reads: completions with three header words, framing and check.',
    source: FROM_MEMORY,
  },
  'link.headerUpBytes': {
    label: 'Header of a packet, card to host',
    unit: 'bytes',
    default: 24,
    min: 12,
    max: 40,
    whole: true,
    reason: 'The card writes: posted writes with four header words, framing and check.',
    source: FROM_MEMORY,
  },
  'link.headerTunnelBytes': {
    label: 'Added to a packet by a tunnel',
    unit: 'bytes',
    default: 4,
    min: 0,
    max: 40,
    whole: true,
    reason: 'The header of the tunnelled packet.',
    source: 'from memory of the USB4 specification',
  },
  'link.pinchCarePercent': {
    label: 'A part needs care when it holds the chain below',
    unit: '% of the rest',
    default: 75,
    min: 10,
    max: 100,
    reason: 'A quarter lost to one part that can be changed is worth saying first.',
    source: 'house rule',
  },
  'cable.passiveFullRateMm': {
    label: 'Longest passive cable that carries USB4 40',
    unit: 'mm',
    default: 800,
    min: 200,
    max: 3000,
    whole: true,
    reason: 'A longer passive cable falls to 20 Gb/s.',
    source: 'from memory of the USB Type-C cable specification',
  },
  'cable.passiveHalfRateMm': {
    label: 'Longest passive cable that carries USB4 20',
    unit: 'mm',
    default: 2000,
    min: 500,
    max: 5000,
    whole: true,
    reason: 'Beyond this nothing is promised.',
    source: 'from memory of the USB Type-C cable specification',
  },
  'cable.passive80Mm': {
    label: 'Longest passive cable marked 80',
    unit: 'mm',
    default: 1000,
    min: 200,
    max: 3000,
    whole: true,
    reason: 'A cable made for 80 Gb/s keeps its full rate a little further.',
    source: 'from memory of the USB Type-C cable specification',
  },
  'direct.gen3Mm': {
    label: 'Longest passive direct path good to PCIe Gen3',
    unit: 'mm',
    default: 1000,
    min: 100,
    max: 5000,
    whole: true,
    reason: 'Beyond it corrected errors rise, then the link falls a generation.',
    source: 'from memory of what is sold',
  },
  'direct.gen4Mm': {
    label: 'Longest passive direct path good to PCIe Gen4',
    unit: 'mm',
    default: 500,
    min: 50,
    max: 5000,
    whole: true,
    reason: 'Twice the rate reaches about half as far.',
    source: 'from memory of what is sold',
  },
  'direct.gen5Mm': {
    label: 'Longest passive direct path good to PCIe Gen5',
    unit: 'mm',
    default: 250,
    min: 20,
    max: 5000,
    whole: true,
    reason: 'Twice the rate reaches about half as far.',
    source: 'from memory of what is sold',
  },
  'direct.jointMm': {
    label: 'A joint in a direct path counts as',
    unit: 'mm of cable',
    default: 100,
    min: 0,
    max: 1000,
    whole: true,
    reason: 'Each pair of contacts costs signal; a maker promises his cable without it.',
    source: 'house estimate',
  },
  'dock.classACapGbps': {
    label: 'Cap of a class A controller, host to card',
    unit: 'Gb/s',
    default: 17.6,
    min: 1,
    max: 120,
    reason: 'First-generation controllers after their firmware update; less before it.',
    source: COMMON,
  },
  'dock.classBCapGbps': {
    label: 'Cap of a class B controller, host to card',
    unit: 'Gb/s',
    default: 22,
    min: 1,
    max: 120,
    reason: 'Later controllers of the same link.',
    source: 'from memory of the trade',
  },
  'grade.healthyPercent': {
    label: 'A copy rate is healthy from',
    unit: '% of the expected',
    default: 82,
    min: 1,
    max: 100,
    reason: 'With 26 Gb/s expected, 22 to 26 is what good chains show.',
    source: COMMON,
  },
  'grade.lowPercent': {
    label: 'A copy rate is low, not poor, from',
    unit: '% of the expected',
    default: 70,
    min: 1,
    max: 100,
    reason: 'With 26 Gb/s expected, 18 means a part is at fault.',
    source: COMMON,
  },
  'grade.impossiblePercent': {
    label: 'A copy rate is impossible above',
    unit: '% of the expected',
    default: 105,
    min: 100,
    max: 200,
    reason: 'More than the link carries is a mistake of unit or direction.',
    source: 'house rule',
  },
} as const satisfies Record<string, Rule>;

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

/** Why a value cannot be a house rule, or null when it can. */
export function ruleProblem(id: RuleId, value: number): string | null {
  const rule: Rule = RULES[id];
  if (!Number.isFinite(value) || value < rule.min || value > rule.max)
    return `${rule.label}: from ${rule.min} to ${rule.max} ${rule.unit}`;
  return rule.whole && !Number.isInteger(value) ? `${rule.label}: a whole number of ${rule.unit}` : null;
}
