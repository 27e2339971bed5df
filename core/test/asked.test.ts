import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { knownAt } from '../src/chain';
import { questionsOf } from '../src/plan';
import { chains } from './any-chain';
import { judge } from './make';
import { whole } from './provoked';

describe('what is asked', () => {
  it('is never known already, in 1,000 generated chains', () => {
    fc.assert(
      fc.property(chains, (chain) => {
        const e = judge(chain);
        const asked = [
          ...questionsOf(e).map((q) => q.path),
          ...e.findings.flatMap((f) => f.hangsOn),
          ...e.toVerify.map((v) => v.path),
        ];
        expect(asked.filter((path) => knownAt(chain, path))).toEqual([]);
      }),
      { numRuns: 1000 },
    );
  });

  it('lanes decide where the standard allows two or four', () => {
    const socket = {
      standard: 'thunderbolt-3',
      lanes: null,
      controller: 'separate',
      pcieGen: 3,
    } as const;
    const e = judge(whole({ socket, dock: { tb3Compat: 'yes' } }));
    expect(e.predicted.verdict.state).toBe('care');
    expect(questionsOf(e).flatMap((q) => (q.decides ? [q.path] : []))).toEqual([
      'host/sockets/left/lanes',
    ]);
    const known = judge(whole({ socket: { ...socket, lanes: 4 }, dock: { tb3Compat: 'yes' } }));
    expect([known.predicted.verdict.state, questionsOf(known).filter((q) => q.decides)]).toEqual([
      'works',
      [],
    ]);
  });
});
