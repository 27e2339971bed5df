import type { Choice } from './types';

/**
 * Keeps one of each group of parts with the same facts: the cheapest, of equals the one with the lower id, with the names
 * of the others. A part with facts of its own (owned, in the log, with a release) stays.
 *
 * @param choices parts with price and facts
 * @param apart whether a part has facts of its own
 * @returns the representatives, in the order given
 */
export function collapsed<C extends Choice<object>>(
  choices: readonly C[],
  apart: (c: C) => boolean,
): C[] {
  const groups = new Map<string, C[]>();
  for (const c of choices) {
    const facts = Object.entries(c.spec).filter(
      ([k]) => !['maker', 'model', 'variant'].includes(k),
    );
    const key =
      c.owned || apart(c)
        ? `own ${c.id}`
        : JSON.stringify(facts.sort(([a], [b]) => (a < b ? -1 : 1)));
    groups.set(key, [...(groups.get(key) ?? []), c]);
  }
  const cost = (c: C) => c.minor ?? Infinity;
  return [...groups.values()].map((group) => {
    const [first, ...rest] = [...group].sort((a, b) =>
      cost(a) === cost(b) ? (a.id < b.id ? -1 : 1) : cost(a) - cost(b),
    );
    return { ...(first as C), alike: rest.map((c) => c.name) };
  });
}
