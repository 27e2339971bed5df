import { describe, expect, it } from 'vitest';
import {
  type AnySpec,
  boxQuestions,
  discountQuestions,
  pairQuestions,
  PART_SCHEMAS,
  type PartKind,
  partQuestions,
  rateQuestions,
  shareQuestions,
} from '../src/parts';
import { questionText } from '../src/parts/text';
import { readFileSync } from 'node:fs';
import { cable, card, dock, host, screen, supply } from './make';

const codes = (kind: PartKind, spec: AnySpec) => partQuestions(kind, spec).map((q) => q.code);

/** Each odd value beside the nearest one that nobody asks about. */
const PAIRS: [string, PartKind, AnySpec, AnySpec][] = [
  // USB-IF marks: 20 and 40 Gb/s are on cables, 2.5 is not, and 2.5 GB/s are 20 Gb/s. From memory.
  ['bytes-for-bits', 'cable', cable({ markedGbps: 2.5 }), cable({ markedGbps: 20 })],
  // USB PD marks 60, 100, 140 and 240 W. From memory.
  ['watts-for-rate', 'cable', cable({ markedGbps: 100 }), cable({ markedGbps: 80 })],
  ['no-such-rate', 'cable', cable({ markedGbps: 32 }), cable({ markedGbps: 40 })],
  ['rate-for-watts', 'cable', cable({ markedW: 40 }), cable({ markedW: 60 })],
  ['centimetres', 'cable', cable({ lengthMm: 80 }), cable({ lengthMm: 800 })],
  ['no-such-width', 'card', card({ lanes: 6 }), card({ lanes: 8 })],
  ['no-such-width', 'host', host({ lanes: 3 }), host({ lanes: 4 })],
  // PCIe card electromechanical specification: 75 W slot, 150 W for an 8-pin socket. From memory.
  [
    'plugs-short-of-watts',
    'card',
    card({ boardW: 250, plugs8Pin: 1, plugs6Pin: 0, plugs16Pin: 0 }),
    card({ boardW: 225, plugs8Pin: 1, plugs6Pin: 0, plugs16Pin: 0 }),
  ],
  [
    'plugs-short-of-watts',
    'card',
    card({ boardW: 115, plugs8Pin: 0, plugs6Pin: 0, plugs16Pin: 0, chip: 'trimmed' }),
    card({ boardW: 115, plugs8Pin: 0, plugs6Pin: 0, plugs16Pin: 0, chip: 'mobile' }),
  ],
  [
    'name-says-otherwise',
    'card',
    card({ variant: '16 GB', memoryGB: 8 }),
    card({ variant: '16 GB', memoryGB: 16 }),
  ],
  [
    'name-says-otherwise',
    'supply',
    supply({ model: 'S 650 W', supplyW: 550 }),
    supply({ model: 'S 650 W', supplyW: 650 }),
  ],
  [
    'mobile-name',
    'card',
    card({ variant: 'mobile', chip: 'desktop' }),
    card({ variant: 'mobile', chip: 'mobile' }),
  ],
  [
    'centimetres',
    'card',
    card({ lengthMm: 60, boardW: 200 }),
    card({ lengthMm: 260, boardW: 200 }),
  ],
  [
    'same-card',
    'card',
    card({ model: 'C-1', chip: 'mobile', namesake: 'c-1' }),
    card({ model: 'C-1', chip: 'mobile', namesake: 'C-2' }),
  ],
  [
    'class-above-link',
    'dock',
    dock({ uplink: 'thunderbolt-3', controllerClass: 'd' }),
    dock({ uplink: 'thunderbolt-3', controllerClass: 'c' }),
  ],
  // 8 GT/s × 4 lanes × 128/130 = 31.5 Gb/s (PCIe 3.0 base specification).
  [
    'cap-above-link',
    'dock',
    dock({ uplink: 'thunderbolt-3', capGbps: 33 }),
    dock({ uplink: 'thunderbolt-3', capGbps: 26 }),
  ],
  [
    'one-lead-plugs',
    'supply',
    supply({ supplyW: 450, cables16Pin: 1, cable16PinW: '450' }),
    supply({ supplyW: 450, cables16Pin: 1, cable16PinW: '300' }),
  ],
  [
    'upright-screen',
    'screen',
    screen({ widthPx: 1440, heightPx: 2560 }),
    screen({ widthPx: 2560, heightPx: 1440 }),
  ],
  ['big-battery', 'host', { ...host(), batteryWh: 120 }, { ...host(), batteryWh: 99 }],
];

describe('WS-05 what is worth asking about a part', () => {
  it.each(PAIRS)('%s: %s asked, and not about the nearest good value', (code, kind, odd, good) => {
    expect(codes(kind, odd)).toEqual([code]);
    expect(codes(kind, good)).toEqual([]);
  });

  it("asks at the value's place, with figures, and changes nothing", () => {
    const spec = cable({ markedGbps: 2.5 });
    const before = structuredClone(spec);
    const [q] = partQuestions('cable', spec);
    expect(q).toMatchObject({ path: 'markedGbps', params: { said: 2.5, would: 20 } });
    expect(q && questionText(q)).toBe(
      '2.5 Gb/s is on no cable; 2.5 GB/s would be 20 Gb/s. Which is meant?',
    );
    expect(spec).toEqual(before);
    expect(partQuestions('host', host({ key: 'rear', lanes: 3 }))[0]?.path).toBe(
      'sockets/rear/lanes',
    );
  });

  it('asks nothing about unknown values and ranges', () => {
    expect(codes('cable', cable({ markedGbps: null, lengthMm: { lo: 60, hi: 90 } }))).toEqual([]);
    expect(
      codes('card', card({ boardW: 500, plugs8Pin: null, plugs6Pin: 0, plugs16Pin: 0 })),
    ).toEqual([]);
  });

  it('asks nothing about the parts that ship', () => {
    const file = JSON.parse(
      readFileSync(new URL('../../demo/observatory.json', import.meta.url), 'utf8'),
    ) as {
      parts: { id: string; kind: PartKind; spec: AnySpec }[];
    };
    const asked = file.parts.flatMap((p) =>
      partQuestions(p.kind, PART_SCHEMAS[p.kind].parse(p.spec)).map((q) => `${p.id} ${q.code}`),
    );
    expect(asked).toEqual([]);
  });
});

describe('WS-05 figures in words', () => {
  it.each([
    ['22 of 26 Gb/s, 92 %', [92, 84.6]],
    ['from 100 to 85 fps, 20 % less', [20, 15]],
    ['100 -> 40: 50 %', [50, 60]],
  ])('"%s" is asked about', (text, [said, would]) => {
    expect(shareQuestions(text, 'note')).toMatchObject([
      { code: 'share-off', params: { said, would } },
    ]);
  });

  it.each([
    '22 of 26 Gb/s, 85 %',
    '22.4 of 26 Gb/s, 86 %',
    '4 of 26, 85 % lost',
    'from 100 to 85 fps, 15 % less',
    'from 100 to 85, 85 % of it',
    'from 80 to 100, 25 % more',
    'worked 5 of 6 times',
    'about 20 % slower',
  ])('"%s" is not', (text) => {
    expect(shareQuestions(text, 'note')).toEqual([]);
  });

  it('a link rate in bytes is asked about, copy rates not', () => {
    expect(rateQuestions('a 40 GB/s cable', 'note')).toMatchObject([
      { params: { said: 40, would: 320 } },
    ]);
    expect(rateQuestions('copied at 2.9 GB/s over 40 Gb/s', 'note')).toEqual([]);
  });

  it('a discount that is not the one said; a rounded one is', () => {
    expect(
      discountQuestions({ minor: 80_000, beforeMinor: 99_900, discountPercent: 10 }),
    ).toMatchObject([{ code: 'discount-off', params: { said: 10, would: 19.9 } }]);
    expect(discountQuestions({ minor: 89_900, beforeMinor: 99_900, discountPercent: 10 })).toEqual(
      [],
    );
    expect(discountQuestions({ minor: 89_900, beforeMinor: null, discountPercent: 10 })).toEqual(
      [],
    );
  });

  it('warns of a part dearer than its box, and twins', () => {
    expect(boxQuestions(70_000, [65_900])).toMatchObject([
      { code: 'alone-above-box', params: { more: 6.2 } },
    ]);
    expect([boxQuestions(60_000, [65_900]), boxQuestions(60_000, [])]).toEqual([[], []]);
    expect(pairQuestions('A', ['B', 'A', 'B']).map((q) => q.path)).toEqual([
      'spares/1',
      'spares/2',
    ]);
  });
});
