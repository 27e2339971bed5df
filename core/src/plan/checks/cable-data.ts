import { toRange } from '../../base';
import { cablesOf, DOMAIN, MIN_TUNNEL_CABLE_GBPS } from '../../chain';
import type { Check, FindingDraft } from '../types';

/** A USB-C cable whose mark is too low for a tunnel: it charges and carries USB 2. */
export const cableData: Check<'path'> = {
  id: 'cable-data',
  codes: ['cable/no-data'],
  reads: ['path'],
  run({ path }) {
    return cablesOf(path?.pieces ?? [], 'usb-c').flatMap(({ key, spec }): FindingDraft[] => {
      const marked = toRange(spec.markedGbps, DOMAIN.cableGbps);
      if (marked.lo >= MIN_TUNNEL_CABLE_GBPS) return [];
      return [
        {
          code: 'cable/no-data',
          slots: ['path'],
          about: key,
          certainty: marked.hi < MIN_TUNNEL_CABLE_GBPS ? 'certain' : 'possible',
          hangsOn: marked.hi < MIN_TUNNEL_CABLE_GBPS ? [] : [`path/${key}/markedGbps`],
          params: { cable: `${spec.maker} ${spec.model}`, marked },
          source: 'usb-c-cable',
        },
      ];
    });
  },
};
