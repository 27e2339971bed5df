import { minOf, type Range, toRange } from '../../base';
import { asRange, formatWhole, length, maybe } from '../../base/text';
import { directGen, DOMAIN, isAdapter, isDirect, type KnownPath, portDomain } from '../../chain';
import type { Connector } from '../../parts';
import { defineCheck } from '../check';
import { kind, possible } from '../kind';

function plugs(path: KnownPath | null): Connector[] {
  return (path?.pieces ?? []).flatMap(({ spec }) =>
    isAdapter(spec) ? [spec.hostEnd, spec.farEnd] : [spec.connector],
  );
}

/** A passive direct path too long, joints counted, for the generation its ends could take. */
export const directLong = defineCheck({
  id: 'direct-long',
  reads: ['socket', 'path', 'dock', 'card'],
  searchGroup: 'link',
  findings: {
    // Length in mm; PCIe generations.
    'cable/direct-long': kind<{ length: Range; joints: number; gen: Range; wanted: Range }>(
      'care',
      (p, c) => ({
        what: maybe(
          c,
          'Direct path too long for its rate',
          'Direct path may be too long for its rate',
        ),
        why: `${length(p.length)} with ${asRange(p.joints).lo} joints counted in: good to Gen${formatWhole(p.gen)}, the ends could do Gen${formatWhole(p.wanted)}. It shows corrected errors before it falls a generation.`,
        todo: 'Take a shorter cable or fewer joints, or set the slower generation in the firmware setup.',
      }),
      { cause: 'direct-cable' },
    ),
  },
  run({ socket, path, dock, card }, rule) {
    if (!path || !isDirect({ socket, path, dock })) return [];
    const whole = directGen(path.pieces, rule);
    if (whole.promised) return [];
    const ends = [
      ...(socket
        ? [toRange(socket.pcieGen, portDomain(socket.connector, socket.standard).gen)]
        : []),
      ...(dock ? [toRange(dock.slotGen, DOMAIN.slotGen)] : []),
      ...(card ? [toRange(card.pcieGen, DOMAIN.cardGen)] : []),
    ];
    if (ends.length === 0) return [];
    const wanted = minOf(...ends);
    if (whole.gen.lo >= wanted.hi) return [];
    const open = path.pieces.flatMap(({ key, spec }) => [
      ...(typeof spec.lengthMm !== 'number' ? [`path/${key}/lengthMm`] : []),
      ...(spec.pcieGen === null ? [`path/${key}/pcieGen`] : []),
    ]);
    return [
      {
        code: 'cable/direct-long',
        slots: ['path'],
        // A rule of thumb: only a reading of this very path settles it.
        ...possible(open),
        params: { length: whole.mm, joints: path.pieces.length - 1, gen: whole.gen, wanted },
        source: 'house',
      },
    ];
  },
});

/** A one-lane adapter's cable can look like a video cable. */
export const looksLikeVideo = defineCheck({
  id: 'looks-like-video',
  reads: ['socket', 'path', 'dock'],
  searchGroup: 'none',
  findings: {
    'link/looks-like-video': kind('note', () => ({
      what: "The adapter's cable can look like a video cable",
      why: 'It carries PCIe and supply lines. In a video port it can destroy both ends.',
      todo: "Mark the cable, and plug it only into its own board. The maker's manual counts before this.",
    })),
  },
  run({ socket, path, dock }) {
    const all = [socket?.connector, dock?.connector, ...plugs(path)];
    if (!all.includes('mini-card') && !all.includes('expresscard')) return [];
    return [
      {
        code: 'link/looks-like-video',
        slots: ['path', 'dock'],
        params: {},
        source: 'common-practice',
      },
    ];
  },
});
