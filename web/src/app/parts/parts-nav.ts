import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { PART_KINDS } from '@ruddy/core/parts';
import { KIND_WORDS } from './part-facts';

/** The kinds of the catalogue, and what else is kept about parts. In: where one is. */
@Component({
  selector: 'rb-parts-nav',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <nav class="kinds" aria-label="Kinds of parts">
      @for (k of places; track k[0]) {
        <a
          [routerLink]="['/parts', k[0]]"
          [class.here]="k[0] === here()"
          [attr.aria-current]="k[0] === here() ? 'page' : null"
          >{{ k[1] }}</a
        >
      }
    </nav>
  `,
  styles: `
    .kinds {
      display: grid;
    }
    a {
      padding: 6px 12px;
      color: var(--ink);
      text-decoration: none;
      border-left: 4px solid transparent;
    }
    a::first-letter {
      text-transform: uppercase;
    }
    a.here {
      background: var(--select);
      border-left-color: var(--brick);
      font-weight: 600;
    }
    @media (max-width: 1199px) {
      .kinds {
        display: flex;
        flex-wrap: wrap;
      }
    }
  `,
})
export class PartsNav {
  readonly here = input.required<string>();
  readonly places: readonly [string, string][] = [
    ...PART_KINDS.map((k): [string, string] => [k, KIND_WORDS[k].many]),
    ['news', 'news'],
    ['register', 'cable register'],
    ['rates', 'exchange rates'],
    ['import', 'import'],
  ];
}
