import type { SetupEvent } from '@ruddy/core/compatibility/contract';
import { changesOf } from './as-on-panel';

const event = (
  id: string,
  kind: SetupEvent['kind'],
  body: Record<string, unknown>,
  corrects: string | null = null,
): SetupEvent => ({
  id,
  seq: 1,
  kind,
  body,
  happenedAt: '2026-10-14T12:00:00Z',
  recordedAt: '2026-10-14T12:00:00Z',
  corrects,
  by: 'this machine',
  origin: 'own',
});

describe('changes out of the record', () => {
  it('parts and versions under one name, retracted ones none', () => {
    const parts = event('p', 'parts', { changes: [{ slot: 'cable', from: 'K-07', to: 'K-02' }] });
    const driver = event('v', 'version', { what: 'driver', from: '41.2', to: '41.5' });
    const at = '2026-10-14T12:00:00Z';
    expect(changesOf([parts, driver, event('n', 'note', { text: 'x' })])).toEqual([
      { at, what: 'cable', from: 'K-07', to: 'K-02' },
      { at, what: 'card driver', from: '41.2', to: '41.5' },
    ]);
    expect(changesOf([driver, event('s', 'struck', { reason: 'typed wrongly' }, 'v')])).toEqual([]);
  });
});
