import { readFileSync } from 'node:fs';
import { build as bundle } from 'esbuild';
import { line } from '../lib/bench-table.mjs';
import { DEMO_FILE, ROOT } from '../lib/paths.mjs';
import { sideBySide } from '../lib/side-by-side.mjs';

/** A listing as a desktop prints it: bridges and functions with their capabilities and dumped bytes. */
function listing(devices) {
  const bytes = Array.from(
    { length: 16 },
    (_, i) => `${(i * 16).toString(16).padStart(2, '0')}:${' 00'.repeat(16)}`,
  ).join('\n');
  const one = (bus) =>
    [
      `${bus.toString(16).padStart(2, '0')}:00.0 PCI bridge [0604]: Made bridge [e003:0001] (rev 01)`,
      `\tBus: primary=00, secondary=${(bus + 1).toString(16).padStart(2, '0')}, subordinate=ff, sec-latency=0`,
      '\tCapabilities: [40] Express (v2) Downstream Port (Slot+), MSI 00',
      ...Array(40).fill(
        '\t\tDevCap: MaxPayload 256 bytes, PhantFunc 0, ExtTag+ RBE+ SlotPowerLimit 75.000W',
      ),
      '\t\tLnkCap: Port #1, Speed 8GT/s, Width x4, ASPM L1',
      '\t\tLnkSta: Speed 8GT/s, Width x4',
      bytes,
    ].join('\n');
  return Array.from({ length: devices }, (_, i) => one(i)).join('\n\n');
}
/** One chain judged, and a listing read, each beside what could not be less. */
export async function coreLines() {
  const entry = `export { evaluate } from '${ROOT}/core/src/plan'; export { chainSchema } from '${ROOT}/core/src/chain'; export { readReport, measure } from '${ROOT}/core/src/bring-up'; export { NO_EVIDENCE } from '${ROOT}/core/src/plan';`;
  const { outputFiles } = await bundle({
    stdin: { contents: entry, resolveDir: ROOT },
    bundle: true,
    platform: 'node',
    format: 'esm',
    write: false,
  });
  const { evaluate, chainSchema, readReport, measure, NO_EVIDENCE } = await import(
    `data:text/javascript;base64,${Buffer.from(outputFiles[0].text).toString('base64')}`
  );

  const demo = JSON.parse(readFileSync(DEMO_FILE, 'utf8'));
  const part = (id) => demo.parts.find((p) => p.id === id)?.spec ?? null;
  const setup = demo.setups.find((s) => s.name === 'Dome desk');
  const { host, socket, path, dock, card } = setup.slots;
  const chain = chainSchema.parse({
    host: part(host),
    socket,
    path: path.map((id, i) => ({ key: 'abcdef'[i], spec: part(id) })),
    dock: part(dock),
    card: part(card),
  });
  const exact = { n: 3, works: 0, care: 3, unreliable: 0, fails: 0, newest: '2026-11-03' };
  const evidence = {
    ...NO_EVIDENCE,
    exact,
    weighted: { worked: 3, failed: 0 },
    near: { n: 9, weight: 3.1, worked: 2.2 },
  };
  const input = { chain, context: { asOf: '2026-11-20', house: {}, evidence } };
  const output = evaluate(input);
  const size = JSON.stringify(input).length + JSON.stringify(output).length;
  const [ours, reference] = sideBySide(
    () => evaluate(input),
    () => {
      JSON.parse(JSON.stringify(input));
      JSON.parse(JSON.stringify(output));
    },
  );
  line(
    `evaluate one chain, against a JSON round trip of its input and output (${size} bytes)`,
    ours,
    reference,
    'µs',
    6,
  );

  const text = listing(60);
  const [read, split] = sideBySide(
    () => measure(readReport(text).report, { kind: 'tunnel' }),
    () => text.split('\n').map((l) => l.trim().split(/\s+/)),
    15,
    10,
  );
  line(
    `read a listing of 60 devices (${text.length} characters), against cutting it into words`,
    read,
    split,
    'µs',
    10,
  );
}
