import type { SetupEvent } from '@ruddy/core/compatibility/contract';
import { FILTERS, linesOf } from './record-lines';

let n = 0;
const event = (
  kind: SetupEvent['kind'],
  body: Record<string, unknown>,
  over: Partial<SetupEvent> = {},
): SetupEvent => ({
  id: `e${n++}`,
  seq: n,
  kind,
  body,
  happenedAt: '2026-11-20T18:00:00Z',
  recordedAt: '2026-11-20T18:00:00Z',
  corrects: null,
  by: 'this machine',
  origin: 'own',
  ...over,
});
const one = (e: SetupEvent) => linesOf([e], (id) => `the step ${id}`)[0]!;

describe('CO-01 facts in words', () => {
  it.each([
    [
      'attempt',
      { no: 2, purpose: 'undock', order: 'all-off' },
      'Undock, attempt 2 begun: all off',
      'start',
    ],
    [
      'step',
      { no: 1, step: 'plug-cable', state: 'failed', symptom: 'crash-on-plug', reason: '' },
      'the step plug-cable: failed, The host crashed on plugging in',
      'fault',
    ],
    [
      'step',
      { no: 1, step: 'print', state: 'skipped', symptom: null, reason: 'later' },
      'the step print: skipped, later',
      'step',
    ],
    [
      'ended',
      { attempt: 'a', no: 1, outcome: 'failed', order: 'any-time', worked: false },
      'Attempt 1 failed: any time, the card did not come up',
      'fault',
    ],
    [
      'ended',
      { attempt: null, no: null, outcome: 'passed', order: 'all-off', worked: true },
      'Try from before: all off, the card came up',
      'start',
    ],
    [
      'ended',
      { attempt: 'a', no: 3, outcome: 'left', order: 'all-off', worked: null },
      'Attempt 3 left: all off, says nothing of the order',
      'start',
    ],
    [
      'version',
      { what: 'driver', from: '', to: '41.2' },
      'Card driver: not known to 41.2',
      'version',
    ],
    ['struck', { reason: 'typed wrongly' }, 'Deleted: typed wrongly', 'note'],
    [
      'price',
      { part: 'Quillmere D-4', minor: 19900, currency: 'EUR', condition: 'used' },
      'Quillmere D-4: paid €199.00',
      'price',
    ],
    ['outcome', { outcome: 'fails', versions: {} }, 'Fails', 'fault'],
    ['outcome', { outcome: 'works', versions: {} }, 'Works', 'outcome'],
    ['note', { text: 'fan swapped', photo: 'shelf 3' }, 'fan swapped', 'note'],
  ] as const)('%s %j', (kind, body, what, group) => {
    const l = one(event(kind, body));
    expect([l.what, l.group]).toEqual([what, group]);
    expect(Object.keys(FILTERS)).toContain(l.group);
  });

  it('a step says what was met and what came back', () => {
    const noted = [
      { what: 'driver', from: '40', to: '41' },
      { what: 'systemBuild', from: '6', to: '6' },
    ];
    const l = one(
      event('step', {
        no: 1,
        step: 'docked-check',
        state: 'done',
        symptom: null,
        reason: '',
        noted,
        wrong: ['sound', 'scaling'],
      }),
    );
    expect(l.more).toEqual(['Card driver: 40 to 41', 'Came back wrong: sound, scaling']);
  });

  it('corrections stand under what they correct, orphans alone', () => {
    const first = event('note', { text: 'a' });
    const second = event('note', { text: 'b' }, { corrects: first.id });
    const third = event('note', { text: 'c' }, { corrects: second.id });
    const lost = event('struck', { reason: 'x' }, { corrects: 'nowhere' });
    const lines = linesOf([lost, third, second, first], (id) => id);
    expect(lines.map((l) => l.what)).toEqual(['Deleted: x', 'a']);
    expect(lines[1]?.corrections[0]?.what).toBe('b');
    expect(lines[1]?.corrections[0]?.corrections[0]?.what).toBe('c');
  });
});
