import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** A link for keyboards, shown while it has the focus: past a long list of links or buttons to what comes after it. */
@Component({
  selector: 'rb-skip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<a class="skip" href="#" (click)="go($event)">Skip to {{ what() }}</a>`,
})
export class Skip {
  readonly what = input.required<string>();
  readonly target = input.required<Element | null>();

  go(event: Event): void {
    event.preventDefault();
    const target = this.target();
    if (!(target instanceof HTMLElement)) return;
    target.tabIndex = -1;
    target.focus();
  }
}
