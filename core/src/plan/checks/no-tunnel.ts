import { portName } from '../../chain';
import type { Check } from '../types';

/** A USB-C port that tunnels no PCIe: no cable and no dock makes a card appear. */
export const noTunnel: Check<'socket'> = {
  id: 'no-tunnel',
  codes: ['link/no-tunnel'],
  reads: ['socket'],
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
};
