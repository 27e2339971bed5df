import type { CountsGrade, WindowGrade } from '../grading/counts';
import type { HealthMeasure, MeasureTrend } from '../grading/health';

export const MEASURE_WORDS: Readonly<
  Record<HealthMeasure, { name: string; unit: string; digits: number }>
> = {
  down: { name: 'Copy rate to the card', unit: '% of expected', digits: 0 },
  up: { name: 'Copy rate back', unit: '% of expected', digits: 0 },
  routerGbps: { name: 'Router, a lane', unit: 'Gb/s', digits: 0 },
  lanes: { name: 'Lanes of the slot', unit: '', digits: 0 },
  gen: { name: 'Generation of the slot', unit: '', digits: 0 },
  correctedPerHour: { name: 'Corrected errors', unit: 'an hour', digits: 0 },
  windowMB: { name: 'Memory window', unit: 'MB', digits: 0 },
};

/**
 * Value of a measure with its unit; copy rates, held as shares, in per cent.
 *
 * @param measure which measure
 * @param value value in the unit of the measure, copy rates as shares, 1 is as expected
 * @returns the text
 */
export function measureText(measure: HealthMeasure, value: number): string {
  const { unit, digits } = MEASURE_WORDS[measure];
  const shown = measure === 'down' || measure === 'up' ? value * 100 : value;
  return `${shown.toFixed(digits)}${unit ? ` ${unit}` : ''}`;
}

/**
 * Direction of a trend with its number of readings.
 *
 * @param t the trend
 * @returns the sentence
 */
export function trendText(t: MeasureTrend): string {
  const chance = t.p < 0.01 ? 'less than 1 %' : `${Math.round(t.p * 100)} %`;
  const span = `${measureText(t.measure, t.first)} first, ${measureText(t.measure, t.last)} last`;
  if (t.way === 'too-few') return `${span}; ${t.n} readings are too few for a trend`;
  if (t.way === 'none') return `${span}; no trend shown in ${t.n} readings`;
  const step = measureText(t.measure, Math.abs(t.per30Days)).replace('% of expected', 'points');
  return `${t.way}, ${step} in 30 days; ${span}; by chance in ${chance} of cases, ${t.n} readings`;
}

/**
 * Result of the error counters of one load test.
 *
 * @param c graded counters
 * @returns the sentence
 */
export function countsText(c: CountsGrade): string {
  const parts = [
    c.fatal === null ? '' : `${c.fatal} not mended`,
    c.downs === null ? '' : `${c.downs} ${c.downs === 1 ? 'time' : 'times'} down`,
    c.corrected === null
      ? ''
      : `${c.corrected} corrected${c.correctedPerHour === null ? '' : `, ${Math.round(c.correctedPerHour)} an hour`}`,
  ].filter((s) => s !== '');
  const grade = c.grade === 'not-graded' ? 'not graded: say how many minutes' : c.grade;
  return `Counters: ${parts.join('; ') || 'nothing noted'}: ${grade}.`;
}

/**
 * Size of the memory window beside the memory of the card.
 *
 * @param w the grade
 * @returns the sentence
 */
export function windowText(w: WindowGrade): string {
  if (w.whole === true)
    return `The memory window is ${w.nowMB} MB: it reaches over the whole memory.`;
  const of = w.memoryMB === null ? '' : ` of ${w.memoryMB} MB`;
  return `The memory window is ${w.nowMB} MB${of}: fine for the link, some titles gain from the whole.`;
}
