import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { TestBed } from '@angular/core/testing';
import { type Chain, chainSchema } from '@ruddy/core/chain';
import { attributesOf, settingsSchema } from '@ruddy/core/parts';
import { evaluate } from '@ruddy/core/plan';
import { TermWord } from '../platform/glossary/term';
import { GlossaryPage } from '../platform/glossary/glossary-page';
import { FieldHarness } from '../platform/kit/testing/field-harness';
import { QuickAttrs, type QuickChange } from '../parts/quick-attrs';
import { Budgets } from './budgets';
import { FitDrawing } from './fit-drawing';
import { fitPicture } from './fit-picture';
import { PowerWorking } from './power-working';
import { PreFlightList } from './pre-flight-list';
import { PORT, shown, words } from './spec-help';

const named = { maker: 'Alder', model: 'X' };
const cable = {
  ...named,
  connector: 'usb-c',
  construction: 'passive',
  lengthMm: 700,
  markedGbps: 40,
  markedW: 100,
};
const DOCK = {
  ...named,
  form: 'enclosure',
  connector: 'usb-c',
  uplink: 'usb4-40',
  slotGen: 3,
  slotLanes: 4,
  supply: 'inside',
  supplyW: 650,
  cables8Pin: 2,
  efficiency: 'gold',
  chargeOutW: 60,
  innerLengthMm: 300,
  innerHeightMm: 160,
};
const CARD = {
  ...named,
  pcieGen: 4,
  lanes: 16,
  boardW: 300,
  plugs8Pin: 2,
  lengthMm: 280,
  heightMm: 130,
};
const chain = (card: object = {}, dock: object = {}, settings: object = {}): Chain =>
  chainSchema.parse({
    host: {
      ...named,
      form: 'laptop',
      sockets: [{ ...PORT, chargeInW: 100 }],
      batteryWh: 60,
      drawW: 70,
    },
    socket: 'left',
    path: [{ key: 'a', spec: cable }],
    dock: { ...DOCK, ...dock },
    card: { ...CARD, ...card },
    settings: settingsSchema.parse(settings),
  });
const judge = (c: Chain) => evaluate({ chain: c, context: { asOf: '2026-11-20', house: {} } });

describe('budgets', () => {
  it('PL-11 PL-12 print figure and limit, name excess, fold the rest', async () => {
    const { el } = await shown(Budgets, { evaluation: judge(chain()) });
    const rows = [...el.querySelectorAll(':scope > .budget')].map(words);
    expect(rows.find((r) => r.startsWith('Charging'))).toMatch(
      /^Charging60 W in, 70 W drawn.*too much.*Empty after 6 h\.$/,
    );
    expect(words(el.querySelector('mat-panel-title'))).toBe('2 more with room to spare');
    const roomy = [...el.querySelectorAll('rb-fold .budget')].map(words);
    expect(roomy[0]).toMatch(/^Power375 of 650 W.* 410 W from the wall$/);
    expect(roomy[1]).toContain('Power plugs2 of 2');
  });

  it('while a change is tried say what it was before', async () => {
    const { el } = await shown(Budgets, {
      evaluation: judge(chain({ boardW: 250 })),
      before: judge(chain()),
    });
    expect(words(el)).toContain('was 375 of 650 W');
  });
});

describe('the fit drawing', () => {
  it('PL-10 draws card and clearance to scale, with what is left', async () => {
    const c = chain();
    const { el } = await shown(FitDrawing, { chain: c, evaluation: judge(c) });
    const [room, card] = ['.room', '.card'].map((s) => el.querySelector(s));
    const width = (e: Element | null | undefined) => Number(e?.getAttribute('width'));
    expect(width(card) / width(room)).toBeCloseTo(280 / 300, 6);
    // 300 - 280 along; 160 - 130 - 20 mm for the bend of an 8-pin plug above.
    expect(words(el.querySelector('mat-panel-title'))).toBe(
      'Fit drawing: 20 mm left behind it, 10 mm left above it',
    );
    expect([...el.querySelectorAll('[role=rowheader]')].map(words)).toContain(
      'With the bend of the plug',
    );
  });

  it('takes the largest card and smallest clearance, says misfit', () => {
    const c = chain({ lengthMm: { lo: 280, hi: 310 } });
    expect(fitPicture(c.card, c.dock, judge(c).predicted.body.fit)).toMatchObject({
      clear: { along: -10 },
      words: '10 mm too long, 10 mm left above it',
    });
    const bare = chain({ lengthMm: null }, { innerLengthMm: null });
    expect(fitPicture(bare.card, bare.dock, judge(bare).predicted.body.fit)).toBeNull();
  });
});

describe('the power working', () => {
  it('PL-11 shows supply load, cables and the worst peak', async () => {
    const { el } = await shown(PowerWorking, { evaluation: judge(chain({ plugs8Pin: 3 })) });
    expect(words(el.querySelector('mat-panel-title'))).toContain(
      'Power: 375 of 650 W, plugs 2 of 3',
    );
    expect(words(el)).toContain('nothing: one plug short');
    expect(el.querySelectorAll('[aria-current]')).toHaveLength(1);
  });
});

describe('pre-flight', () => {
  it('PL-17 says first what this chain needs', async () => {
    const c = chain({}, {}, { encryption: 'yes', internalGraphics: 'off' });
    const { el } = await shown(PreFlightList, { evaluation: judge(c) });
    expect(words(el.querySelector('mat-panel-title'))).toBe(
      'Pre-flight 6, 4 needed here: recovery key at hand',
    );
    expect([...el.querySelectorAll('li.must b')].map(words)).toContain('Print this page');
  });
});

describe('attributes edited in place', () => {
  it('stores a range and refuses what exceeds its limits', async () => {
    const said: QuickChange[] = [];
    const { component, fixture } = await shown(QuickAttrs, {
      fields: attributesOf(settingsSchema),
      values: {},
    });
    component.changed.subscribe((c) => said.push(c));
    const loader = TestbedHarnessEnvironment.loader(fixture);
    const field = await loader.getHarness(FieldHarness.byLabel('Host draws while working'));
    const type = async (text: string) => {
      await field.type(text);
      await (await field.host()).dispatchEvent('change');
    };
    await type('40 to 60');
    await type('4000');
    expect(said).toEqual([{ key: 'hostDrawW', value: { lo: 40, hi: 60 } }]);
    expect(await field.error()).toBe('At most 400');
    // Not asked until the disk is encrypted.
    const labels = await loader.getAllHarnesses(FieldHarness.byLabel('Recovery key'));
    expect(labels).toHaveLength(0);
  });
});

describe('words explained', () => {
  it('PL-23 a word opens in place and says so', async () => {
    const { el } = await shown(TermWord, { of: 'bottleneck' });
    const button = el.querySelector('button')!;
    expect([
      button.getAttribute('aria-expanded'),
      el.querySelector('.means')?.hasAttribute('hidden'),
    ]).toEqual(['false', true]);
    button.click();
    await Promise.resolve();
    TestBed.tick();
    expect([
      button.getAttribute('aria-expanded'),
      el.querySelector('.means')?.hasAttribute('hidden'),
    ]).toEqual(['true', false]);
  });

  it('PL-23 whatever others call a thing finds it', async () => {
    const { el } = await shown(GlossaryPage, { q: 'PSU' });
    expect(words(el.querySelector('dt'))).toBe('supply');
    expect(words(el.querySelector('h1'))).toMatch(/^1 word of \d+ for "PSU"\.$/);
  });
});
