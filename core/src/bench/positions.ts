export function writePositions(seen: ReadonlyMap<string, number>): string {
  return [...seen].map(([topic, seq]) => `${topic}=${seq}`).join(',');
}
