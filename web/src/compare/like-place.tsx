import { useState } from 'react';
import { Slider } from 'radix-ui';
import {
  EVEN_WEIGHTS,
  findLikes,
  profileDonors,
  TRAITS,
  type Likeness,
  type Weights,
} from '@rakuen/core/likeness/likeness';
import { formatNumber } from '@rakuen/core/measurement/show';
import type { ConditionHead } from '@rakuen/contract/conditions';
import { useConditionsQuery, useLikesQuery } from '../api/api.ts';
import { QuietButton } from '../parts/button.tsx';
import { placeAmong } from '../parts/place.ts';
import { conditionLine } from '../parts/label.ts';
import { ErrorNote, Waiting } from '../parts/messages.tsx';
import { Strip } from '../parts/strip.tsx';
import { useTable } from '../table/use-table.ts';
import type { CompareProps } from './compare-props.ts';

const MOST_SHOWN = 6;

/** What to take in place of the sheet in the left hand, and what will change. */
export function LikePlace({ left }: CompareProps) {
  const { data: conditions = [] } = useConditionsQuery();
  const { data: sheets, error } = useLikesQuery(left.id);
  const [weights, setWeights] = useState<Weights>(EVEN_WEIGHTS);
  if (error) return <ErrorNote error={error} />;
  if (!sheets) return <Waiting what="Looking through the papers" />;
  const { missed, candidates } = sheets;
  const likes = findLikes(missed, candidates, weights).filter((l) => Number.isFinite(l.distance));
  const donors =
    left.paper.coating === 'uncoated' && left.profile === '' ? profileDonors(missed, candidates) : undefined;
  return (
    <div className="space-y-8">
      {donors && (
        <section aria-label="A profile to begin with">
          <h3 className="text-[1.1rem]">A profile to begin with</h3>
          <p className="mb-2 max-w-[80ch] text-[13px] text-quiet">
            {left.paper.name} is printed without a profile. Coated matt papers that have one, the nearest white first
            (practice): it is a start, and black and gamut will be less on the uncoated sheet.
          </p>
          <LikeList likes={donors.slice(0, MOST_SHOWN)} conditions={conditions} withProfile />
          {donors.length === 0 && <p>No coated matt condition with a profile was measured yet.</p>}
        </section>
      )}
      <section aria-label="Nearest overall">
        <h3 className="text-[1.1rem]">In place of {left.paper.name}</h3>
        <p className="mb-2 max-w-[80ch] text-[13px] text-quiet">
          Out of stock, or no longer what it was: the nearest first, by the traits below, each counted in steps an eye
          or a hand would notice (our own). What was not measured counts as much as the widest of the others. Changes
          are given from the sheet in the left hand.
        </p>
        <fieldset className="mb-4 grid grid-cols-4 gap-x-6 gap-y-2 max-[1150px]:grid-cols-3">
          <legend className="mb-1">What counts</legend>
          {TRAITS.map(({ key: t, trait }) => (
            <div key={t}>
              <div className="flex justify-between text-[13px]">
                <span id={`weight-${t}`}>{trait.name}</span>
                <span className="text-quiet">
                  {weights[t] === 0 ? 'not counted' : `× ${formatNumber(weights[t], 1)}`}, step{' '}
                  {formatNumber(trait.one, stepDigits(trait.one))} {trait.unit}
                </span>
              </div>
              <Slider.Root
                className="relative flex h-6 touch-none items-center"
                min={0}
                max={3}
                step={0.5}
                value={[weights[t]]}
                onValueChange={([v]) => setWeights({ ...weights, [t]: v })}
              >
                <Slider.Track className="relative h-1 w-full bg-line">
                  <Slider.Range className="absolute h-full bg-ink" />
                </Slider.Track>
                <Slider.Thumb
                  aria-labelledby={`weight-${t}`}
                  className="block size-5 rounded-full border-2 border-ink bg-field"
                />
              </Slider.Root>
            </div>
          ))}
        </fieldset>
        <LikeList likes={likes.slice(0, MOST_SHOWN)} conditions={conditions} />
        {likes.length === 0 && <p>No other paper was measured yet, or nothing counts.</p>}
      </section>
    </div>
  );
}

function LikeList({
  likes,
  conditions,
  withProfile = false,
}: {
  likes: Likeness[];
  conditions: ConditionHead[];
  withProfile?: boolean;
}) {
  const table = useTable();
  return (
    <ol className="border-t border-edge">
      {likes.map((like) => {
        const c = conditions.find((o) => o.id === like.id);
        if (!c) return null;
        return (
          <li key={like.id} className="grid grid-cols-[auto_1fr_auto] items-center gap-x-5 border-b border-line py-2">
            <Strip paper={c.paper} facts={c.facts} size="small" />
            <div className="min-w-0">
              <p>
                {placeAmong(
                  like.distance,
                  likes.map((other) => other.distance),
                )}
                . <span className="font-serif text-[1.05rem]">{c.paper.name}</span>{' '}
                <span className="text-quiet">{conditionLine(c)}</span>
                {withProfile && <span className="block text-[13px]">{c.profile}</span>}
              </p>
              <p className="text-[13px] text-quiet">
                {formatNumber(like.distance, 1)} steps away, the mean of what counts
              </p>
              <p className="text-[13px]">
                {changesOf(like)}
                {like.otherPress && ` Printed otherwise: ${like.otherPress}.`}
              </p>
            </div>
            <QuietButton
              aria-label={table.has(c.id) ? `Put ${c.paper.name} back` : `Lay ${c.paper.name} on the table`}
              onClick={() => table.togglePaper(c.id, c.paper.name)}
            >
              {table.has(c.id) ? 'Put back' : 'Lay out'}
            </QuietButton>
          </li>
        );
      })}
    </ol>
  );
}

const stepDigits = (one: number) => (one < 0.1 ? 2 : one < 1 ? 1 : 0);

/** "White 1.2 ΔE00 apart, black −0.05 D, gamut −3 %." */
function changesOf({ changes }: Likeness): string {
  const said = changes.flatMap(({ trait, change, steps, estimated }) => {
    if (change === undefined) return [];
    const { name, unit, digits, unsigned } = trait;
    const amount = `${estimated ? '≈ ' : ''}${formatNumber(change, digits)} ${unit}${estimated ? ' (estimated)' : ''}`;
    return [
      unsigned
        ? `${name.toLowerCase()} ${amount} apart (${inSteps(steps)})`
        : `${name.toLowerCase()} ${change > 0 && /[1-9]/.test(amount) ? '+' : ''}${amount} (${inSteps(steps)})`,
    ];
  });
  const unknown = changes
    .filter((c) => c.change === undefined)
    .map((c) => `${c.trait.name.toLowerCase()} (taken as ${inSteps(c.steps)})`);
  return `${said.join(', ')}${unknown.length > 0 ? `; not measured: ${unknown.join(', ')}` : ''}.`;
}

const inSteps = (steps: number) => `${formatNumber(steps, 1)} ${formatNumber(steps, 1) === '1.0' ? 'step' : 'steps'}`;
