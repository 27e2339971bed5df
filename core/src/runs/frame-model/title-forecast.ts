import { modeOfHost, type RigFacts } from '../rig';
import { cellsOfEvidence, type FrameEvidence } from './evidence';
import type { FrameCell, FrameLook } from './cell';
import { type FrameForecast, forecastFrame, type LinkOverhead, overheadOf } from './forecast';
import { cellOfRig, lookOfSettings } from './from-runs';
import { posteriorOf } from './kept-posteriors';
import type { StatedTitle } from './priors';
import { type AssumedOrMeasured, restsOn } from './rests-on';

/** What is known of a title, whichever rig is asked. */
export interface FrameTitle {
  readonly id: string;
  readonly name: string;
  readonly evidence: readonly FrameEvidence[];
  readonly stated: StatedTitle | null;
}

/** The picture that is asked for. */
export interface FramePicture {
  readonly pixels: number;
  readonly panel: boolean;
  readonly capFps: number | null;
  /** Empty: the mode most runs of the host were made in. */
  readonly powerMode: string;
  /** Empty: the look most runs of the title have. */
  readonly preset: string;
  readonly rayTracing: boolean;
}

/** One title, one picture. */
export interface FrameAsk {
  readonly title: FrameTitle;
  readonly picture: FramePicture;
  readonly resolution: string;
}

/** What would have to be known for a forecast. */
export type MissingForForecast = 'link' | 'host' | 'card' | 'title';

interface Head {
  readonly titleId: string;
  readonly title: string;
  readonly resolution: string;
}
export interface NoForecast extends Head {
  readonly missing: readonly MissingForForecast[];
}
/** Frames to expect of a title on a rig, with what the link costs and what both rest on. */
export interface TitleForecast extends Head {
  readonly forecast: FrameForecast;
  /** Null for graphics inside the processor. */
  readonly overhead: LinkOverhead | null;
  readonly restsOn: AssumedOrMeasured;
}

/** The value that most of a list have; of equals the first. */
function mostCommon<T>(list: readonly T[], key: (value: T) => string): T | null {
  const counts = new Map<string, number>();
  for (const value of list) counts.set(key(value), (counts.get(key(value)) ?? 0) + 1);
  const most = Math.max(...counts.values());
  return list.find((value) => counts.get(key(value)) === most) ?? null;
}

function lookOfPicture(cells: readonly FrameCell[], picture: FramePicture): FrameLook {
  const { preset, rayTracing } = picture;
  const usual = mostCommon(cells, (c) => c.look.id)?.look;
  if (usual && preset.trim() === '' && !rayTracing) return usual;
  return lookOfSettings({ preset, upscaling: '', rayTracing: rayTracing ? 'on' : 'off' });
}

/** The power mode of a host that most of its runs were made in, where none is asked for. */
function modeOf(cells: readonly FrameCell[], host: string, asked: string): string {
  if (asked !== '') return asked;
  const own = cells.flatMap((c) => modeOfHost(c.host.id, host) ?? []);
  return mostCommon(own, (mode) => mode) ?? '';
}

/**
 * The cell that a picture of a title is on a rig.
 * @param rig the rig
 * @param ask title and picture
 * @returns the cell
 */
export function cellOfAsk(rig: RigFacts, ask: FrameAsk): FrameCell {
  const { title, picture } = ask;
  const cells = title.evidence.flatMap(cellsOfEvidence);
  return cellOfRig(rig, {
    pixels: picture.pixels,
    panel: picture.panel,
    capFps: picture.capFps,
    powerMode: modeOf(cells, rig.host, picture.powerMode),
    look: lookOfPicture(cells, picture),
    inside: false,
  });
}

/**
 * What is missing for a forecast: a title of which nothing is known, a link without a rate, a host or card with neither runs nor an index.
 * @param cell the cell that is asked
 * @param title what is known of the title
 * @returns what is missing; empty where a forecast can be made
 */
export function missingFor(cell: FrameCell, title: FrameTitle): MissingForForecast[] {
  const cells = title.evidence.flatMap(cellsOfEvidence);
  const known = title.evidence.length > 0 || title.stated !== null;
  const hasHost = cell.host.index !== null || cells.some((c) => c.host.id === cell.host.id);
  const hasCard = cell.card.index !== null || cells.some((c) => c.card.id === cell.card.id);
  return [
    ...(known ? [] : (['title'] as const)),
    ...(cell.link.down ? [] : (['link'] as const)),
    // A run of the title on this rig makes host and card known as well.
    ...(hasHost || !known ? [] : (['host'] as const)),
    ...(hasCard || !known ? [] : (['card'] as const)),
  ];
}

const posteriorOfTitle = (title: FrameTitle, cell: FrameCell, refined: boolean) =>
  posteriorOf({ ...title, titleId: title.id, refined }, cell);

/**
 * The frame time of a title on a rig, without what the link costs: for lists.
 * @param rig the rig
 * @param ask title and picture
 * @param refined the thorough answer
 * @returns the forecast; null where too little is known
 */
export function frameForecastOf(
  rig: RigFacts,
  ask: FrameAsk,
  refined: boolean,
): FrameForecast | null {
  const cell = cellOfAsk(rig, ask);
  if (missingFor(cell, ask.title).length > 0) return null;
  return forecastFrame(posteriorOfTitle(ask.title, cell, refined), cell);
}

/**
 * Frames to expect of a title on a rig.
 * @param rig the rig
 * @param ask title and picture
 * @param refined the thorough answer, which takes several times as long
 * @returns the forecast, or what would have to be known for one
 */
export function forecastTitle(
  rig: RigFacts,
  ask: FrameAsk,
  refined: boolean,
): TitleForecast | NoForecast {
  const { title, resolution } = ask;
  const cell = cellOfAsk(rig, ask);
  const head = { titleId: title.id, title: title.name, resolution };
  const missing = missingFor(cell, title);
  if (missing.length > 0) return { ...head, missing };
  const posterior = posteriorOfTitle(title, cell, refined);
  return {
    ...head,
    forecast: forecastFrame(posterior, cell),
    overhead: overheadOf(posterior, cell),
    restsOn: restsOn(posterior, cell),
  };
}
