import { describe, expect, it } from 'vitest';
import { type CopyReading, linkCheck, type LinkCheck, readingSchema } from '../src/bring-up';
import { linkCheckHeadline, NOT_GRADED_TEXTS, REASON_TEXTS } from '../src/bring-up/text';
import type { Chain } from '../src/chain';
import { directChain, host, judge, load, socket, tunnelChain } from './make';

type Typed = Omit<Partial<Record<keyof typeof readingSchema.shape, unknown>>, 'copy'> & {
  copy?: Partial<CopyReading>;
};
const graded = { unit: 'Gb/s', direction: 'down', memory: 'pinned' } as const;

function check(chain: Chain, r: Typed): LinkCheck {
  const reading = readingSchema.parse({ load: 'load', ...r });
  return linkCheck(reading, chain, judge(chain), {});
}
const copied = (chain: Chain, value: number, more: Partial<CopyReading> = {}) =>
  check(chain, { copy: { ...graded, value, ...more } as CopyReading }).copy;

const classC = tunnelChain();
const classA = tunnelChain({
  socket: { standard: 'thunderbolt-3' },
  dock: { uplink: 'thunderbolt-3', controllerClass: 'a' },
});

// Limits of the grades and the rates of each class: common practice, no published source.
describe('BU-06 grades of a copy rate', () => {
  it.each([
    [22, 'healthy'],
    [24, 'healthy'],
    [26, 'healthy'],
    [20, 'low'],
    [18, 'poor'],
    [28, 'impossible'],
  ])('%f Gb/s on a class C chain is %s', (value, grade) => {
    expect(copied(classC, value)?.grade).toBe(grade);
  });

  it('17.6 on class A is healthy, and 26 is impossible there', () => {
    expect(copied(classA, 17.6)?.grade).toBe('healthy');
    expect(copied(classA, 26)?.grade).toBe('impossible');
  });

  it('unit and direction count: 3 GB/s is 24 Gb/s', () => {
    expect(copied(classC, 3, { unit: 'GB/s' })).toMatchObject({ grade: 'healthy', gbps: 24 });
    expect(copied(classC, 3000, { unit: 'MB/s' })?.gbps).toBeCloseTo(24, 9);
    expect(copied(classC, 26.9)?.grade).toBe('healthy');
    expect(copied(classC, 26.9, { direction: 'up' })?.grade).toBe('impossible');
    const up = check(classC, { copy: { ...graded, value: 24, direction: 'up' } });
    expect(linkCheckHeadline(up, judge(classC))).toBe('24.0 of 25.3 Gb/s back, 95 %: healthy.');
  });

  it('a figure that fits another unit is asked about, not changed', () => {
    expect(copied(classC, 3)).toMatchObject({ grade: 'poor', perhaps: 'GB/s', gbps: 3 });
    expect(copied(classC, 24, { unit: 'GB/s' })).toMatchObject({
      grade: 'impossible',
      perhaps: 'Gb/s',
    });
    expect(check(classC, { copy: { ...graded, value: 3 } }).reasons[0]?.id).toBe('unit');
  });

  it.each([
    [{ unit: null }, 'load', 'no-unit'],
    [{ direction: null }, 'load', 'no-direction'],
    [{ memory: null }, 'load', 'memory-not-said'],
    [{ memory: 'pageable' }, 'load', 'pageable'],
    [{}, 'idle', 'not-under-load'],
    [{}, null, 'load-not-said'],
  ] as const)('%j under %s is kept, not graded: %s', (more, load, why) => {
    const c = check(classC, { load, copy: { ...graded, value: 24, ...more } as CopyReading });
    expect(c.copy).toMatchObject({ grade: 'not-graded', why });
    expect(linkCheckHeadline(c, judge(classC))).toBe(NOT_GRADED_TEXTS[why]);
  });

  it('against a range both ends are graded, and the decider named', () => {
    const open = tunnelChain({
      socket: { standard: 'thunderbolt-3' },
      dock: { uplink: 'thunderbolt-3' },
    });
    expect(copied(open, 17.6)).toMatchObject({
      grade: 'open',
      ends: { atHigh: 'poor', atLow: 'healthy' },
      decides: ['dock/controllerClass'],
    });
    expect(copied(open, 10)?.grade).toBe('poor');
    const words = linkCheckHeadline(check(open, { copy: { ...graded, value: 17.6 } }), judge(open));
    expect(words).toContain(
      'poor or healthy. Knowing "controller class" of the dock would decide it.',
    );
  });

  it('a chain that carries nothing has nothing to be graded against', () => {
    const dead = tunnelChain({ socket: { standard: 'usb-c', tunnelling: 'no' } });
    expect(copied(dead, 20)).toMatchObject({ grade: 'not-graded', why: 'nothing-expected' });
  });
});

describe('BU-06 spans and router against this chain', () => {
  const row = (c: LinkCheck, key: string) => c.rows.find((r) => r.key === key);

  it('×4 Gen3 is as expected, whatever the card could do', () => {
    const c = check(classC, { cardSpan: { gen: 3, lanes: 4 } });
    expect(row(c, 'card')).toMatchObject({ state: 'as-expected' });
    expect(c.overall).toBe('healthy');
    expect(linkCheckHeadline(c, judge(classC))).toBe(
      'The slot shows ×4 Gen3. The rate is not read yet; a half-rate cable looks the same here. Next: copy rate to the card, 2 minutes.',
    );
    expect(c.read).toEqual({
      router: false,
      slot: true,
      'copy-down': false,
      'copy-up': false,
      counters: false,
    });
    const both = check(classC, {
      cardSpan: { gen: 3, lanes: 4 },
      router: { laneGbps: 20, lanes: 2 },
    });
    expect(linkCheckHeadline(both, judge(classC))).toBe(
      'The router runs at its full rate and the slot shows ×4 Gen3. The rate is not read yet. Next: copy rate to the card, 2 minutes.',
    );
  });

  it('slow at idle proves nothing, slow under load is the driver', () => {
    const idle = check(classC, { load: 'idle', cardSpan: { gen: 1, lanes: 4 } });
    expect([row(idle, 'card')?.state, idle.overall]).toEqual(['idle', 'idle']);
    const busy = check(classC, { cardSpan: { gen: 1, lanes: 4 } });
    expect(busy.reasons[0]).toMatchObject({ id: 'driver-clamp', support: 3 });
    const narrow = check(classC, { load: 'idle', cardSpan: { gen: 1, lanes: 1 } });
    expect(narrow.reasons.map((r) => r.id)).toContain('seating');
    expect(narrow.overall).toBe('low');
  });

  it('half a rate on the router names the cable first', () => {
    const c = check(classC, {
      router: { laneGbps: 10, lanes: 2 },
      cardSpan: { gen: 3, lanes: 4 },
      copy: { ...graded, value: 15 },
    });
    expect(c.reasons[0]).toEqual({ id: 'half-rate-cable', part: 'path', support: 3 });
    expect(row(c, 'router')).toMatchObject({ state: 'below', off: ['rate'] });
    expect(linkCheckHeadline(c, judge(classC))).toContain(
      '58 %: poor. Likeliest first: the link runs at half rate',
    );
  });

  it('a right router clears the cable', () => {
    const c = check(classC, { router: { laneGbps: 20, lanes: 2 }, copy: { ...graded, value: 16 } });
    expect(c.reasons.map((r) => r.id)).not.toContain('half-rate-cable');
    expect(c.reasons.map((r) => r.id)).toContain('shared-traffic');
  });

  it('two lanes on the host are shown by its own span', () => {
    const c = check(tunnelChain({ socket: { controller: 'separate', pcieGen: 3 } }), {
      hostSpan: { gen: 3, lanes: 2 },
    });
    expect(c.reasons[0]).toMatchObject({ id: 'two-lane-host', support: 3 });
  });

  it('more than the chain can show means the plan is wrong', () => {
    const c = check(classC, { cardSpan: { gen: 4, lanes: 4 } });
    expect(c.overall).toBe('above');
    expect(c.reasons[0]?.id).toBe('plan-wrong');
  });

  it('a rate above the plan doubts the plan, above the port itself', () => {
    const above = check(classC, { copy: { ...graded, value: 28 } });
    expect(above.overall).toBe('above');
    expect(above.doubts).toContain('dock/controllerClass');
    expect(linkCheckHeadline(above, judge(classC))).toMatch(
      /^28\.0 of 26\.0 Gb\/s, 108 %: more than the plan allows\. It contradicts: .*Controller class of the dock\.$/,
    );
    const long = tunnelChain({ cable: { lengthMm: 1200 } });
    const cable = check(long, { copy: { ...graded, value: 24 } });
    expect(cable.doubts).toContain('path/a/lengthMm');
    const never = check(classC, { copy: { ...graded, value: 44 } });
    expect(never).toMatchObject({ overall: 'impossible', beyondPort: true });
    expect(linkCheckHeadline(never, judge(classC))).toBe(
      '44.0 of 26.0 Gb/s, 169 %: impossible. Check unit and direction.',
    );
    expect(check(classC, { cardSpan: { gen: 4, lanes: 4 } }).doubts).toContain('dock/slotGen');
  });

  it('busy traffic and ambiguous ports are reasons where possible', () => {
    const twin = {
      ...tunnelChain({ loads: [load()] }),
      host: { ...host(), sockets: [socket(), socket({ key: 'right' })] },
    };
    const c = check(twin, { copy: { ...graded, value: 16, traffic: 'busy' } });
    expect(c.reasons[0]).toMatchObject({ id: 'shared-traffic', support: 3 });
    expect(c.reasons.map((r) => r.id)).toContain('wrong-port');
    const quiet = check(twin, { copy: { ...graded, value: 16, traffic: 'quiet' } });
    expect(quiet.reasons.map((r) => r.id)).not.toContain('shared-traffic');
  });

  it('a direct link has no router, no hub and no half rate', () => {
    const c = check(directChain(), {
      cardSpan: { gen: 3, lanes: 4 },
      copy: { ...graded, value: 27 },
    });
    expect(c.rows.map((r) => r.key)).toEqual(['card']);
    expect(c.reasons.map((r) => r.id)).toEqual(['marginal-cable', 'slot-generation']);
  });

  it('a healthy rate beside a narrow span is not called healthy', () => {
    expect(
      check(classC, { cardSpan: { gen: 3, lanes: 2 }, copy: { ...graded, value: 24 } }).overall,
    ).toBe('low');
  });

  it('nothing read is refused, and every reason says what to do', () => {
    expect(
      readingSchema.safeParse({ load: 'load', cardSpan: { gen: null, lanes: null } }).success,
    ).toBe(false);
    for (const t of Object.values(REASON_TEXTS)) expect(t.todo.length).toBeGreaterThan(20);
    expect(linkCheckHeadline(null, judge(classC))).toBe(
      'Nothing read yet. Under load this chain should show ×4 Gen3 and 26.0 Gb/s to the card.',
    );
  });
});
