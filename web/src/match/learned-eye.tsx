import { useState } from 'react';
import { FEWEST_DECISIONS, type Otherwise } from '@rakuen/core/match/eye';
import type { Weights } from '@rakuen/core/match/schools';
import { formatNumber } from '@rakuen/core/measurement/show';
import { Button } from '../parts/button.tsx';
import { ErrorNote, Waiting } from '../parts/messages.tsx';
import { useLearnedEyeQuery } from './match-api.ts';

/** How the schools, and weights fitted to one's own decisions, would have chosen; offered, and never applied unasked. */
export function LearnedEye(props: { onWeights: (weights: Weights) => void }) {
  // Every picture is matched anew for it: it is looked at when it is asked for.
  const [asked, setAsked] = useState(false);
  if (asked) return <Learned {...props} />;
  return (
    <p className="mt-3">
      <Button onClick={() => setAsked(true)}>Look how the schools would have chosen</Button>
    </p>
  );
}

function Learned({ onWeights }: { onWeights: (weights: Weights) => void }) {
  const { data, error } = useLearnedEyeQuery();
  if (error) return <ErrorNote error={error} />;
  if (!data) return <Waiting what="Looking through what was decided" />;
  const { decisions, chance, schools, own, leftOut } = data;
  const whole = (hits: number) => formatNumber(hits, Number.isInteger(hits) ? 0 : 1);
  return (
    <section aria-label="Your eye" className="mt-4 border-t border-line pt-3">
      <h3>Your eye</h3>
      <p className="max-w-[84ch] text-[13px] text-quiet">
        {decisions === 0
          ? 'Nothing was chosen yet that could be looked at again.'
          : `${decisions} ${decisions === 1 ? 'sheet was' : 'sheets were'} chosen; looked at again with the sheets and the places they hang in as they stand today. Drawn by lot ${whole(chance)} would agree.`}
        {leftOut > 0 && ` ${leftOut} left out: their sheet is not matched any more.`}
      </p>
      {decisions >= FEWEST_DECISIONS && (
        <table className="mt-1 text-[13px]" aria-label="Who would have chosen as you did">
          <thead>
            <tr className="text-left text-quiet">
              <th scope="col" className="pr-8 font-normal">
                School
              </th>
              <th scope="col" className="text-right font-normal">
                chose as you did
              </th>
            </tr>
          </thead>
          <tbody>
            {[...schools]
              .sort((p, q) => q.hits - p.hits)
              .map((s) => (
                <tr key={s.key} className="border-t border-line">
                  <th scope="row" className="pr-8 text-left font-serif font-normal">
                    {s.name}
                  </th>
                  <td className="text-right tabular-nums">
                    {whole(s.hits)} of {decisions}
                  </td>
                </tr>
              ))}
            {own && (
              <tr className="border-t border-edge">
                <th scope="row" className="pr-8 text-left font-serif font-semibold">
                  Fitted to your decisions
                </th>
                <td className="text-right tabular-nums">
                  {whole(own.hits)} of {decisions}
                </td>
              </tr>
            )}
          </tbody>
        </table>
      )}
      {own ? (
        <>
          <p className="mt-1 max-w-[84ch] font-serif">
            {own.otherwise.length === 0
              ? 'You weigh every question about as it begins.'
              : `${own.otherwise.slice(0, 4).map(inWords).join(' ')}`}
          </p>
          <p className="text-[13px] text-quiet">
            Counted on decisions the fit had not seen, a tenth of the pictures at a time.
          </p>
          <Button className="mt-1" onClick={() => onWeights(own.weights)}>
            Try these weights
          </Button>
        </>
      ) : (
        decisions > 0 && (
          <p className="mt-1 text-[13px] text-quiet">
            Of fewer than {FEWEST_DECISIONS} nothing is said: which school would have chosen as you did, and weights of
            your own, after {FEWEST_DECISIONS - decisions} more.
          </p>
        )
      )}
    </section>
  );
}

function inWords({ name, times }: Otherwise): string {
  const question = `“${name}”`;
  if (times < 0.05) return `${question} does not count for you.`;
  return times > 1
    ? `You weigh ${question} ${formatNumber(times, 1)} times as much as it begins.`
    : `You weigh ${question} ${formatNumber(times, 1)} of what it begins with.`;
}
