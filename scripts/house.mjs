import { requireNode } from './lib/say.mjs';

requireNode();
const { figures } = await import('./house/figures.mjs');

/**
 * `npm run house`: what the layout and the style of the code promise, as figures with their limits.
 * Exit code 1 when one is over. `npm run house -- titles` lists what the figures named so count.
 */
const all = await figures();
const [wanted] = process.argv.slice(2);
if (wanted !== undefined)
  for (const f of all.filter((g) => g.name.includes(wanted) && Array.isArray(g.value)))
    console.log(`${f.name}:\n  ${f.value.join('\n  ')}`);

function stateOf(value, { limit, held }) {
  if (value > held) return `over ${held}`;
  return value > limit ? `on the way, at most ${held}` : 'ok';
}
const rows = all.map((f) => {
  const value = Array.isArray(f.value) ? f.value.length : f.value;
  return { name: f.name, value, limit: f.limit, state: stateOf(value, f) };
});
const width = Math.max(...rows.map((r) => r.name.length));
for (const r of rows)
  console.log(
    `${r.name.padEnd(width)} | ${String(r.value).padStart(6)} | ${String(r.limit).padStart(6)} | ${r.state}`,
  );
process.exit(rows.some((r) => r.state.startsWith('over')) ? 1 : 0);
