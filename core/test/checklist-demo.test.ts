import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { DRIVER_SCHOOLS, PURPOSES } from '../src/base';
import { checklist, orderChoices, stepFacts, STEPS } from '../src/bring-up';
import { STEP_WORDS } from '../src/bring-up/text';
import { type Chain, chainSchema } from '../src/chain';
import { NO_DOCKED } from '../src/setups';
import { bundleSchema } from '../src/workshop/contract';
import { EMPTY, judge } from './make';

const demo = bundleSchema.parse(
  JSON.parse(readFileSync(join(import.meta.dirname, '../../demo/observatory.json'), 'utf8')),
);
const spec = (id: string | null) => demo.parts.find((p) => p.id === id)?.spec ?? null;
/** The chain of a demo setup, from the file. */
function demoChain(s: (typeof demo.setups)[number]): Chain {
  const { slots } = s;
  return chainSchema.parse({
    host: spec(slots.host),
    socket: slots.socket,
    path: slots.path?.map((id, i) => ({ key: 'abcdef'.charAt(i), spec: spec(id) })) ?? null,
    dock: spec(slots.dock),
    card: spec(slots.card),
    loads: s.loads,
    supplies: slots.supplies.map((x, i) => ({
      key: 'abc'.charAt(i),
      feeds: x.feeds,
      spec: spec(x.part),
    })),
    picture: slots.screens.map((x, i) => ({
      key: 'abcd'.charAt(i),
      by: x.by,
      plug: x.plug,
      screen: spec(x.part),
    })),
    system: spec(slots.system),
    installed: s.installed,
    settings: s.settings,
    uses: s.uses,
  });
}

describe('every setup of the demo has a list that can be walked to its end', () => {
  const chains = [
    ...demo.setups.map((s) => [s.name, demoChain(s)] as const),
    ['nothing chosen', EMPTY] as const,
  ];
  it.each(chains)('%s', (_name, chain) => {
    const evaluation = judge(chain);
    const allowed = orderChoices({
      kind: evaluation.predicted.link.kind,
      docked: NO_DOCKED,
      has: (code) => evaluation.findings.some((f) => f.code === code),
    }).filter((c) => c.state !== 'shut');
    expect(allowed[0]?.id).toBe('all-off');
    for (const purpose of PURPOSES)
      for (const { id: order } of allowed)
        for (const driver of DRIVER_SCHOOLS) {
          const i = { chain, evaluation, house: {}, docked: NO_DOCKED, purpose, order, driver };
          const list = checklist(i);
          const facts = stepFacts(i);
          const done = new Set<string>();
          for (const step of list) {
            const def = STEPS.find((s) => s.id === step.id)!;
            const waiting = def.after.filter((a) => list.some((s) => s.id === a) && !done.has(a));
            expect([step.id, waiting]).toEqual([step.id, []]);
            const w = STEP_WORDS[step.id](facts);
            for (const text of [w.title, ...w.do, w.see, w.ifNot, w.means])
              expect(text).toMatch(/^[^\s](?!.*(undefined|NaN|null|\[object)).*\S$/s);
            expect(step.minutes).toBeGreaterThan(0);
            done.add(step.id);
          }
          expect(list.length).toBeGreaterThan(3);
          if (purpose === 'bring-up') expect(list[list.length - 1]?.id).toBe('log-entry');
        }
  });
});
