import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { stated } from '@ruddy/core/base';
import { figure } from '@ruddy/core/base/text';
import { FEEDS, partName, SHOWN_BY, VIDEO_PLUGS } from '@ruddy/core/chain';
import type { Part } from '@ruddy/core/parts/contract';
import type { SetupSlots } from '@ruddy/core/setups/contract';
import { SetupEditor } from '../setups/setup-editor';
import { PartDescriber } from './describe';
import { PartPicker } from './part-picker';
import { Fold } from '../platform/kit/fold';
import { Field } from '../platform/kit/field';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';

type Entry<T> = T & { name: string };

/** What stands round the link: screens, supplies, the system. */
@Component({
  selector: 'rb-around-panel',
  imports: [Field, Fold, PartPicker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './around-panel.html',
  styleUrl: './parts-panel.scss',
})
export class AroundPanel {
  readonly #describer = inject(PartDescriber);
  readonly editor = inject(SetupEditor);
  readonly feedsMeta: FieldMeta = { label: 'Feeds', input: 'choice', options: optionsOf(FEEDS) };
  readonly by: FieldMeta = { label: 'Driven by', input: 'choice', options: optionsOf(SHOWN_BY) };
  readonly plug: FieldMeta = { label: 'Plug', input: 'choice', options: optionsOf(VIDEO_PLUGS) };
  readonly slots = computed(() => this.editor.fields()?.slots ?? null);
  readonly chain = computed(() => this.editor.judgement()?.chain ?? null);
  readonly screens = computed<Entry<SetupSlots['screens'][number]>[]>(() =>
    (this.slots()?.screens ?? []).map((s, i) => ({
      ...s,
      name: partName(this.chain()?.picture[i]?.screen),
    })),
  );
  readonly supplies = computed<Entry<SetupSlots['supplies'][number]>[]>(() =>
    (this.slots()?.supplies ?? []).map((s, i) => ({
      ...s,
      name: partName(this.chain()?.supplies[i]?.spec),
    })),
  );
  readonly system = computed(() => (this.slots()?.system ? partName(this.chain()?.system) : ''));
  /** What the dock brings itself, in words; empty when it brings nothing. */
  readonly inside = computed(() => {
    const dock = this.chain()?.dock;
    if (!dock || (dock.supply !== 'inside' && dock.supply !== 'brick')) return '';
    const watts = stated(dock.supplyW);
    return `${dock.supply === 'inside' ? 'In the dock' : 'Brick of the dock'}${watts ? `: ${figure(watts)} W` : ', rating not known'}`;
  });

  #slots(change: Partial<SetupSlots>): void {
    this.editor.change({ slots: change });
  }

  pickSystem(part: Part | null): void {
    this.#slots({ system: part?.id ?? null });
  }

  pickScreen(index: number, part: Part | null): void {
    const list = this.slots()?.screens ?? [];
    const now = list[index] ?? { by: 'card' as const, plug: 'displayport' as const };
    this.#slots({ screens: put(list, index, part && { ...now, part: part.id }) });
  }

  setScreen(index: number, change: Partial<SetupSlots['screens'][number]>): void {
    this.#slots({
      screens: (this.slots()?.screens ?? []).map((s, i) => (i === index ? { ...s, ...change } : s)),
    });
  }

  pickSupply(index: number, part: Part | null): void {
    const list = this.slots()?.supplies ?? [];
    const now = list[index] ?? { feeds: this.inside() ? ('card' as const) : ('both' as const) };
    this.#slots({ supplies: put(list, index, part && { ...now, part: part.id }) });
  }

  setFeeds(index: number, feeds: SetupSlots['supplies'][number]['feeds']): void {
    this.#slots({
      supplies: (this.slots()?.supplies ?? []).map((s, i) => (i === index ? { ...s, feeds } : s)),
    });
  }

  describe(kind: 'screen' | 'supply' | 'system', index = 0): void {
    this.#describer.open(kind).subscribe((p) => {
      if (kind === 'screen') this.pickScreen(index, p);
      else if (kind === 'supply') this.pickSupply(index, p);
      else this.pickSystem(p);
    });
  }
}

/** A list with one entry put in, replaced, or taken out. */
function put<T>(list: readonly T[], index: number, value: T | null): T[] {
  if (value === null) return list.filter((_, i) => i !== index);
  return index >= list.length ? [...list, value] : list.map((x, i) => (i === index ? value : x));
}
