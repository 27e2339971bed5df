import { defineCheck, type DraftOf } from '../check';
import { kind } from '../kind';

const FINDINGS = {
  'preflight/recovery-key': kind<{ known: 'no' | 'not known' }>('care', ({ known }) => ({
    what: 'Encrypted disk may lock you out and ask for its recovery key',
    why: `Encryption sees changed hardware. The key is ${known === 'no' ? 'not at hand' : 'not known to be at hand'}.`,
    todo: 'Have the key on paper or on another machine before you begin. Switching encryption off is not advised.',
  })),
  'preflight/way-back': kind('care', () => ({
    what: 'Switched-off internal graphics may leave no picture and no way back',
    why: 'If the card does not come up, the host shows nothing.',
    todo: 'Arrange a remote login or note the firmware reset of the maker first, or leave internal graphics on.',
  })),
};

/** Before a step that can lock the owner out: the recovery key, and a fallback when the picture may go. */
export const lockOut = defineCheck({
  id: 'lock-out',
  reads: ['settings'],
  searchGroup: 'route',
  findings: FINDINGS,
  run({ settings }) {
    const found: DraftOf<typeof FINDINGS>[] = [];
    const common = { slots: ['settings'], source: 'common-practice' } as const;
    if (settings.encryption === 'yes' && settings.recoveryKey !== 'yes')
      found.push({
        code: 'preflight/recovery-key',
        ...common,
        params: { known: settings.recoveryKey === 'no' ? 'no' : 'not known' },
      });
    if (settings.internalGraphics === 'off' && settings.wayBack !== 'yes')
      found.push({ code: 'preflight/way-back', ...common, params: {} });
    return found;
  },
});
