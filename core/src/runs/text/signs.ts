import { figureText } from '../../base/text';
import { type Alarm, FALSE_ALARMS } from '../signs/alarms';
import type { Elasticity } from '../signs/elasticity';
import type { RunSign } from '../signs/signs';

const percent = (share: number) => `${Math.round(share * 100)} %`;

/**
 * A sign in the runs, with its number.
 * @param e the sign
 * @returns one sentence
 */
export function signText(e: RunSign): string {
  switch (e.code) {
    case 'memory-clock':
      return `Memory clock ${Math.round(e.mhz)} MHz, usually ${Math.round(e.usual)}: a power state. Mend that first.`;
    case 'flat-sizes':
      return `Flat from ${e.from} to ${e.to}: ${e.ratio.toFixed(2)} times the time for ${e.pixels.toFixed(2)} times the pixels.`;
    case 'grows':
      return `Grows from ${e.from} to ${e.to}: ${e.ratio.toFixed(2)} times the time for ${e.pixels.toFixed(2)} times the pixels.`;
    case 'flat-cards':
      return `Flat over cards: ${e.ratio.toFixed(2)} times the frames of ${e.other} or less.`;
    case 'lows-flat':
      return `Beside ${e.other} the averages differ ${e.averages.toFixed(2)} times, the 1 % lows ${e.lows.toFixed(2)} times.`;
    case 'card-load':
      return `Card load ${Math.round(e.percent)} %${e.low ? ', under 90: it waits' : ': busy'}.`;
    case 'card-watts':
      return `Card draws ${Math.round(e.watts)} of ${Math.round(e.of)} W, ${percent(e.watts / e.of)}${e.low ? ': it waits' : ''}.`;
    case 'processor-hot':
      return `Processor at ${Math.round(e.c)} °C: it may hold itself back.`;
  }
}

/**
 * An alarm in one sentence, with its number.
 * @param a the alarm
 * @returns one or two sentences
 */
export function alarmText(a: Alarm): string {
  const n = (key: string, digits = 3) => figureText(Number(a.params[key]), digits);
  switch (a.id) {
    case 'rank-inversion':
      return `${String(a.params['card'])} is ${n('percent', 2)} % slower here than ${String(a.params['by'])}, the weaker card. Repeat, swap back, read the clocks.`;
    case 'worse-than-inside':
      return `${n('percent', 2)} % slower than the graphics inside the host. Is the outside card used at all?`;
    case 'flat-lows':
      return `With ${String(a.params['card'])} averages grow ${Number(a.params['averages']).toFixed(2)} times, 1 % lows ${Number(a.params['lows']).toFixed(2)} times: something else sets the lows.`;
    case 'cap':
      return `Frames look held to ${n('fps')} frames/s though no limit was said.`;
    case 'memory-clock':
      return `Memory clock ${n('mhz')} MHz where ${n('usual')} is usual: a power state.`;
    case 'throttled':
      return `Falls from ${n('from')} to ${n('to')} frames/s as it runs, and the ${a.params['sensor'] === 'cpu-mhz' ? 'processor' : 'card'} clock by ${n('clock', 2)} %: heat or a power limit.`;
    case 'periodic-hitch':
      return `A hitch every ${n('seconds', 2)} s, in ${n('percent', 2)} % of the gaps. Does it stay at other settings, or without capturing?`;
    case 'impossible':
      return a.params['sensor'] === 'link'
        ? `Faster through the link than in a slot, by ${n('value', 2)} ms: look at settings, unit and direction.`
        : `A meter shows ${n('value')} where ${n('most')} is the most: look at unit and column.`;
    case 'beyond-traffic':
      return `A link overhead of ${n('ms', 2)} ms or more would take ${n('trafficMB')} MB a frame: more than traffic explains. Look for clocks, driver, a busy hub.`;
  }
}
export const FALSE_ALARM_WORDS = `Raised on ${FALSE_ALARMS.raised} of ${FALSE_ALARMS.rigs} made rigs where nothing was wrong.`;

/**
 * What a change of clock gained.
 * @param e gain of clock and of speed
 * @returns one sentence
 */
export function elasticityText(e: Elasticity): string {
  const head = `Clock ${e.clockPercent >= 0 ? '+' : '−'}${figureText(Math.abs(e.clockPercent), 2)} %, speed ${e.speedPercent >= 0 ? '+' : '−'}${figureText(Math.abs(e.speedPercent), 2)} %`;
  if (e.says === 'same-clock') return `${head}: the clock did not change, so nothing follows.`;
  const value = `${head}: ${e.e.toFixed(2)} of it arrives (±${e.sd.toFixed(2)})`;
  const words = {
    card: 'the card sets the pace',
    part: 'the card sets the pace in part',
    other: 'something else sets the pace',
    'too-uncertain': 'too uncertain to say; repeat',
  };
  return `${value}: ${words[e.says]}.`;
}
