import { DestroyRef, ElementRef, inject, signal, type Signal } from '@angular/core';

/** The width of the component it is made in, in whole px, as it changes; `start` until it is known. Call it in an injection context. */
export function watchedWidth(start: number): Signal<number> {
  const width = signal(start);
  const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  if (typeof ResizeObserver !== 'undefined') {
    const watch = new ResizeObserver(
      ([e]) => e && e.contentRect.width > 0 && width.set(Math.floor(e.contentRect.width)),
    );
    watch.observe(host);
    inject(DestroyRef).onDestroy(() => watch.disconnect());
  }
  return width.asReadonly();
}
