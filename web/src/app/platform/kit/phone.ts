import { BreakpointObserver } from '@angular/cdk/layout';
import { inject, type Signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { map } from 'rxjs';

/** Is the window as narrow as a phone? The same limit stands in the style sheets. */
export function onPhone(): Signal<boolean> {
  const matched = inject(BreakpointObserver).observe('(max-width: 719px)');
  return toSignal(matched.pipe(map((b) => b.matches)), { initialValue: false });
}
