import type { Routes, UrlMatchResult, UrlSegment } from '@angular/router';
import { askBeforeLeaving } from './ask-before-leaving';
import { ProfileList } from './features/profiles/profile-list';

/** The site with or without a page that is open: one view, whose list stays as it is. */
function site(segments: UrlSegment[]): UrlMatchResult | null {
  const [first, id] = segments;
  if (first?.path !== 'site' || segments.length > 2) return null;
  return { consumed: segments, posParams: id === undefined ? {} : { id } };
}

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'profiles' },
  { path: 'profiles', component: ProfileList, title: 'Profiles · Typikon' },
  {
    path: 'profiles/:id/release',
    loadComponent: () => import('./features/release/release-page').then((m) => m.ReleasePage),
    title: 'Release · Typikon',
  },
  {
    path: 'profiles/:id/fit',
    loadComponent: () => import('./features/fit/fit-page').then((m) => m.FitPage),
    title: 'Fit · Typikon',
  },
  { path: 'profiles/:id', loadChildren: () => import('./workshop.routes').then((m) => m.workshopRoutes) },
  {
    path: 'types',
    loadComponent: () => import('./features/types/content-types').then((m) => m.ContentTypes),
    title: 'Content types · Typikon',
  },
  ...['types/:type', 'types/:type/:field'].map((path) => ({
    path,
    loadComponent: () => import('./features/types/type-page').then((m) => m.TypePage),
    title: 'Content type · Typikon',
  })),
  {
    path: 'writing',
    loadComponent: () => import('./features/assignments/assignments-page').then((m) => m.AssignmentsPage),
    title: 'Who writes with what · Typikon',
  },
  {
    path: 'writing/people',
    loadComponent: () => import('./features/people/people-page').then((m) => m.PeoplePage),
    title: 'Roles and people · Typikon',
  },
  {
    path: 'writing/release',
    loadComponent: () => import('./features/release/shared-release-page').then((m) => m.SharedReleasePage),
    data: { part: 'site' },
    title: 'Release of what is written · Typikon',
  },
  {
    path: 'compare',
    loadComponent: () => import('./features/compare/compare-page').then((m) => m.ComparePage),
    title: 'Two profiles · Typikon',
  },
  {
    path: 'house-limits',
    loadComponent: () => import('./features/house/house-limits').then((m) => m.HouseLimitsPage),
    canDeactivate: [askBeforeLeaving],
    title: 'House limits · Typikon',
  },
  {
    path: 'house-limits/release',
    loadComponent: () => import('./features/release/shared-release-page').then((m) => m.SharedReleasePage),
    data: { part: 'house-limits' },
    title: 'Release of house limits · Typikon',
  },
  {
    path: 'specimens',
    loadComponent: () => import('./features/specimens/specimens-page').then((m) => m.SpecimensPage),
    title: 'Specimens · Typikon',
  },
  {
    path: 'specimens/:id',
    loadComponent: () => import('./features/specimens/specimens-page').then((m) => m.SpecimensPage),
    title: 'Specimens · Typikon',
  },
  ...['styles', 'styles/sheet/:sheet', 'styles/kind/:kind'].map((path) => ({
    path,
    loadComponent: () => import('./features/style-files/style-files-page').then((m) => m.StyleFilesPage),
    title: 'Styles · Typikon',
  })),
  {
    path: 'styles/release',
    loadComponent: () => import('./features/release/shared-release-page').then((m) => m.SharedReleasePage),
    data: { part: 'pages' },
    title: 'Release of styles · Typikon',
  },
  {
    path: 'styles/likeness',
    loadComponent: () => import('./features/likeness/likeness-page').then((m) => m.LikenessPage),
    title: 'Likeness · Typikon',
  },
  {
    path: 'styles/likeness/:profile/:kind',
    loadComponent: () => import('./features/likeness/likeness-page').then((m) => m.LikenessPage),
    title: 'Likeness · Typikon',
  },
  {
    path: 'write',
    loadComponent: () => import('./features/desk/documents-page').then((m) => m.DocumentsPage),
    title: 'Documents · Typikon',
  },
  {
    path: 'write/:id',
    loadComponent: () => import('./features/desk/desk').then((m) => m.Desk),
    title: 'Write · Typikon',
  },
  {
    path: 'write/:id/versions',
    loadComponent: () => import('./features/past/versions-page').then((m) => m.VersionsPage),
    title: 'Versions of a document · Typikon',
  },
  {
    path: 'where',
    loadComponent: () => import('./features/past/where-page').then((m) => m.WherePage),
    title: 'Where did it go? · Typikon',
  },
  { path: 'keys', loadComponent: () => import('./features/finder/keys-page').then((m) => m.KeysPage), title: 'All keys · Typikon' },
  { matcher: site, loadComponent: () => import('./features/site/site').then((m) => m.Site), title: 'Site · Typikon' },
  { path: '**', redirectTo: 'profiles' },
];
