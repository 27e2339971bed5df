import { describe, expect, it } from 'vitest';
import { linkCheck, measure, readingSchema } from '@ruddy/core/bring-up';
import { judge } from '../../core/test/make';
import { readCopy, simulate } from '../src';
import { ALL_OFF, broughtUp, CHAINS, lspci, reportOf } from './benches';

const LOAD = [{ act: 'load', on: true }] as const;

describe.each(Object.entries(CHAINS))('BE-03 a clean bench, %s', (_name, chain) => {
  const e = judge(chain);
  const { kind, readouts } = e.predicted.link;
  const run = broughtUp({ chain, seed: 7 }, LOAD);

  it('comes up by everything off, and its log says how', () => {
    expect(run.state.stage).toBe('in-use');
    const codes = run.log.map((l) => l.code);
    const tunnel = [
      'attached',
      'router-up',
      'awaiting',
      'approved',
      'tunnel-up',
      'training',
      'trained',
      'windows',
      'bound',
    ];
    const wanted =
      kind === 'tunnel' ? tunnel : ['attached', 'training', 'trained', 'windows', 'bound'];
    expect(codes.filter((c) => wanted.includes(c))).toEqual(kind === 'tunnel' ? tunnel : wanted);
  });

  // Source: the output of Debian's lspci over bytes written by the PCI Express Base Specification's layout: a reference outside this project.
  it.each(['-vv', '-nnxxxx'])('lspci %s shows what the chain should show', (flags) => {
    const m = measure(reportOf(lspci(run, [flags])), { kind });
    expect(m.card).toMatchObject({ behind: kind, gone: false });
    expect(m.cardSpan).toMatchObject({
      kind: 'real',
      gen: readouts.gen?.lo,
      lanes: readouts.lanes?.lo,
    });
    const host = readouts.pairs.find((p) => p.kind === 'real' && p.to === 'socket');
    expect(m.hostSpan && { gen: m.hostSpan.gen, lanes: m.hostSpan.lanes }).toEqual(
      host ? { gen: host.gen?.lo, lanes: host.lanes?.lo } : null,
    );
    expect(m.virtual).toHaveLength(kind === 'tunnel' ? 1 : 0);
    const inside = readouts.pairs.find((p) => p.kind === 'inside');
    expect(m.inside && [m.inside.gen, m.inside.lanes]).toEqual(
      inside ? [inside.gen?.lo, inside.lanes?.lo] : null,
    );
  });

  it('copies at a healthy rate both ways, the link healthy', () => {
    for (const [n, way] of (['down', 'up'] as const).entries()) {
      const copy = readCopy(run, way, n);
      const report = reportOf(lspci(run, ['-vvnn']));
      const check = linkCheck(readingSchema.parse({ load: 'load', copy, report }), chain, e, {});
      expect([check.copy?.grade, check.overall, check.noDriver]).toEqual([
        'healthy',
        'healthy',
        false,
      ]);
    }
  });

  it('the same seed gives the same bench, more time adds', () => {
    expect(broughtUp({ chain, seed: 7 }, LOAD).log).toEqual(run.log);
    expect(broughtUp({ chain, seed: 8 }, LOAD).log).not.toEqual(run.log);
    const half = broughtUp({ chain, seed: 7 }, LOAD, ALL_OFF, 900);
    expect(half.log.length).toBeLessThan(run.log.length);
    expect(run.log.slice(0, half.log.length)).toEqual(half.log);
  });
});

describe('BE-01 a bench that nobody touched', () => {
  it('does nothing, and has no system to read', () => {
    const chain = CHAINS['usb4 40']!;
    const run = simulate({ chain, seed: 1 }, [], 3_600_000);
    expect([run.log, run.nextMs, run.state.stage]).toEqual([[], null, 'unplugged']);
  });
});
