import { maybe } from '../../base/text';
import { portName } from '../../chain';
import type { PortStandard } from '../../parts';
import { defineCheck } from '../check';
import { kind } from '../kind';

/** A USB-C port that tunnels no PCIe: no cable and no dock makes a card appear. */
export const noTunnel = defineCheck({
  id: 'no-tunnel',
  reads: ['socket'],
  searchGroup: 'link',
  findings: {
    'link/no-tunnel': kind<{ port: string; standard: PortStandard }>(
      'blocks',
      ({ port }, c) => ({
        what: maybe(c, 'This port carries no PCIe', 'This port may carry no PCIe'),
        why: `The ${port} port has the shape, but without PCIe tunnelling no cable and no dock makes a card appear.`,
        todo: maybe(
          c,
          'Choose another port of this host, or another route.',
          'Find out whether the port tunnels PCIe before you buy.',
        ),
      }),
      { cause: 'look-alike-port' },
    ),
  },
  run({ socket }) {
    if (!socket || socket.connector !== 'usb-c' || socket.tunnels) return [];
    return [
      {
        code: 'link/no-tunnel',
        slots: ['socket'],
        params: { port: portName(socket), standard: socket.standard },
        source: 'usb4',
      },
    ];
  },
});
