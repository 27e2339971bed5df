import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { nearestKind } from './kinds';
import { KIND_WORDS } from './part-facts';

/** An address that names no kind of part: it says so, and leads to the nearest one. */
@Component({
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="page">
      <h1>0 kinds of parts are called "{{ kind() }}".</h1>
      <p>
        Nearest: <a [routerLink]="['/parts', nearest()]">{{ words() }}</a>.
      </p>
    </div>
  `,
})
export class NoKindPage {
  readonly kind = input.required<string>();
  readonly nearest = computed(() => nearestKind(this.kind()));
  readonly words = computed(() => KIND_WORDS[this.nearest()].many);
}
