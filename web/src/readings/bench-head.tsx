import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import type { ConditionHead } from '@rakuen/contract/conditions';
import { ScreenHead } from '../parts/screen-head.tsx';

/** Head of a place at the bench, with the ways to the others. */
export function BenchHead({
  title,
  question,
  condition,
  children,
}: {
  title: string;
  question: string;
  condition?: ConditionHead;
  children?: ReactNode;
}) {
  return (
    <ScreenHead title={title} question={question}>
      {children}
      <nav aria-label="Around the bench" className="flex gap-2">
        <PlaceLink to="/readings/charts">Charts</PlaceLink>
        <PlaceLink to="/readings/test-page">Test page</PlaceLink>
        <PlaceLink to={condition ? `/readings/sessions?condition=${condition.id}` : '/readings/sessions'}>
          Read a chart
        </PlaceLink>
      </nav>
    </ScreenHead>
  );
}

function PlaceLink({ to, children }: { to: string; children: ReactNode }) {
  return (
    <NavLink
      end
      to={to}
      className={({ isActive }) =>
        `inline-flex min-h-8 items-center rounded-[3px] border border-edge px-3 py-1 hover:bg-field ${isActive ? 'bg-field font-semibold' : 'bg-sheet'}`
      }
    >
      {children}
    </NavLink>
  );
}
