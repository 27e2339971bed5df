import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { GLOSSARY } from '@ruddy/core/base/text';
import { MatTooltipModule } from '@angular/material/tooltip';

let made = 0;

/** A word explained in place: opened by click, Enter or Space, closed by Escape. */
@Component({
  selector: 'rb-term',
  imports: [MatTooltipModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<button
      type="button"
      class="term"
      [matTooltip]="open() ? '' : (term()?.means ?? '')"
      [attr.aria-expanded]="open()"
      [attr.aria-controls]="id"
      (click)="open.set(!open())"
      (keydown.escape)="open.set(false)"
    >
      {{ words() || term()?.term }}</button
    ><span class="means" [id]="id" [hidden]="!open()" role="note"
      >{{ term()?.means }}
      <a [routerLink]="['/glossary']" [queryParams]="{ q: term()?.term }">More words</a></span
    >`,
  styles: `
    .term {
      font: inherit;
      color: inherit;
      background: none;
      border: 0;
      padding: 0;
      min-height: 24px;
      cursor: help;
      text-decoration: underline dotted var(--ink2);
      text-underline-offset: 3px;
    }
    .means {
      display: block;
      font-size: 13px;
      font-weight: 400;
      line-height: 18px;
      padding: 6px 8px;
      margin: 2px 0 6px;
      background: var(--select);
      border-left: 3px solid var(--rim);
    }
    .means[hidden] {
      display: none;
    }
  `,
})
export class TermWord {
  /** Which word of the glossary; `words` when it is said otherwise here. */
  readonly of = input.required<string>();
  readonly words = input('');
  readonly id = `term-${++made}`;
  readonly open = signal(false);
  readonly term = computed(() => GLOSSARY.find((t) => t.id === this.of()) ?? null);
}
