import { CHECKS } from './checks';
import type { Kinds } from './check';
import { LOG_FINDINGS } from './evidence/log-findings';
import type { Area, Kind, Severity } from './kind';

type CodesOf<T> = T extends { readonly findings: infer K } ? keyof K & string : never;

/** Every code a check or the log can make. */
export type FindingCode = CodesOf<(typeof CHECKS)[number]> | keyof typeof LOG_FINDINGS;

const ORDER: Readonly<Record<Severity, number>> = { blocks: 0, care: 1, note: 2 };

/** Codes whose first part names a part instead of an area. */
const AREAS: Readonly<Record<string, Area>> = { path: 'link', host: 'link', dock: 'link' };

function areaNamed(code: string): Area {
  const first = code.slice(0, code.indexOf('/'));
  return AREAS[first] ?? (first as Area);
}

function allKinds(): [FindingCode, Kind<never>][] {
  const kinds: Kinds = Object.assign({}, ...CHECKS.map((c) => c.findings), LOG_FINDINGS) as Kinds;
  return (Object.entries(kinds) as [FindingCode, Kind<never>][]).sort(
    ([, a], [, b]) => ORDER[a.severity] - ORDER[b.severity],
  );
}

/**
 * Every kind of finding, in the order findings are shown: by severity, then by the order of the
 * checks, then by the order within a check. What the log says comes last.
 */
export const FINDING_KINDS = Object.fromEntries(allKinds()) as Readonly<
  Record<FindingCode, Kind<never>>
>;

/** Area and severity of every code, in the same order. */
export const FINDING_CODES = Object.fromEntries(
  allKinds().map(([code, k]) => [code, { area: k.area ?? areaNamed(code), severity: k.severity }]),
) as Readonly<Record<FindingCode, { readonly area: Area; readonly severity: Severity }>>;

/** All codes in the order findings are shown. */
export const CODES_IN_ORDER = Object.keys(FINDING_CODES) as readonly FindingCode[];
