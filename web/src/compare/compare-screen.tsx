import { skipToken } from '@reduxjs/toolkit/query/react';
import { lazy, Suspense, useMemo, useRef, type ComponentType, type ReactNode } from 'react';
import { NavLink, useNavigate } from 'react-router';
import { DEFAULT_THRESHOLDS } from '@rakuen/core/measurement/thresholds';
import { useSettingsQuery, useWholeConditionsQuery } from '../api/api.ts';
import { questionOf } from '../app/steps.ts';
import { Button } from '../parts/button.tsx';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { useTable } from '../table/use-table.ts';
import { EyePlace } from './eye-place.tsx';
import { LightBar } from './light-bar.tsx';
import { LightPlace } from './light-place.tsx';
import { LikePlace } from './like-place.tsx';
import { NeutralsPlace } from './neutrals-place.tsx';
import { SurfacePlace } from './surface-place.tsx';
import { TrialPlace } from './trial-place.tsx';
import { useLitTable } from './use-light.ts';
import type { CompareProps } from './compare-props.ts';
import { WordsPlace } from './words-place.tsx';

// The solids bring a drawing library of their own: it is fetched when they are looked at.
const GamutPlace = lazy(() => import('./gamut-place.tsx').then((m) => ({ default: m.GamutPlace })));

const PLACES: Record<string, { path: string; name: string; Place: ComponentType<CompareProps>; lit: boolean }> = {
  words: { path: '', name: 'In words', Place: WordsPlace, lit: true },
  gamut: { path: '/gamut', name: 'Gamut', Place: GamutPlace, lit: true },
  neutrals: { path: '/neutrals', name: 'Neutrals', Place: NeutralsPlace, lit: true },
  light: { path: '/light', name: 'Light and screen', Place: LightPlace, lit: true },
  surface: { path: '/surface', name: 'Surface and body', Place: SurfacePlace, lit: false },
  trial: { path: '/setting', name: 'Media setting', Place: TrialPlace, lit: false },
  like: { path: '/like', name: 'Find a like', Place: LikePlace, lit: false },
  eye: { path: '/eye', name: 'By eye', Place: EyePlace, lit: false },
};
export type ComparePlace = 'words' | 'gamut' | 'neutrals' | 'light' | 'surface' | 'trial' | 'like' | 'eye';

/** Papers judged side by side, in one light. */
export function CompareScreen({ place }: { place: ComparePlace }) {
  const table = useTable();
  const navigate = useNavigate();
  const ids = table.laid.map((c) => c.id);
  const { data, isFetching, error } = useWholeConditionsQuery(ids.length > 0 ? ids : skipToken);
  const lying = ids.join();
  const whole = useMemo(() => lying.split(',').flatMap((id) => data?.find((c) => c.id === id) ?? []), [lying, data]);
  // What is being fetched anew stays in sight; what was never fetched is waited for.
  const isLoading = table.coming || (isFetching && whole.length < ids.length);
  const { data: settings } = useSettingsQuery();
  const lit = useLitTable(whole, place === 'gamut');
  const { Place, lit: underLight } = PLACES[place];
  const [left, right] = [table.left, table.right].map((hand) => lit.conditions.find((c) => c.id === hand?.id));

  return (
    <>
      <ScreenHead title="Compare" question={questionOf('/compare')}>
        {left && right && (
          <>
            {underLight && <LightBar />}
            <Button onClick={table.swapHands} title="x">
              Swap hands
            </Button>
          </>
        )}
      </ScreenHead>
      <ErrorNote error={error} />
      {isLoading && <Waiting what="Laying the papers out" />}
      {!isLoading && lit.conditions.length < 2 && (
        <Empty
          title={lit.conditions.length === 0 ? 'The table is bare' : 'One paper can’t be compared'}
          action={<Button onClick={() => void navigate('/papers')}>To the papers</Button>}
        >
          Lay two to six print conditions on the table: drag them over from the papers, or press t on one. Two of them
          are in your hands.
        </Empty>
      )}
      {left && right && (
        <>
          <nav aria-label="Ways to compare" className="mb-5 flex flex-wrap gap-x-5 border-b border-line">
            {Object.values(PLACES).map(({ path, name }) => (
              <NavLink
                key={path}
                end
                to={`/compare${path}`}
                className={({ isActive }) =>
                  `-mb-px min-h-8 border-b-2 py-1 ${isActive ? 'border-ink font-semibold' : 'border-transparent hover:border-edge'}`
                }
              >
                {name}
              </NavLink>
            ))}
          </nav>
          <Veiled waiting={!lit.settled} of={[place, left.id, right.id, ...lit.conditions.map((c) => c.id)].join()}>
            <Suspense fallback={<Waiting what="Fetching the solids" />}>
              <Place
                laid={lit.conditions}
                left={left}
                right={right}
                lit={lit}
                thresholds={settings?.thresholds ?? DEFAULT_THRESHOLDS}
              />
            </Suspense>
          </Veiled>
        </>
      )}
    </>
  );
}

/**
 * While another light is computed what stood under the last one is neither shown under the new one's name nor drawn
 * anew: it is veiled, and the figures come in its place at once.
 */
function Veiled({ waiting, of, children }: { waiting: boolean; of: string; children: ReactNode }) {
  const last = useRef<{ of: string; settled?: ReactNode }>({ of });
  if (last.current.of !== of) last.current = { of };
  if (!waiting) last.current.settled = children;
  const veiled = waiting && last.current.settled !== undefined;
  return (
    <div className="relative" aria-busy={waiting}>
      {veiled && (
        <div className="appears-late absolute inset-x-0 top-0">
          <Waiting what="Carrying the papers into this light" />
        </div>
      )}
      {/* Out of sight for the eye and the ear; hidden otherwise, the whole of it would be styled anew, twice. */}
      <div aria-hidden={veiled} className={`will-change-[opacity] ${veiled ? 'opacity-0' : ''}`}>
        {veiled ? last.current.settled : children}
      </div>
    </div>
  );
}
