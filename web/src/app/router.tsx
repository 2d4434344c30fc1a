import { createBrowserRouter, Navigate } from 'react-router';
import { EyeCodes } from '../compare/eye-codes.tsx';
import { CompareScreen } from '../compare/compare-screen.tsx';
import { LedgerScreen } from '../ledger/ledger-screen.tsx';
import { MatchScreen } from '../match/match-screen.tsx';
import { PacksScreen } from '../papers/packs-screen.tsx';
import { PapersScreen } from '../papers/papers-screen.tsx';
import { PicturesScreen } from '../pictures/pictures-screen.tsx';
import { PrintsScreen } from '../prints/prints-screen.tsx';
import { ChartsScreen } from '../readings/charts-screen.tsx';
import { ReadingsScreen } from '../readings/readings-screen.tsx';
import { SessionScreen } from '../readings/session-screen.tsx';
import { SessionsScreen } from '../readings/sessions-screen.tsx';
import { TestPageScreen } from '../readings/test-page-screen.tsx';
import { Broken, Lost } from './lost.tsx';
import { Shell } from './shell.tsx';

export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broken />,
    children: [
      { index: true, element: <Navigate to="/papers" replace /> },
      { path: 'papers', element: <PapersScreen /> },
      { path: 'papers/packs', element: <PacksScreen /> },
      { path: 'readings', element: <ReadingsScreen place="figures" /> },
      { path: 'readings/charts', element: <ChartsScreen /> },
      { path: 'readings/test-page', element: <TestPageScreen /> },
      { path: 'readings/sessions', element: <SessionsScreen /> },
      { path: 'readings/sessions/:id', element: <SessionScreen /> },
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
      { path: 'compare/eye/:id/codes', element: <EyeCodes /> },
      { path: 'pictures', element: <PicturesScreen /> },
      { path: 'match', element: <MatchScreen /> },
      { path: 'prints', element: <PrintsScreen /> },
      { path: 'ledger', element: <LedgerScreen place="entries" /> },
      { path: 'ledger/happened', element: <LedgerScreen place="happened" /> },
      { path: 'ledger/backups', element: <LedgerScreen place="backups" /> },
      { path: '*', element: <Lost /> },
    ],
  },
]);
