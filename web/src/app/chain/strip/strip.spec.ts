import { TestBed } from '@angular/core/testing';
import { rate } from '@ruddy/core/base/text';
import { linkCheck, readingSchema } from '@ruddy/core/bring-up';
import { type Chain, chainSchema } from '@ruddy/core/chain';
import { evaluate } from '@ruddy/core/plan';
import { BridgeStrip } from './bridge-strip';
import { DECK, stripPicture } from './strip-geometry';
import { stripModel, type StripModel } from './strip-model';
import { OVERHEAD_LABEL, withOverhead } from './strip-overhead';
import { copyLine, bottleneckMoved, stripList, summaryText } from './strip-text';

const port = {
  key: 'left',
  position: 'left, rear',
  connector: 'usb-c',
  standard: 'usb4-40',
  tunnelling: 'yes',
  controller: 'built-in',
  pcieGen: 4,
  lanes: 4,
};
const wired = {
  host: { maker: 'Alder', model: 'L-13', form: 'laptop', sockets: [port] },
  socket: 'left',
  path: [
    {
      key: 'a',
      spec: {
        maker: 'Alder',
        model: 'K-07',
        connector: 'usb-c',
        construction: 'passive',
        lengthMm: 1200,
        markedGbps: 40,
      },
    },
  ],
  dock: {
    maker: 'Alder',
    model: 'D-4',
    form: 'enclosure',
    connector: 'usb-c',
    uplink: 'usb4-40',
    slotGen: 3,
    slotLanes: 4,
    supply: 'inside',
    supplyW: 450,
    cables8Pin: 2,
    cables8PinPair: 0,
    cables6Pin: 0,
    cables16Pin: 0,
    slotW: 75,
    innerLengthMm: 330,
    innerHeightMm: 180,
    innerSlots: 3,
    chargeOutW: 60,
  },
  card: {
    maker: 'Alder',
    model: 'C-20',
    pcieGen: 4,
    lanes: 16,
    boardW: 200,
    plugs8Pin: 1,
    plugs6Pin: 0,
    plugs16Pin: 0,
    lengthMm: 240,
    heightMm: 115,
    slots: 2,
  },
};
const chain = (over: object = {}): Chain => chainSchema.parse({ ...wired, ...over });
const withPort = (over: object) =>
  chain({ host: { ...wired.host, sockets: [{ ...port, ...over }] } });
const direct = chain({
  host: {
    ...wired.host,
    sockets: [{ key: 'left', connector: 'oculink-4i', standard: 'oculink', pcieGen: 4, lanes: 4 }],
  },
  path: [
    {
      key: 'a',
      spec: {
        maker: 'Alder',
        model: 'Q',
        connector: 'oculink-4i',
        construction: 'passive',
        lengthMm: 500,
        pcieGen: 4,
      },
    },
  ],
  dock: { ...wired.dock, connector: 'oculink-4i', uplink: 'oculink', slotGen: 4 },
});
const model = (c: Chain): StripModel =>
  stripModel('Dome desk', c, evaluate({ chain: c, context: { asOf: '2026-11-20', house: {} } }));

const hub = { kind: 'hub', downGbps: 5, upGbps: 2, ownLead: 'no' };
const reading = (r: object): StripModel => {
  const c = chain();
  const e = evaluate({ chain: c, context: { asOf: '2026-11-20', house: {} } });
  return stripModel('Dome desk', c, e, linkCheck(readingSchema.parse(r), c, e, {}));
};
const copied = (value: number) => ({ value, unit: 'Gb/s', direction: 'down', memory: 'pinned' });

const CASES: [string, Chain][] = [
  ['a hub on the link', chain({ loads: [hub] })],
  [
    'a card slot without a dock',
    chain({
      host: {
        ...wired.host,
        sockets: [{ key: 'left', connector: 'm2', standard: 'pcie', pcieGen: 4, lanes: 4 }],
      },
      path: [
        {
          key: 'a',
          spec: {
            maker: 'Alder',
            model: 'T-1',
            hostEnd: 'm2',
            farEnd: 'pcie-slot',
            pcieGen: 4,
            lanes: 4,
          },
        },
      ],
      dock: null,
    }),
  ],
  ['a pinched tunnel', chain()],
  ['a direct link', direct],
  ['a blocked port', withPort({ standard: 'usb-c', tunnelling: 'no' })],
  ['an unknown port', withPort({ tunnelling: null })],
  ['a range', chain({ path: [{ key: 'a', spec: { ...wired.path[0]?.spec, lengthMm: null } }] })],
  ['no card yet', chain({ card: null })],
  ['nothing', chain({ host: null, socket: null, path: null, dock: null, card: null })],
];

describe('the strip model', () => {
  it('shows three hops for a tunnel and one for a direct link', () => {
    expect(model(chain()).hops.map((h) => `${h.from}-${h.to}`)).toEqual([
      'system-port',
      'port-dock',
      'dock-card',
    ]);
    expect(model(direct).hops.map((h) => `${h.from}-${h.to}`)).toEqual(['system-card']);
  });

  it('names the bottleneck, its figure and the part that sets it', () => {
    const hop = model(chain()).hops[1];
    expect(hop).toMatchObject({
      line1: 'USB4 20 by the cable · PCIe Gen3 ×4',
      line2: 'bottleneck: 16.0 Gb/s usable',
      neckAt: 'cable',
      pinch: true,
    });
  });

  it('takes the smallest scale that holds the largest hop', () => {
    expect(model(chain()).scaleGbps).toBe(32);
    expect(model(direct).scaleGbps).toBe(64);
  });

  it('summarizes verdict, hops, bottleneck and what is unknown', () => {
    expect(summaryText(model(chain()))).toBe(
      'Dome desk, expected. Works with care. 3 hops from system to card. Bottleneck: cable, 16.0 Gb/s usable; the rest could carry 26.0.',
    );
    expect(summaryText(model(chain({ card: null })))).toContain('2 not known: Dock to Card, card.');
  });

  it('announces a moved bottleneck, and nothing else', () => {
    const long = model(chain());
    const short = model(
      chain({ path: [{ key: 'a', spec: { ...wired.path[0]?.spec, lengthMm: 500 } }] }),
    );
    expect(bottleneckMoved(long, short)).toBe(
      'Bottleneck moved from the cable to the dock: 26.0 Gb/s, was 16.0.',
    );
    expect(bottleneckMoved(short, short)).toBeNull();
    expect(bottleneckMoved(model(direct), long)).toBe('Bottleneck at the cable: 16.0 Gb/s.');
    expect(bottleneckMoved(long, model(direct))).toBeNull();
  });

  it('copies as one line', () => {
    expect(copyLine(model(chain()))).toBe(
      'System =53.4= Host port =16.0 bottleneck= [Cable] = Dock =26.7= Card - Screen (Gb/s usable, expected)',
    );
  });
});

describe('measured beside expected', () => {
  it('nothing read yet is said on every hop', () => {
    const c = chain();
    const m = stripModel(
      'Dome desk',
      c,
      evaluate({ chain: c, context: { asOf: '2026-11-20', house: {} } }),
      null,
    );
    expect(m.hops.map((h) => h.line2)).toEqual(Array(3).fill('not measured yet'));
    expect(summaryText(m)).toContain('Dome desk, measured.');
  });

  it('copy rates stand on the tunnel, widths on their span', () => {
    const m = reading({ load: 'load', copy: copied(13.9), cardSpan: { gen: 3, lanes: 4 } });
    expect(m.hops.map((h) => h.line2)).toEqual([
      'not measured yet',
      'measured 13.9 Gb/s · 87 % · healthy',
      '×4 Gen3, as expected',
    ]);
    expect(m.hops[1]?.line1).toBe('expected 16.0 Gb/s');
    expect(m.hops[2]?.measured?.gbps).toBeCloseTo(26.7, 1);
    const cores = stripPicture(m).map((p) => p.ribbons.filter((r) => r.kind === 'core').length);
    expect(cores).toEqual([0, 2, 1]);
    expect(stripList(m).join(' ')).toContain(
      'Host port to Dock through cable: expected 16.0 Gb/s, measured 13.9 Gb/s, 87 %, healthy. Bottleneck.',
    );
  });

  it('what proves nothing draws nothing solid', () => {
    const idle = reading({
      load: 'idle',
      cardSpan: { gen: 1, lanes: 4 },
      router: { laneGbps: 10, lanes: 2 },
    });
    expect(idle.hops.map((h) => h.line2)).toEqual([
      'not measured yet',
      'router 10 Gb/s × 2, as expected',
      '×4 Gen1, idle, proves nothing',
    ]);
    expect(stripPicture(idle).flatMap((p) => p.ribbons.filter((r) => r.kind === 'core'))).toEqual(
      [],
    );
    const c = withPort({ controller: 'separate', pcieGen: 3, lanes: 2 });
    const short = {
      ...c,
      path: [{ key: 'a', spec: { ...c.path![0]!.spec, lengthMm: 500 } }],
    } as Chain;
    const e = evaluate({ chain: short, context: { asOf: '2026-11-20', house: {} } });
    const read = linkCheck(readingSchema.parse({ load: 'load', copy: copied(12) }), short, e, {});
    expect(stripModel('x', short, e, read).hops[1]?.line1).toBe(
      'expected 13.4 Gb/s over the chain',
    );
    const back = reading({ load: 'load', copy: { ...copied(13.9), direction: 'up' } });
    expect([back.hops[1]?.line1, back.hops[1]?.measured?.gbps]).toEqual([
      'expected 15.6 Gb/s back',
      null,
    ]);
    expect(reading({ load: null, copy: copied(13.9) }).hops[1]?.line2).toBe(
      'measured 13.9 Gb/s, not graded',
    );
  });
});

describe('what else hangs on the dock, and pieces of the path', () => {
  it('is under the deck with its rate, or on its own cable', () => {
    expect(model(chain({ loads: [hub] })).loads).toEqual([
      { words: 'USB hub, 5.0 Gb/s and 2.0 back on the link', own: false },
    ]);
    const own = model(chain({ loads: [{ ...hub, ownLead: 'yes' }] }));
    expect(own.loads[0]).toEqual({ words: 'USB hub, on its own cable', own: true });
    expect(stripList(own)).toContain('Hangs from the dock: USB hub, on its own cable.');
  });

  it('several pieces are one pier named by the binding one', () => {
    const two = [
      {
        key: 'a',
        spec: {
          maker: 'Alder',
          model: 'T-1',
          hostEnd: 'm2',
          farEnd: 'oculink-4i',
          pcieGen: 3,
          lanes: 4,
        },
      },
      {
        key: 'b',
        spec: { maker: 'Alder', model: 'Q', connector: 'oculink-4i', lengthMm: 300, pcieGen: 4 },
      },
    ];
    const host = {
      ...wired.host,
      sockets: [{ key: 'left', connector: 'm2', standard: 'pcie', pcieGen: 4, lanes: 4 }],
    };
    const dock = { ...wired.dock, connector: 'oculink-4i', uplink: 'oculink', slotGen: 4 };
    expect(model(chain({ host, path: two, dock })).piers[2]).toMatchObject({
      name: 'T-1 + Q',
      facts: ['T-1 binds', '300 mm'],
    });
    const slot = CASES[1]?.[1] as Chain;
    expect(model(slot).piers[3]).toMatchObject({ key: 'dock', state: 'not used' });
  });
});

describe.each(CASES)('picture and text say the same: %s', (_name, c) => {
  const m = model(c);

  it('every hop has figure, state and ends in the text', () => {
    const text = stripList(m);
    expect(text).toHaveLength(m.piers.length + m.hops.length + m.loads.length);
    for (const h of m.hops) {
      const line = text.find((t) =>
        t.startsWith(`${m.piers.find((p) => p.key === h.from)?.role} to `),
      );
      expect(line).toBeDefined();
      if (h.usable) expect(line).toContain(`${rate(h.usable)} Gb/s usable`);
      const word = {
        blocked: 'Blocked.',
        unknown: 'Not known.',
        range: /(Bottleneck|Expected)\./,
        expected: /(Bottleneck|Expected)\./,
        waiting: 'Waiting.',
        lost: 'Lost.',
        'not used': 'Not used.',
      }[h.state];
      expect(line).toMatch(word);
    }
  });

  it('every hop is drawn in its state: hatched, dotted, dashed', () => {
    for (const p of stripPicture(m)) {
      const kinds = new Set(p.ribbons.map((r) => r.kind));
      const want = {
        expected: ['solid'],
        range: ['outer', 'solid'],
        unknown: ['unknown'],
        blocked: ['torn'],
        waiting: ['hollow', 'ticks'],
        lost: ['stub', 'hollow'],
        'not used': ['line'],
      }[p.hop.state];
      for (const k of want) expect(kinds).toContain(k);
      if (p.hop.state === 'expected') expect(kinds.size).toBe(1);
      expect(p.teeth).toHaveLength(
        p.hop.pinch && p.hop.neckAt && p.hop.state !== 'blocked'
          ? p.hop.through.includes(p.hop.neckAt)
            ? 4
            : 2
          : 0,
      );
      for (const r of p.ribbons) expect(r.path).not.toContain('NaN');
    }
  });
});

describe('the strip on the page', () => {
  it('is one tab stop: arrows walk, w shows the working', async () => {
    const fixture = TestBed.createComponent(BridgeStrip);
    fixture.componentRef.setInput('model', model(chain()));
    const worked: unknown[] = [];
    fixture.componentInstance.working.subscribe((t) => worked.push(t));
    await fixture.whenStable();
    const el = fixture.nativeElement as HTMLElement;
    const buttons = [...el.querySelectorAll<HTMLButtonElement>('.targets button')];
    expect(buttons).toHaveLength(9);
    expect(buttons.filter((b) => b.tabIndex === 0)).toHaveLength(1);
    const press = (key: string) =>
      el
        .querySelector('.targets')
        ?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    press('End');
    await fixture.whenStable();
    expect(buttons.map((b) => b.tabIndex)).toEqual([-1, -1, -1, -1, -1, -1, -1, -1, 0]);
    press('Home');
    press('ArrowRight');
    press('w');
    expect(worked).toEqual([{ kind: 'hop', index: 0 }]);
    expect(el.querySelector('svg')?.getAttribute('aria-hidden')).toBe('true');
    expect(el.querySelectorAll('.tooth')).toHaveLength(4);
  });

  it('draws piers at the heights of the design', async () => {
    const fixture = TestBed.createComponent(BridgeStrip);
    fixture.componentRef.setInput('model', model(direct));
    await fixture.whenStable();
    const rects = [...(fixture.nativeElement as HTMLElement).querySelectorAll('.pier rect')];
    expect(rects).toHaveLength(6);
    for (const r of rects)
      expect([r.getAttribute('y'), r.getAttribute('height')]).toEqual([String(DECK.top), '64']);
  });

  it('PL-09 the returning picture is on the strip and in text', async () => {
    const m = model(chain({ settings: { toPanel: 'yes' } }));
    const fixture = TestBed.createComponent(BridgeStrip);
    fixture.componentRef.setInput('model', m);
    await fixture.whenStable();
    const el = fixture.nativeElement as HTMLElement;
    expect(el.querySelector('path.rope')?.getAttribute('d')).toMatch(/^M\d/);
    expect(stripList(m).join(' ')).toContain("picture goes back to the host's panel");
  });

  it('RU-08 on Runs the strip carries link overhead and return copy', async () => {
    const overhead = {
      title: 'T',
      link: { mid: 4.62, lo: 4.3, hi: 4.94 },
      back: { mid: 2.04, lo: 1.9, hi: 2.2 },
    };
    const m = withOverhead(model(chain({ settings: { toPanel: 'yes' } })), overhead);
    expect(m.hops.map((h) => h.line1 === OVERHEAD_LABEL)).toEqual([false, true, false]);
    expect(m.hops[1]?.line2).toBe('4.6 (4.3 to 4.9) ms a frame');
    expect(m.pinchLine).toMatch(
      /^Link overhead 4\.6 \(4\.3 to 4\.9\) ms a frame; picture to panel 2\.0 ms\. Bottleneck: cable/,
    );
    const text = stripList(m).join(' ');
    expect(text).toContain('carries the link overhead, 4.6 (4.3 to 4.9) ms a frame');
    expect(text).toContain('no link overhead here');
    expect(text).toContain('Card to the panel: picture to panel 2.0 ms.');
    expect(copyLine(m)).toContain('; Link overhead 4.6 (4.3 to 4.9) ms');
    const fixture = TestBed.createComponent(BridgeStrip);
    fixture.componentRef.setInput('model', m);
    await fixture.whenStable();
    const drawn = (fixture.nativeElement as HTMLElement).querySelector('svg')?.textContent ?? '';
    expect(drawn).toContain('4.6 (4.3 to 4.9) ms a frame');
    expect(drawn).toContain('picture to panel 2.0 ms');
  });

  it('a link overhead not known yet, or wide, is said so', () => {
    const none = withOverhead(model(chain()), { title: 'T', link: null, back: null });
    expect(stripList(none).join(' ')).toContain('carries the link overhead, not known yet');
    const between = withOverhead(model(chain()), {
      title: 'T',
      link: { mid: 3, lo: 0, hi: 6 },
      back: null,
    });
    expect(between.hops[1]?.line2).toBe('0.0 to 6.0 ms a frame');
  });
});
