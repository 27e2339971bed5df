import { toRange } from '../../base';
import {
  type AttrPath,
  type Chain,
  describePath,
  pcieRawGbps,
  portDomain,
  transportGbps,
  tunnelOf,
} from '../../chain';
import { PORT_STANDARDS, type PortStandard } from '../../parts';
import type { Evaluation } from '../../plan';
import type { CheckRow } from './compare';
import type { CopyGrade } from './grade';

/**
 * Upper bound on what the port in use can carry by its standard: the transport of a tunnel, generation times lanes of a
 * direct port. A reading above it is an error of the reading, not of the evaluation.
 *
 * @param chain host and port of the chain
 * @returns raw rate, Gb/s; Infinity where no port is chosen
 */
export function portCeilingGbps({ host, socket }: Pick<Chain, 'host' | 'socket'>): number {
  const port = host?.sockets.find((s) => s.key === socket);
  if (!port) return Infinity;
  const standards = (
    typeof port.standard === 'string'
      ? [port.standard]
      : (port.standard?.oneOf ?? Object.keys(PORT_STANDARDS))
  ) as PortStandard[];
  return Math.max(
    ...standards.map((standard) => {
      if (tunnelOf(standard)) return transportGbps(standard);
      const domain = portDomain(port.connector, standard);
      return pcieRawGbps(
        Math.floor(toRange(port.pcieGen, domain.gen).hi),
        toRange(port.lanes, domain.lanes).hi,
      );
    }),
  );
}

/** Attributes that hold a row of spans down: stated higher, the row would show more. */
function ofRow({ key, over }: CheckRow, chain: Chain): AttrPath[] {
  const port = (attr: string) =>
    chain.socket === null ? [] : [`host/sockets/${chain.socket}/${attr}`];
  const pieces = (...attrs: string[]) =>
    (chain.path ?? []).flatMap(({ key: k }) => attrs.map((a) => `path/${k}/${a}`));
  const rate = over.includes('rate');
  const width = over.includes('width');
  if (key === 'router')
    return [
      ...pieces('markedGbps', 'lengthMm', 'construction'),
      'dock/uplink',
      ...port('standard'),
    ];
  if (key === 'host') return [...(rate ? port('pcieGen') : []), ...(width ? port('lanes') : [])];
  return [
    ...(rate ? ['dock/slotGen', 'card/pcieGen', ...pieces('pcieGen'), ...port('pcieGen')] : []),
    ...(width ? ['dock/slotLanes', 'card/lanes', ...pieces('lanes'), ...port('lanes')] : []),
  ];
}

/**
 * Assumptions of an evaluation that a reading above the expected contradicts, the binding one first. A copy rate
 * contradicts what sets the slowest hop: class of the link chip, length and mark of the cable, lanes.
 *
 * @param chain the chain as described
 * @param evaluation its evaluation, with the sources of its values
 * @param rows compared pairs of the reading
 * @param copy graded copy rate; null where none was measured
 * @returns attribute paths of the contradicted assumptions, without repeats
 */
export function doubtsOf(
  chain: Chain,
  evaluation: Evaluation,
  rows: readonly CheckRow[],
  copy: CopyGrade | null,
): AttrPath[] {
  const { pinch } = evaluation.predicted.link;
  const capped = evaluation.predicted.link.kind === 'tunnel' ? ['dock/controllerClass'] : [];
  const copied = copy?.grade === 'impossible' ? [...pinch.setBy, ...capped] : [];
  const paths = [
    ...copied,
    ...rows.filter((r) => r.state === 'above').flatMap((r) => ofRow(r, chain)),
  ];
  return [...new Set(paths)].filter((p) => describePath(p).meta !== null && partIsThere(p, chain));
}

/** Does the part of a path stand in the chain? */
function partIsThere(path: AttrPath, chain: Chain): boolean {
  const slot = path.split('/')[0] as 'dock' | 'card' | 'host' | 'path';
  return chain[slot] !== null && chain[slot] !== undefined;
}
