import { createBrowserRouter } from 'react-router'
import { Shell } from './shell/Shell'
import { Lost } from './shell/Lost'

/** Every station is a chunk of its own, loaded when it is first opened. */
export const router = createBrowserRouter([
  {
    path: '/',
    Component: Shell,
    ErrorBoundary: Lost,
    HydrateFallback: () => null,
    children: [
      { index: true, lazy: async () => ({ Component: (await import('./desk/Desk')).Desk }) },
      {
        path: 'pipelines',
        lazy: async () => ({ Component: (await import('./pipelines/Pipelines')).Pipelines }),
      },
      {
        path: 'pipelines/new',
        lazy: async () => ({ Component: (await import('./pipelines/NewPipeline')).NewPipeline }),
      },
      { path: 'pipelines/:id', lazy: async () => ({ Component: (await import('./pipelines/Bench')).Bench }) },
      { path: 'intake', lazy: async () => ({ Component: (await import('./intake/Intake')).Intake }) },
      {
        path: 'intake/sources',
        lazy: async () => ({ Component: (await import('./intake/Sources')).Sources }),
      },
      { path: 'intake/:id', lazy: async () => ({ Component: (await import('./intake/Reader')).Reader }) },
      { path: 'writing', lazy: async () => ({ Component: (await import('./writing/Writing')).Writing }) },
      {
        path: 'writing/house',
        lazy: async () => ({ Component: (await import('./writing/HouseStyle')).HouseStyleScreen }),
      },
      {
        path: 'writing/briefs',
        lazy: async () => ({ Component: (await import('./writing/Briefs')).Briefs }),
      },
      {
        path: 'writing/look',
        lazy: async () => ({ Component: (await import('./writing/LookScreen')).LookScreen }),
      },
      {
        path: 'writing/pictures',
        lazy: async () => ({ Component: (await import('./writing/library/LibraryScreen')).LibraryScreen }),
      },
      {
        path: 'writing/shelf',
        lazy: async () => ({ Component: (await import('./writing/ShelfScreen')).ShelfScreen }),
      },
      {
        path: 'writing/occasions',
        lazy: async () => ({
          Component: (await import('./writing/occasions/OccasionsScreen')).OccasionsScreen,
        }),
      },
      {
        path: 'writing/piece/:id',
        lazy: async () => ({ Component: (await import('./writing/Series')).Series }),
      },
      {
        path: 'writing/:id',
        lazy: async () => ({ Component: (await import('./writing/DripSheet')).DripSheet }),
      },
      { path: 'horizon', lazy: async () => ({ Component: (await import('./horizon/Horizon')).Horizon }) },
      {
        path: 'horizon/write',
        lazy: async () => ({ Component: (await import('./horizon/hand/ByHand')).ByHand }),
      },
      {
        path: 'horizon/rehearsal',
        lazy: async () => ({ Component: (await import('./rehearsal/RehearsalScreen')).RehearsalScreen }),
      },
      { path: 'dispatch', lazy: async () => ({ Component: (await import('./dispatch/Ledger')).Ledger }) },
      {
        path: 'dispatch/accounts',
        lazy: async () => ({ Component: (await import('./dispatch/Accounts')).Accounts }),
      },
      {
        path: 'results',
        lazy: async () => ({ Component: (await import('./results/ResultsScreen')).ResultsScreen }),
      },
      {
        path: 'results/report',
        lazy: async () => ({ Component: (await import('./results/ReportScreen')).ReportScreen }),
      },
      { path: 'settings', lazy: async () => ({ Component: (await import('./settings/Brands')).Brands }) },
      {
        path: 'settings/services',
        lazy: async () => ({ Component: (await import('./settings/Services')).Services }),
      },
      {
        path: 'settings/notices',
        lazy: async () => ({ Component: (await import('./settings/NoticesScreen')).NoticesScreen }),
      },
      {
        path: 'settings/bundle',
        lazy: async () => ({ Component: (await import('./settings/WorkspaceScreen')).WorkspaceScreen }),
      },
      { path: 'settings/look', lazy: async () => ({ Component: (await import('./settings/Look')).Look }) },
      { path: '*', Component: Lost },
    ],
  },
])
