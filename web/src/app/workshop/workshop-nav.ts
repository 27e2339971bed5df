import { ChangeDetectionStrategy, Component } from '@angular/core';
import { TabNav, type Tab } from '../platform/shared/tab-nav';

const TABS: readonly Tab[] = [
  { path: '/workshop/loans', name: 'Loans' },
  { path: '/workshop/members', name: 'Members' },
  { path: '/workshop/rules', name: 'House rules' },
  { path: '/workshop/backup', name: 'Backup' },
  { path: '/workshop/data', name: 'Data' },
  { path: '/workshop/feeds', name: 'Feeds' },
  { path: '/workshop/audit', name: 'Audit trail' },
];

@Component({
  selector: 'rb-workshop-nav',
  imports: [TabNav],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<rb-tab-nav label="Workshop" [tabs]="tabs" />`,
})
export class WorkshopNav {
  readonly tabs = TABS;
}
