import { type BenchState, LINK_STATES, type LinkState } from '@ruddy/core/bench';
import { benchSentence, benchTime, HOST_POWER_WORDS, STAGE_WORDS } from '@ruddy/core/bench/text';
import { stripModel, type StripHop, type StripModel } from '../chain/strip/strip-model';
import type { Judgement } from '../setups/setups';

const at = (stage: LinkState) => LINK_STATES.indexOf(stage);
const FROM: Record<'tunnel' | 'card', LinkState> = { tunnel: 'tunnel', card: 'windows' };

/** How a part of the link stands: there, on its way, lost, or not in use. */
function spanState(
  s: BenchState,
  what: 'tunnel' | 'card',
): 'there' | 'waiting' | 'lost' | 'not used' {
  if (s.stage === 'unplugged') return 'not used';
  if (s.stage === 'lost') return 'lost';
  if (s.stage === 'suspended') return 'waiting';
  return at(s.stage) >= at(FROM[what]) ? 'there' : 'waiting';
}

function span(s: { gen: number | null; lanes: number | null } | null): string {
  return s && s.gen !== null && s.lanes !== null ? `Gen${s.gen} ×${s.lanes}` : '';
}

/** Seconds since contact on the first line, the rate that stands on the second. */
function live(h: StripHop, s: BenchState, nowMs: number): StripHop {
  const last = h.to === 'card';
  const first = h.to === 'port';
  const is = spanState(s, last ? 'card' : 'tunnel');
  const contact =
    s.contact === null || last ? '' : `, ${benchTime(nowMs - s.contact)} since contact`;
  const since = `${STAGE_WORDS[s.stage]}${contact}`;
  const router = s.router
    ? `router ${s.router.laneGbps ?? '?'} Gb/s × ${s.router.lanes ?? '?'}`
    : 'no router';
  const carries = s.usable ? `${s.usable.down.toFixed(1)} Gb/s` : '';
  const line1 = first ? `host ${HOST_POWER_WORDS[s.host]}` : since;
  const words = first
    ? span(s.hostSpan)
    : last
      ? [span(s.cardSpan), carries].filter((w) => w !== '').join(' · ')
      : router;
  const line2 = words || (last ? 'no card' : 'inside the processor');
  const state = first ? (s.host === 'on' ? h.state : 'not used') : is === 'there' ? h.state : is;
  const gbps = is === 'there' && s.host === 'on' ? (s.usable?.down ?? null) : null;
  return {
    ...h,
    line1,
    line2,
    state,
    pinch: false,
    neckAt: null,
    measured: { gbps, line1, line2, clause: `${line1}, ${line2}` },
  };
}

/** The strip of a bench: expected outlines where the link stands, solid what it carries now, and the lamps under the dock. */
export function benchStrip(name: string, j: Judgement, s: BenchState, nowMs: number): StripModel {
  const model = stripModel(name, j.chain, j.evaluation);
  const lamps = [
    `mains ${s.mains ? 'on' : 'out'} · lamp ${s.dockLamp ? 'on' : 'dark'}`,
    `host ${HOST_POWER_WORDS[s.host]}`,
  ];
  return {
    ...model,
    mode: 'live',
    pinchLine: benchSentence(s),
    hops: model.hops.map((h) => live(h, s, nowMs)),
    piers: model.piers.map((p) =>
      p.key === 'dock' ? { ...p, under: lamps } : { ...p, under: [] },
    ),
  };
}
