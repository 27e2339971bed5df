import type { ZooScene } from './frames';

const HD = 1920 * 1080;
const QHD = 2560 * 1440;
const WIDE = 3440 * 1440;
const UHD = 3840 * 2160;
const SMALL = 1280 * 720;

/** How a target differs from what was run. */
export const TARGET_KINDS = ['between', 'beyond', 'link', 'card', 'host', 'crossed'] as const;
export type TargetKind = (typeof TARGET_KINDS)[number];

/** What a person has run, and what is asked of it. */
export interface Regime {
  readonly name: string;
  readonly runs: readonly ZooScene[];
  /** Load of the card was read, too. */
  readonly load: boolean;
  /** Only medians were told. */
  readonly median: boolean;
  readonly targets: readonly { readonly kind: TargetKind; readonly scene: ZooScene }[];
  /** Cells whose limiter is asked. */
  readonly limiters: readonly ZooScene[];
  /** Both sides of a link were run on one host. */
  readonly pair: 'none' | 'same' | 'foreign';
}

function scene(change: Partial<ZooScene> = {}): ZooScene {
  return {
    host: 'own',
    card: 'a',
    link: 'dock',
    look: 'high',
    pixels: HD,
    panel: false,
    capFps: null,
    processorClock: 1,
    cardPower: 1,
    memory: false,
    ...change,
  };
}

const dock = (pixels = HD) => scene({ pixels });
const slot = (pixels = HD) => scene({ link: 'slot', pixels });
const desktop = (pixels = HD) => scene({ link: 'slot', host: 'desktop', pixels });
const target = (kind: TargetKind, s: ZooScene) => ({ kind, scene: s });
const OTHERS = [
  target('link', scene({ link: 'other' })),
  target('card', scene({ card: 'b' })),
  target('host', scene({ host: 'other' })),
];

function regime(
  name: string,
  runs: readonly ZooScene[],
  targets: Regime['targets'],
  more: Partial<Regime> = {},
): Regime {
  return {
    name,
    runs,
    targets,
    load: false,
    median: false,
    limiters: [runs[0]!, runs.at(-1)!],
    pair: 'none',
    ...more,
  };
}

export const REGIMES: readonly Regime[] = [
  regime(
    'one run',
    [dock()],
    [target('beyond', dock(QHD)), target('beyond', dock(UHD)), target('link', slot()), ...OTHERS],
  ),
  regime(
    'two sizes',
    [dock(), dock(UHD)],
    [
      target('between', dock(QHD)),
      target('between', dock(WIDE)),
      target('beyond', dock(SMALL)),
      ...OTHERS,
    ],
  ),
  regime(
    'pair at one size',
    [slot(), dock()],
    [
      target('beyond', dock(QHD)),
      target('beyond', dock(UHD)),
      target('beyond', slot(QHD)),
      ...OTHERS,
    ],
    { pair: 'same' },
  ),
  regime(
    'pair against a foreign desktop',
    [desktop(), dock()],
    [target('beyond', dock(QHD)), target('link', slot()), ...OTHERS],
    { pair: 'foreign', limiters: [dock()] },
  ),
  regime(
    'slot sweep and one dock run',
    [slot(), slot(QHD), slot(UHD), dock()],
    [target('crossed', dock(QHD)), target('crossed', dock(UHD)), target('between', slot(WIDE))],
    { pair: 'same', limiters: [dock(), dock(UHD)] },
  ),
  regime(
    'three sizes and one slot run',
    [dock(), dock(QHD), dock(UHD), slot()],
    [target('between', dock(WIDE)), target('crossed', slot(QHD)), target('crossed', slot(UHD))],
    { pair: 'same', limiters: [dock(), dock(UHD)] },
  ),
  regime(
    'two cards at two sizes',
    [dock(), dock(UHD), scene({ card: 'b' }), scene({ card: 'b', pixels: UHD })],
    [
      target('between', dock(QHD)),
      target('between', scene({ card: 'b', pixels: QHD })),
      target('link', slot()),
    ],
    { limiters: [dock(), scene({ card: 'b', pixels: UHD })] },
  ),
  regime(
    'two sizes with load',
    [dock(), dock(UHD)],
    [target('between', dock(QHD)), target('beyond', dock(SMALL)), ...OTHERS],
    { load: true },
  ),
  regime(
    'panel and outside',
    [dock(), scene({ panel: true })],
    [target('beyond', dock(QHD)), target('crossed', scene({ panel: true, pixels: QHD }))],
  ),
  regime(
    'presets',
    [dock(), scene({ look: 'low' }), dock(QHD)],
    [target('crossed', scene({ look: 'low', pixels: QHD })), target('beyond', dock(UHD))],
    { limiters: [dock(), dock(QHD)] },
  ),
  regime(
    'pair at two sizes with load, same host',
    [slot(), slot(UHD), dock(), dock(UHD)],
    [target('between', dock(QHD)), target('between', slot(QHD)), ...OTHERS],
    { pair: 'same', load: true, limiters: [dock(), dock(UHD)] },
  ),
  regime(
    'pair at two sizes with load, foreign desktop',
    [desktop(), desktop(UHD), dock(), dock(UHD)],
    [target('between', dock(QHD)), target('link', slot()), ...OTHERS],
    { pair: 'foreign', load: true, limiters: [dock(), dock(UHD)] },
  ),
  regime(
    'two links at two sizes with load',
    [scene({ link: 'other' }), scene({ link: 'other', pixels: UHD }), dock(), dock(UHD)],
    [target('between', dock(QHD)), target('link', slot()), target('card', scene({ card: 'b' }))],
    { load: true, limiters: [dock(), dock(UHD)] },
  ),
];

/** Evidence of kinds that the regimes above have not: each on its own. */
export const MORE_REGIMES: readonly Regime[] = [
  regime(
    'memory too small',
    [scene({ memory: true }), scene({ memory: true, pixels: UHD })],
    [
      target('between', scene({ memory: true, pixels: QHD })),
      target('card', scene({ memory: true, card: 'b' })),
    ],
  ),
  regime(
    'upscaling',
    [dock(UHD), scene({ look: 'upscaled', pixels: UHD })],
    [target('crossed', scene({ look: 'upscaled', pixels: QHD })), target('beyond', dock(QHD))],
  ),
  regime(
    'ray tracing',
    [dock(), scene({ look: 'traced' }), dock(QHD)],
    [target('crossed', scene({ look: 'traced', pixels: QHD }))],
    { limiters: [dock(), dock(QHD)] },
  ),
  regime(
    'another preset from its factors alone',
    [dock(), dock(QHD)],
    [target('crossed', scene({ look: 'ultra' })), target('crossed', scene({ look: 'low' }))],
    { limiters: [dock()] },
  ),
  regime(
    'medians only',
    [slot(), dock()],
    [target('beyond', dock(QHD)), target('beyond', slot(QHD))],
    { median: true, pair: 'same' },
  ),
  regime(
    'processor held back',
    [dock(), scene({ processorClock: 0.8 })],
    [target('beyond', dock(QHD)), target('host', scene({ host: 'other' }))],
  ),
  regime(
    'card held back',
    [dock(), scene({ cardPower: 0.8 })],
    [target('beyond', dock(QHD)), target('card', scene({ card: 'b' }))],
  ),
  regime(
    'held at a limit',
    [scene({ capFps: 60 }), dock(UHD)],
    [target('beyond', dock()), target('between', dock(QHD))],
    { limiters: [dock(UHD)] },
  ),
];
