import { createBrowserRouter, Navigate } from 'react-router';
import { Broken, Lost } from './lost.tsx';
import { Shell } from './shell.tsx';

/** Each step is fetched when it is first gone to: the first screen does not wait for the others. */
const compare =
  (place: Parameters<typeof import('../compare/compare-screen.tsx').CompareScreen>[0]['place']) => async () => {
    const { CompareScreen } = await import('../compare/compare-screen.tsx');
    return { element: <CompareScreen place={place} /> };
  };
const readings =
  (place: Parameters<typeof import('../readings/readings-screen.tsx').ReadingsScreen>[0]['place']) => async () => {
    const { ReadingsScreen } = await import('../readings/readings-screen.tsx');
    return { element: <ReadingsScreen place={place} /> };
  };
const ledger =
  (place: Parameters<typeof import('../ledger/ledger-screen.tsx').LedgerScreen>[0]['place']) => async () => {
    const { LedgerScreen } = await import('../ledger/ledger-screen.tsx');
    return { element: <LedgerScreen place={place} /> };
  };

export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broken />,
    hydrateFallbackElement: <></>,
    children: [
      { index: true, element: <Navigate to="/papers" replace /> },
      { path: 'papers', lazy: async () => ({ Component: (await import('../papers/papers-screen.tsx')).PapersScreen }) },
      {
        path: 'papers/packs',
        lazy: async () => ({ Component: (await import('../papers/packs-screen.tsx')).PacksScreen }),
      },
      { path: 'readings', lazy: readings('figures') },
      {
        path: 'readings/charts',
        lazy: async () => ({ Component: (await import('../readings/charts-screen.tsx')).ChartsScreen }),
      },
      {
        path: 'readings/test-page',
        lazy: async () => ({ Component: (await import('../readings/test-page-screen.tsx')).TestPageScreen }),
      },
      {
        path: 'readings/sessions',
        lazy: async () => ({ Component: (await import('../readings/sessions-screen.tsx')).SessionsScreen }),
      },
      {
        path: 'readings/sessions/:id',
        lazy: async () => ({ Component: (await import('../readings/session-screen.tsx')).SessionScreen }),
      },
      { path: 'readings/:conditionId', lazy: readings('figures') },
      { path: 'readings/:conditionId/history', lazy: readings('history') },
      { path: 'readings/:conditionId/profile', lazy: readings('profile') },
      { path: 'readings/:conditionId/bench', lazy: readings('bench') },
      { path: 'compare', lazy: compare('words') },
      { path: 'compare/gamut', lazy: compare('gamut') },
      { path: 'compare/neutrals', lazy: compare('neutrals') },
      { path: 'compare/light', lazy: compare('light') },
      { path: 'compare/surface', lazy: compare('surface') },
      { path: 'compare/setting', lazy: compare('trial') },
      { path: 'compare/like', lazy: compare('like') },
      { path: 'compare/eye', lazy: compare('eye') },
      {
        path: 'compare/eye/:id/codes',
        lazy: async () => ({ Component: (await import('../compare/eye-codes.tsx')).EyeCodes }),
      },
      {
        path: 'pictures',
        lazy: async () => ({ Component: (await import('../pictures/pictures-screen.tsx')).PicturesScreen }),
      },
      { path: 'match', lazy: async () => ({ Component: (await import('../match/match-screen.tsx')).MatchScreen }) },
      { path: 'prints', lazy: async () => ({ Component: (await import('../prints/prints-screen.tsx')).PrintsScreen }) },
      { path: 'ledger', lazy: ledger('entries') },
      { path: 'ledger/happened', lazy: ledger('happened') },
      { path: 'ledger/backups', lazy: ledger('backups') },
      { path: '*', element: <Lost /> },
    ],
  },
]);
