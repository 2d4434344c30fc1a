import { skipToken } from '@reduxjs/toolkit/query/react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { TrialView } from '@rakuen/contract/trials';
import { MEASURES } from '@rakuen/core/measurement/measures/registry';
import { comparableFigures } from '@rakuen/core/measurement/basis';
import { rankTrial, TRIAL_CRITERIA, type TrialRank } from '@rakuen/core/measurement/trial';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useConditionsQuery, useWholeConditionsQuery } from '../api/api.ts';
import { useRemoveTrialMutation, useStampTrialMutation, useTrialsQuery } from './judging-api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { Dialog } from '../parts/dialog.tsx';
import { Measured } from '../parts/figure.tsx';
import { AreaField, TextField } from '../parts/form.tsx';
import { placeAmong } from '../parts/place.ts';
import { day } from '../parts/label.ts';
import { ErrorNote } from '../parts/messages.tsx';
import { useRemembered } from '../parts/remembered.ts';
import { Seal } from '../parts/seal.tsx';
import { Strip } from '../parts/strip.tsx';
import type { CompareProps } from './compare-props.ts';

const MEASURE = new Map(MEASURES.map((m) => [m.key, m]));

/** Media settings of the paper in the left hand, in its printer: ranked by what was measured, chosen by who looked. */
export function TrialPlace({ left }: CompareProps) {
  const { data: conditions = [] } = useConditionsQuery();
  const settings = conditions.filter(
    (c) => c.paperId === left.paperId && c.printer === left.printer && c.printMode === left.printMode,
  );
  const { data: tried = [], error } = useWholeConditionsQuery(
    settings.length > 0 ? settings.map((c) => c.id) : skipToken,
  );
  const { data: trials = [] } = useTrialsQuery();
  const [stamping, setStamping] = useState<ConditionView>();
  const stamps = trials.filter((t) => t.paperId === left.paperId && t.printer === left.printer);
  const [standing, ...before] = stamps;
  return (
    <div className="space-y-6">
      <ErrorNote error={error} />
      <section aria-label="Settings tried">
        <h3 className="text-[1.1rem]">
          {left.paper.name} in {left.printer}
        </h3>
        <p className="mb-2 max-w-[80ch] text-[13px] text-quiet">
          Places are given for each measure, what lies within the noise sharing one; the mean of the places puts the
          settings in order. The rings of the test page are judged at the bench. The choice is yours.
        </p>
        {tried.length < 2 ? (
          <p>
            Only one media setting of this paper was entered. Add another print condition on{' '}
            <Link className="underline underline-offset-3" to="/papers">
              the papers
            </Link>
            , print{' '}
            <Link className="underline underline-offset-3" to="/readings/test-page">
              the test page
            </Link>{' '}
            and a chart under it, read the chart, and come back.
          </p>
        ) : (
          <Ranked tried={tried} onChoose={setStamping} />
        )}
      </section>
      {standing && <Standing trial={standing} name={left.paper.name} />}
      {before.length > 0 && (
        <section aria-label="Before that">
          <h3 className="text-[1.1rem]">Before that</h3>
          <ul>
            {before.map((t) => (
              <li key={t.id}>
                {day(t.stampedAt)}: {t.mediaSetting}. <span className="font-serif">{t.reason}</span>{' '}
                <span className="text-quiet">{t.by}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
      {stamping && <StampDialog condition={stamping} onClose={() => setStamping(undefined)} />}
    </div>
  );
}

/** Settings in the order of what was measured. */
function Ranked({ tried, onChoose }: { tried: ConditionView[]; onChoose: (chosen: ConditionView) => void }) {
  // Read wet against dried, or in another light: by that no setting is put before another.
  const alike = comparableFigures(tried);
  const ranks = rankTrial(tried.map((c, i) => ({ id: c.id, figures: alike[i] })));
  return (
    <div className="scroll-quiet overflow-x-auto" tabIndex={0} role="region" aria-label="Settings, ranked">
      <table className="w-full border-t border-edge">
        <thead>
          <tr className="text-left text-[13px] text-quiet">
            <th scope="col" className="py-1 pr-4 font-normal">
              Media setting
            </th>
            {TRIAL_CRITERIA.map(({ key }) => (
              <th key={key} scope="col" className="py-1 pr-4 font-normal" title={MEASURE.get(key)!.definition}>
                {MEASURE.get(key)!.name}
              </th>
            ))}
            <th scope="col" className="py-1 pr-4 font-normal">
              Mean place
            </th>
            <th scope="col" className="sr-only">
              Choose
            </th>
          </tr>
        </thead>
        <tbody>
          {ranks.map((r) => (
            <TriedRow
              key={r.conditionId}
              rank={r}
              place={placeAmong(
                r.mean,
                ranks.map((other) => other.mean),
              )}
              condition={tried.find((t) => t.id === r.conditionId)!}
              onChoose={onChoose}
            />
          ))}
        </tbody>
      </table>
    </div>
  );
}

function TriedRow({
  rank: r,
  place,
  condition: c,
  onChoose,
}: {
  rank: TrialRank;
  place: number;
  condition: ConditionView;
  onChoose: (chosen: ConditionView) => void;
}) {
  return (
    <tr className="border-t border-line align-middle">
      <th scope="row" className="py-2 pr-4 text-left font-normal">
        {Number.isFinite(r.mean) && `${place}. `}
        <span className="font-semibold">{c.mediaSetting}</span>
        <span className="block text-[12.5px] text-quiet">
          {c.resolution}
          {c.blackOvercoat && ', black overcoat'}
        </span>
        <Strip paper={c.paper} facts={c.facts} size="small" />
      </th>
      {TRIAL_CRITERIA.map(({ key }) => (
        <td key={key} className="py-2 pr-4 whitespace-nowrap">
          <Measured measure={MEASURE.get(key)!} condition={c} />
          {r.places[key] !== undefined && <span className="block text-[12.5px] text-quiet">place {r.places[key]}</span>}
        </td>
      ))}
      <td className="py-2 pr-4">{Number.isFinite(r.mean) ? formatNumber(r.mean, 1) : '—'}</td>
      <td className="py-2 text-right">
        <Button onClick={() => onChoose(c)} aria-label={`Choose ${c.mediaSetting}`}>
          Choose
        </Button>
      </td>
    </tr>
  );
}

/** The setting that was chosen last, and why. */
function Standing({ trial, name }: { trial: TrialView; name: string }) {
  const [remove, { error }] = useRemoveTrialMutation();
  return (
    <section aria-label="Standing recommendation" className="flex items-start gap-5">
      <Seal stamp="chosen" />
      <div>
        <h3 className="text-[1.1rem]">
          {trial.mediaSetting} stands for {name} in {trial.printer}
        </h3>
        <p className="max-w-[62ch] font-serif text-[1.05rem]">{trial.reason}</p>
        <p className="text-[13px] text-quiet">
          {trial.by}, {day(trial.stampedAt)}
          {trial.light && `, ${trial.light}`}; of {trial.ranking.map((r) => r.mediaSetting).join(', ')}
        </p>
        <QuietButton className="-ml-1.5" onClick={() => void remove(trial.id)}>
          Take it back
        </QuietButton>
        <ErrorNote error={error} />
      </div>
    </section>
  );
}

function StampDialog({ condition, onClose }: { condition: ConditionView; onClose: () => void }) {
  const [reason, setReason] = useState('');
  const [by, setBy] = useRemembered('printmaker', '');
  const [light, setLight] = useRemembered('judging-light', '');
  const [wrong, setWrong] = useState<string>();
  const [stamp, stamping] = useStampTrialMutation();
  const dispatch = useAppDispatch();
  const keep = async () => {
    if (!reason.trim()) return setWrong('Say why in a few words.');
    if (!by.trim()) return setWrong('Say who chose.');
    const { data } = await stamp({ conditionId: condition.id, reason, by, light: light.trim() || undefined });
    if (!data) return;
    dispatch(said(`${condition.mediaSetting} stands for ${condition.paper.name} in ${condition.printer}.`));
    onClose();
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Choose ${condition.mediaSetting}`}
      description={`It becomes the standing setting of ${condition.paper.name} in ${condition.printer}, with what was measured today.`}
    >
      <form
        noValidate
        className="space-y-3"
        onSubmit={(e) => {
          e.preventDefault();
          void keep();
        }}
      >
        <AreaField
          label="Why, in your words"
          autoFocus
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          error={wrong}
        />
        <div className="grid grid-cols-2 gap-4">
          <TextField label="Who chose" maxLength={80} value={by} onChange={(e) => setBy(e.target.value)} />
          <TextField
            label="Light"
            unit="the test pages were looked at in"
            maxLength={80}
            value={light}
            onChange={(e) => setLight(e.target.value)}
          />
        </div>
        <ErrorNote error={stamping.error} />
        <div className="flex gap-3">
          <Button main type="submit" disabled={stamping.isLoading}>
            Stamp it
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </form>
    </Dialog>
  );
}
