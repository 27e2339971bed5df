import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Act, FAULT_IDS, type TimedAct } from '@ruddy/core/bench';
import { measure } from '@ruddy/core/bring-up';
import { benchTree, readCopy, simulate } from '../src';
import { ALL_OFF, broughtUp, CHAINS, readByProbe, timed } from './benches';

const on = fc.boolean();
const act: fc.Arbitrary<Act> = fc.oneof(
  fc.record({ act: fc.constantFrom('mains', 'dock', 'load', 'traffic' as const), on }),
  fc.record({ act: fc.constantFrom('card', 'power-plugs', 'driver', 'screen' as const), in: on }),
  fc.record({
    act: fc.constant('host' as const),
    to: fc.constantFrom('on', 'off', 'asleep', 'awake' as const),
  }),
  fc.constant({ act: 'plug' as const, socket: 'left' }),
  fc.constant({ act: 'plug' as const, socket: 'left' }),
  fc.constant({ act: 'unplug' as const }),
  fc.constant({ act: 'key' as const }),
  fc.record({
    act: fc.constant('approve' as const),
    how: fc.constantFrom('none', 'once', 'always' as const),
  }),
  fc.record({
    act: fc.constant('security' as const),
    level: fc.constantFrom('none', 'user', 'secure', 'nopcie' as const),
  }),
  fc.record({
    act: fc.constant('fault' as const),
    id: fc.constantFrom(...FAULT_IDS),
    strength: fc.constantFrom(0, 0.3, 0.8, 1),
  }),
);
/** Hands in any order, from a second to two minutes apart; often on a bench that somebody brought up first. */
const hands = fc
  .tuple(
    fc.boolean(),
    fc.array(fc.tuple(fc.integer({ min: 1, max: 120_000 }), act), { maxLength: 30 }),
  )
  .map(([up, list]): TimedAct[] => {
    const first = up
      ? [...timed(ALL_OFF), { ms: 30_000, act: { act: 'approve', how: 'always' } as const }]
      : [];
    let ms = up ? 45_000 : 0;
    return [...first, ...list.map(([gap, a]) => ({ ms: (ms += gap), act: a }))];
  });
const names = ['usb4 40', 'thunderbolt 3, four lanes', 'oculink 4i', 'm.2 to slot'] as const;
const LOST = new Set(['link-down', 'gone']);
const REACHED = new Set(['windows', 'bound', 'in-use', 'suspended']);

describe('BE-01 whatever hands do, in any order', () => {
  it('the log only grows in time, every loss counted once', () => {
    fc.assert(
      fc.property(
        hands,
        fc.constantFrom(...names),
        fc.nat(1000),
        fc.nat(100),
        (acts, name, seed, part) => {
          const def = { chain: CHAINS[name]!, seed };
          const end = (acts[acts.length - 1]?.ms ?? 0) + 300_000;
          const run = simulate(def, acts, end);
          for (const [i, l] of run.log.entries())
            expect(l.ms).toBeGreaterThanOrEqual(run.log[i - 1]?.ms ?? 0);
          const early = simulate(def, acts, Math.floor((end * part) / 100));
          expect(run.log.slice(0, early.log.length)).toEqual(early.log);
          expect(run.state.downs).toBe(run.log.filter((l) => LOST.has(l.code)).length);
        },
      ),
      { numRuns: 500 },
    );
  });

  it('display, listing and copies never contradict each other', () => {
    const met = new Set<string>();
    fc.assert(
      fc.property(hands, fc.constantFrom(...names), fc.nat(1000), (acts, name, seed) => {
        const end = (acts[acts.length - 1]?.ms ?? 0) + 40_000;
        const run = simulate({ chain: CHAINS[name]!, seed }, acts, end);
        const { state } = run;
        expect(benchTree(run) === null).toBe(state.host !== 'on');
        expect(state.usable === null).toBe(!REACHED.has(state.stage));
        expect(readCopy(run, 'down', 0) === null).toBe(
          state.stage !== 'bound' && state.stage !== 'in-use',
        );
        if (state.picture) expect(['bound', 'in-use']).toContain(state.stage);
        if (state.host !== 'on') return;
        const m = measure(readByProbe(run), { kind: state.kind ?? 'tunnel' });
        met.add(m.card === null ? 'absent' : m.card.gone ? 'gone' : 'there');
        const there = m.card !== null && !m.card.gone;
        // A slot that trains already shows its card.
        if (state.stage !== 'training') expect(there).toBe(REACHED.has(state.stage));
        if (there && state.stage !== 'training')
          expect(m.card?.driver !== null).toBe(state.stage !== 'windows');
      }),
      // A direct link whose dock goes dark leaves a card that is gone.
      {
        numRuns: 150,
        examples: [
          [[...timed(ALL_OFF), { ms: 45_000, act: { act: 'dock', on: false } }], 'oculink 4i', 1],
        ],
      },
    );
    // The property says something only if cards were met, gone ones too.
    expect([...met].sort()).toEqual(['absent', 'gone', 'there']);
  });
});

describe('BE-01 single acts', () => {
  const def = { chain: CHAINS['usb4 40']!, seed: 9 };
  const codes = (acts: readonly Act[], wait?: number) =>
    broughtUp(def, acts, undefined, wait).log.map((l) => l.code);

  it('revoked approval takes the card, and the dock waits again', () => {
    const run = broughtUp(def, [{ act: 'approve', how: 'none' }], ALL_OFF, 90_000);
    expect(run.state).toMatchObject({ stage: 'awaiting', approval: 'none' });
  });

  it('"once" is asked again after the next plug, "always" is not', () => {
    const again = (how: 'once' | 'always') => {
      const first = [...ALL_OFF, { act: 'security', level: 'user' }] as const;
      const then = timed([{ act: 'approve', how }], 40_000);
      const last = timed([{ act: 'unplug' }, { act: 'plug', socket: 'left' }], 60_000);
      return simulate(def, [...timed(first), ...then, ...last], 90_000).state.stage;
    };
    expect([again('once'), again('always')]).toEqual(['awaiting', 'bound']);
  });

  it('a hidden fault that stops the link takes the card', () => {
    for (const id of ['look-alike-port', 'cable-charges-only'] as const) {
      const run = broughtUp(def, [{ act: 'fault', id, strength: 1 }]);
      expect([id, REACHED.has(run.state.stage), run.state.usable]).toEqual([id, false, null]);
      expect(measure(readByProbe(run), { kind: 'tunnel' }).card).toBeNull();
    }
  });

  it('sleep and waking bring the card back', () => {
    const run = broughtUp(def, [
      { act: 'host', to: 'asleep' },
      { act: 'host', to: 'awake' },
    ]);
    expect(run.state).toMatchObject({ host: 'on', stage: 'bound', downs: 0 });
  });

  it('a direct link pulled live stops the host', () => {
    const direct = { chain: CHAINS['oculink 4i']!, seed: 2 };
    expect(broughtUp(direct, [{ act: 'unplug' }]).state.host).toBe('frozen');
    expect(codes([{ act: 'card', in: false }])).toContain('live-card');
  });

  it('nothing plugs without a dock or with another plug', () => {
    const none = broughtUp(def, [
      { act: 'unplug' },
      { act: 'place-dock', spec: null },
      { act: 'plug', socket: 'left' },
    ]);
    expect([none.state.plugged, none.log.some((l) => l.code === 'plug-nothing')]).toEqual([
      null,
      true,
    ]);
    const other = CHAINS['oculink 4i']!.dock!;
    const misfit = broughtUp(def, [
      { act: 'unplug' },
      { act: 'place-dock', spec: other },
      { act: 'plug', socket: 'left' },
    ]);
    expect(misfit.log.some((l) => l.code === 'plug-misfit')).toBe(true);
  });

  it('counters only grow: a cable that is mended takes no error back', () => {
    const direct = { chain: CHAINS['oculink 4i']!, seed: 2 };
    const bad = [
      { act: 'fault', id: 'direct-cable-margin', strength: 0.4 },
      { act: 'load', on: true },
    ] as const;
    const before = broughtUp(direct, bad, ALL_OFF, 600_000).state.corrected;
    const mended = timed([{ act: 'fault', id: 'direct-cable-margin', strength: 0 }], 640_000);
    const first = [
      ...timed(ALL_OFF),
      ...timed([{ act: 'approve', how: 'always' }, ...bad], 40_000),
    ];
    expect(before).toBeGreaterThan(50);
    expect(
      simulate(direct, [...first, ...mended], 2_000_000).state.corrected,
    ).toBeGreaterThanOrEqual(before);
  });

  it('removing a driver releases the card, installing takes it', () => {
    const out = broughtUp(def, [{ act: 'driver', in: false }]);
    expect(out.state.stage).toBe('windows');
    expect(
      broughtUp(def, [
        { act: 'driver', in: false },
        { act: 'driver', in: true },
      ]).state.stage,
    ).toBe('bound');
  });
});
