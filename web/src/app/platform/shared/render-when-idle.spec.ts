import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { renderWhenIdle } from './render-when-idle';

@Component({ changeDetection: ChangeDetectionStrategy.OnPush, template: '{{ below() }}' })
class Host {
  readonly ready = signal(false);
  readonly below = renderWhenIdle(() => this.ready(), 3);
}

describe('later', () => {
  it('waits until it is ready, then counts up to its steps', async () => {
    const f = TestBed.createComponent(Host);
    await f.whenStable();
    expect(f.componentInstance.below()).toBe(0);
    f.componentInstance.ready.set(true);
    await f.whenStable();
    expect(f.componentInstance.below()).toBe(3);
  });

  it('stops without a word when the page is left meanwhile', async () => {
    const f = TestBed.createComponent(Host);
    f.componentInstance.ready.set(true);
    f.detectChanges();
    f.destroy();
    await new Promise((resolve) => setTimeout(resolve, 30));
    expect(f.componentInstance.below()).toBeLessThan(3);
  });
});
