import type {
  FrameCard,
  FrameCell,
  FrameEvidence,
  FrameHost,
  FrameLink,
} from '../src/runs/frame-model';

export const exactly = (v: number) => ({ lo: v, hi: v });
export const HD = 1920 * 1080;
export const QHD = 2560 * 1440;
export const UHD = 3840 * 2160;

/** Host and card of index 100, a dock over a tunnel of two hops and a slot of the same machine. */
export const HOST: FrameHost = { id: 'host', index: exactly(100) };
export const CARD: FrameCard = {
  id: 'card',
  index: exactly(100),
  memoryGB: null,
  integrated: false,
};
export const DOCK: FrameLink = {
  id: 'dock',
  down: exactly(26),
  up: exactly(25.3),
  latencyMs: 0.0022,
};
export const SLOT: FrameLink = {
  id: 'slot',
  down: exactly(107),
  up: exactly(104),
  latencyMs: 0.001,
};

/** A cell of 1920x1080 in the dock, but for what is changed. */
export function titleCell(change: Partial<FrameCell> = {}): FrameCell {
  return {
    host: HOST,
    card: CARD,
    link: DOCK,
    look: { id: 'high', preset: 'high', rayTracing: false, scale: 1 },
    pixels: HD,
    panel: false,
    capFps: null,
    processorClock: 1,
    cardPower: 1,
    ...change,
  };
}

/** Runs of a cell by their frames/s. */
export function ran(cell: FrameCell, ...fps: number[]): FrameEvidence {
  const id = `run ${cell.host.id} ${cell.card.id} ${cell.link.id} ${cell.pixels} ${cell.panel} ${cell.capFps} ${cell.look.id} ${cell.processorClock} ${cell.cardPower}`;
  return { id, kind: 'runs', cell, ms: fps.map((f) => 1000 / f), average: 'mean' };
}
