import type { Choice } from './types';

/**
 * Parts with the same facts stand for each other: of each group the cheapest is kept, then the one with the lower id, with the names of
 * the others. A part that `apart` says something else is known of (a piece at hand, an entry of the log, a release) stands by itself.
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
