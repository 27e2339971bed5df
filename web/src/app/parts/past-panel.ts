import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { Part, Revision } from '@ruddy/core/parts/contract';
import { CatalogueData } from './catalogue';
import { clock, pluralize, day } from '../platform/shared/format';
import { changesBetween } from './spec-diff';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { ask, State, valueOf } from '../platform/kit/ask';

/** The past of a part: who changed what, when, and a way back to the values of then. Going back makes a new revision. */
@Component({
  selector: 'rb-past-panel',
  imports: [Cell, MatButtonModule, Rows, State],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-state [of]="list" what="the revisions" />
    <ol>
      @for (r of steps(); track r.rev.rev) {
        <li>
          <h3>Revision {{ r.rev.rev }}{{ $first ? ', as it stands' : '' }}</h3>
          <p class="quiet">{{ day(r.rev.at) }} {{ clock(r.rev.at) }}, {{ r.rev.by }}</p>
          @if (r.changes.length > 0) {
            <rb-rows label="Revisions" [columns]="pastPanelColumns" [rows]="r.changes">
              <ng-template rbCell="what" [rbCellOf]="r.changes" let-c>{{ c.label }}</ng-template>
              <ng-template rbCell="before" [rbCellOf]="r.changes" let-c>{{ c.before }}</ng-template>
              <ng-template rbCell="after" [rbCellOf]="r.changes" let-c>{{ c.after }}</ng-template>
            </rb-rows>
          } @else {
            <p>{{ r.first ? 'Written down first.' : 'No value changed.' }}</p>
          }
          @if (!$first) {
            <button mat-button type="button" (click)="restored.emit(r.rev)">
              Put these values back: {{ r.words }}
            </button>
          }
        </li>
      } @empty {
        <li>Reading the past …</li>
      }
    </ol>
  `,
  styles: `
    ol {
      list-style: none;
      padding: 0;
      display: grid;
      gap: 12px;
    }
    li {
      border-bottom: 1px solid var(--line);
      padding-bottom: 8px;
    }
  `,
})
export class PastPanel {
  readonly pastPanelColumns: readonly ShortColumn[] = [
    { key: 'what', name: 'What' },
    { key: 'before', name: 'Before' },
    { key: 'after', name: 'After' },
  ];
  readonly #data = inject(CatalogueData);
  readonly part = input.required<Part>();
  readonly restored = output<Revision>();
  readonly day = day;
  readonly clock = clock;
  readonly list = ask(
    (id: string) => this.#data.revisions(id),
    () => this.part().id,
  );
  readonly revisions = computed(() => valueOf(this.list)?.items ?? []);
  readonly steps = computed(() => {
    const list = this.revisions();
    const kind = this.part().kind;
    return list.map((rev, i) => {
      const before = list[i + 1];
      const now = list[0];
      const back = now ? changesBetween(kind, now, rev).length : 0;
      return {
        rev,
        first: !before,
        changes: before ? changesBetween(kind, before, rev) : [],
        words: pluralize(back, 'value'),
      };
    });
  });
}
