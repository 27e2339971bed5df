import { type Range, toRange } from '../../base';
import { maybe, rate } from '../../base/text';
import { cablesOf, DOMAIN, MIN_TUNNEL_CABLE_GBPS } from '../../chain';
import { defineCheck } from '../check';
import { certainIf, kind } from '../kind';

/** A USB-C cable whose mark is too low for a tunnel: it charges and carries USB 2. */
export const cableData = defineCheck({
  id: 'cable-data',
  reads: ['path'],
  searchGroup: 'link',
  findings: {
    'cable/no-data': kind<{ cable: string; marked: Range }>(
      'blocks',
      ({ cable, marked }, c) => ({
        what: maybe(c, 'This cable carries no tunnel', 'This cable may carry no tunnel'),
        why: maybe(
          c,
          `${cable} is marked ${rate(marked)} Gb/s: a charging cable with USB 2.`,
          `The rate ${cable} is marked with is not known. A charging cable looks the same and carries USB 2 only.`,
        ),
        todo: maybe(
          c,
          'Take a cable marked 20 or 40 Gb/s.',
          'Read the mark on the plug: a rate in Gb/s, not watts.',
        ),
      }),
      { cause: 'cable-charges' },
    ),
  },
  run({ path }) {
    return cablesOf(path?.pieces ?? [], 'usb-c').flatMap(({ key, spec }) => {
      const marked = toRange(spec.markedGbps, DOMAIN.cableGbps);
      if (marked.lo >= MIN_TUNNEL_CABLE_GBPS) return [];
      return [
        {
          code: 'cable/no-data' as const,
          slots: ['path' as const],
          about: key,
          ...certainIf(marked.hi < MIN_TUNNEL_CABLE_GBPS, [`path/${key}/markedGbps`]),
          params: { cable: `${spec.maker} ${spec.model}`, marked },
          source: 'usb-c-cable' as const,
        },
      ];
    });
  },
});
