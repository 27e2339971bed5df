import { toRange } from '../../base';
import { cablesOf, DOMAIN, passiveLengthMm, TRANSPORT_40, transportGbps } from '../../chain';
import type { Check } from '../types';

/** Passive USB-C cables too long for the rate their ends could take, and cables joined end to end. */
export const cableLength: Check<'socket' | 'path' | 'dock'> = {
  id: 'cable-length',
  codes: ['cable/too-long', 'cable/beyond-standard', 'cable/joined'],
  reads: ['socket', 'path', 'dock'],
  run({ socket, path, dock }, rule) {
    const pieces = cablesOf(path?.pieces ?? [], 'usb-c');
    if (pieces.length === 0) return [];
    // Cables marked 80 keep their full rate a little further.
    const marked80 = pieces.every((p) => toRange(p.spec.markedGbps, DOMAIN.cableGbps).lo >= 80);
    const full = marked80
      ? Math.max(rule('cable.passive80Mm'), rule('cable.passiveFullRateMm'))
      : rule('cable.passiveFullRateMm');
    const half = rule('cable.passiveHalfRateMm');
    const length = passiveLengthMm(pieces);
    const open = pieces.flatMap(({ key, spec }) => [
      ...(spec.construction === null ? [`path/${key}/construction`] : []),
      ...(spec.lengthMm === null ? [`path/${key}/lengthMm`] : []),
    ]);
    const said = (limit: number) =>
      length.lo > limit
        ? ({ certainty: 'certain', hangsOn: [] } as const)
        : ({ certainty: 'possible', hangsOn: open } as const);
    const joined =
      pieces.length > 1
        ? [
            {
              code: 'cable/joined' as const,
              slots: ['path' as const],
              params: { pieces: pieces.length },
              source: 'usb-c-cable' as const,
            },
          ]
        : [];
    const common = { slots: ['path' as const], source: 'usb-c-cable' as const };
    if (length.hi > half)
      return [
        {
          code: 'cable/beyond-standard',
          ...common,
          ...said(half),
          params: { length, limit: half },
        },
        ...joined,
      ];
    const ends = [
      socket ? transportGbps(socket.standard) : TRANSPORT_40,
      dock ? transportGbps(dock.uplink) : TRANSPORT_40,
    ];
    const wanted = Math.min(...ends) >= TRANSPORT_40;
    const promised = pieces.some((p) => toRange(p.spec.markedGbps, DOMAIN.cableGbps).hi >= 40);
    if (!wanted || !promised || length.hi <= full) return joined;
    return [
      { code: 'cable/too-long', ...common, ...said(full), params: { length, limit: full } },
      ...joined,
    ];
  },
};
