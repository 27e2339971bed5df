import { Injectable, signal } from '@angular/core';

export type Theme = 'light' | 'dark' | 'system';
const KEY = 'ruddy.theme';

/** Light, dark, or as the system says; kept on this machine. */
@Injectable({ providedIn: 'root' })
export class ThemeChoice {
  readonly theme = signal<Theme>('system');

  constructor() {
    const kept = localStorage.getItem(KEY);
    this.set(kept === 'light' || kept === 'dark' ? kept : 'system');
  }

  set(theme: Theme): void {
    this.theme.set(theme);
    localStorage.setItem(KEY, theme);
    if (theme === 'system') delete document.documentElement.dataset['theme'];
    else document.documentElement.dataset['theme'] = theme;
  }
}
