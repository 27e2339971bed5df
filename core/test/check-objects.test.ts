import { describe, expect, it } from 'vitest';
import { RuleBook } from '../src/base';
import { asRange } from '../src/base/text';
import {
  CODES_IN_ORDER,
  defineCheck,
  FINDING_CODES,
  kind,
  runChecks,
  type Facts,
} from '../src/plan';

/** A small check with one kind, as a newcomer writes it. */
const tooHot = defineCheck({
  id: 'too-hot',
  reads: ['card'],
  searchGroup: 'none',
  findings: {
    'test/hot': kind<{ watts: number }>('note', ({ watts }) => ({
      what: `${asRange(watts).lo} W`,
      why: 'It is warm.',
      todo: 'Let it cool down.',
    })),
  },
  run({ card }) {
    const watts = card?.boardW;
    if (typeof watts !== 'number') return [];
    return [{ code: 'test/hot', slots: ['card'], params: { watts }, source: 'house' }];
  },
});

describe('a check is one object', () => {
  it('findings are shown in the order written down', async () => {
    const lines = CODES_IN_ORDER.map((code) => `${FINDING_CODES[code].severity} ${code}`);
    await expect(`${lines.join('\n')}\n`).toMatchFileSnapshot('./finding-order.txt');
  });

  it('runs on the facts it declares', () => {
    const facts = { card: { boardW: 300 } } as unknown as Facts;
    const drafts = runChecks([tooHot], facts, new RuleBook({}));
    expect(drafts).toMatchObject([{ code: 'test/hot', params: { watts: 300 } }]);
  });

  it('undeclared facts, foreign codes and wrong parameters do not compile', () => {
    const { findings } = tooHot;
    const common = { id: 'x', reads: ['card'], searchGroup: 'none', findings } as const;
    const draft = { code: 'test/hot', slots: ['card'], source: 'house' } as const;
    const cold = [{ ...draft, code: 'test/cold' as const, params: { watts: 1 } }];
    const words = [{ ...draft, params: { watts: '1' } }];
    const none = [{ ...draft, params: {} }];
    // @ts-expect-error the dock is not declared
    const undeclared = defineCheck({ ...common, run: ({ dock }) => (dock ? [] : []) });
    // @ts-expect-error no kind has this code
    const foreign = defineCheck({ ...common, run: () => cold });
    // @ts-expect-error watts are a number
    const wrong = defineCheck({ ...common, run: () => words });
    // @ts-expect-error watts are missing
    const missing = defineCheck({ ...common, run: () => none });
    expect([undeclared, foreign, wrong, missing].map((c) => c.id)).toEqual(['x', 'x', 'x', 'x']);
  });
});
