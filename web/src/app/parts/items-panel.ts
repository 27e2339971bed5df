import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { attributesOf, HOW, PART_SCHEMAS, SOFTWARE_NAMES, VALUE_SOURCES } from '@ruddy/core/parts';
import type { FactEntry, ItemEntry, Part } from '@ruddy/core/parts/contract';
import type * as z from 'zod';
import { CatalogueData } from './catalogue';
import { day } from '../platform/shared/format';
import { attrText } from './attr-text';
import { ask, State, valueOf } from '../platform/kit/ask';
import { FactForm } from './fact-form';
import { ItemForm } from './item-form';

/** The items of a part: what each is called, whose it is, what was found on it, where it is used. */
@Component({
  selector: 'rb-items-panel',
  imports: [MatButtonModule, RouterLink, FactForm, ItemForm, State],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './items-panel.html',
  styleUrl: './items-panel.scss',
})
export class ItemsPanel {
  readonly #data = inject(CatalogueData);
  readonly part = input.required<Part>();
  readonly changed = output();

  readonly words = HOW;
  readonly day = day;
  readonly list = ask(
    (part: string) => this.#data.items(part),
    () => this.part().id,
  );
  readonly items = computed(() => valueOf(this.list)?.items ?? null);
  /** The item being written: an id, "new", or none. */
  readonly open = signal<string | null>(null);
  readonly noting = signal<string | null>(null);

  stored(): void {
    this.open.set(null);
    this.list.reload();
    this.changed.emit();
  }

  noted(): void {
    this.noting.set(null);
    this.list.reload();
  }

  live(p: ItemEntry): number {
    return p.usedIn.filter((u) => u.state === 'live').length;
  }

  /** What is known of this item only, with where it is known from. */
  differs(p: ItemEntry): string {
    const metas = new Map(attributesOf(PART_SCHEMAS[this.part().kind] as z.ZodObject));
    return Object.entries(p.differs)
      .flatMap(([key, { value, source }]) => {
        const meta = metas.get(key);
        const known = [source.from ? VALUE_SOURCES[source.from] : '', source.on]
          .filter((s) => s !== '')
          .join(', ');
        return meta ? [`${meta.label} ${attrText(meta, value)}${known ? ` (${known})` : ''}`] : [];
      })
      .join('; ');
  }

  factText(f: FactEntry): string {
    if (f.kind === 'measured') return `${f.gbps} Gb/s measured${f.words ? `: ${f.words}` : ''}`;
    if (f.kind === 'version') return `${f.role ? SOFTWARE_NAMES[f.role] : 'Version'} ${f.words}`;
    return `Fault: ${f.words}`;
  }
}
