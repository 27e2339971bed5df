import { describe, expect, it } from 'vitest';
import {
  adviseRuns,
  cellKey,
  experimentsAround,
  type FrameCell,
  type FrameEvidence,
  framePosterior,
  forecastFrame,
} from '../src/runs';
import { randomSource, seedOf } from '../src/runs/frame-model/random';
import { scaled } from '../../scripts/lib/test-scale.mjs';
import { CARD, HD, QHD, ran, SLOT, titleCell, UHD } from './make-title';

const SIZES = [
  { name: '1920x1080', pixels: HD },
  { name: '2560x1440', pixels: QHD },
  { name: '3840x2160', pixels: UHD },
];
const hand = {
  sizes: SIZES,
  panel: true,
  links: [{ setupId: 'slot', name: 'Slot', link: SLOT }],
  cards: [{ ...CARD, id: 'second card' }],
};
const here = titleCell();
/** All that could be run around a cell, itself among it. */
const runnable: readonly FrameCell[] = [here, ...experimentsAround(here, hand).map((e) => e.cell)];

/** Some of what could be run, with frames that a frame of 8 to 30 ms would give. */
function randomState(name: string): FrameEvidence[] {
  const random = randomSource(seedOf(name)).uniform;
  return runnable.flatMap((cell) => (random() < 0.4 ? [ran(cell, 33 + 90 * random())] : []));
}

describe('the run that is advised next', () => {
  it('was never made before, in any state', () => {
    let advised = 0;
    for (let i = 0; i < scaled(20); i++) {
      const evidence = randomState(`state ${i}`);
      const posterior = framePosterior({ titleId: `title ${i}`, evidence });
      const made = new Set(evidence.flatMap((e) => ('cell' in e ? [cellKey(e.cell)] : [])));
      const matter = { kind: 'limiter', cell: here } as const;
      for (const a of adviseRuns(posterior, matter, experimentsAround(here, hand))) {
        advised++;
        expect(made.has(cellKey(a.experiment.cell))).toBe(false);
      }
    }
    expect(advised).toBeGreaterThan(0);
  });

  it('may be one whose figure somebody stated', () => {
    const wide = titleCell({ pixels: UHD });
    const said: FrameEvidence = {
      id: 'said',
      kind: 'stated',
      cell: wide,
      fps: 40,
      lastDigit: 1,
      about: true,
    };
    const evidence = [ran(here, 73), said];
    const posterior = framePosterior({ titleId: 'title', evidence });
    const size = experimentsAround(here, hand).filter((e) => e.id === 'size:3840x2160');
    const matter = { kind: 'forecast', cell: wide } as const;
    expect(adviseRuns(posterior, matter, size).map((a) => a.experiment.id)).toEqual([
      'size:3840x2160',
    ]);
    expect(forecastFrame(posterior, wide).basis).toBe('stated');
    expect(forecastFrame(posterior, here).basis).toBe('measured');
  });
});
