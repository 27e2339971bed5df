import { inject, Injectable, type Provider } from '@angular/core';
import {
  DateAdapter,
  MAT_DATE_FORMATS,
  MAT_DATE_LOCALE,
  NativeDateAdapter,
} from '@angular/material/core';

const ISO = /^\d{4}-\d{2}-\d{2}$/;
const INVALID = 'invalid';
const two = (n: number) => String(n).padStart(2, '0');
const isoOf = (year: number, month: number, date: number) =>
  `${String(year).padStart(4, '0')}-${two(month)}-${two(date)}`;
const iso = (d: Date) => isoOf(d.getFullYear(), d.getMonth() + 1, d.getDate());
const localDate = (s: string) =>
  new Date(Number(s.slice(0, 4)), Number(s.slice(5, 7)) - 1, Number(s.slice(8, 10)));

interface DateParts {
  readonly year: number | undefined;
  readonly month: number | undefined;
  readonly date: number | undefined;
}

/**
 * Dates as the product stores them, ISO text, for Material's date picker: no time zone can move one. Shown in the locale; reads ISO,
 * "20 Nov 2026", "20.11.2026", and slashes in the order of the locale.
 */
@Injectable()
export class DayAdapter extends DateAdapter<string> {
  readonly #native = new NativeDateAdapter();

  constructor() {
    super();
    this.setLocale(inject(MAT_DATE_LOCALE));
    this.#native.setLocale(this.locale as string);
  }

  getYear = (d: string) => localDate(d).getFullYear();
  getMonth = (d: string) => localDate(d).getMonth();
  getDate = (d: string) => localDate(d).getDate();
  getDayOfWeek = (d: string) => localDate(d).getDay();
  getMonthNames = (style: 'long' | 'short' | 'narrow') => this.#native.getMonthNames(style);
  getDateNames = () => this.#native.getDateNames();
  getDayOfWeekNames = (style: 'long' | 'short' | 'narrow') => this.#native.getDayOfWeekNames(style);
  getYearName = (d: string) => d.slice(0, 4);
  getFirstDayOfWeek = () => this.#native.getFirstDayOfWeek();
  getNumDaysInMonth = (d: string) => this.#native.getNumDaysInMonth(localDate(d));
  clone = (d: string) => d;
  createDate = (y: number, m: number, d: number) => iso(this.#native.createDate(y, m, d));
  today = () => iso(new Date());
  format = (d: string, f: Intl.DateTimeFormatOptions) => this.#native.format(localDate(d), f);
  addCalendarYears = (d: string, n: number) => iso(this.#native.addCalendarYears(localDate(d), n));
  addCalendarMonths = (d: string, n: number) =>
    iso(this.#native.addCalendarMonths(localDate(d), n));
  addCalendarDays = (d: string, n: number) => iso(this.#native.addCalendarDays(localDate(d), n));
  toIso8601 = (d: string) => d;
  isDateInstance = (x: unknown) => typeof x === 'string';
  isValid = (d: string) => ISO.test(d) && iso(localDate(d)) === d;
  invalid = () => INVALID;

  override deserialize(v: unknown): string | null {
    if (typeof v !== 'string' || v === '') return null;
    return this.isValid(v) ? v : INVALID;
  }

  parse(v: unknown): string | null {
    const text = typeof v === 'string' ? v.trim() : '';
    if (text === '') return null;
    if (ISO.test(text)) return this.isValid(text) ? text : INVALID;
    const { year = new Date().getFullYear(), month, date } = this.#parts(text);
    if (month === undefined || date === undefined) return INVALID;
    const at = isoOf(year < 100 ? year + 2000 : year, month, date);
    return this.isValid(at) ? at : INVALID;
  }

  #parts(text: string): DateParts {
    const words = text.toLowerCase().match(/\d+|\p{L}+/gu) ?? [];
    const months = this.getMonthNames('short').map((m) => m.toLowerCase().slice(0, 3));
    const named = words.findIndex((w) => months.includes(w.slice(0, 3)));
    if (named >= 0) {
      const [date, year] = words.filter((_, i) => i !== named).map(Number);
      return { year, month: months.indexOf((words[named] ?? '').slice(0, 3)) + 1, date };
    }
    const [first, second, year] = words.map(Number);
    return text.includes('/') && this.#monthFirst()
      ? { year, month: first, date: second }
      : { year, month: second, date: first };
  }

  #monthFirst(): boolean {
    const parts = new Intl.DateTimeFormat(this.locale as string).formatToParts(new Date());
    return parts.find((p) => p.type === 'month' || p.type === 'day')?.type === 'month';
  }
}

const SHORT = { day: 'numeric', month: 'short', year: 'numeric' } as const;

/** Dates of Material's components as ISO text, in the locale of the browser. */
export function provideDays(locale = navigator.language): Provider[] {
  return [
    { provide: MAT_DATE_LOCALE, useValue: locale },
    { provide: DateAdapter, useClass: DayAdapter },
    {
      provide: MAT_DATE_FORMATS,
      useValue: {
        parse: { dateInput: null },
        display: {
          dateInput: SHORT,
          monthLabel: { month: 'short' },
          monthYearLabel: { month: 'short', year: 'numeric' },
          dateA11yLabel: { day: 'numeric', month: 'long', year: 'numeric' },
          monthYearA11yLabel: { month: 'long', year: 'numeric' },
        },
      },
    },
  ];
}
