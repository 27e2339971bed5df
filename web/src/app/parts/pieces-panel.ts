import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { v7 } from 'uuid';
import {
  attributesOf,
  HOW,
  ITEM_CONDITIONS,
  PART_SCHEMAS,
  SOFTWARE_NAMES,
  VALUE_SOURCES,
} from '@ruddy/core/parts';
import type { FactEntry, ItemBody, ItemEntry, Part } from '@ruddy/core/parts/contract';
import type * as z from 'zod';
import type { ApiError } from '../platform/api/api-client';
import { CatalogueData } from './catalogue';
import { day } from '../platform/shared/format';
import { attrText } from './attr-text';
import { FactForm } from './fact-form';

type Draft = Omit<ItemBody, 'id' | 'partId' | 'differs'>;
const EMPTY: Draft = {
  label: '',
  how: 'own',
  owner: '',
  condition: null,
  acquiredOn: null,
  boughtFrom: '',
  claim: '',
  note: '',
  serial: '',
};

/** The physical pieces of a part: what each is called, whose it is, what was seen on it, where it is used. */
@Component({
  selector: 'rb-pieces-panel',
  imports: [NgTemplateOutlet, MatButtonModule, RouterLink, FactForm],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './pieces-panel.html',
  styleUrl: './pieces-panel.scss',
})
export class PiecesPanel {
  readonly #data = inject(CatalogueData);
  readonly part = input.required<Part>();
  readonly changed = output();

  readonly how = Object.entries(HOW) as [Draft['how'], string][];
  readonly conditions = Object.entries(ITEM_CONDITIONS) as [
    NonNullable<Draft['condition']>,
    string,
  ][];
  readonly words = HOW;
  readonly day = day;
  readonly pieces = signal<ItemEntry[] | null>(null);
  readonly problem = signal<string | null>(null);
  /** The piece being written: an id, "new", or none. */
  readonly open = signal<string | null>(null);
  readonly draft = signal<Draft>(EMPTY);
  readonly noting = signal<string | null>(null);

  constructor() {
    effect(() => {
      const id = this.part().id;
      untracked(() => this.#load(id));
    });
  }

  edit(piece: ItemEntry | null): void {
    this.problem.set(null);
    this.open.set(piece?.id ?? 'new');
    if (!piece) this.draft.set(EMPTY);
    else {
      const { label, how, owner, condition, acquiredOn, boughtFrom, claim, note, serial } = piece;
      this.draft.set({ label, how, owner, condition, acquiredOn, boughtFrom, claim, note, serial });
    }
  }

  say(change: Partial<Draft>): void {
    this.draft.update((d) => ({ ...d, ...change }));
  }

  store(): void {
    const piece = this.pieces()?.find((p) => p.id === this.open());
    const draft = this.draft();
    if (draft.label.trim() === '') {
      this.problem.set(
        'Nothing stored. Label: give the piece a name that stands on it, like K-02 a',
      );
      return;
    }
    const sent = piece
      ? this.#data.patchItem(piece.id, draft, piece.rev)
      : this.#data.addItem({ ...draft, differs: {}, id: v7(), partId: this.part().id });
    sent.subscribe({
      next: () => {
        this.open.set(null);
        this.problem.set(null);
        this.#load(this.part().id);
        this.changed.emit();
      },
      error: (e: ApiError) => this.problem.set(`Nothing stored. ${e.message}`),
    });
  }

  noted(): void {
    this.noting.set(null);
    this.#load(this.part().id);
  }

  live(p: ItemEntry): number {
    return p.usedIn.filter((u) => u.state === 'live').length;
  }

  /** What is known of this piece only, with where it is known from. */
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
    if (f.kind === 'measured') return `${f.gbps} Gb/s read${f.words ? `: ${f.words}` : ''}`;
    if (f.kind === 'version') return `${f.role ? SOFTWARE_NAMES[f.role] : 'Version'} ${f.words}`;
    return `Fault: ${f.words}`;
  }

  #load(part: string): void {
    this.#data.items(part).subscribe({
      next: ({ items }) => this.pieces.set(items),
      error: (e: ApiError) => this.problem.set(e.message),
    });
  }
}
