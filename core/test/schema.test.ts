import * as z from 'zod';
import { describe, expect, it } from 'vitest';
import { ruleProblem } from '../src/base';
import { chainSchema, describePath } from '../src/chain';
import { outcomeBody } from '../src/compatibility/contract';
import {
  attributesOf,
  cableSchema,
  cardSchema,
  dockSchema,
  hostSchema,
  PART_KINDS,
  PART_SCHEMAS,
  socketSchema,
} from '../src/parts';
import { chainInput, evaluateBody, houseRulesSchema, rulePut } from '../src/plan/contract';
import { setupBody } from '../src/setups/contract';
import { bundleSchema } from '../src/workshop/contract';
import { cable, host, socket, tunnelChain } from './make';

const places = (schema: z.ZodType, value: unknown) => {
  const r = schema.safeParse(value);
  return r.success ? [] : r.error.issues.map((i) => i.path.join('/'));
};

describe('what is typical', () => {
  it('lies within limits and never answers for an ungiven value', () => {
    const all = PART_KINDS.flatMap((kind) =>
      attributesOf(PART_SCHEMAS[kind] as unknown as z.ZodObject),
    );
    const guessed = all.flatMap(([key, m]) =>
      m.typical ? [{ key, m, lo: m.typical[0], hi: m.typical[1] }] : [],
    );
    expect(guessed.length).toBeGreaterThan(10);
    for (const { key, m, lo, hi } of guessed)
      expect([key, lo < hi, lo >= (m.min ?? 0), hi <= (m.max ?? Infinity)]).toEqual([
        key,
        true,
        true,
        true,
      ]);
    expect(cardSchema.parse({ maker: 'A', model: 'C' }).lengthMm).toBeNull();
  });
});

describe('parts at the border', () => {
  it('an attribute left out is "not known"', () => {
    const { connector, maker, model } = cable();
    expect(cableSchema.parse({ connector, maker, model })).toEqual({
      family: '',
      connector,
      maker,
      model,
      variant: '',
      construction: null,
      lengthMm: null,
      markedGbps: null,
      markedW: null,
      pcieGen: null,
    });
  });

  it.each([
    ['a number outside its limits', { lengthMm: 49 }, ['lengthMm']],
    ['a word that is none', { construction: 'thick' }, ['construction']],
    ['a range the wrong way round', { lengthMm: { lo: 900, hi: 700 } }, ['lengthMm']],
    ['a range beyond the limits', { lengthMm: { lo: 900, hi: 70_000 } }, ['lengthMm']],
    ['half a generation', { pcieGen: 3.5 }, ['pcieGen']],
    ['text for a number', { markedGbps: '40' }, ['markedGbps']],
    ['an empty name', { model: '  ' }, ['model']],
    ['an attribute nobody knows', { colour: 'red' }, ['']],
  ])('refuses %s at its place', (_what, over, where) => {
    expect(places(cableSchema, { ...cable(), ...over })).toEqual(where);
  });

  it('trims names', () => {
    expect(cableSchema.parse({ ...cable(), model: ' K-1 ' }).model).toBe('K-1');
  });

  it('PL-01 a socket cannot contradict itself', () => {
    expect(places(socketSchema, { ...socket(), standard: 'oculink' })).toEqual(['standard']);
    expect(
      places(socketSchema, { ...socket(), connector: 'oculink-4i', standard: 'usb4-40' }),
    ).toEqual(['standard']);
    expect(
      places(socketSchema, { ...socket(), connector: 'oculink-4i', standard: 'oculink', lanes: 8 }),
    ).toEqual(['lanes']);
    expect(places(socketSchema, { ...socket(), standard: 'usb-c', tunnelling: 'yes' })).toEqual([
      'tunnelling',
    ]);
    expect(
      places(socketSchema, { ...socket(), standard: { oneOf: ['usb4-40', 'oculink'] } }),
    ).toEqual(['standard']);
    expect(places(socketSchema, { ...socket(), key: 'Left Rear' })).toEqual(['key']);
  });

  it('a host needs a socket, at most 32, each name once', () => {
    expect(places(hostSchema, { ...host(), sockets: [] })).toEqual(['sockets']);
    expect(places(hostSchema, { ...host(), sockets: [socket(), socket()] })).toEqual([
      'sockets/1/key',
    ]);
    expect(
      places(hostSchema, {
        ...host(),
        sockets: Array.from({ length: 33 }, (_, i) => socket({ key: `p${i}` })),
      }),
    ).toEqual(['sockets']);
  });

  it('a dock uplink goes with its connector', () => {
    const dock = { maker: 'A', model: 'D', form: 'enclosure', connector: 'usb-c' };
    expect(places(dockSchema, { ...dock, uplink: 'oculink' })).toEqual(['uplink']);
    expect(places(dockSchema, { ...dock, uplink: null })).toEqual([]);
  });
});

describe('what attributes say of themselves', () => {
  it('every attribute of every kind has a label, and numbers have limits', () => {
    for (const kind of PART_KINDS)
      for (const [key, m] of attributesOf(PART_SCHEMAS[kind] as z.ZodObject)) {
        expect(m.label, `${kind}/${key}`).not.toBe('');
        if (m.input === 'number') expect(m.min!, key).toBeLessThan(m.max!);
        if (m.input === 'choice') expect(m.options!.length, key).toBeGreaterThan(1);
      }
    expect(attributesOf(cardSchema).map(([k]) => k)).toContain('memoryGB');
  });

  it('a path leads to its part and its attribute', () => {
    expect(describePath('host/sockets/left-rear/tunnelling')).toMatchObject({
      part: 'left-rear port',
      meta: { label: 'Tunnels PCIe' },
    });
    expect(describePath('path/a/markedGbps')).toMatchObject({
      part: 'cable',
      meta: { unit: 'Gb/s', findOut: { minutes: 1 } },
    });
    expect(describePath('dock')).toEqual({ part: 'dock', meta: null });
    expect(describePath('moon/phase')).toEqual({ part: 'moon/phase', meta: null });
  });

  it('the formats can be published as JSON Schema', () => {
    for (const schema of [...Object.values(PART_SCHEMAS), bundleSchema, evaluateBody])
      expect(z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' })).toMatchObject({
        type: 'object',
      });
  });
});

describe('chains and requests', () => {
  it('a chain names a socket its host has, and pieces that differ', () => {
    const c = tunnelChain();
    expect(places(chainSchema, { ...c, socket: 'roof' })).toEqual(['socket']);
    expect(places(chainSchema, { ...c, path: [...c.path!, ...c.path!] })).toEqual(['path']);
    expect(places(chainInput, { ...c, path: null, host: { id: 'not an id' } })).not.toEqual([]);
  });

  it('an outcome has bounded words, a real date, a confidence share', () => {
    const o = {
      id: '00000000-0000-7000-8000-000000000000',
      outcome: 'works',
      happenedOn: '2026-11-03',
    };
    expect(outcomeBody.parse(o)).toMatchObject({
      provenance: 'own',
      confidence: 1,
      corrects: null,
      versions: {},
    });
    expect(places(outcomeBody, { ...o, confidence: 1.2 })).toEqual(['confidence']);
    expect(places(outcomeBody, { ...o, symptoms: Array(21).fill('x') })).toEqual(['symptoms']);
    expect(places(outcomeBody, { ...o, happenedOn: '3 Nov' })).toEqual(['happenedOn']);
    expect(places(outcomeBody, { ...o, versions: { bios: '1' } })).toEqual(['versions']);
    expect(places(setupBody, { id: o.id, name: ' ' })).toEqual(['name']);
  });

  it('WS-02 a rule keeps its limits and needs its reason', () => {
    expect(ruleProblem('link.payloadTunnelBytes', 128.5)).toContain('whole number');
    expect(ruleProblem('link.flowControlPercent', Number.NaN)).toContain('from 0 to 20');
    expect(ruleProblem('link.flowControlPercent', 3)).toBeNull();
    expect(places(houseRulesSchema, { 'cable.passiveFullRateMm': 1 })).toEqual([
      'cable.passiveFullRateMm',
    ]);
    expect(places(rulePut, { value: 3, reason: '' })).toEqual(['reason']);
    expect(places(rulePut, { value: null, reason: '' })).toEqual([]);
  });
});
