import { asRange, capital, figure, maybe } from '../../base/text';
import type { PictureFacts } from '../../chain';
import type { HostSpec } from '../../parts';
import { defineCheck, type DraftOf } from '../check';
import { type Doubt, type JoinedParams, kind, possible } from '../kind';

/** Rates in Gb/s; `weaker` sets what the picture can have. */
interface Picture {
  name: string;
  plug: PictureFacts['plug'];
  need?: number;
  have?: number;
  weaker: NonNullable<PictureFacts['weaker']>;
  by: PictureFacts['by'];
}
type Shown = JoinedParams<Picture>;

const PLUG: Readonly<Record<string, string>> = { displayport: 'DisplayPort', hdmi: 'HDMI' };
const output = (by: Shown['by']) => (by === 'dock' ? 'the dock' : 'the card');
const gbps = (n: Shown['need']) => figure(asRange(n), 1);

function tooMuchReason(p: Shown, c: Doubt): string {
  if (c.certainty !== 'certain') return `${p.name}. ${c.notKnown}`;
  const by = p.weaker === 'screen' ? 'the screen' : `the output of ${output(p.by)}`;
  return `${p.name} needs ${gbps(p.need)} Gb/s, ${PLUG[p.plug] ?? ''} carries ${gbps(p.have)} here; ${by} sets it.`;
}

const FINDINGS = {
  'screen/no-plug': kind<Picture>(
    'care',
    ({ name, plug, weaker, by }) => ({
      what: `${weaker === 'screen' ? 'The screen' : capital(output(by))} has no ${PLUG[plug] ?? 'such plug'}`,
      why: `${name} is to hang on ${PLUG[plug] ?? 'a plug'} of ${output(by)}.`,
      todo: 'Choose the other plug.',
    }),
    { cause: 'screen-input' },
  ),
  'screen/too-much': kind<Picture>(
    'care',
    (p, c) => ({
      what: maybe(
        c,
        'The picture is too much for its plug',
        'The picture may be too much for its plug',
      ),
      why: tooMuchReason(p, c),
      todo: 'Take the other plug, fewer hertz or fewer bits.',
    }),
    { cause: 'screen-input' },
  ),
  'screen/panel': kind<{ width?: number; height?: number }>(
    'care',
    ({ width, height }) => {
      const most =
        width !== undefined && height !== undefined
          ? `, and ${figure(asRange(width))}×${figure(asRange(height))} is all the panel shows`
          : '';
      return {
        what: "The picture goes back to the host's panel",
        why: `Every frame travels back over the link: 10 to 20 % of frames at 1080p are usual${most}. Some systems want a screen or a dummy plug on the card before they use it.`,
        todo: 'Put a screen on the card; have a dummy plug ready if none stands there.',
      };
    },
    { cause: 'panel-return' },
  ),
  'screen/compressed': kind<Picture>('note', ({ name, need, have }) => ({
    what: 'The picture fits with compression only',
    why: `${name} needs ${gbps(need)} Gb/s as it is, ${gbps(have)} are there; both ends compress.`,
    todo: 'Nothing to do; it is not seen.',
  })),
  'screen/through-dock': kind<{ name: string }>('note', ({ name }) => ({
    what: `${name} hangs on the dock, not on the card`,
    why: "The dock's own output shows the host's graphics and takes its whole rate from the link.",
    todo: 'Put it straight on the card.',
  })),
};
type Draft = DraftOf<typeof FINDINGS>;

/** One screen against the output it hangs on. */
function screen(p: PictureFacts): Draft[] {
  const common = { slots: ['picture'], about: p.key } as const;
  const params = {
    name: p.name,
    plug: p.plug,
    ...(p.needGbps !== null && { need: p.needGbps }),
    ...(p.haveGbps !== null && { have: p.haveGbps }),
    weaker: p.weaker ?? ('out' as const),
    by: p.by,
  };
  const found = (code: 'screen/no-plug' | 'screen/too-much' | 'screen/compressed'): Draft => ({
    code,
    ...common,
    params,
    source: 'display',
  });
  if (p.verdict === 'no-plug') return [found('screen/no-plug')];
  const tooMuch = found('screen/too-much');
  if (p.verdict === null) return p.open.length > 0 ? [{ ...tooMuch, ...possible(p.open) }] : [];
  if (p.doubt.length > 0) return [{ ...tooMuch, ...possible(p.doubt) }];
  if (p.verdict === 'too-much') return [tooMuch];
  return p.verdict === 'compressed' ? [found('screen/compressed')] : [];
}

function throughDock(p: PictureFacts): Draft[] {
  if (p.by !== 'dock') return [];
  return [
    {
      code: 'screen/through-dock',
      slots: ['picture'],
      about: p.key,
      params: { name: p.name },
      source: 'common-practice',
    },
  ];
}

function toPanel(host: HostSpec): Draft {
  const { panelWidthPx: width, panelHeightPx: height } = host;
  const known = typeof width === 'number' && typeof height === 'number';
  return {
    code: 'screen/panel',
    slots: ['host', 'picture'],
    params: known ? { width, height } : {},
    source: 'common-practice',
  };
}

/** Every screen against the output it hangs on; and the picture that goes back to the host's own panel. */
export const screens = defineCheck({
  id: 'screens',
  reads: ['pictures', 'settings', 'host'],
  searchGroup: 'screen',
  findings: FINDINGS,
  run({ pictures, settings, host }) {
    const found = pictures.flatMap((p) => [...screen(p), ...throughDock(p)]);
    return settings.toPanel === 'yes' && host ? [...found, toPanel(host)] : found;
  },
});
