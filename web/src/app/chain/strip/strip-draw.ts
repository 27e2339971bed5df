import { select, type Selection } from 'd3-selection';
import {
  BOXES,
  DECK,
  HEIGHT,
  scaleBarPx,
  stripPicture,
  WIDTH,
  type HopPicture,
} from './strip-geometry';
import type { StripNode, StripModel } from './strip-model';

type Layer = Selection<SVGGElement, unknown, null, undefined>;

function text(
  layer: Layer,
  cls: string,
  x: number,
  y: number,
  words: string,
  anchor = 'middle',
): void {
  layer
    .append('text')
    .attr('class', cls)
    .attr('x', x)
    .attr('y', y)
    .attr('text-anchor', anchor)
    .text(words);
}

function drawHop(layer: Layer, p: HopPicture, hatch: string, labels: boolean): void {
  for (const r of p.ribbons)
    layer
      .append('path')
      .attr('class', `ribbon ${r.kind}`)
      .attr('d', r.path)
      .attr('fill', r.kind === 'solid' ? `url(#${hatch})` : null);
  for (const t of p.teeth) {
    const base = t.points === 'down' ? t.y - 11 : t.y + 11;
    layer
      .append('path')
      .attr('class', 'tooth')
      .attr('d', `M${t.x - 6},${base}L${t.x + 6},${base}L${t.x},${t.y}Z`);
  }
  // A direct link's label would stand on the cable's pier: it keeps to the same two lines above the deck.
  if (!labels) return;
  text(layer, 'line1', p.labelX, 20, p.hop.line1);
  const look = p.hop.measured
    ? p.hop.measured.gbps === null
      ? 'unread'
      : 'measured'
    : p.hop.pinch
      ? 'pinch'
      : '';
  text(layer, `line2 ${look} ${p.hop.state}`, p.labelX, 40, p.hop.line2);
}

function fit(words: string, width: number): string {
  const most = Math.floor((width - 8) / 5.8);
  return words.length <= most ? words : `${words.slice(0, most - 1)}…`;
}

function drawNode(layer: Layer, p: StripNode, faint: boolean): void {
  const { x, w } = BOXES[p.key];
  const mid = x + w / 2;
  const g = layer
    .append('g')
    .attr('class', `pier ${p.key} ${p.state.replace(' ', '-')}${faint ? ' faint' : ''}`);
  if (p.key !== 'system' && p.key !== 'screen')
    g.append('path')
      .attr('class', 'legs')
      .attr(
        'd',
        `M${x + 10},${DECK.bottom}L${x + 16},${DECK.legs}H${x + w - 16}L${x + w - 10},${DECK.bottom}`,
      );
  g.append('rect')
    .attr('x', x)
    .attr('y', DECK.top)
    .attr('width', w)
    .attr('height', DECK.bottom - DECK.top);
  text(g as unknown as Layer, 'role', mid, 67, p.role);
  const lines = p.state === 'chosen' ? [p.name, ...p.facts].filter((s) => s !== '') : [p.state];
  lines
    .slice(0, 2)
    .forEach((l, i) =>
      text(g as unknown as Layer, i === 0 ? 'fact name' : 'fact', mid, 85 + i * 17, fit(l, w)),
    );
}

function drawFootbridge(layer: Layer, m: StripModel): void {
  const x0 = BOXES.card.x + BOXES.card.w;
  const x1 = BOXES.screen.x;
  const g = layer.append('g').attr('class', 'footbridge');
  for (const y of [74, 86])
    g.append('line').attr('x1', x0).attr('x2', x1).attr('y1', y).attr('y2', y);
  for (let x = x0 + 6; x < x1; x += 9)
    g.append('line').attr('x1', x).attr('x2', x).attr('y1', 74).attr('y2', 86);
  if (m.picture) text(layer, 'fact', (x0 + x1) / 2, 40, m.picture);
  if (m.rope === '') return;
  // Down from the card, along under everything that hangs there, and up to the host.
  const from = BOXES.card.x + BOXES.card.w / 2;
  const to = BOXES.system.x + BOXES.system.w - 12;
  const low = HEIGHT - 2;
  layer
    .append('path')
    .attr('class', 'rope')
    .attr('d', `M${from},${DECK.legs}V${low - 8}q0,8 -8,8H${to + 8}q-8,0 -8,-8V${DECK.bottom}`);
  text(layer, 'fact', to + 16, low - 6, m.rope, 'start');
}

/** What hangs from the dock: on a plumb line where it shares the link, beside the dock's leg where it has its own cable. */
function drawLoads(layer: Layer, m: StripModel): void {
  const shared = m.loads.filter((l) => !l.own);
  const own = m.loads.filter((l) => l.own);
  const x = (BOXES.cable.x + BOXES.cable.w + BOXES.dock.x) / 2;
  const lines = (list: typeof shared, at: number, anchor: string) =>
    list
      .slice(0, 2)
      .forEach((l, i) =>
        text(
          layer,
          'fact',
          at,
          162 + i * 15,
          list.length > 2 && i === 1 ? `${l.words}; ${list.length - 2} more` : l.words,
          anchor,
        ),
      );
  if (shared.length > 0) {
    layer
      .append('path')
      .attr('class', 'plumb')
      .attr('d', `M${x},${DECK.bottom - 10}V144`);
    layer.append('circle').attr('class', 'plumb-bob').attr('cx', x).attr('cy', 146).attr('r', 3);
    // Its words end before the dock: under it stand supply and charging.
    lines(shared, BOXES.dock.x - 4, 'end');
  }
  lines(own, BOXES.dock.x + BOXES.dock.w + 8, 'start');
}

/** Ink discs under every bank and pier, one for each ten in a hundred, with the figure; elsewhere at the right. */
function drawPosterior(layer: Layer, m: StripModel): void {
  const s = m.suspicion;
  if (!s) return;
  const g = layer.append('g').attr('class', 'suspicion') as unknown as Layer;
  const under = (mid: number, percent: number, words: string) => {
    const n = Math.round(percent / 10);
    for (let i = 0; i < n; i++)
      g.append('circle')
        .attr('class', 'disc')
        .attr('cx', mid + (i - (n - 1) / 2) * 10)
        .attr('cy', 149)
        .attr('r', 4);
    text(g, 'suspect', mid, 171, words);
  };
  for (const p of m.piers)
    under(BOXES[p.key].x + BOXES[p.key].w / 2, s.piers[p.key], `${s.piers[p.key]} %`);
  const beside = (BOXES.card.x + BOXES.card.w + BOXES.screen.x) / 2;
  text(g, 'suspect', beside, 171, `elsewhere ${s.elsewhere} %`);
  // Over the part itself, kept within the picture at both ends.
  const at = s.most === 'elsewhere' ? beside : BOXES[s.most].x + BOXES[s.most].w / 2;
  const anchor = at < 200 ? 'start' : at > WIDTH - 200 ? 'end' : 'middle';
  const x = anchor === 'start' ? 2 : anchor === 'end' ? WIDTH - 2 : at;
  text(g, 'line1', x, 20, 'most suspect', anchor);
  text(g, 'suspect', x, 40, s.cause, anchor);
}

/** Draw the full strip into an SVG element: ribbons first, piers over them. */
export function drawStrip(svg: SVGSVGElement, m: StripModel, id: string): void {
  const root = select(svg);
  root.selectAll('*').remove();
  root.attr('viewBox', `0 0 ${WIDTH} ${HEIGHT}`).attr('preserveAspectRatio', 'xMidYMid meet');
  const hatch = `hatch-${id}`;
  const pattern = root
    .append('defs')
    .append('pattern')
    .attr('id', hatch)
    .attr('width', 6)
    .attr('height', 6);
  pattern.attr('patternUnits', 'userSpaceOnUse').attr('patternTransform', 'rotate(45)');
  pattern.append('rect').attr('class', 'hatch-ground').attr('width', 6).attr('height', 6);
  pattern
    .append('line')
    .attr('class', 'hatch-line')
    .attr('x1', 0)
    .attr('x2', 0)
    .attr('y1', 0)
    .attr('y2', 6);
  const layer = root.append('g') as unknown as Layer;
  for (const p of stripPicture(m)) drawHop(layer, p, hatch, m.suspicion === undefined);
  drawFootbridge(layer, m);
  for (const p of m.piers) drawNode(layer, p, m.faint?.includes(p.key) === true);
  if (m.suspicion) return drawPosterior(layer, m);
  drawLoads(layer, m);
  m.piers
    .find((p) => p.key === 'dock')
    ?.under?.forEach((words, i) =>
      text(layer, 'fact', BOXES.dock.x + BOXES.dock.w / 2, 158 + i * 15, words),
    );
  const bar = scaleBarPx(m);
  layer
    .append('path')
    .attr('class', 'scale')
    .attr('d', `M2,${168 - bar}h6M5,${168 - bar}v${bar}M2,168h6`);
  text(layer, 'fact', 14, 168 - bar / 2 + 4, '16 Gb/s', 'start');
}
