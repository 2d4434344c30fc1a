import { lazy } from 'react';
import { createBrowserRouter, Navigate } from 'react-router';
import { Broken, Lost } from './lost.tsx';
import { Shell } from './shell.tsx';

// Each step is fetched when it is first gone to: the first screen does not wait for the others.
const PapersScreen = lazy(async () => ({ default: (await import('../papers/papers-screen.tsx')).PapersScreen }));
const PacksScreen = lazy(async () => ({ default: (await import('../papers/packs-screen.tsx')).PacksScreen }));
const ChartsScreen = lazy(async () => ({ default: (await import('../readings/charts-screen.tsx')).ChartsScreen }));
const TestPageScreen = lazy(async () => ({
  default: (await import('../readings/test-page-screen.tsx')).TestPageScreen,
}));
const SessionsScreen = lazy(async () => ({
  default: (await import('../readings/sessions-screen.tsx')).SessionsScreen,
}));
const SessionScreen = lazy(async () => ({ default: (await import('../readings/session-screen.tsx')).SessionScreen }));
const ReadingsScreen = lazy(async () => ({
  default: (await import('../readings/readings-screen.tsx')).ReadingsScreen,
}));
const CompareScreen = lazy(async () => ({ default: (await import('../compare/compare-screen.tsx')).CompareScreen }));
const EyeCodes = lazy(async () => ({ default: (await import('../compare/eye-codes.tsx')).EyeCodes }));
const PicturesScreen = lazy(async () => ({
  default: (await import('../pictures/pictures-screen.tsx')).PicturesScreen,
}));
const MatchScreen = lazy(async () => ({ default: (await import('../match/match-screen.tsx')).MatchScreen }));
const PicturesForPaper = lazy(async () => ({
  default: (await import('../match/pictures-for-paper.tsx')).PicturesForPaper,
}));
const ShowsScreen = lazy(async () => ({ default: (await import('../shows/shows-screen.tsx')).ShowsScreen }));
const ShowScreen = lazy(async () => ({ default: (await import('../shows/show-screen.tsx')).ShowScreen }));
const ProofScreen = lazy(async () => ({ default: (await import('../proof/proof-screen.tsx')).ProofScreen }));
const PrintsScreen = lazy(async () => ({ default: (await import('../prints/prints-screen.tsx')).PrintsScreen }));
const PrintScreen = lazy(async () => ({ default: (await import('../prints/print-screen.tsx')).PrintScreen }));
const RunScreen = lazy(async () => ({ default: (await import('../prints/run-screen.tsx')).RunScreen }));
const EditionsScreen = lazy(async () => ({ default: (await import('../prints/editions-screen.tsx')).EditionsScreen }));
const OrdersScreen = lazy(async () => ({ default: (await import('../clients/orders-screen.tsx')).OrdersScreen }));
const ClientsScreen = lazy(async () => ({ default: (await import('../clients/clients-screen.tsx')).ClientsScreen }));
const LayoutScreen = lazy(async () => ({ default: (await import('../prints/layout-screen.tsx')).LayoutScreen }));
const DrawerScreen = lazy(async () => ({ default: (await import('../prints/drawer-screen.tsx')).DrawerScreen }));
const lives = () => import('../ledger/life-screens.tsx');
const PaperLifeScreen = lazy(async () => ({ default: (await lives()).PaperLifeScreen }));
const PictureLifeScreen = lazy(async () => ({ default: (await lives()).PictureLifeScreen }));
const CodedPrint = lazy(async () => ({ default: (await lives()).CodedPrint }));
const LabelledPrint = lazy(async () => ({ default: (await lives()).LabelledPrint }));
const InboxScreen = lazy(async () => ({ default: (await import('../inbox/inbox-screen.tsx')).InboxScreen }));
const LedgerScreen = lazy(async () => ({ default: (await import('../ledger/ledger-screen.tsx')).LedgerScreen }));

export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broken />,
    children: [
      { index: true, element: <Navigate to="/papers" replace /> },
      { path: 'papers', element: <PapersScreen /> },
      {
        path: 'papers/packs',
        element: <PacksScreen />,
      },
      { path: 'readings', element: <ReadingsScreen place="figures" /> },
      {
        path: 'readings/charts',
        element: <ChartsScreen />,
      },
      {
        path: 'readings/test-page',
        element: <TestPageScreen />,
      },
      {
        path: 'readings/sessions',
        element: <SessionsScreen />,
      },
      {
        path: 'readings/sessions/:id',
        element: <SessionScreen />,
      },
      { path: 'readings/:conditionId', element: <ReadingsScreen place="figures" /> },
      { path: 'readings/:conditionId/history', element: <ReadingsScreen place="history" /> },
      { path: 'readings/:conditionId/profile', element: <ReadingsScreen place="profile" /> },
      { path: 'readings/:conditionId/bench', element: <ReadingsScreen place="bench" /> },
      { path: 'compare', element: <CompareScreen place="words" /> },
      { path: 'compare/gamut', element: <CompareScreen place="gamut" /> },
      { path: 'compare/neutrals', element: <CompareScreen place="neutrals" /> },
      { path: 'compare/light', element: <CompareScreen place="light" /> },
      { path: 'compare/surface', element: <CompareScreen place="surface" /> },
      { path: 'compare/setting', element: <CompareScreen place="trial" /> },
      { path: 'compare/like', element: <CompareScreen place="like" /> },
      { path: 'compare/eye', element: <CompareScreen place="eye" /> },
      {
        path: 'compare/eye/:id/codes',
        element: <EyeCodes />,
      },
      {
        path: 'pictures',
        element: <PicturesScreen />,
      },
      { path: 'match', element: <MatchScreen /> },
      { path: 'match/papers/:conditionId', element: <PicturesForPaper /> },
      { path: 'match/shows', element: <ShowsScreen /> },
      { path: 'match/shows/:id', element: <ShowScreen /> },
      { path: 'proof', element: <ProofScreen /> },
      { path: 'prints', element: <PrintsScreen /> },
      { path: 'prints/run', element: <RunScreen /> },
      { path: 'prints/editions', element: <EditionsScreen /> },
      { path: 'prints/orders', element: <OrdersScreen /> },
      { path: 'prints/clients', element: <ClientsScreen /> },
      { path: 'prints/layout', element: <LayoutScreen /> },
      { path: 'prints/drawer', element: <DrawerScreen /> },
      { path: 'prints/:printId', element: <PrintScreen /> },
      { path: 'inbox', element: <InboxScreen /> },
      { path: 'ledger', element: <LedgerScreen place="entries" /> },
      { path: 'ledger/happened', element: <LedgerScreen place="happened" /> },
      { path: 'ledger/papers/:paperId', element: <PaperLifeScreen /> },
      { path: 'ledger/pictures/:pictureId', element: <PictureLifeScreen /> },
      { path: 'p/:code', element: <CodedPrint /> },
      { path: 'ledger/prints/:printId', element: <LabelledPrint /> },
      { path: 'ledger/backups', element: <LedgerScreen place="backups" /> },
      { path: '*', element: <Lost /> },
    ],
  },
]);
