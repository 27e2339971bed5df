import { TestBed } from '@angular/core/testing';
import { provideRouter, Router } from '@angular/router';
import {
  EnvironmentInjector,
  createEnvironmentInjector,
  runInInjectionContext,
} from '@angular/core';
import { Keys } from './keys';

const press = (key: string, on: HTMLElement = document.body, more: KeyboardEventInit = {}) =>
  on.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...more }));

describe('the keyboard', () => {
  let keys: Keys;
  let went: string[];
  let pressed: string[];
  const bind = (...list: string[]) =>
    TestBed.runInInjectionContext(() =>
      keys.bind(list.map((key) => ({ key, what: key, run: () => pressed.push(key) }))),
    );

  beforeEach(() => {
    localStorage.clear();
    document.body.replaceChildren();
    TestBed.configureTestingModule({ providers: [provideRouter([])] });
    keys = TestBed.inject(Keys);
    went = [];
    pressed = [];
    vi.spyOn(TestBed.inject(Router), 'navigateByUrl').mockImplementation((url) => {
      went.push(String(url));
      return Promise.resolve(true);
    });
  });

  it('runs a letter of the page, and none while typing', () => {
    bind('f');
    press('f');
    const field = document.body.appendChild(document.createElement('input'));
    press('f', field);
    expect(pressed).toEqual(['f']);
  });

  it('g and a letter go somewhere; g and another do nothing', () => {
    press('g');
    expect(keys.waiting()).toBe(true);
    press('a');
    press('g');
    press('z');
    expect(went).toEqual(['/parts/host']);
    expect(keys.waiting()).toBe(false);
  });

  it('places of a setup are offered only inside one', () => {
    expect(keys.places().map((p) => p.key)).toEqual(['s', 't', 'o', 'c', 'a', 'n', 'w', 'v']);
    press('g');
    press('p');
    expect(went).toEqual([]);
  });

  it('letters can be switched off; undo stays', () => {
    bind('f', 'Ctrl+Z', 'Ctrl+Shift+Z');
    keys.switchLetters(true);
    press('f');
    press('g');
    expect([pressed, keys.waiting()]).toEqual([[], false]);
    press('z', document.body, { ctrlKey: true });
    press('Z', document.body, { ctrlKey: true, shiftKey: true });
    expect(pressed).toEqual(['Ctrl+Z', 'Ctrl+Shift+Z']);
    expect(localStorage.getItem('ruddy.letter-keys-off')).toBe('1');
  });

  it('keys of a page end with it', () => {
    const page = createEnvironmentInjector([], TestBed.inject(EnvironmentInjector));
    runInInjectionContext(page, () =>
      keys.bind([{ key: 'q', what: 'q', run: () => pressed.push('q') }]),
    );
    press('q');
    page.destroy();
    press('q');
    expect(pressed).toEqual(['q']);
    expect(keys.bindings().some((b) => b.key === 'q')).toBe(false);
  });
});
