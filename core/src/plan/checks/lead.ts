import { maybe } from '../../base/text';
import { bridged } from '../../chain';
import { type Connector, CONNECTORS } from '../../parts';
import { defineCheck } from '../check';
import { certainIf, kind } from '../kind';

/** Nothing bridges the way to the dock: no cable, no ribbon, and no fixed lead. */
export const lead = defineCheck({
  id: 'lead',
  reads: ['path', 'dock'],
  searchGroup: 'link',
  findings: {
    'cable/missing': kind<{ plug: Connector }>('blocks', ({ plug }, c) => ({
      what: maybe(c, 'No cable to the dock', 'A cable to the dock may be missing'),
      why: maybe(
        c,
        'The path holds no cable and the dock has no fixed lead: nothing joins them.',
        'The path holds no cable. That is right for a dock with a fixed lead; one with a socket needs a cable.',
      ),
      todo: maybe(
        c,
        `Add a cable to the path: ${CONNECTORS[plug]} at both ends, no longer than needed.`,
        'Look whether the cable comes off the dock, and enter it under "Fixed lead".',
      ),
    })),
  },
  run({ path, dock }) {
    if (!path || !dock || path.endsInSlot) return [];
    const { reaches, hangsOn } = bridged({ path: path.pieces, dock });
    if (reaches === 'yes') return [];
    return [
      {
        code: 'cable/missing',
        slots: ['path', 'dock'],
        ...certainIf(reaches === 'no', hangsOn),
        params: { plug: dock.connector },
        source: 'common-practice',
      },
    ];
  },
});
