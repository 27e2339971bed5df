import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  inject,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { v7 } from 'uuid';
import type { FeedEntry } from '@ruddy/core/workshop/contract';
import type { ApiError } from '../platform/api/api-client';
import { NewsData, type FeedSaid } from '../buy/scout';
import { pluralize, day } from '../platform/shared/format';
import { WorkshopNav } from './workshop-nav';

const EVERY = [
  [null, 'by hand only'],
  [6, 'every 6 hours'],
  [24, 'once a day'],
  [168, 'once a week'],
] as const;

/** Feeds of releases this workshop trusts: which, how often, and how the last reading went. */
@Component({
  imports: [MatButtonModule, RouterLink, WorkshopNav],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './feeds-page.html',
  styleUrl: './feeds-page.scss',
})
export class FeedsPage {
  readonly #data = inject(NewsData);
  readonly feeds = signal<readonly FeedEntry[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly field = signal<string | null>(null);
  readonly said = signal<string | null>(null);
  readonly reading = signal<string | null>(null);
  readonly every = EVERY;
  readonly day = day;
  readonly headline = computed(() => {
    const all = this.feeds();
    if (!all) return 'Reading the feeds …';
    if (all.length === 0) return '0 feeds: name the addresses whose releases concern you.';
    const bad = all.filter((f) => f.problem !== '');
    const items = all.reduce((n, f) => n + f.items, 0);
    const first = bad[0] ? ` First: ${bad[0].name}.` : '';
    return `${pluralize(all.length, 'feed')}, ${pluralize(items, 'item')}; ${bad.length === 0 ? 'none failed' : `${bad.length} failed`}.${first}`;
  });

  constructor() {
    const loaded = this.#data.feeds().subscribe({
      next: (a) => this.feeds.set(a.items),
      error: (e: ApiError) => this.problem.set(e.message),
    });
    inject(DestroyRef).onDestroy(() => loaded.unsubscribe());
  }

  #put(f: FeedEntry): void {
    this.feeds.update((all) =>
      all?.some((x) => x.id === f.id)
        ? all.map((x) => (x.id === f.id ? f : x))
        : [...(all ?? []), f],
    );
  }

  add(form: HTMLFormElement, name: string, url: string, hours: string, near: boolean): void {
    this.problem.set(null);
    this.field.set(null);
    const body = {
      id: v7(),
      name: name.trim(),
      url: url.trim(),
      near,
      everyHours: hours === '' ? null : Number(hours),
    };
    this.#data.add(body).subscribe({
      next: (f) => {
        this.#put(f);
        this.said.set(
          `${f.name} is remembered. It is read when you say so${f.everyHours === null ? '' : ', and by itself'}.`,
        );
        form.reset();
      },
      error: (e: ApiError) => {
        this.field.set(e.at('url') ?? e.at('name'));
        this.problem.set(`Nothing stored. ${this.field() ?? e.message}`);
      },
    });
  }

  change(f: FeedEntry, patch: Partial<FeedSaid>): void {
    this.#data.change(f.id, patch, f.rev).subscribe({
      next: (next) => this.#put(next),
      error: (e: ApiError) => this.problem.set(`Not changed. ${e.message}`),
    });
  }

  read(f: FeedEntry): void {
    this.reading.set(f.id);
    this.problem.set(null);
    this.said.set(null);
    this.#data.read(f.id).subscribe({
      next: (next) => {
        this.reading.set(null);
        this.#put(next);
        if (next.problem === '')
          this.said.set(
            next.unchanged
              ? `${next.name}: nothing new since the last reading.`
              : `${next.name}: ${pluralize(next.items, 'item')}.`,
          );
      },
      error: (e: ApiError) => {
        this.reading.set(null);
        this.problem.set(e.message);
      },
    });
  }

  remove(f: FeedEntry): void {
    this.#data.remove(f.id).subscribe({
      next: () => this.feeds.update((all) => (all ?? []).filter((x) => x.id !== f.id)),
      error: (e: ApiError) => this.problem.set(e.message),
    });
  }

  when(f: FeedEntry): string {
    if (f.readAt === null) return 'never read';
    return `read ${day(f.readAt)}${f.unchanged ? ', unchanged' : ''}`;
  }
  hours(text: string): number | null {
    return text === '' ? null : Number(text);
  }
}
