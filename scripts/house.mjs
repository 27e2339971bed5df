import { requireNode } from './lib/say.mjs';

requireNode();
const { figures } = await import('./house/figures.mjs');

/** `npm run house`: what the layout and the style of the code promise, as figures with their limits. Exit code 1 when one is over. */
const rows = (await figures()).map((f) => ({
  name: f.name,
  value: f.value,
  limit: f.limit,
  state:
    f.value > f.held
      ? `over ${f.held}`
      : f.value > f.limit
        ? `on the way, at most ${f.held}`
        : 'ok',
}));
const width = Math.max(...rows.map((r) => r.name.length));
for (const r of rows)
  console.log(
    `${r.name.padEnd(width)} | ${String(r.value).padStart(6)} | ${String(r.limit).padStart(6)} | ${r.state}`,
  );
process.exit(rows.some((r) => r.state.startsWith('over')) ? 1 : 0);
