import { useState } from 'react';
import { FEWEST_DECISIONS, type WeightFound } from '@rakuen/core/match/eye';
import type { Weights } from '@rakuen/core/match/schools';
import { formatNumber } from '@rakuen/core/measurement/show';
import { Button } from '../parts/button.tsx';
import { ErrorNote, Waiting } from '../parts/messages.tsx';
import type { LearnedEyeView } from '@rakuen/contract/matches';
import { useLearnedEyeQuery } from './match-api.ts';

/** How the presets, and weights fitted to one's own decisions, would have chosen; offered, and never applied unasked. */
export function LearnedEye(props: { onWeights: (weights: Weights) => void }) {
  // The fit takes a second: it is made when it is asked for.
  const [asked, setAsked] = useState(false);
  if (asked) return <Learned {...props} />;
  return (
    <p className="mt-3">
      <Button onClick={() => setAsked(true)}>How the presets would have chosen</Button>
    </p>
  );
}

function Learned({ onWeights }: { onWeights: (weights: Weights) => void }) {
  const { data, error } = useLearnedEyeQuery();
  if (error) return <ErrorNote error={error} />;
  if (!data) return <Waiting what="Looking through what was decided" />;
  const { decisions, chance, own, leftOut } = data;
  return (
    <section aria-label="Your eye" className="mt-4 border-t border-line pt-3">
      <h3>Your eye</h3>
      <p className="max-w-[84ch] text-[13px] text-quiet">
        {decisions === 0
          ? 'No paper was chosen among several yet.'
          : `${decisions} ${decisions === 1 ? 'decision' : 'decisions'}, each with the costs of the sheets as they were weighed then. Chosen by lot, ${whole(chance)} would agree.`}
        {leftOut > 0 &&
          ` ${leftOut} left out: no costs were saved with them, and they were not matched again yet or can’t be.`}
      </p>
      {decisions >= FEWEST_DECISIONS && <Agreements eye={data} />}
      {own ? (
        <>
          <Found weights={own.otherwise} />
          {own.unsure.length > 0 && (
            <p className="mt-1 max-w-[84ch] text-[13px] text-quiet">
              Not distinguishable from the default by these decisions:{' '}
              {own.unsure.map((w) => `${w.name.toLowerCase()} (${interval(w)})`).join(', ')}.
            </p>
          )}
          <p className="max-w-[84ch] text-[13px] text-quiet">
            Fitted to {own.fittedTo < decisions ? `the newest ${own.fittedTo}` : 'all'} of them. Of these decisions it
            foresees {whole(own.hits)}, each by a fit to other pictures.
          </p>
          <Button className="mt-1" onClick={() => onWeights(own.weights)}>
            Try these weights
          </Button>
        </>
      ) : (
        decisions > 0 && (
          <p className="mt-1 text-[13px] text-quiet">
            {FEWEST_DECISIONS - decisions} more decisions are needed to tell which preset chooses as you do, and how you
            weigh. ({FEWEST_DECISIONS} are the fewest that say anything: our own choice.)
          </p>
        )
      )}
    </section>
  );
}

const whole = (hits: number) => formatNumber(hits, Number.isInteger(hits) ? 0 : 1);

function Agreements({ eye: { decisions, schools, own } }: { eye: LearnedEyeView }) {
  const rows = [...schools].sort((p, q) => q.hits - p.hits);
  return (
    <table className="mt-1 text-[13px]" aria-label="Which preset would have chosen as you did">
      <thead>
        <tr className="text-left text-quiet">
          <th scope="col" className="pr-8 font-normal">
            Preset
          </th>
          <th scope="col" className="text-right font-normal">
            chose as you did
          </th>
        </tr>
      </thead>
      <tbody>
        {[...rows, ...(own ? [{ key: 'own', name: 'Fitted to your decisions', hits: own.hits }] : [])].map((s) => (
          <tr key={s.key} className="border-t border-line">
            <th
              scope="row"
              className={`pr-8 text-left font-serif ${s.key === 'own' ? 'font-semibold' : 'font-normal'}`}
            >
              {s.name}
            </th>
            <td className="text-right tabular-nums">
              {whole(s.hits)} of {s.key === 'own' ? own!.fittedTo : decisions}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Only the criteria whose interval leaves the default out: of the others nothing is known yet. */
function Found({ weights }: { weights: readonly WeightFound[] }) {
  if (weights.length === 0)
    return <p className="mt-1 font-serif">No criterion is weighed surely otherwise than by default.</p>;
  return (
    <table className="mt-3 text-[13px]" aria-label="What you weigh otherwise">
      <thead>
        <tr className="text-left text-quiet">
          <th scope="col" className="pr-8 font-normal">
            What you weigh otherwise
          </th>
          <th scope="col" className="pr-6 text-right font-normal">
            × default
          </th>
          <th scope="col" className="pr-6 text-right font-normal">
            95 % interval
          </th>
          <th scope="col" className="text-right font-normal">
            decisions that turn on it
          </th>
        </tr>
      </thead>
      <tbody>
        {weights.map((w) => (
          <tr key={w.leaning} className="border-t border-line">
            <th scope="row" className="pr-8 text-left font-serif font-normal">
              {w.name}
            </th>
            <td className="pr-6 text-right tabular-nums">{formatNumber(w.times, 1)}</td>
            <td className="pr-6 text-right tabular-nums">{interval(w)}</td>
            <td className="text-right tabular-nums">{w.decisions}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

const interval = ({ between: [low, high] }: WeightFound) => `${formatNumber(low, 1)} to ${formatNumber(high, 1)}`;
