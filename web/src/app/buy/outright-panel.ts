import { ChangeDetectionStrategy, Component, computed, input, linkedSignal } from '@angular/core';
import { breakEvenHosts, type RowView, type SpendingOption, worthOf } from '@ruddy/core/buy';
import type { ScoutGrounds } from '@ruddy/core/buy/contract';
import { worthSentence } from '@ruddy/core/buy/text';
import { CARRIED_META, NOW_META } from './wanted';
import { WaysTable } from './ways-table';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';

const KIND = {
  set: 'This set',
  keep: 'Current setup',
  laptop: 'Laptop',
  desktop: 'Desktop',
} as const;

/** A chosen set against keeping what is there and against whole machines, over the same years; and how many hosts would have to share it. */
@Component({
  selector: 'rb-outright-panel',
  imports: [Field, WaysTable],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="sheet" aria-labelledby="out-h">
      <h2 id="out-h">{{ sentence() }}</h2>
      <div class="asks">
        <rb-field [meta]="nowMeta" [value]="nowFps()" (changed)="nowFps.set($event)" />
        <rb-field [meta]="sellsMeta()" [value]="sellsNow()" (changed)="sells.set($event ?? 0)" />
        <rb-field [meta]="sharedMeta" [value]="sharedNow()" (changed)="shared.set($event ?? 1)" />
        <rb-field [meta]="carried" [value]="portable()" (changed)="portable.set($event)" />
      </div>
      <rb-ways-table [rows]="worth().rows" [kinds]="kinds" [currency]="currency()" />
      <p>{{ sharing() }}</p>
      <p class="hint">
        Net: parts that are not there and what is forgotten, less what they sell for again and what
        is sold for them. A set's share is a part of its dock, card and supply; each host has its
        own cable. Keep a laptop or desktop under Parts to see it here.
      </p>
    </section>
  `,
  styles: `
    .sheet {
      padding: 12px 16px;
    }
    .asks {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 16px;
      align-items: end;
    }
    .asks rb-field {
      flex: 0 1 180px;
    }
  `,
})
export class OutrightPanel {
  readonly row = input.required<RowView>();
  readonly grounds = input.required<ScoutGrounds>();
  readonly at = input(0);
  readonly nowFps = linkedSignal<string, number | null>({
    source: () => this.grounds().host,
    computation: () => null,
  });
  readonly sells = linkedSignal<string, number>({
    source: () => this.grounds().host,
    computation: () => 0,
  });
  readonly shared = linkedSignal<string, number>({
    source: () => this.grounds().host,
    computation: () => 1,
  });
  /** As a field has it, where it can be empty. */
  readonly sellsNow = computed<number | null>(() => this.sells());
  readonly sharedNow = computed<number | null>(() => this.shared());
  readonly portable = linkedSignal<string, boolean>({
    source: () => this.grounds().host,
    computation: () => false,
  });
  readonly nowMeta = NOW_META;
  readonly sellsMeta = computed<FieldMeta>(() => ({
    label: 'Current parts sell for',
    input: 'money',
    unit: this.currency(),
  }));
  readonly sharedMeta: FieldMeta = { label: 'Hosts sharing it', input: 'number', min: 1, max: 50 };
  readonly carried = CARRIED_META;
  readonly kinds = KIND;
  readonly currency = computed(() => this.grounds().input.currency);

  /** What the set costs once, what each host needs of its own, and what its parts sell for again. */
  readonly parts = computed(() => {
    const { input } = this.grounds();
    const r = this.row();
    const route = input.routes[r.route]?.pieces ?? [];
    const once = [
      input.docks[r.dock],
      input.cards[r.card],
      input.supplies[r.supply],
      input.screens[r.screen],
    ];
    const resale = [...route, ...once].reduce(
      (sum, p) => sum + (p && !p.owned ? (p.resaleMinor ?? 0) : 0),
      0,
    );
    const each = route.reduce((sum, p) => sum + (p.minor ?? 0), 0);
    return { onceMinor: r.minor - each, eachMinor: each, resale };
  });

  readonly worth = computed(() => {
    const { onceMinor, eachMinor, resale } = this.parts();
    const target = this.grounds().input.limits.targetFps;
    const reaches = (fps: SpendingOption['fps']) =>
      target === null || (fps !== null && fps.mid >= target);
    const keeps = (
      kind: SpendingOption['kind'],
      fps: SpendingOption['fps'],
    ): SpendingOption['keeps'] => [
      ...(reaches(fps) ? (['target'] as const) : []),
      ...(this.portable() && kind !== 'desktop' ? (['portable'] as const) : []),
    ];
    const set = this.row().bands[this.at()] ?? null;
    const n = this.shared();
    const net = Math.round(onceMinor / n) + eachMinor - Math.round(resale / n) - this.sells();
    const now = this.nowFps();
    const keep: SpendingOption[] =
      now === null ? [] : [this.#way('keep', '', 0, { lo: now, mid: now, hi: now }, keeps)];
    const machines = this.grounds().outright.map((o) =>
      this.#way(
        o.kind,
        o.name,
        o.minor === null ? null : o.minor - (o.resaleMinor ?? 0) - this.sells(),
        o.fps[this.at()] ?? null,
        keeps,
      ),
    );
    return worthOf(this.#way('set', '', net, set, keeps), [...keep, ...machines]);
  });

  #way(
    kind: SpendingOption['kind'],
    name: string,
    netMinor: number | null,
    fps: SpendingOption['fps'],
    keeps: (k: SpendingOption['kind'], f: SpendingOption['fps']) => SpendingOption['keeps'],
  ): SpendingOption {
    return { kind, name, netMinor, fps, keeps: keeps(kind, fps) };
  }

  readonly sentence = computed(() => worthSentence(this.worth(), this.currency()));
  readonly sharing = computed(() => {
    const priced = this.worth().rows.flatMap((r) =>
      (r.kind === 'laptop' || r.kind === 'desktop') && r.netMinor !== null ? [r] : [],
    );
    const least = [...priced].sort((a, b) => (a.netMinor ?? 0) - (b.netMinor ?? 0))[0];
    if (!least || least.netMinor === null)
      return 'No laptop or desktop with a price is known, so nothing is told of sharing.';
    const hosts = breakEvenHosts(this.parts(), least.netMinor);
    const name = `${KIND[least.kind].toLowerCase()} ${least.name}`;
    return hosts === null
      ? `Shared by any number of hosts the set costs no less than a ${name} for each.`
      : hosts === 1
        ? `Already for one host the set costs less than the ${name}.`
        : `Shared by ${hosts} hosts or more the set costs less than a ${name} for each.`;
  });
}
