import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DRIVER_SCHOOLS, ORDER_IDS, PURPOSES, type StepId } from '../src/base';
import {
  checklist,
  openingPlan,
  ORDERS,
  sequenceOf,
  shortForm,
  stand,
  stepFacts,
  STEPS,
} from '../src/bring-up';
import { CAUTION_TEXTS, openingWords, STEP_WORDS } from '../src/bring-up/text';
import type { Chain } from '../src/chain';
import { NO_DOCKED } from '../src/setups';
import {
  adapter,
  cable,
  directChain,
  judge,
  path,
  requirement,
  tunnelChain,
  type Over,
} from './make';

const yesNo = fc.constantFrom('yes' as const, 'no' as const, null);
const count = fc.constantFrom(null, 0, 1, 2, { lo: 0, hi: 2 });

/** Chains of every make: each thing known, not known, or known to a range. */
const over: fc.Arbitrary<Over> = fc.record({
  host: fc.record({
    form: fc.constantFrom(
      'laptop' as const,
      'mini-pc' as const,
      'handheld' as const,
      'desktop' as const,
    ),
    graphics: fc.constantFrom('internal' as const, 'both' as const, 'none' as const, null),
    batteryWh: fc.constantFrom(null, 0, 60, { lo: 0, hi: 90 }),
    openDepth: fc.constantFrom(
      'none' as const,
      'hatch' as const,
      'cover' as const,
      'board' as const,
      null,
    ),
    openScrews: fc.constantFrom(null, 0, 9, { lo: 4, hi: 11 }),
    fixings: fc.constantFrom(
      'screws' as const,
      'clips' as const,
      'both' as const,
      'glue' as const,
      null,
    ),
    fanOnLid: yesNo,
    compound: fc.constantFrom('paste' as const, 'metal' as const, null),
  }),
  dock: fc.record({
    form: fc.constantFrom('enclosure' as const, 'open-board' as const, 'all-in-one' as const),
    supply: fc.constantFrom(
      'inside' as const,
      'brick' as const,
      'separate' as const,
      'none' as const,
      null,
    ),
    screws: fc.constantFrom(null, 0, 4, { lo: 2, hi: 6 }),
    retention: fc.constantFrom('bracket' as const, 'clamp' as const, 'none' as const, null),
  }),
  card: fc.record({ plugs8Pin: count, plugs6Pin: count, plugs16Pin: count }),
  settings: fc.record({
    internalGraphics: fc.constantFrom('on' as const, 'off' as const, null),
    encryption: yesNo,
    toPanel: yesNo,
    driverKind: fc.constantFrom('maker' as const, 'repackaged' as const, null),
  }),
  installed: fc.record({
    dockFirmware: fc.constantFrom('', '1.6', '1.8'),
    systemBuild: fc.constantFrom('', '6118'),
  }),
});

const slot = fc.record({
  connector: fc.constantFrom('m2' as const, 'mini-card' as const),
  holds: fc.constantFrom(
    'system-drive' as const,
    'drive' as const,
    'radio' as const,
    'nothing' as const,
    null,
  ),
  reach: fc.constantFrom('outside' as const, 'cover' as const, 'cut' as const, null),
});

const chains: fc.Arbitrary<Chain> = fc.oneof(
  over.map((o) => tunnelChain(o)),
  over.map((o) => directChain(o)),
  fc.tuple(over, slot).map(([o, s]) => {
    const chain = directChain({
      ...o,
      socket: { standard: 'pcie', lanes: s.connector === 'm2' ? 4 : 1, ...s },
    });
    const board = adapter({ hostEnd: s.connector, lanes: s.connector === 'm2' ? 4 : 1 });
    return {
      ...chain,
      path: path(board, cable({ connector: 'oculink-4i', markedGbps: null, pcieGen: 4 })),
    };
  }),
);

const order = fc.constantFrom(...ORDER_IDS);
const purpose = fc.constantFrom(...PURPOSES);
const driver = fc.constantFrom(...DRIVER_SCHOOLS);

describe('any chain', () => {
  it('keeps every "after", with the way back before the dark', () => {
    fc.assert(
      fc.property(chains, order, purpose, driver, fc.boolean(), (chain, o, p, d, asks) => {
        const evaluation = judge(chain, {
          requirements: asks ? [requirement({ atLeast: '1.8' })] : [],
        });
        const i = {
          chain,
          evaluation,
          house: {},
          docked: NO_DOCKED,
          purpose: p,
          order: o,
          driver: d,
        };
        const list = checklist(i);
        const facts = stepFacts(i);
        const at = new Map(list.map((s, n) => [s.id, n] as const));
        const before = (a: StepId, b: StepId) => {
          const x = at.get(a);
          const y = at.get(b);
          if (x !== undefined && y !== undefined) expect([a, x < y]).toEqual([a, true]);
        };
        for (const s of list)
          for (const a of STEPS.find((x) => x.id === s.id)?.after ?? []) before(a, s.id);
        const sequence = sequenceOf(facts.order, facts.kind);
        const power = list.filter((s) => sequence.includes(s.id)).map((s) => s.id);
        expect(power).toEqual(sequence.filter((s) => at.has(s)));
        // The short form holds every step once, in order, under no more than twelve.
        const groups = shortForm(stand(list, [], null, {}));
        expect(groups.length).toBeLessThanOrEqual(12);
        if (list.length > 12) expect(groups.length).toBeGreaterThanOrEqual(8);
        const inShort = groups.flatMap((g) => [...g.folded, g.head]);
        expect(inShort.map((s) => s.step.id).sort()).toEqual(list.map((s) => s.id).sort());
        for (const g of groups)
          for (const s of g.folded)
            expect(s.step.final || s.step.fields.some((x) => x.kind === 'reading')).toBe(false);
        // Nothing goes dark before there is a way back; no hand goes in before the power is out.
        before('way-back', 'internal-off');
        before('print', 'plug-cable');
        before('battery-off', 'slot-out');
        before('host-off', 'host-lid');
        before('dock-dead', 'card-seat');
        before('dock-dead', 'power-plugs');
        before('internal-back', 'unplug-cable');
        if (evaluation.predicted.link.kind === 'direct')
          expect(ORDERS[facts.order].live).toBe(false);
        for (const s of list) {
          const w = STEP_WORDS[s.id](facts);
          expect(w.title).not.toMatch(/[.:]$/);
          for (const t of [w.title, ...w.do, w.see, w.ifNot, w.means])
            expect(t).not.toMatch(/undefined|null|NaN|\[object|\s\s|^\s|\s$/);
          for (const t of [...w.do, w.see, w.ifNot, w.means])
            expect([s.id, t]).toEqual([s.id, expect.stringMatching(/[.?]$/)]);
          for (const c of s.cautions) expect(CAUTION_TEXTS[c]).not.toBe('');
        }
      }),
      { numRuns: 120 },
    );
  });

  it('an opening plan never denies a danger that is not known', () => {
    fc.assert(
      fc.property(chains, (chain) => {
        const plan = openingPlan(chain);
        if (!plan) return;
        const { host } = chain;
        const has = (c: string) => plan.hazards.find((h) => h.caution === c);
        expect(has('lid-fan')?.known).toBe(
          host?.fanOnLid === 'no' ? undefined : host?.fanOnLid === 'yes',
        );
        expect(has('conducts')?.known).toBe(
          host?.compound === 'paste' ? undefined : host?.compound === 'metal',
        );
        expect(plan.cuts && !plan.beyond).toBe(false);
        for (const { words } of openingWords(plan))
          expect(words).not.toMatch(/undefined|null|^\s*$/);
      }),
      { numRuns: 100 },
    );
  });
});
