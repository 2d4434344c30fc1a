import type { ReactNode } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import { questionOf } from '../app/steps.ts';
import { QuietButton } from '../parts/button.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { CommissionLine } from '../pictures/commission-line.tsx';
import { asksFor } from '../pictures/picture-words.ts';
import type { useSchool } from './use-ranking.ts';

/** The screen's head: the preset, and which papers are ranked. */
export function MatchHead({
  school,
  scope,
  children,
}: {
  /** Absent while no picture is in hand. */
  school?: ReturnType<typeof useSchool>;
  /** Absent where there is nothing to choose. */
  scope?: { readonly all: boolean; readonly onAll: (all: boolean) => void };
  children: ReactNode;
}) {
  return (
    <ScreenHead title="Match" question={questionOf('/match')}>
      {school && <PresetChoice school={school} />}
      {scope && (
        <div role="radiogroup" aria-label="Papers to rank" className="flex gap-4">
          {(
            [
              ['On the table', false],
              ['All measured', true],
            ] as const
          ).map(([label, value]) => (
            <label key={label} className="flex items-center gap-1.5">
              <input
                type="radio"
                name="scope"
                className="accent-ink"
                checked={scope.all === value}
                onChange={() => scope.onAll(value)}
              />
              {label}
            </label>
          ))}
        </div>
      )}
      {children}
    </ScreenHead>
  );
}

/** The preset by which is weighed. */
export function PresetChoice({ school }: { school: ReturnType<typeof useSchool> }) {
  return (
    <label className="flex items-center gap-2">
      <span className="text-quiet">Preset</span>
      <select
        value={school.weighedBy}
        onChange={(e) => school.choose(e.target.value)}
        className="min-h-8 rounded-[3px] border border-edge bg-field px-2"
      >
        {school.schools.map((s) => (
          <option key={s.key} value={s.key}>
            {s.name}
          </option>
        ))}
        {school.weighedBy === 'own' && <option value="own">Your weights</option>}
      </select>
    </label>
  );
}

/** The selected picture: what it asks for, and where it will hang. */
export function PictureHead({ picture, onTurn }: { picture: PictureView; onTurn?: (by: 1 | -1) => void }) {
  return (
    <div className="mb-2">
      <div className="flex items-baseline justify-between gap-4">
        <h2 className="text-[1.35rem] leading-tight break-words">{picture.title}</h2>
        {onTurn && (
          <p className="whitespace-nowrap">
            <QuietButton onClick={() => onTurn(-1)}>Previous picture</QuietButton>
            <QuietButton onClick={() => onTurn(1)}>Next picture</QuietButton>
          </p>
        )}
      </div>
      <p className="max-w-[90ch] font-serif">{asksFor(picture)}</p>
      <CommissionLine picture={picture} />
    </div>
  );
}
