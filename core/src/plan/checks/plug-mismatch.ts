import { capital, partNoun } from '../../base/text';
import { plugMismatch, type Slot } from '../../chain';
import { type Connector, CONNECTORS } from '../../parts';
import { defineCheck } from '../check';
import { kind } from '../kind';

interface Mismatch {
  a: Slot;
  aPlug: Connector;
  b: Slot;
  bPlug: Connector;
}

/** Two neighbours whose plugs do not go together. */
export const plugs = defineCheck({
  id: 'plugs',
  reads: ['socket', 'path', 'dock'],
  searchGroup: 'link',
  findings: {
    'link/plug-mismatch': kind<Mismatch>('blocks', ({ a, aPlug, b, bPlug }) => ({
      what: 'The plugs do not go together',
      why: `${capital(partNoun(a))} has ${CONNECTORS[aPlug]}, ${partNoun(b)} has ${CONNECTORS[bPlug]}. Either an adapter is missing between them, or they are different links that nothing joins.`,
      todo: `Choose ${partNoun(b)} to match, or another port.`,
    })),
  },
  run({ socket, path, dock }) {
    const found = plugMismatch({ socket, path, dock });
    if (!found) return [];
    const { a, b } = found;
    return [
      {
        code: 'link/plug-mismatch',
        slots: [a.slot, b.slot],
        params: { a: a.slot, aPlug: a.connector, b: b.slot, bPlug: b.connector },
        source: 'common-practice',
      },
    ];
  },
});
