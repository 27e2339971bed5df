import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TabNav, type Tab } from '../platform/shared/tab-nav';

const TABS: readonly Tab[] = [
  { path: '/compatibility/table', name: 'Chains' },
  { path: '/compatibility/grid', name: 'Grid' },
  { path: '/compatibility/claims', name: 'Claims' },
  { path: '/compatibility/titles', name: 'Titles' },
  { path: '/compatibility/share', name: 'Share' },
];

@Component({
  selector: 'rb-compat-nav',
  imports: [TabNav],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<rb-tab-nav label="Compatibility" [tabs]="tabs" />`,
})
export class CompatNav {
  readonly tabs = TABS;
}
