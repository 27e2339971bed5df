/**
 * Positions as they stand in the ids of a stream and in `after`.
 * @param seen number by topic
 * @returns topic=seq, with commas
 * @example writePositions(new Map([['a', 1], ['b', 2]])) // => 'a=1,b=2'
 */
export function writePositions(seen: ReadonlyMap<string, number>): string {
  return [...seen].map(([topic, seq]) => `${topic}=${seq}`).join(',');
}
