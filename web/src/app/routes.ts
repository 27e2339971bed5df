import type { CanMatchFn, Routes } from '@angular/router';
import { isKind } from './parts/kinds';

/** Addresses of the catalogue that name a kind of part. */
const aKind: CanMatchFn = (_route, segments) => isKind(segments[1]?.path);

/** Addresses keep the place: open part, filters and sort live in the query. */
export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'setups' },
  {
    path: 'setups',
    title: 'Setups',
    loadComponent: () => import('./plan/setups-page').then((m) => m.SetupsPage),
  },
  {
    path: 'setups/:id',
    loadComponent: () => import('./setup-frame/setup-frame').then((m) => m.SetupFrame),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'plan' },
      {
        path: 'plan',
        title: 'Plan',
        loadComponent: () => import('./plan/plan-page').then((m) => m.PlanPage),
      },
      {
        path: 'bring-up',
        title: 'Bring-up',
        loadComponent: () => import('./bring-up/bring-up-page').then((m) => m.BringUpPage),
      },
      {
        path: 'runs',
        title: 'Runs',
        loadComponent: () => import('./runs/runs-page').then((m) => m.RunsPage),
      },
      {
        path: 'troubleshoot',
        title: 'Troubleshoot',
        loadComponent: () =>
          import('./troubleshoot/troubleshoot-page').then((m) => m.TroubleshootPage),
      },
      {
        path: 'sheet',
        title: 'Sheet',
        loadComponent: () => import('./sheet/sheet-page').then((m) => m.SheetPage),
      },
      {
        path: 'record',
        title: 'Record',
        loadComponent: () => import('./plan/record/record-page').then((m) => m.RecordPage),
      },
    ],
  },
  {
    path: 'scout',
    title: 'Scout',
    loadComponent: () => import('./buy/scout-page').then((m) => m.ScoutPage),
  },
  { path: 'compatibility', pathMatch: 'full', redirectTo: 'compatibility/table' },
  {
    path: 'compatibility/table',
    title: 'Compatibility',
    loadComponent: () =>
      import('./compatibility/compatibility-page').then((m) => m.CompatibilityPage),
  },
  {
    path: 'compatibility/grid',
    title: 'Grid',
    loadComponent: () => import('./compatibility/grid-page').then((m) => m.GridPage),
  },
  {
    path: 'compatibility/claims',
    title: 'Claims',
    loadComponent: () => import('./compatibility/claims-page').then((m) => m.ClaimsPage),
  },
  {
    path: 'compatibility/titles',
    title: 'Titles',
    loadComponent: () => import('./compatibility/titles-page').then((m) => m.TitlesPage),
  },
  {
    path: 'compatibility/share',
    title: 'Share the log',
    loadComponent: () => import('./compatibility/share-page').then((m) => m.SharePage),
  },
  { path: 'parts', pathMatch: 'full', redirectTo: 'parts/host' },
  {
    path: 'parts/register',
    title: 'Cable register',
    loadComponent: () => import('./parts/register-page').then((m) => m.RegisterPage),
  },
  {
    path: 'parts/news',
    title: 'News',
    loadComponent: () => import('./workshop/news-page').then((m) => m.NewsPage),
  },
  {
    path: 'parts/rates',
    title: 'Exchange rates',
    loadComponent: () => import('./buy/rates-page').then((m) => m.RatesPage),
  },
  {
    path: 'parts/import',
    title: 'Import',
    loadComponent: () => import('./parts/import-page').then((m) => m.ImportPage),
  },
  {
    path: 'parts/:kind',
    title: 'Parts',
    canMatch: [aKind],
    loadComponent: () => import('./parts/parts-page').then((m) => m.PartsPage),
  },
  {
    path: 'parts/:kind/:id',
    title: 'Parts',
    canMatch: [aKind],
    loadComponent: () => import('./parts/parts-page').then((m) => m.PartsPage),
  },
  {
    path: 'parts/:kind',
    title: 'Parts',
    loadComponent: () => import('./parts/no-kind-page').then((m) => m.NoKindPage),
  },
  { path: 'compare', pathMatch: 'full', redirectTo: 'compare/plans' },
  {
    path: 'compare/plans',
    title: 'Compare plans',
    loadComponent: () => import('./runs/compare/compare-page').then((m) => m.ComparePage),
  },
  {
    path: 'compare/runs',
    title: 'Compare runs',
    loadComponent: () => import('./runs/compare/compare-runs-page').then((m) => m.CompareRunsPage),
  },
  {
    path: 'compare/sessions',
    title: 'Sessions',
    loadComponent: () => import('./runs/compare/sessions-page').then((m) => m.SessionsPage),
  },
  {
    path: 'bench',
    title: 'Benches',
    loadComponent: () => import('./bench/bench-list-page').then((m) => m.BenchListPage),
  },
  {
    path: 'bench/practice',
    title: 'Practice',
    loadComponent: () => import('./bench/practice/practice-list').then((m) => m.PracticeList),
  },
  {
    path: 'bench/practice/:id',
    title: 'Practice',
    loadComponent: () => import('./bench/practice/practice-page').then((m) => m.PracticePage),
  },
  {
    path: 'trouble',
    title: 'Fix a problem',
    loadComponent: () => import('./troubleshoot/start-page').then((m) => m.StartPage),
  },
  {
    path: 'bench/:id',
    title: 'Bench',
    loadComponent: () => import('./bench/bench-page').then((m) => m.BenchPage),
  },
  { path: 'workshop', pathMatch: 'full', redirectTo: 'workshop/loans' },
  {
    path: 'workshop/rules',
    title: 'House rules',
    loadComponent: () => import('./workshop/rules-page').then((m) => m.RulesPage),
  },
  {
    path: 'workshop/loans',
    title: 'Loans',
    loadComponent: () => import('./workshop/loans-page').then((m) => m.LoansPage),
  },
  {
    path: 'workshop/members',
    title: 'Members',
    loadComponent: () => import('./workshop/members-page').then((m) => m.MembersPage),
  },
  {
    path: 'account',
    title: 'My account',
    loadComponent: () => import('./workshop/account-page').then((m) => m.AccountPage),
  },
  {
    path: 'workshop/audit',
    title: 'Audit trail',
    loadComponent: () => import('./workshop/audit-page').then((m) => m.AuditPage),
  },
  {
    path: 'workshop/backup',
    title: 'Backup',
    loadComponent: () => import('./workshop/backup-page').then((m) => m.BackupPage),
  },
  {
    path: 'workshop/data',
    title: 'Data',
    loadComponent: () => import('./workshop/data-page').then((m) => m.DataPage),
  },
  {
    path: 'workshop/feeds',
    title: 'Feeds',
    loadComponent: () => import('./workshop/feeds-page').then((m) => m.FeedsPage),
  },
  {
    path: 'glossary',
    title: 'Glossary',
    loadComponent: () => import('./platform/glossary/glossary-page').then((m) => m.GlossaryPage),
  },
  {
    path: '**',
    title: 'Not found',
    loadComponent: () => import('./platform/shell/not-found').then((m) => m.NotFound),
  },
];
