/**
 * The stated truth of the demo runs: what each rig is made of, in ms a frame. `cpu` and `card` are the two stages of a frame at
 * 2560x1440, of which the longer counts; `card` grows with the pixels to the power of 0.85; `toll` is what the link adds: the MB a frame a
 * title sends (`MB`) at the rate of the link (`GBPS`), and `back` what the picture adds on its way to the host's own panel. All invented.
 * Nothing here knows the program that reads it.
 */
export const TITLES = {
  lanterns: {
    name: 'Marsh Lanterns',
    kind: 'title',
    note: 'Night market, the walk from the gate to the pier and back',
  },
  rally: { name: 'Peat Rally', kind: 'title', note: 'Built-in lap, dry' },
  herons: { name: 'Nine Herons', kind: 'title', note: 'Flight over the reed beds' },
  keeper: { name: 'Tidegate Keeper', kind: 'title', note: 'Storm night, first ten minutes' },
  stack: {
    name: 'Stack 600 frames',
    kind: 'work',
    note: 'Image stacking, the same 600 pictures of one night',
  },
  survey: {
    name: 'Sort 10 000 sky tiles',
    kind: 'work',
    note: 'Survey classification, fixed model and tiles',
  },
  dyke1: {
    name: 'Sluice Gauge One',
    kind: 'title',
    note: 'Built-in scene, default settings',
    year: 2016,
  },
  dyke2: {
    name: 'Sluice Gauge Two',
    kind: 'title',
    note: 'Built-in scene, default settings',
    year: 2019,
  },
  dyke3: {
    name: 'Sluice Gauge Three',
    kind: 'title',
    note: 'Built-in scene, default settings',
    year: 2023,
  },
};

/** MB a frame each title sends. */
const MB = { lanterns: 9.2, rally: 6, herons: 7.5, keeper: 8 };
/** Rate of each setup's link to the card, and of a desktop slot, Gb/s. */
const GBPS = {
  dome: 16,
  survey: 26,
  stacking: 57.3,
  classifier: 28.6,
  tower: 57.3,
  plates: 26,
  meridian: 26.7,
  cart: 13.4,
  handheld: 20,
};
const SLOT_GBPS = 229;
const sent = (setup, title) => (MB[title] * 8) / GBPS[setup];

const base = {
  preset: 'High',
  upscaling: 'none',
  generation: 'off',
  rayTracing: 'off',
  capFps: 0,
  powerMode: 'Performance',
  screenPath: 'outside',
  lid: 'open',
  deviceSet: null,
};
const at = (resolution, more = {}) => ({ ...base, resolution, ...more });

/** How much the frame time scatters from frame to frame, as a share; and from repeat to repeat. */
export const JITTER = 0.07;
export const REPEAT = 0.012;

/**
 * `n`: repeats; `s`: seconds; `odd`: what else is in the capture. `start`: seconds of loading at half the rate; `hitch`: a frame of
 * `ms` every `every` seconds; `generated`: each rendered frame is followed by a generated one; `sensors`: lanes beside the frames.
 */
const rig = (setup, title, on, settings, stages, n, s, more = {}) => ({
  setup,
  title,
  on,
  settings,
  ...stages,
  n,
  s,
  ...more,
});
const ms = (cpu, card, setup, title, back = 0) => ({ cpu, card, toll: sent(setup, title), back });
/** The same card in a desktop of the workshop: another processor, hardly any toll. */
const inSlot = (cpu, card, title) => ({
  cpu,
  card,
  toll: (MB[title] * 8) / SLOT_GBPS,
  back: 0,
  norm: true,
});
const FHD = '1920x1080';
const QHD = '2560x1440';
const UHD = '3840x2160';
const PANEL = { screenPath: 'panel' };
const dome = (on, settings, back, n, more) =>
  rig(
    'setup.dome',
    'lanterns',
    `2026-10-${on}:00Z`,
    settings,
    ms(7.1, 9.3, 'dome', 'lanterns', back),
    n,
    45,
    more,
  );
const desktop = (on, resolution) =>
  rig(
    'setup.dome',
    'lanterns',
    `2026-10-${on}:00Z`,
    at(resolution),
    inSlot(5, 9.3, 'lanterns'),
    3,
    45,
  );

export const FRAMES = [
  dome('14T19:10', at(FHD), 0, 3),
  dome('14T19:40', at(QHD), 0, 3, { sensors: true }),
  dome('14T20:20', at(QHD, PANEL), 3.9, 3),
  dome('21T19:00', at(UHD), 0, 2),
  rig(
    'setup.dome',
    'rally',
    '2026-10-21T19:30:00Z',
    at(QHD),
    ms(5.2, 7.4, 'dome', 'rally'),
    3,
    40,
    {
      odd: { hitch: { every: 3.1, ms: 46 } },
    },
  ),
  rig(
    'setup.survey',
    'lanterns',
    '2026-09-30T18:30:00Z',
    at(QHD),
    ms(7.1, 6.6, 'survey', 'lanterns'),
    3,
    45,
    { sensors: true },
  ),
  rig(
    'setup.survey',
    'lanterns',
    '2026-09-30T19:10:00Z',
    at(UHD),
    ms(7.1, 6.6, 'survey', 'lanterns'),
    3,
    45,
  ),
  rig(
    'setup.survey',
    'rally',
    '2026-09-30T19:50:00Z',
    at(QHD),
    ms(5.2, 5.3, 'survey', 'rally'),
    3,
    40,
  ),
  rig(
    'setup.survey',
    'herons',
    '2026-10-07T19:00:00Z',
    at(QHD, { generation: 'on, one between' }),
    ms(8, 9.9, 'survey', 'herons'),
    2,
    40,
    {
      odd: { generated: true },
    },
  ),
  rig(
    'setup.stacking',
    'lanterns',
    '2026-08-19T18:20:00Z',
    at(QHD),
    ms(6.4, 8.8, 'stacking', 'lanterns'),
    3,
    45,
  ),
  rig(
    'setup.stacking',
    'rally',
    '2026-08-19T19:00:00Z',
    at(QHD),
    ms(4.8, 6.9, 'stacking', 'rally'),
    3,
    40,
  ),
  rig(
    'setup.classifier',
    'lanterns',
    '2026-07-08T18:00:00Z',
    at(QHD),
    ms(6.4, 5.1, 'classifier', 'lanterns'),
    3,
    45,
    {
      odd: { start: 4 },
    },
  ),
  rig(
    'setup.tower',
    'lanterns',
    '2026-06-17T18:00:00Z',
    at(QHD),
    ms(5.9, 8.2, 'tower', 'lanterns'),
    3,
    45,
  ),
  rig(
    'setup.plates',
    'herons',
    '2026-05-20T19:00:00Z',
    at(QHD, { lid: null, powerMode: '' }),
    ms(12.4, 10.1, 'plates', 'herons'),
    2,
    40,
    {
      odd: { hitch: { every: 4.4, ms: 78 } },
    },
  ),
  rig(
    'setup.meridian',
    'rally',
    '2026-09-02T19:00:00Z',
    at(FHD, { lid: 'closed' }),
    ms(9.6, 13.2, 'meridian', 'rally'),
    3,
    40,
    {
      sensors: true,
      mhz: 1870,
    },
  ),
  rig(
    'setup.meridian',
    'rally',
    '2026-09-02T19:40:00Z',
    at(FHD, { lid: 'open' }),
    ms(9.6, 12.9, 'meridian', 'rally'),
    3,
    40,
    {
      sensors: true,
      mhz: 1896,
    },
  ),
  rig(
    'setup.cart',
    'herons',
    '2026-04-22T18:00:00Z',
    at(FHD, { capFps: 60, ...PANEL }),
    ms(9.9, 9.2, 'cart', 'herons'),
    2,
    40,
    {
      cap: 60,
    },
  ),
  rig(
    'setup.handheld',
    'keeper',
    '2026-11-07T19:30:00Z',
    at(FHD),
    ms(14.8, 12, 'handheld', 'keeper'),
    2,
    40,
  ),
  desktop('14T15:00', FHD),
  desktop('14T15:20', QHD),
  desktop('14T15:40', UHD),
  // After the calibration of 15 October: what was predicted meets its runs.
  rig(
    'setup.survey',
    'lanterns',
    '2026-11-04T19:00:00Z',
    at(FHD),
    ms(7.1, 6.6, 'survey', 'lanterns'),
    2,
    45,
  ),
  rig(
    'setup.stacking',
    'lanterns',
    '2026-11-05T18:00:00Z',
    at(UHD),
    ms(6.4, 8.8, 'stacking', 'lanterns'),
    2,
    45,
  ),
  rig(
    'setup.tower',
    'lanterns',
    '2026-11-05T19:00:00Z',
    at(UHD),
    ms(5.9, 8.2, 'tower', 'lanterns'),
    2,
    45,
  ),
];

/** Work is computed, not drawn: only the power mode and who computes it are set. */
const by = (deviceSet) => ({
  ...Object.fromEntries(Object.keys(base).map((k) => [k, typeof base[k] === 'string' ? '' : null])),
  rayTracing: null,
  screenPath: null,
  lid: 'open',
  powerMode: 'Performance',
  deviceSet,
});
const timed = (setup, title, on, deviceSet, values) => ({
  setup,
  title,
  on,
  kind: 'time',
  values,
  unit: 's',
  settings: by(deviceSet),
});

/** Scores, times and what could not be run. */
export const TYPED = [
  ...[
    ['dyke1', 9020, 7140],
    ['dyke2', 6210, 5280],
    ['dyke3', 4400, 4050],
  ].flatMap(([title, there, here]) => [
    {
      setup: 'setup.dome',
      title,
      on: '2026-10-14T13:00:00Z',
      kind: 'score',
      values: [there],
      unit: 'points',
      settings: at(''),
      norm: true,
    },
    {
      setup: 'setup.dome',
      title,
      on: '2026-10-14T13:30:00Z',
      kind: 'score',
      values: [here, here + 22],
      unit: 'points',
      settings: at(''),
    },
  ]),
  {
    setup: 'setup.dome',
    title: 'keeper',
    on: '2026-10-21T20:30:00Z',
    kind: 'none',
    settings: at('2560x1440'),
    reason: 'closes at its own start screen; starts on the screen of the host only',
  },
  timed('setup.stacking', 'stack', '2026-08-26T18:00:00Z', 'card', [412, 409, 415]),
  timed('setup.stacking', 'stack', '2026-08-26T19:00:00Z', 'processor', [958, 966, 951]),
  timed('setup.stacking', 'stack', '2026-08-26T20:00:00Z', 'card-processor', [371, 376, 369]),
  timed('setup.classifier', 'survey', '2026-07-15T18:00:00Z', 'card', [188, 190]),
];
