import { readingSchema, type CopyUnit, type Reading, type Report } from '@ruddy/core/schema';
import { readNumber } from '../shared/format';

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
  note: '',
  report: null,
  card: null,
};

export type ReadingErrors = ReadonlyMap<string, string>;

const NUMBERS: readonly (readonly [keyof TypedReading, string, string])[] = [
  ['value', 'copy/value', 'Copy rate'],
  ['transferMB', 'copy/transferMB', 'Transfer size'],
  ['repeats', 'copy/repeats', 'Repeats'],
  ['spreadPercent', 'copy/spreadPercent', 'Spread'],
  ['cardGen', 'cardSpan/gen', 'Generation'],
  ['cardLanes', 'cardSpan/lanes', 'Lanes'],
  ['hostGen', 'hostSpan/gen', 'Generation'],
  ['hostLanes', 'hostSpan/lanes', 'Lanes'],
  ['routerRate', 'router/laneGbps', 'Router rate'],
  ['routerLanes', 'router/lanes', 'Router lanes'],
];

/** Is anything read at all, beside how it was read? */
export function isBlank(t: TypedReading): boolean {
  return (
    t.report === null &&
    NUMBERS.every(([key]) => key === 'transferMB' || key === 'repeats' || key === 'spreadPercent' || t[key] === '')
  );
}

/** Read the form: the reading when every rule holds, otherwise each error by its place. */
export function readTyped(t: TypedReading): { reading: Reading | null; errors: ReadingErrors } {
  const errors = new Map<string, string>();
  const n = (key: keyof TypedReading) => {
    const [, place, label] = NUMBERS.find(([k]) => k === key) ?? [key, key, key];
    const read = readNumber(String(t[key] ?? ''));
    if (read.ok) return read.value;
    errors.set(place, `${label}: ${read.why}`);
    return null;
  };
  const word = <T extends string>(v: T | '') => (v === '' ? null : v);
  const pair = (gen: number | null, lanes: number | null) => (gen === null && lanes === null ? null : { gen, lanes });
  const value = n('value');
  const [laneGbps, lanes] = [n('routerRate'), n('routerLanes')];
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
