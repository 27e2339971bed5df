import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { Router } from '@angular/router';
import { findTerms, GLOSSARY } from '@ruddy/core/base/text';
import { pluralize, orEmpty } from '../shared/format';
import { Field } from '../kit/field';
import type { FieldMeta } from '../kit/meta';

/** The words of the house and of the trade; whatever somebody else calls a thing finds it. */
@Component({
  imports: [Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="page">
      <h1>{{ headline() }}</h1>
      <rb-field
        class="find"
        [meta]="findMeta"
        [live]="true"
        [value]="q()"
        (changed)="find($event)"
      />
      <dl class="sheet">
        @for (t of terms(); track t.id) {
          <div [id]="t.id">
            <dt>{{ t.term }}</dt>
            <dd>
              {{ t.means }}
              @if (t.also.length > 0) {
                <span class="hint">Also called: {{ t.also.join(', ') }}.</span>
              }
            </dd>
          </div>
        } @empty {
          <p>Nothing is called that here. Try another word for it.</p>
        }
      </dl>
    </div>
  `,
  styles: `
    h1 {
      padding: 10px 0;
    }
    .find {
      max-width: 420px;
      margin-bottom: 12px;
    }
    dl {
      padding: 4px 16px;
      margin: 0;
    }
    dl > div {
      display: grid;
      grid-template-columns: minmax(0, 220px) minmax(0, 1fr);
      gap: 4px 16px;
      padding: 8px 0;
      border-bottom: 1px solid var(--line);
    }
    dt {
      font-weight: 600;
    }
    dd {
      margin: 0;
    }
    .hint {
      display: block;
    }
    @media (max-width: 719px) {
      dl > div {
        grid-template-columns: minmax(0, 1fr);
      }
    }
  `,
})
export class GlossaryPage {
  readonly findMeta: FieldMeta = { label: 'Find a term, also by another name', input: 'text' };
  readonly #router = inject(Router);
  readonly q = input('', { transform: orEmpty });
  readonly terms = computed(() => findTerms(this.q()));
  readonly headline = computed(() => {
    const n = this.terms().length;
    return this.q()
      ? `${pluralize(n, 'word')} of ${GLOSSARY.length} for "${this.q()}".`
      : `${GLOSSARY.length} words, each with what others call it.`;
  });

  find(q: string): void {
    void this.#router.navigate([], { queryParams: { q: q.trim() || null }, replaceUrl: true });
  }
}
