import { useMemo, useState } from 'react';
import { LEANINGS } from '@rakuen/core/match/leanings/registry';
import { SCHOOLS, weightsOf, type Weights } from '@rakuen/core/match/schools';
import { formatNumber } from '@rakuen/core/measurement/show';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { ErrorNote } from '../parts/messages.tsx';
import { LearnedEye } from './learned-eye.tsx';
import { useDissolveSchoolMutation, useFoundSchoolMutation, useSchoolsQuery } from './match-api.ts';

const MOST = 4;

/** The weight of each criterion: sliders, and a name to save them under. */
export function WeightsPanel({ weights, onWeights }: { weights: Weights; onWeights: (weights: Weights) => void }) {
  const [name, setName] = useState('');
  const [found, founding] = useFoundSchoolMutation();
  const [dissolve] = useDissolveSchoolMutation();
  const { data: own = [] } = useSchoolsQuery();
  const dispatch = useAppDispatch();
  const full = weightsOf(weights);
  const changed = LEANINGS.some((l) => full[l.key] !== l.weight);
  return (
    <div className="mt-2">
      <ul className="grid grid-cols-2 gap-x-8 gap-y-2 max-[1150px]:grid-cols-1">
        {LEANINGS.filter((l) => l.key !== 'whatItRestsOn').map((l) => (
          <li key={l.key}>
            <label className="grid grid-cols-[1fr_110px_34px] items-center gap-2">
              <span className="font-serif">{l.name}</span>
              <input
                type="range"
                min={0}
                max={MOST}
                step={0.1}
                value={full[l.key]}
                onChange={(e) => onWeights({ ...weights, [l.key]: Number(e.target.value) })}
                className="accent-ink"
              />
              <span className="text-right">{full[l.key] === 0 ? 'off' : `${formatNumber(full[l.key], 1)}×`}</span>
            </label>
            <p className="text-[12.5px] leading-snug text-quiet">
              {l.holds} <span className="italic">{l.disagrees}</span>
            </p>
          </li>
        ))}
      </ul>
      <form
        className="mt-3 flex flex-wrap items-center gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          void found({ name, weights: { ...full } })
            .unwrap()
            .then(
              () => {
                dispatch(said(`${name} is saved as a preset.`));
                setName('');
              },
              () => undefined,
            );
        }}
      >
        <label className="flex items-center gap-2">
          Save these weights as
          <input
            value={name}
            onChange={(e) => setName(e.target.value)}
            maxLength={60}
            required
            className="min-h-8 rounded-[3px] border border-edge bg-field px-2"
          />
        </label>
        <Button type="submit" disabled={!name.trim() || founding.isLoading}>
          Save
        </Button>
        {changed && <QuietButton onClick={() => onWeights({})}>Restore default</QuietButton>}
        {own.map((s) => (
          <QuietButton key={s.id} onClick={() => void dissolve(s.id)} aria-label={`Remove the preset ${s.name}`}>
            Remove {s.name}
          </QuietButton>
        ))}
      </form>
      <ErrorNote error={founding.error} />
      <LearnedEye onWeights={onWeights} />
    </div>
  );
}

/** Every preset there is: those that come with Rakuen and one's own. */
export function useAllSchools(): readonly { key: string; name: string; holds: string; weights: Weights }[] {
  const { data: own } = useSchoolsQuery();
  return useMemo(
    () => [
      ...SCHOOLS,
      ...(own ?? []).map((s) => ({ key: s.id, name: s.name, holds: s.holds ?? '', weights: s.weights })),
    ],
    [own],
  );
}
