import { SWAP_MINUTES } from '../comparison/experiment';
import type { Experiment } from './advice';
import type { FrameCard, FrameCell, FrameLink, PresetGroup } from './cell';

/** What a person has at hand to vary. Names are told to people. */
export interface AtHand {
  readonly sizes: readonly { readonly name: string; readonly pixels: number }[];
  /** The host has a panel of its own. */
  readonly panel: boolean;
  /** Other ways to the same card, with the setup they belong to. */
  readonly links: readonly {
    readonly setupId: string;
    readonly name: string;
    readonly link: FrameLink;
  }[];
  readonly cards: readonly FrameCard[];
}

/** Minutes to set another processor clock or power limit of the card (judgement). */
const CLOCK_MINUTES = 5;
/** Share of the usual clock or power limit in such a run. */
const HELD_BACK = 0.8;
const PRESETS: readonly PresetGroup[] = ['low', 'ultra'];

/**
 * The kind of a run and what it needs, apart by a colon: "size:2560x1440", "preset:low", "screen:panel", "link:<setup>", "card:<name>",
 * "clock:80", "power:80", "uncap:".
 */
export type ExperimentId =
  `${'size' | 'preset' | 'screen' | 'link' | 'card' | 'clock' | 'power' | 'uncap'}:${string}`;

/**
 * Runs that could be made around a cell: each changes one thing.
 * @param cell the cell that is looked at
 * @param hand what there is to vary
 * @returns the runs, with the minutes they take to prepare
 */
export function experimentsAround(cell: FrameCell, hand: AtHand): Experiment[] {
  const one = (id: ExperimentId, change: Partial<FrameCell>, minutes: number): Experiment => ({
    id,
    cell: { ...cell, ...change },
    against: null,
    minutes,
  });
  const free = { ...cell, capFps: null };
  const held = (id: ExperimentId, change: Partial<FrameCell>): Experiment => ({
    id,
    cell: { ...free, ...change },
    against: free,
    minutes: CLOCK_MINUTES,
  });
  const sizes = hand.sizes
    .filter((s) => s.pixels !== cell.pixels)
    .map((s) => one(`size:${s.name}`, { pixels: s.pixels }, SWAP_MINUTES.resolution));
  const presets = PRESETS.filter((p) => p !== cell.look.preset).map((preset) =>
    one(
      `preset:${preset}`,
      {
        look: {
          ...cell.look,
          id: `${preset}||${cell.look.rayTracing ? 'ray tracing' : ''}`,
          preset,
        },
      },
      SWAP_MINUTES.preset,
    ),
  );
  const screen =
    hand.panel && !cell.card.integrated
      ? [
          one(
            `screen:${cell.panel ? 'outside' : 'panel'}`,
            { panel: !cell.panel },
            SWAP_MINUTES.screenPath,
          ),
        ]
      : [];
  const links = hand.links
    .filter((l) => l.link.id !== cell.link.id)
    .map((l) => one(`link:${l.setupId}`, { link: l.link }, SWAP_MINUTES.link));
  const cards = hand.cards
    .filter((c) => c.id !== cell.card.id)
    .map((card) => one(`card:${card.id}`, { card }, SWAP_MINUTES.card));
  return [
    ...sizes,
    ...presets,
    ...screen,
    ...links,
    ...cards,
    held('clock:80', { processorClock: HELD_BACK }),
    ...(cell.card.integrated ? [] : [held('power:80', { cardPower: HELD_BACK })]),
    ...(cell.capFps === null ? [] : [one('uncap:', { capFps: null }, SWAP_MINUTES.preset)]),
  ];
}
