import { computed, inject, Injectable } from '@angular/core';
import type { HouseRules } from '@ruddy/core/base';
import { gradeCounts, healthByCable, type HealthPoint, healthTrends } from '@ruddy/core/bring-up';
import type { ReadingEntry } from '@ruddy/core/bring-up/contract';
import { MEASURE_WORDS, measureText } from '@ruddy/core/bring-up/text';
import { pluralize } from '../platform/shared/format';
import { LinkReadings } from './link-readings';

/** A stored reading as the health of a link looks at it. */
export function healthPoint(e: ReadingEntry, house: HouseRules): HealthPoint {
  const counts = e.reading.counts ? gradeCounts(e.reading.counts, house) : null;
  const share =
    e.share && e.grade !== null && e.grade !== 'not-graded' ? (e.share.lo + e.share.hi) / 2 : null;
  const direction = e.reading.copy?.direction ?? null;
  return {
    id: e.id,
    at: e.happenedAt,
    cable:
      [e.through.piece, e.through.cable].filter((s) => s !== '').join(', ') || 'cable not noted',
    down: direction === 'down' ? share : null,
    up: direction === 'up' ? share : null,
    ...e.seen,
    correctedPerHour: counts?.correctedPerHour ?? null,
    fatal: counts?.fatal ?? null,
    downs: counts?.downs ?? null,
    windowMB:
      e.reading.window?.nowMB ??
      e.reading.report?.devices.find((d) => d.window)?.window?.nowMB ??
      null,
    minutes: e.reading.counts?.minutes ?? null,
    overall: e.overall,
  };
}

/** The link of the open setup over days and cables. */
@Injectable()
export class LinkHealth {
  readonly #readings = inject(LinkReadings);
  readonly read = computed(() => this.#readings.entries() !== null);
  readonly points = computed(() =>
    (this.#readings.entries() ?? []).map((e) => healthPoint(e, this.#readings.house())).reverse(),
  );
  readonly trends = computed(() => healthTrends(this.points(), this.#readings.house()));
  readonly cables = computed(() => healthByCable(this.points()));
  readonly sentence = computed(() => {
    if (!this.read()) return 'Reading the readings …';
    const n = this.points().length;
    const cables = this.cables();
    if (n === 0) return '0 readings stored yet: the health of this link is not known.';
    const told = this.trends().find((t) => t.way === 'falls' || t.way === 'rises');
    const over = `${pluralize(n, 'reading')} through ${pluralize(cables.length, 'cable')}`;
    if (told) {
      const to = `${measureText(told.measure, told.first)} to ${measureText(told.measure, told.last)}`;
      return `${MEASURE_WORDS[told.measure].name} ${told.way} through ${told.cable}: ${to} in ${told.n} readings.`;
    }
    const worst = this.points().filter((p) => p.overall === 'poor' || p.overall === 'gone').length;
    return `${over}: no trend shown${worst > 0 ? `; ${worst} of ${n} were poor` : ''}.`;
  });
}
