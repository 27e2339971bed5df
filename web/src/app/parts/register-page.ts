import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { cableQuestions } from '@ruddy/core/parts';
import type { RegisterRow } from '@ruddy/core/parts/contract';
import { questionText } from '@ruddy/core/parts/text';
import { CatalogueData } from './catalogue';
import { pluralize, day, orEmpty } from '../platform/shared/format';
import { numText } from './part-facts';
import { PartsNav } from './parts-nav';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { ask, State, valueOf } from '../platform/kit/ask';

/** The cable register: every cable at hand with what its label claims, what it is marked with, and the best rate read through it. */
@Component({
  imports: [Cell, Field, PartsNav, RouterLink, Rows, State],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './register-page.html',
  styleUrls: ['./parts-frame.scss', './register-page.scss'],
})
export class RegisterPage {
  readonly listOfCablesColumns: readonly ShortColumn[] = [
    { key: 'label', name: 'Label' },
    { key: 'cable', name: 'Cable' },
    { key: 'claims', name: 'Claims' },
    { key: 'markedGbS', name: 'Marked, Gb/s', figure: true },
    { key: 'markedW', name: 'Marked, W', figure: true },
    { key: 'lengthMm', name: 'Length, mm', figure: true },
    { key: 'bought', name: 'Bought' },
    { key: 'bestRateRead', name: 'Best measured, Gb/s' },
  ];
  readonly find: FieldMeta = {
    label: 'Find a cable',
    input: 'text',
    placeholder: 'label, part, claim, shop',
  };
  readonly #router = inject(Router);
  readonly q = input('', { transform: orEmpty });
  readonly #data = inject(CatalogueData);
  readonly list = ask(() => this.#data.register());
  readonly rows = computed(() => valueOf(this.list)?.items ?? null);
  readonly num = numText;
  readonly day = day;
  readonly found = computed(() => {
    const words = this.q().toLowerCase();
    return (this.rows() ?? []).filter((r) =>
      `${r.label} ${r.part} ${r.claim} ${r.boughtFrom}`.toLowerCase().includes(words),
    );
  });
  readonly headline = computed(() => {
    const rows = this.rows();
    if (!rows) return 'Reading the cables …';
    const items = rows.filter((r) => r.itemId !== null);
    const read = items.filter((r) => r.best !== null).length;
    const bare = rows.filter(
      (r) => r.markedGbps === null && r.connector === 'usb-c' && r.itemId !== null,
    ).length;
    return items.length === 0
      ? `0 cables recorded as items yet; ${pluralize(rows.length, 'kind')} of cable in the catalogue.`
      : `${pluralize(items.length, 'cable')} here: ${read} with a measured rate, ${bare} without a marked rate.`;
  });

  filter(q: string): void {
    void this.#router.navigate([], {
      queryParams: { q: q.trim() || null },
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }

  /** What is odd about a line: the marks by themselves, and a rate read that the mark does not allow. */
  asks(r: RegisterRow): string[] {
    const marks = cableQuestions({
      markedGbps: r.markedGbps,
      markedW: r.markedW,
      lengthMm: r.lengthMm,
    }).map(questionText);
    const most = typeof r.markedGbps === 'number' ? r.markedGbps : (r.markedGbps?.hi ?? null);
    const over = r.best !== null && most !== null && r.best.gbps > most;
    return over
      ? [
          ...marks,
          `More was measured (${r.best?.gbps} Gb/s) than it is marked with. Is it this cable?`,
        ]
      : marks;
  }
}
