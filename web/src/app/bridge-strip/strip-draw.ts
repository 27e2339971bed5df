import { select, type Selection } from 'd3-selection';
import { BOXES, DECK, HEIGHT, scaleBarPx, stripPicture, WIDTH, type HopPicture } from './strip-geometry';
import type { Pier, StripModel } from './strip-model';

type Layer = Selection<SVGGElement, unknown, null, undefined>;

function text(layer: Layer, cls: string, x: number, y: number, words: string, anchor = 'middle'): void {
  layer.append('text').attr('class', cls).attr('x', x).attr('y', y).attr('text-anchor', anchor).text(words);
}

function drawHop(layer: Layer, p: HopPicture, hatch: string): void {
  for (const r of p.ribbons)
    layer
      .append('path')
      .attr('class', `ribbon ${r.kind}`)
      .attr('d', r.path)
      .attr('fill', r.kind === 'solid' ? `url(#${hatch})` : null);
  for (const t of p.teeth) {
    const tip = t.points === 'down' ? t.y : t.y;
    const base = t.points === 'down' ? t.y - 11 : t.y + 11;
    layer
      .append('path')
      .attr('class', 'tooth')
      .attr('d', `M${t.x - 6},${base}L${t.x + 6},${base}L${t.x},${tip}Z`);
  }
  // A direct link's label would stand on the cable's pier: it keeps to the same two lines above the deck.
  text(layer, 'line1', p.labelX, 20, p.hop.line1);
  text(layer, `line2 ${p.hop.pinch ? 'pinch' : ''} ${p.hop.state}`, p.labelX, 40, p.hop.line2);
}

function fit(words: string, width: number): string {
  const most = Math.floor((width - 8) / 5.8);
  return words.length <= most ? words : `${words.slice(0, most - 1)}…`;
}

function drawPier(layer: Layer, p: Pier): void {
  const { x, w } = BOXES[p.key];
  const mid = x + w / 2;
  const g = layer.append('g').attr('class', `pier ${p.key} ${p.state.replace(' ', '-')}`);
  if (p.key !== 'system' && p.key !== 'screen')
    g.append('path')
      .attr('class', 'legs')
      .attr('d', `M${x + 10},${DECK.bottom}L${x + 16},${DECK.legs}H${x + w - 16}L${x + w - 10},${DECK.bottom}`);
  g.append('rect')
    .attr('x', x)
    .attr('y', DECK.top)
    .attr('width', w)
    .attr('height', DECK.bottom - DECK.top);
  text(g as unknown as Layer, 'role', mid, 67, p.role);
  const lines = p.state === 'chosen' ? [p.name, ...p.facts].filter((s) => s !== '') : [p.state];
  lines.slice(0, 2).forEach((l, i) => text(g as unknown as Layer, i === 0 ? 'fact name' : 'fact', mid, 85 + i * 17, fit(l, w)));
}

function drawFootbridge(layer: Layer): void {
  const [x0, x1] = [BOXES.card.x + BOXES.card.w, BOXES.screen.x];
  const g = layer.append('g').attr('class', 'footbridge');
  for (const y of [74, 86]) g.append('line').attr('x1', x0).attr('x2', x1).attr('y1', y).attr('y2', y);
  for (let x = x0 + 6; x < x1; x += 9) g.append('line').attr('x1', x).attr('x2', x).attr('y1', 74).attr('y2', 86);
}

/** Draw the full strip into an SVG element: ribbons first, piers over them. */
export function drawStrip(svg: SVGSVGElement, m: StripModel, id: string): void {
  const root = select(svg);
  root.selectAll('*').remove();
  root.attr('viewBox', `0 0 ${WIDTH} ${HEIGHT}`).attr('preserveAspectRatio', 'xMidYMid meet');
  const hatch = `hatch-${id}`;
  const pattern = root.append('defs').append('pattern').attr('id', hatch).attr('width', 6).attr('height', 6);
  pattern.attr('patternUnits', 'userSpaceOnUse').attr('patternTransform', 'rotate(45)');
  pattern.append('rect').attr('class', 'hatch-ground').attr('width', 6).attr('height', 6);
  pattern.append('line').attr('class', 'hatch-line').attr('x1', 0).attr('x2', 0).attr('y1', 0).attr('y2', 6);
  const layer = root.append('g') as unknown as Layer;
  for (const p of stripPicture(m)) drawHop(layer, p, hatch);
  drawFootbridge(layer);
  for (const p of m.piers) drawPier(layer, p);
  const bar = scaleBarPx(m);
  layer
    .append('path')
    .attr('class', 'scale')
    .attr('d', `M2,${168 - bar}h6M5,${168 - bar}v${bar}M2,168h6`);
  text(layer, 'fact', 14, 168 - bar / 2 + 4, '16 Gb/s', 'start');
}
