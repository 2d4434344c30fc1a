import { createBrowserRouter, Navigate } from 'react-router';
import { CompareScreen } from '../compare/compare-screen.tsx';
import { LedgerScreen } from '../ledger/ledger-screen.tsx';
import { MatchScreen } from '../match/match-screen.tsx';
import { PapersScreen } from '../papers/papers-screen.tsx';
import { PicturesScreen } from '../pictures/pictures-screen.tsx';
import { PrintsScreen } from '../prints/prints-screen.tsx';
import { ReadingsScreen } from '../readings/readings-screen.tsx';
import { Broken, Lost } from './lost.tsx';
import { Shell } from './shell.tsx';

export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broken />,
    children: [
      { index: true, element: <Navigate to="/papers" replace /> },
      { path: 'papers', element: <PapersScreen /> },
      { path: 'readings', element: <ReadingsScreen /> },
      { path: 'readings/:conditionId', element: <ReadingsScreen /> },
      { path: 'compare', element: <CompareScreen /> },
      { path: 'pictures', element: <PicturesScreen /> },
      { path: 'match', element: <MatchScreen /> },
      { path: 'prints', element: <PrintsScreen /> },
      { path: 'ledger', element: <LedgerScreen /> },
      { path: '*', element: <Lost /> },
    ],
  },
]);
