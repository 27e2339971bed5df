import { FormControl, FormGroup } from '@angular/forms';
import { type CopyUnit, type Reading, readingSchema, type Report } from '@ruddy/core/bring-up';
import type { FieldMeta } from '../platform/kit/meta';
import { zodForm } from '../platform/kit/problems';
import type { BenchTaken } from './from-bench';

const figure = () => new FormControl<number | null>(null);
const word = <T extends string>(start: T | null) =>
  new FormControl<T | null>(start, { nonNullable: true });
const text = () => new FormControl('', { nonNullable: true });

const controls = () => ({
  load: word<'load' | 'idle'>('load'),
  copy: new FormGroup({
    value: figure(),
    unit: word<CopyUnit>('Gb/s'),
    direction: word<'down' | 'up'>('down'),
    memory: word<'pinned' | 'pageable'>('pinned'),
    transferMB: figure(),
    repeats: figure(),
    spreadPercent: figure(),
    traffic: word<'quiet' | 'busy'>(null),
    clocks: text(),
  }),
  cardSpan: new FormGroup({ gen: figure(), lanes: figure() }),
  hostSpan: new FormGroup({ gen: figure(), lanes: figure() }),
  router: new FormGroup({ laneGbps: figure(), lanes: figure() }),
  counts: new FormGroup({
    minutes: figure(),
    downs: figure(),
    correctedBefore: figure(),
    correctedAfter: figure(),
    fatalBefore: figure(),
    fatalAfter: figure(),
  }),
  window: new FormGroup({ nowMB: figure() }),
  report: new FormControl<Report | null>(null),
  card: new FormControl<string | null>(null),
  note: text(),
});
export type ReadingForm = FormGroup<ReturnType<typeof controls>>;
export type ReadingValue = ReturnType<ReadingForm['getRawValue']>;

/** The form of a reading, with how it is usually taken: what differs is changed, what is not known is emptied. */
export function readingForm(): ReadingForm {
  return new FormGroup(controls(), { validators: zodForm(readingSchema, bodyOf) });
}

/** A field of the form: what it shows, and the path of its control. */
export interface ReadingField {
  readonly path: string;
  readonly meta: FieldMeta;
}

const number = (path: string, label: string, unit?: string): ReadingField => ({
  path,
  meta: { label, input: 'number', ...(unit && { unit }) },
});

export const RATE_FIELD: FieldMeta = {
  label: 'Copy rate',
  input: 'number',
  placeholder: 'not read',
};
/** How a copy rate was taken. */
export const HOW_FIELDS: readonly ReadingField[] = [
  number('copy.transferMB', 'Transfer size', 'MB'),
  number('copy.repeats', 'Repeats'),
  number('copy.spreadPercent', 'Spread', '%'),
  {
    path: 'copy.traffic',
    meta: {
      label: 'Hub and LAN meanwhile',
      input: 'choice',
      placeholder: 'not noted',
      options: [
        { value: 'quiet', label: 'quiet' },
        { value: 'busy', label: 'busy' },
      ],
    },
  },
  { path: 'copy.clocks', meta: { label: 'Clocks', input: 'text', max: 80 } },
];
export const SLOT_FIELDS: readonly ReadingField[] = [
  number('cardSpan.gen', 'Slot: generation'),
  number('cardSpan.lanes', 'Slot: lanes'),
];
/** Only a tunnel has a router and, with a separate controller, a span of the host's own. */
export const TUNNEL_FIELDS: readonly ReadingField[] = [
  number('router.laneGbps', 'Router: rate of a lane', 'Gb/s'),
  number('router.lanes', 'Router: lanes'),
  number('hostSpan.gen', 'Host controller: generation'),
  number('hostSpan.lanes', 'Host controller: lanes'),
];
/** What the link counted over a stretch under load, and the memory window. */
export const COUNT_FIELDS: readonly ReadingField[] = [
  number('counts.minutes', 'Time under load', 'min'),
  number('counts.downs', 'Times the link went down'),
  number('counts.correctedBefore', 'Corrected errors before'),
  number('counts.correctedAfter', 'Corrected errors after'),
  number('counts.fatalBefore', 'Uncorrected errors before'),
  number('counts.fatalAfter', 'Uncorrected errors after'),
  number('window.nowMB', 'Memory window', 'MB'),
];

const orNone = <T extends object>(group: T): T | null =>
  Object.values(group).every((v) => v === null) ? null : group;

/** The reading as it is sent: of what was not read, nothing. */
function bodyOf(v: ReadingValue) {
  return {
    ...v,
    copy: v.copy.value === null ? null : v.copy,
    cardSpan: orNone(v.cardSpan),
    hostSpan: orNone(v.hostSpan),
    router: orNone(v.router),
    counts: orNone(v.counts),
    window: orNone(v.window),
  };
}

/** Is anything read at all, beside how it was read? */
export function isBlank(value: ReadingValue): boolean {
  const { copy, cardSpan, hostSpan, router, counts, window, report } = bodyOf(value);
  return [copy, cardSpan, hostSpan, router, counts, window, report].every((v) => v === null);
}

/** The reading when every rule holds, otherwise null. */
export function readingOf(form: ReadingForm): Reading | null {
  const parsed = readingSchema.safeParse(bodyOf(form.getRawValue()));
  return form.valid && parsed.success ? parsed.data : null;
}

/** Puts what was read off a bench into the form: copy rate of one direction, load, counters. */
export function takeFromBench(
  form: ReadingForm,
  { reading, counts }: BenchTaken,
  way: 'down' | 'up' | null,
): void {
  const copy = way === null ? null : (reading.copy?.[way] ?? null);
  const { load, report, card } = form.controls;
  load.setValue(reading.state.load ? 'load' : 'idle');
  if (copy) form.controls.copy.patchValue({ ...copy, clocks: copy.clocks ?? '' });
  if (counts) {
    // Counted under load, though the load may have fallen with the link.
    load.setValue('load');
    form.controls.counts.patchValue(counts);
  }
  report.setValue(reading.report);
  card.setValue(null);
}
