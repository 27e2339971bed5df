import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  compareVersions,
  holdRequirements,
  parseVersion,
  type RequirementStatus,
  spellVersion,
  within,
  withReleaseCaps,
} from '../src/chain';
import { judge, release, requirement, tunnelChain, type Over } from './make';

const tail = fc.constantFrom('', '', 'a', 'b', '-rc1', '-rc2', '-beta3', '-alpha');
const numbers = fc
  .array(fc.integer({ min: 0, max: 999_999 }), { minLength: 1, maxLength: 6 })
  .map((n) => n.join('.'));
const dotted = fc.tuple(numbers, tail).map(([n, t]) => n + t);
const revision = fc.tuple(numbers, tail).map(([n, t]) => `r${n}${t}`);
const date = fc
  .date({ min: new Date('1995-01-01'), max: new Date('2090-01-01'), noInvalidDate: true })
  .map((d) => d.toISOString().slice(0, 10));
const half = fc
  .tuple(fc.integer({ min: 10, max: 99 }), fc.constantFrom(1, 2))
  .map(([y, h]) => `${y}H${h}`);
const kinds = [dotted, revision, date, half];
const three = fc.constantFrom(...kinds).chain((k) => fc.tuple(k, k, k));
const sign = (n: number | null) => (n === null ? null : Math.sign(n));

describe('PL-14 versions by scheme', () => {
  it.each([
    ['1.9', '1.10', -1],
    ['2.0', '2', 0],
    ['v1.8', '1.8.0', 0],
    ['build 6102', '6099', 1],
    ['1.8-rc2', '1.8', -1],
    ['1.8-beta', '1.8-rc1', -1],
    ['1.8', '1.8b', -1],
    ['r12', 'rev 9', 1],
    ['2026-04-30', '20260501', -1],
    ['24H2', '25H1', -1],
    ['36.1', '2026-04-30', null],
    ['20261399', '1', 1],
    ['newest', '1.0', null],
    ['', '1', null],
  ] as const)('"%s" against "%s": %s', (a, b, expected) => {
    expect(sign(compareVersions(a, b))).toBe(expected);
    const back = sign(compareVersions(b, a));
    expect(back === null ? null : -back + 0).toBe(expected === null ? null : expected + 0);
  });

  it('is a total order within a scheme', () => {
    fc.assert(
      fc.property(three, ([a, b, c]) => {
        const ab = compareVersions(a, b);
        const bc = compareVersions(b, c);
        const ac = compareVersions(a, c);
        expect([ab, bc, ac]).not.toContain(null);
        expect(compareVersions(a, a)).toBe(0);
        expect(Math.sign(ab ?? NaN) + Math.sign(compareVersions(b, a) ?? NaN)).toBe(0);
        if ((ab ?? 0) <= 0 && (bc ?? 0) <= 0) expect(ac).toBeLessThanOrEqual(0);
        if (ab === 0) expect(Math.sign(bc ?? NaN)).toBe(Math.sign(ac ?? NaN));
      }),
      { numRuns: 2000 },
    );
  });

  it('comes back from its own spelling', () => {
    fc.assert(
      fc.property(fc.oneof(...kinds), (text) => {
        const v = parseVersion(text)!;
        expect(parseVersion(spellVersion(v))).toEqual(v);
        expect(compareVersions(text, spellVersion(v))).toBe(0);
      }),
      { numRuns: 2000 },
    );
  });

  it('between two versions, both ends included; not known is neither', () => {
    expect([
      within('38', '36', '38'),
      within('38.1', '36', '38'),
      within('', '36', ''),
      within('new', '36', ''),
      within('', '', ''),
    ]).toEqual([true, false, null, null, true]);
  });
});

describe('PL-14 requirements', () => {
  const hold = (r: object, over: Over = {}, asOf = '2026-11-20'): RequirementStatus | undefined =>
    holdRequirements([requirement(r)], [], tunnelChain(over), asOf)[0];
  const refused = { needs: 'refused', atLeast: '' } as const;

  it('speaks only of its own part, family, or any', () => {
    expect(hold({}, { installed: { dockFirmware: '1.7' } })?.state).toBe('unmet');
    expect(hold({ model: 'D-9' })).toBeUndefined();
    expect(hold({ maker: 'any', model: 'any' })?.state).toBe('unknown');
    expect(
      hold({ ...refused, subject: 'card', model: 'birch' }, { card: { family: 'Birch' } })?.state,
    ).toBe('unmet');
  });

  it('lost support is a date: before it nothing is said', () => {
    const lost = { ...refused, fromOn: '2026-06-01' };
    expect(hold(lost, {}, '2026-05-31')).toBeUndefined();
    expect(hold(lost, {}, '2026-06-01')?.state).toBe('unmet');
    expect(hold({ ...refused, untilOn: '2026-06-01' }, {}, '2026-06-02')).toBeUndefined();
  });

  it('a refusal by one system is asked while the system is unknown', () => {
    const r = { ...refused, onSystem: 'macos' } as const;
    expect(hold(r, { system: { family: 'linux' } })).toBeUndefined();
    expect(hold(r, { system: { family: 'macos' } })?.state).toBe('unmet');
    expect(hold(r)).toMatchObject({ state: 'unknown', hangsOn: ['system/family'] });
  });

  it('a card family whose support a system build ended', () => {
    const r = { ...refused, subject: 'card', model: 'C-1', systemFrom: '25H2' } as const;
    expect(hold(r, { installed: { systemBuild: '25H1' } })).toBeUndefined();
    expect(hold(r, { installed: { systemBuild: '25H2' } })?.state).toBe('unmet');
    expect(hold(r)).toMatchObject({ state: 'unknown', hangsOn: ['installed/systemBuild'] });
  });

  it('a mobile chip the standard driver refuses: met by a repackaged one', () => {
    const r = { needs: 'repackaged', atLeast: '', subject: 'card', model: 'C-1' } as const;
    expect(hold(r, { settings: { driverKind: 'repackaged' } })?.state).toBe('met');
    expect(hold(r, { settings: { driverKind: 'maker' } })?.state).toBe('unmet');
    expect(hold(r)).toMatchObject({ state: 'unknown', hangsOn: ['settings/driverKind'] });
  });

  it('only with a card family, for limited one-lane adapters', () => {
    const r = { andCard: 'Birch', needs: 'driver', atLeast: '', atMost: '38' } as const;
    expect(hold(r, { card: { family: 'Oak' } })).toBeUndefined();
    expect(hold(r, { card: { family: 'Birch' }, installed: { driver: '39' } })?.state).toBe(
      'unmet',
    );
    expect(hold(r, { card: { family: 'Birch' }, installed: { driver: '38.0' } })?.state).toBe(
      'met',
    );
  });

  it('a workaround carries the versions between which it worked', () => {
    const r = {
      workaround: 'start the host before the dock',
      workaroundFrom: '1.2',
      workaroundUntil: '1.6',
    };
    const state = (v: string) => hold(r, { installed: { dockFirmware: v } })?.workaround;
    expect([state('1.4'), state('1.7'), state('')]).toEqual(['holds', 'ended', 'not known']);
    expect(hold({}, {})?.workaround).toBeNull();
  });

  it('PL-16 names the newest release that fulfils it and was not withdrawn', () => {
    const list = [
      release({ variant: '1.8' }),
      release({ variant: '1.10' }),
      release({ variant: '1.11', withdrawnOn: '2026-09-01' }),
      release({ variant: '1.6' }),
    ];
    const held = holdRequirements(
      [requirement()],
      list,
      tunnelChain({ installed: { dockFirmware: '1.6' } }),
      '2026-11-20',
    )[0];
    expect(held?.by?.variant).toBe('1.10');
  });

  it('what a version would fix never stops before it is known', () => {
    const context = {
      requirements: [requirement({ severity: 'blocks', needs: 'driver', atLeast: '40' })],
    };
    const e = judge(tunnelChain(), context);
    expect(e.predicted.verdict).toMatchObject({ state: 'care', because: ['software/unmet'] });
    expect(e.toVerify).toContainEqual({ path: 'installed/driver', decides: true });
    expect(
      judge(tunnelChain({ installed: { driver: '39' } }), context).predicted.verdict.state,
    ).toBe('blocked');
    // Firmware too: once it is known to be too old, what the author says counts.
    const firm = { requirements: [requirement({ severity: 'blocks' })] };
    const state = (v: string) =>
      judge(tunnelChain({ installed: { dockFirmware: v } }), firm).predicted.verdict;
    expect(state('')).toMatchObject({ state: 'care', because: ['software/firmware-first'] });
    expect(state('1.7')).toMatchObject({ state: 'blocked', because: ['software/refused'] });
  });
});

describe('PA-04 releases', () => {
  it("a release lifting a dock's cap stands in for the part", () => {
    const lifts = release({ capGbps: 22, capBeforeGbps: 12 });
    const c = tunnelChain({ installed: { dockFirmware: '1.7' } });
    expect(withReleaseCaps(c, [lifts]).dock).toMatchObject({
      capFirmware: '1.8',
      capGbps: 22,
      capBeforeGbps: 12,
    });
    expect(
      withReleaseCaps(tunnelChain({ dock: { capFirmware: '1.2' } }), [lifts]).dock?.capFirmware,
    ).toBe('1.2');
    const e = judge(c, { releases: [lifts] });
    expect(e.predicted.link.usable?.down.lo).toBeCloseTo(12, 6);
    expect(e.findings.map((f) => f.code)).toContain('dock/firmware-cap');
  });

  it('withdrawn and newer releases are both said, trials are older', () => {
    const codes = (have: string) =>
      judge(tunnelChain({ installed: { dockFirmware: have } }), {
        releases: [
          release({ variant: '1.8', withdrawnOn: '2026-05-01' }),
          release({ variant: '1.9' }),
        ],
      })
        .findings.filter((f) => f.area === 'software')
        .map((f) => f.code);
    expect(codes('1.8')).toEqual(['software/withdrawn', 'software/newer']);
    expect(codes('1.9-rc1')).toEqual(['software/newer']);
    expect(codes('1.9')).toEqual([]);
  });
});
