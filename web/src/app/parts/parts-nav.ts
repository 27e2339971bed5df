import { ChangeDetectionStrategy, Component, ElementRef, inject, input } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { PART_KINDS } from '@ruddy/core/parts';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { onPhone } from '../platform/kit/phone';
import { Skip } from '../platform/kit/skip';
import { KIND_WORDS } from './part-facts';

/** The kinds of the catalogue, and what else is kept about parts. In: where one is. */
@Component({
  selector: 'rb-parts-nav',
  imports: [Field, RouterLink, Skip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (phone()) {
      <nav aria-label="Kinds of parts">
        <rb-field [meta]="meta" [value]="here()" (changed)="go($event)" />
      </nav>
    } @else {
      <nav class="kinds" aria-label="Kinds of parts">
        <rb-skip what="the list" [target]="after()" />
        @for (k of places; track k[0]) {
          <a
            [routerLink]="['/parts', k[0]]"
            [class.here]="k[0] === here()"
            [attr.aria-current]="k[0] === here() ? 'page' : null"
            >{{ k[1] }}</a
          >
        }
      </nav>
    }
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
  readonly #router = inject(Router);
  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly phone = onPhone();
  readonly here = input.required<string>();
  readonly places: readonly [string, string][] = [
    ...PART_KINDS.map((k): [string, string] => [k, KIND_WORDS[k].many]),
    ['news', 'news'],
    ['register', 'cable register'],
    ['rates', 'exchange rates'],
    ['import', 'import'],
  ];
  readonly meta: FieldMeta = {
    label: 'Parts',
    input: 'choice',
    options: this.places.map(([value, label]) => ({ value, label })),
  };

  /** What stands beside the kinds. */
  after(): Element | null {
    return this.#host.nextElementSibling;
  }

  go(place: string): void {
    void this.#router.navigate(['/parts', place]);
  }
}
