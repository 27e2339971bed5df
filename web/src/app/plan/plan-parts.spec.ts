import { chainSchema } from '@ruddy/core/chain';
import { evaluate, type VerdictState } from '@ruddy/core/plan';
import type { EvaluationSummary } from '@ruddy/core/plan/contract';
import { MiniStrip } from '../chain/strip/mini-strip';
import { VerdictChip } from '../chain/verdict/verdict-chip';
import { HopTable } from './hop-table';
import { LinkBudget } from './link-budget';
import { PORT, shown, words } from './spec-help';

const judge = (cable: object, over: object = {}) =>
  evaluate({
    chain: chainSchema.parse({
      host: { maker: 'A', model: 'H', form: 'laptop', sockets: [PORT] },
      socket: 'left',
      path: [
        {
          key: 'a',
          spec: {
            maker: 'A',
            model: 'K',
            connector: 'usb-c',
            construction: 'passive',
            markedGbps: 40,
            ...cable,
          },
        },
      ],
      dock: {
        maker: 'A',
        model: 'D',
        form: 'enclosure',
        connector: 'usb-c',
        uplink: 'usb4-40',
        slotGen: 3,
        slotLanes: 4,
      },
      card: { maker: 'A', model: 'C', pcieGen: 4, lanes: 16 },
      ...over,
    }),
    context: { asOf: '2026-11-20', house: { 'link.flowControlPercent': 2 } },
  });

describe('the link budget', () => {
  it("says the chain's rate of the rest's, Gb/s and GB/s", async () => {
    const { el } = await shown(LinkBudget, { evaluation: judge({ lengthMm: 1200 }) });
    expect([...el.querySelectorAll('p')].map(words)).toEqual([
      '16.0 of 26.0 Gb/s to the card',
      '15.6 Gb/s back; 2.00 GB/s to the card.',
    ]);
    expect(el.querySelector('.bar')?.getAttribute('aria-label')).toBe(
      '16.0 of 26.0 gigabit a second',
    );
  });

  it('shows a range as a range and nothing as not known', async () => {
    const { el } = await shown(LinkBudget, { evaluation: judge({ lengthMm: null }) });
    expect(words(el)).toContain('16.0 to 26.0 of 16.0 to 32.0');
  });
});

describe('the working of the link', () => {
  it('has a row a hop: trained, raw, both ways, why', async () => {
    const { el } = await shown(HopTable, { evaluation: judge({ lengthMm: 1200 }) });
    const rows = [...el.querySelectorAll('tbody tr:not(.formula)')].map((r) =>
      [...r.children].map(words).join(' '),
    );
    expect(rows).toHaveLength(3);
    expect(rows[1]).toBe(
      'Host port to Dock tunnel Gen3 ×4 19.4 16.0 15.6 nothing bottleneck, set by the cable',
    );
    expect(words(el.querySelector('ul'))).toContain(
      'Taken by flow control and acknowledges: 2 % (set by this workshop)',
    );
  });

  it('says which part is missing where a hop cannot be known', async () => {
    const { el } = await shown(HopTable, { evaluation: judge({ lengthMm: 700 }, { card: null }) });
    expect([...el.querySelectorAll('tbody tr:not(.formula)')].map(words)[2]).toContain(
      'not chosen: card',
    );
  });
});

describe('what lists show', () => {
  it.each([
    ['works', 'Works'],
    ['care', 'Works with care'],
    ['blocked', "Won't work"],
    ['unknown', 'Not enough known'],
  ] as [VerdictState, string][])('%s has its word and a shape of its own', async (state, word) => {
    const { el } = await shown(VerdictChip, { state });
    expect(words(el).replace('?', '').trim()).toBe(word);
    expect(el.querySelector('path')?.getAttribute('d')).toMatch(/^M1 [46]h/);
  });

  it('the mini strip draws every hop in its state', async () => {
    const glance: EvaluationSummary = {
      verdict: 'care',
      coverage: { known: 5, of: 7 },
      open: ['room'],
      sentence: '',
      pinch: { part: 'path', usable: { lo: 16, hi: 16 } },
      hops: [
        { from: 'host', to: 'socket', state: 'unknown', usable: null, pinch: false },
        { from: 'socket', to: 'dock', state: 'ok', usable: { lo: 16, hi: 16 }, pinch: true },
        { from: 'dock', to: 'card', state: 'broken', usable: { lo: 0, hi: 0 }, pinch: false },
      ],
    };
    const { el } = await shown(MiniStrip, { glance });
    expect([
      el.querySelectorAll('.unknown').length,
      el.querySelectorAll('.ok').length,
      el.querySelectorAll('.broken').length,
    ]).toEqual([1, 1, 2]);
    expect(el.querySelectorAll('.tooth')).toHaveLength(1);
    expect(el.querySelectorAll('.post')).toHaveLength(4);
    expect(Number(el.querySelector('.ok')?.getAttribute('height'))).toBe(4);
  });
});
