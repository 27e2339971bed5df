import { type Chain, chainNames, linkName, partName } from '../../chain';
import {
  CAPTURE_METHODS,
  DEVICE_SETS,
  NO_RUN_SETTINGS,
  type RunContext,
  type RunKind,
  type RunSettings,
  SCREEN_PATHS,
  SETTING_LABELS,
} from '../schema';

/** Everything about a run that can make it unlike another, with its name. The first ones are what a comparison can be drawn over. */
export const FACTS = {
  title: 'Title',
  setup: 'Setup',
  card: 'Card',
  resolution: 'Resolution',
  screenPath: 'Picture',
  link: 'Link',
  host: 'Host',
  system: 'System',
  driver: 'Card driver',
  powerMode: 'Power mode',
  lid: 'Lid',
  deviceSet: 'Computed by',
  preset: 'Preset',
  upscaling: 'Upscaling',
  generation: 'Generated frames',
  rayTracing: 'Ray tracing',
  cap: 'Limit on frames',
  cable: 'Cable',
  dock: 'Dock',
  build: 'System build',
  hostFirmware: 'Host firmware',
  dockFirmware: 'Dock firmware',
  overclock: 'Power limit of the card',
  method: 'Captured by',
} as const;
export type Fact = keyof typeof FACTS;
export type RunFacts = Readonly<Record<Fact, string>>;
export const FACT_IDS = Object.keys(FACTS) as Fact[];

/** What rows and columns of a comparison can be. */
export const DIMENSIONS = [
  'title',
  'setup',
  'card',
  'resolution',
  'screenPath',
  'link',
  'host',
  'system',
  'driver',
  'powerMode',
  'lid',
  'deviceSet',
  'preset',
  'upscaling',
  'cable',
] as const satisfies readonly Fact[];
export type Dimension = (typeof DIMENSIONS)[number];

const capWords = (fps: number | null) =>
  fps === null ? '' : fps === 0 ? 'none' : `${fps} frames/s`;

/**
 * Facts of a run as text; empty where unknown.
 *
 * @param run chain of the day, title, settings and how it was captured
 * @returns one text for each fact
 */
export function factsOf(run: {
  setupName: string;
  chain: Chain;
  title: string;
  settings: RunSettings;
  context: RunContext;
}): RunFacts {
  const { chain, settings: s, context } = run;
  const names = chainNames(chain);
  const over = chain.settings.overclockPercent;
  return {
    title: run.title,
    setup: run.setupName,
    card: names.card,
    resolution: s.resolution,
    screenPath: s.screenPath ? SCREEN_PATHS[s.screenPath] : '',
    link: linkName(chain),
    host: names.host,
    system: partName(chain.system),
    driver: chain.installed.driver,
    powerMode: s.powerMode,
    lid: s.lid ?? '',
    deviceSet: s.deviceSet ? DEVICE_SETS[s.deviceSet] : '',
    preset: s.preset,
    upscaling: s.upscaling,
    generation: s.generation,
    rayTracing: s.rayTracing ?? '',
    cap: capWords(s.capFps),
    cable: names.cable,
    dock: names.dock,
    build: chain.installed.systemBuild,
    hostFirmware: chain.installed.hostFirmware,
    dockFirmware: chain.installed.dockFirmware,
    overclock: typeof over === 'number' ? `${over} %` : '',
    method: context.method ? CAPTURE_METHODS[context.method] : '',
  };
}

/** What must be said of a run before it can be held against another fairly. */
const ASKED: Readonly<Record<RunKind, readonly (keyof RunSettings)[]>> = {
  frames: [
    'resolution',
    'preset',
    'upscaling',
    'generation',
    'rayTracing',
    'capFps',
    'powerMode',
    'screenPath',
    'lid',
  ],
  score: ['resolution', 'preset', 'powerMode', 'screenPath', 'lid'],
  time: ['powerMode', 'deviceSet'],
  none: [],
};

/**
 * Settings of a run that are unknown.
 *
 * @param kind kind of run
 * @param settings its settings
 * @param context how it was captured
 * @returns labels of the missing settings, in the order of the form
 */
export function missingOf(kind: RunKind, settings: RunSettings, context: RunContext): string[] {
  const missing = ASKED[kind]
    .filter((k) => settings[k] === NO_RUN_SETTINGS[k])
    .map((k) => SETTING_LABELS[k]);
  return kind !== 'none' && context.method === null ? [...missing, FACTS.method] : missing;
}

/**
 * Settings that a setup already tells, so that they need not be typed again.
 *
 * @param settings docked settings of the setup
 * @param powerMode power mode of the host
 * @returns settings with the others empty
 */
export function settingsOfSetup(
  settings: Pick<Chain['settings'], 'toPanel' | 'lid'>,
  powerMode: string,
): RunSettings {
  const { toPanel, lid } = settings;
  const one = (v: unknown) => (typeof v === 'string' ? v : null);
  const path = one(toPanel);
  return {
    ...NO_RUN_SETTINGS,
    powerMode,
    screenPath: path === 'yes' ? 'panel' : path === 'no' ? 'outside' : null,
    lid: one(lid) as RunSettings['lid'],
  };
}

export interface Unlike {
  readonly fact: Fact;
  readonly a: string;
  readonly b: string;
  /** One side did not say. */
  readonly notSaid: boolean;
}

/** Facts in which setups differ. */
const OF_CHAIN: readonly Fact[] = ['card', 'link', 'host', 'cable', 'dock', 'system'];

/**
 * Differences between two runs other than those under test. A fact known of one side only is a difference; a fact unknown
 * of both is left to `missingOf`. That they were made on two setups is one where nothing else of the chain says why.
 *
 * @param a facts of the first run
 * @param b facts of the second run
 * @param underTest facts that are meant to differ
 * @returns differences with both values
 */
export function unlike(a: RunFacts, b: RunFacts, underTest: readonly Fact[]): Unlike[] {
  const differ = FACT_IDS.filter((f) => a[f] !== b[f]);
  const explained = differ.some((f) => OF_CHAIN.includes(f));
  const told = differ.filter((f) => !underTest.includes(f) && (f !== 'setup' || !explained));
  return told.map((fact) => ({
    fact,
    a: a[fact],
    b: b[fact],
    notSaid: a[fact] === '' || b[fact] === '',
  }));
}

/**
 * Key of runs that are repeats of one another: all known facts but the day are equal.
 *
 * @param facts facts of a run
 * @returns the key
 */
export function repeatKey(facts: RunFacts): string {
  return FACT_IDS.map((f) => facts[f]).join('\u0000');
}
