import { type CopyUnit, type Reading, readingSchema, type Report } from '@ruddy/core/bring-up';
import type { BenchTaken } from './from-bench';
import { readNumber } from '../platform/shared/format';

/** What a person typed, as typed; '' is "not noted". */
export interface TypedReading {
  readonly load: '' | 'load' | 'idle';
  readonly value: string;
  readonly unit: '' | CopyUnit;
  readonly direction: '' | 'down' | 'up';
  readonly memory: '' | 'pinned' | 'pageable';
  readonly transferMB: string;
  readonly repeats: string;
  readonly spreadPercent: string;
  readonly traffic: '' | 'quiet' | 'busy';
  readonly clocks: string;
  readonly cardGen: string;
  readonly cardLanes: string;
  readonly hostGen: string;
  readonly hostLanes: string;
  readonly routerRate: string;
  readonly routerLanes: string;
  readonly correctedBefore: string;
  readonly correctedAfter: string;
  readonly fatalBefore: string;
  readonly fatalAfter: string;
  readonly downs: string;
  readonly minutes: string;
  readonly windowMB: string;
  readonly note: string;
  readonly report: Report | null;
  readonly card: string | null;
}

/** A reading is usually taken this way; what differs is changed, what is not known is emptied. */
export const FRESH: TypedReading = {
  load: 'load',
  value: '',
  unit: 'Gb/s',
  direction: 'down',
  memory: 'pinned',
  transferMB: '',
  repeats: '',
  spreadPercent: '',
  traffic: '',
  clocks: '',
  cardGen: '',
  cardLanes: '',
  hostGen: '',
  hostLanes: '',
  routerRate: '',
  routerLanes: '',
  correctedBefore: '',
  correctedAfter: '',
  fatalBefore: '',
  fatalAfter: '',
  downs: '',
  minutes: '',
  windowMB: '',
  note: '',
  report: null,
  card: null,
};

export type ReadingErrors = ReadonlyMap<string, string>;

type NumberKey =
  | 'value'
  | 'transferMB'
  | 'repeats'
  | 'spreadPercent'
  | 'cardGen'
  | 'cardLanes'
  | 'hostGen'
  | 'hostLanes'
  | 'routerRate'
  | 'routerLanes'
  | 'correctedBefore'
  | 'correctedAfter'
  | 'fatalBefore'
  | 'fatalAfter'
  | 'downs'
  | 'minutes'
  | 'windowMB';

/** A figure that is typed: its label, and its place in the reading, where its error is shown. */
export interface NumberField {
  readonly key: NumberKey;
  readonly place: string;
  readonly label: string;
}

/** How a copy rate was taken. */
export const HOW_FIELDS: readonly NumberField[] = [
  { key: 'transferMB', place: 'copy/transferMB', label: 'Transfer size, MB' },
  { key: 'repeats', place: 'copy/repeats', label: 'Repeats' },
  { key: 'spreadPercent', place: 'copy/spreadPercent', label: 'Spread, %' },
];
export const SLOT_FIELDS: readonly NumberField[] = [
  { key: 'cardGen', place: 'cardSpan/gen', label: 'Slot: generation' },
  { key: 'cardLanes', place: 'cardSpan/lanes', label: 'Slot: lanes' },
];
/** Only a tunnel has a router and, with a separate controller, a span of the host's own. */
export const TUNNEL_FIELDS: readonly NumberField[] = [
  { key: 'routerRate', place: 'router/laneGbps', label: 'Router: Gb/s a lane' },
  { key: 'routerLanes', place: 'router/lanes', label: 'Router: lanes' },
  { key: 'hostGen', place: 'hostSpan/gen', label: 'Host controller: generation' },
  { key: 'hostLanes', place: 'hostSpan/lanes', label: 'Host controller: lanes' },
];
/** What the link counted over a stretch under load, and the memory window. */
export const COUNT_FIELDS: readonly NumberField[] = [
  { key: 'minutes', place: 'counts/minutes', label: 'Minutes under load' },
  { key: 'downs', place: 'counts/downs', label: 'Times the link went down' },
  { key: 'correctedBefore', place: 'counts/correctedBefore', label: 'Corrected errors before' },
  { key: 'correctedAfter', place: 'counts/correctedAfter', label: 'Corrected errors after' },
  { key: 'fatalBefore', place: 'counts/fatalBefore', label: 'Uncorrected errors before' },
  { key: 'fatalAfter', place: 'counts/fatalAfter', label: 'Uncorrected errors after' },
  { key: 'windowMB', place: 'window/nowMB', label: 'Memory window, MB' },
];
const READ_FIELDS: readonly NumberField[] = [
  { key: 'value', place: 'copy/value', label: 'Copy rate' },
  ...SLOT_FIELDS,
  ...TUNNEL_FIELDS,
  ...COUNT_FIELDS,
];

/** Is anything read at all, beside how it was read? */
export function isBlank(t: TypedReading): boolean {
  return t.report === null && READ_FIELDS.every(({ key }) => t[key] === '');
}

/** Read the form: the reading when every rule holds, otherwise each error by its place. */
export function readTyped(t: TypedReading): { reading: Reading | null; errors: ReadingErrors } {
  const errors = new Map<string, string>();
  const n = (key: NumberKey) => {
    const read = readNumber(t[key]);
    if (read.ok) return read.value;
    const field = [...READ_FIELDS, ...HOW_FIELDS].find((f) => f.key === key);
    errors.set(field?.place ?? key, `${field?.label ?? key}: ${read.why}`);
    return null;
  };
  const word = <T extends string>(v: T | '') => (v === '' ? null : v);
  const pair = (gen: number | null, lanes: number | null) =>
    gen === null && lanes === null ? null : { gen, lanes };
  const value = n('value');
  const laneGbps = n('routerRate');
  const lanes = n('routerLanes');
  const counted = {
    correctedBefore: n('correctedBefore'),
    correctedAfter: n('correctedAfter'),
    fatalBefore: n('fatalBefore'),
    fatalAfter: n('fatalAfter'),
    downs: n('downs'),
    minutes: n('minutes'),
  };
  const nowMB = n('windowMB');
  const raw = {
    load: word(t.load),
    copy:
      value === null
        ? null
        : {
            value,
            unit: word(t.unit),
            direction: word(t.direction),
            memory: word(t.memory),
            transferMB: n('transferMB'),
            repeats: n('repeats'),
            spreadPercent: n('spreadPercent'),
            traffic: word(t.traffic),
            clocks: t.clocks,
          },
    cardSpan: pair(n('cardGen'), n('cardLanes')),
    hostSpan: pair(n('hostGen'), n('hostLanes')),
    router: laneGbps === null && lanes === null ? null : { laneGbps, lanes },
    counts: Object.values(counted).every((v) => v === null) ? null : counted,
    window: nowMB === null ? null : { nowMB },
    report: t.report,
    card: t.card,
    note: t.note,
  };
  const parsed = readingSchema.safeParse(raw);
  if (!parsed.success)
    for (const issue of parsed.error.issues) {
      const place = issue.path.map(String).join('/');
      if (!errors.has(place)) errors.set(place, issue.message);
    }
  return { reading: parsed.success && errors.size === 0 ? parsed.data : null, errors };
}

/** What was read off a bench as the form holds it: copy rate of one direction, load, counters. */
export function typedFromBench(
  { reading, counts }: BenchTaken,
  way: 'down' | 'up' | null,
): Partial<TypedReading> {
  const copy = way === null ? null : (reading.copy?.[way] ?? null);
  const n = (v: number | null | undefined) => (v === null || v === undefined ? '' : String(v));
  return {
    load: reading.state.load ? 'load' : 'idle',
    ...(copy && {
      value: n(copy.value),
      unit: copy.unit ?? '',
      direction: copy.direction ?? '',
      memory: copy.memory ?? '',
      transferMB: n(copy.transferMB),
      repeats: n(copy.repeats),
      spreadPercent: n(copy.spreadPercent),
      traffic: copy.traffic ?? '',
    }),
    ...(counts && {
      // Counted under load, though the load may have fallen with the link.
      load: 'load',
      correctedBefore: n(counts.correctedBefore),
      correctedAfter: n(counts.correctedAfter),
      fatalBefore: n(counts.fatalBefore),
      fatalAfter: n(counts.fatalAfter),
      downs: n(counts.downs),
      minutes: n(counts.minutes),
    }),
  };
}
