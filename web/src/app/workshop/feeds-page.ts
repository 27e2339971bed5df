import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  signal,
} from '@angular/core';
import {
  FormControl,
  FormGroup,
  type FormGroupDirective,
  ReactiveFormsModule,
  Validators,
} from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { v7 } from 'uuid';
import type { FeedEntry } from '@ruddy/core/workshop/contract';
import { NewsData, type FeedSaid } from '../buy/scout';
import { pluralize, day } from '../platform/shared/format';
import { Acts } from '../platform/kit/ask';
import { readyToSend } from '../platform/kit/problems';
import { WorkshopNav } from './workshop-nav';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { MatCheckboxModule } from '@angular/material/checkbox';

const OFTEN: FieldMeta = {
  label: 'Read',
  input: 'choice',
  placeholder: 'by hand only',
  options: [
    { value: 6, label: 'every 6 hours' },
    { value: 24, label: 'once a day' },
    { value: 168, label: 'once a week' },
  ],
};

/** Feeds of releases this workshop trusts: which, how often, and how the last reading went. */
@Component({
  imports: [
    MatCheckboxModule,
    Field,
    ReactiveFormsModule,
    Cell,
    Rows,
    MatButtonModule,
    RouterLink,
    WorkshopNav,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './feeds-page.html',
  styleUrl: './feeds-page.scss',
})
export class FeedsPage {
  readonly feedsPageColumns: readonly ShortColumn[] = [
    { key: 'feed', name: 'Feed' },
    { key: 'read', name: 'Read' },
    { key: 'howItWent', name: 'How it went' },
    { key: 'mayBeNear', name: 'May be near' },
    { key: 'do', name: 'Do', silent: true },
  ];
  readonly #data = inject(NewsData);
  readonly #acts = inject(Acts);
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly feeds = signal<readonly FeedEntry[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly said = signal<string | null>(null);
  readonly reading = signal<string | null>(null);
  readonly form = new FormGroup({
    name: new FormControl('', { nonNullable: true, validators: Validators.required }),
    url: new FormControl('', { nonNullable: true, validators: Validators.required }),
    everyHours: new FormControl<number | null>(null),
    near: new FormControl(false, { nonNullable: true }),
  });
  readonly fields: readonly (readonly [FieldMeta, FormControl])[] = [
    [{ label: 'Name', input: 'text', max: 80 }, this.form.controls.name],
    [
      {
        label: 'Address',
        input: 'text',
        max: 500,
        placeholder: 'https://maker.example/releases.json',
      },
      this.form.controls.url,
    ],
    [OFTEN, this.form.controls.everyHours],
    [
      { label: 'May lie on this machine or in the local network', input: 'flag' },
      this.form.controls.near,
    ],
  ];
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
    const loaded = this.#acts.read(this.#data.feeds(), {
      line: this.problem,
      then: (a) => this.feeds.set(a.items),
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

  add(of: FormGroupDirective): void {
    if (!readyToSend(this.form, this.#el)) return;
    const raw = this.form.getRawValue();
    const body = { ...raw, id: v7(), name: raw.name.trim(), url: raw.url.trim() };
    this.#acts.send(this.form, this.#data.add(body), {
      line: this.problem,
      then: (f) => {
        this.#put(f);
        of.resetForm();
        this.#acts.say(
          `Added ${f.name}. Nothing is read until you press "Read now"${f.everyHours === null ? '' : ' or its time comes'}.`,
        );
      },
    });
  }

  change(f: FeedEntry, patch: Partial<FeedSaid>): void {
    this.#acts.run(this.#data.change(f.id, patch, f.rev), {
      line: this.problem,
      failed: 'Not changed.',
      then: (next) => this.#put(next),
    });
  }

  read(f: FeedEntry): void {
    this.reading.set(f.id);
    this.said.set(null);
    this.#acts.run(this.#data.read(f.id), {
      line: this.problem,
      failed: 'Not read.',
      otherwise: () => this.reading.set(null),
      then: (next) => {
        this.reading.set(null);
        this.#put(next);
        if (next.problem === '')
          this.said.set(
            next.unchanged
              ? `${next.name}: nothing new since the last reading.`
              : `${next.name}: ${pluralize(next.items, 'item')}.`,
          );
      },
    });
  }

  remove(f: FeedEntry): void {
    this.#acts.run(this.#data.remove(f.id), {
      line: this.problem,
      failed: 'Not removed.',
      then: () => this.feeds.update((all) => (all ?? []).filter((x) => x.id !== f.id)),
    });
  }

  oftenMeta(f: FeedEntry): FieldMeta {
    return { ...OFTEN, label: `Read ${f.name}` };
  }

  when(f: FeedEntry): string {
    if (f.readAt === null) return 'never read';
    return `read ${day(f.readAt)}${f.unchanged ? ', unchanged' : ''}`;
  }
}
