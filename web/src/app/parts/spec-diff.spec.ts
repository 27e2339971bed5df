import { cableSchema, hostSchema } from '@ruddy/core/parts';
import { changesBetween } from './spec-diff';

const cable = cableSchema.parse({
  maker: 'Alder',
  model: 'K-1',
  connector: 'usb-c',
  lengthMm: 800,
  construction: 'passive',
});
const side = (spec: object, over: object = {}) => ({
  spec: spec as never,
  sources: {},
  retired: false,
  ...over,
});

describe('PA-01 what changed between two revisions', () => {
  it('names each attribute with its words before and after', () => {
    const after = { ...cable, lengthMm: { lo: 700, hi: 900 }, construction: null };
    expect(
      changesBetween('cable', side(cable), side(after)).map((c) => [c.label, c.before, c.after]),
    ).toEqual([
      ['Construction', 'Passive', 'not known'],
      ['Length', '800 mm', '700 to 900 mm'],
    ]);
    expect(changesBetween('cable', side(cable), side({ ...cable }))).toEqual([]);
  });

  it('names sockets that came, went or changed, retirement and sources', () => {
    const socket = { key: 'left', connector: 'usb-c', lanes: 4 };
    const host = (sockets: object[]) =>
      hostSchema.parse({ maker: 'Alder', model: 'H-1', form: 'laptop', sockets });
    const before = side(host([socket, { ...socket, key: 'right' }]));
    const after = side(
      host([
        { ...socket, lanes: 2 },
        { ...socket, key: 'back' },
      ]),
      {
        retired: true,
        sources: { drawW: { from: 'measured', on: '', note: '', kept: false } },
      },
    );
    expect(
      changesBetween('host', before, after).map((c) => `${c.label}: ${c.before} to ${c.after}`),
    ).toEqual([
      'PCIe lanes wired of socket left: 4 to 2',
      'Socket right: there to not there',
      'Socket back: not there to there',
      'Source of Draws under load: not set to measured',
      'Archived: no to yes',
    ]);
  });
});
