import { minOf, toRange } from '../../base';
import { directGen, DOMAIN, isAdapter, isDirect, type KnownPath, portDomain } from '../../chain';
import type { Connector } from '../../parts';
import type { Check } from '../types';
import { possible } from './certainty';

function plugs(path: KnownPath | null): Connector[] {
  return (path?.pieces ?? []).flatMap(({ spec }) =>
    isAdapter(spec) ? [spec.hostEnd, spec.farEnd] : [spec.connector],
  );
}

/** A passive direct path too long, joints counted, for the generation its ends could take. */
export const directLong: Check<'socket' | 'path' | 'dock' | 'card'> = {
  id: 'direct-long',
  codes: ['cable/direct-long'],
  reads: ['socket', 'path', 'dock', 'card'],
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
};

/** A one-lane adapter's cable can look like a video cable. */
export const looksLikeVideo: Check<'socket' | 'path' | 'dock'> = {
  id: 'looks-like-video',
  codes: ['link/looks-like-video'],
  reads: ['socket', 'path', 'dock'],
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
};
