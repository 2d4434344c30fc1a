import { skipToken } from '@reduxjs/toolkit/query/react';
import { useState } from 'react';
import { CartesianGrid, ErrorBar, ResponsiveContainer, Scatter, ScatterChart, XAxis, YAxis } from 'recharts';
import type { EyeView } from '@rakuen/contract/eye';
import { EYE_CRITERIA, type EyeCriterion } from '@rakuen/contract/vocabulary';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import type { Figure } from '@rakuen/core/measurement/figure';
import { dmax } from '@rakuen/core/measurement/measures/dmax';
import { unlike } from '@rakuen/core/measurement/basis';
import { white } from '@rakuen/core/measurement/measures/white';
import type { Measure } from '@rakuen/core/measurement/measures/measure';
import { formatFigure, formatNumber } from '@rakuen/core/measurement/show';
import type { ConditionView } from '@rakuen/contract/conditions';
import {
  useBeginEyeMutation,
  useEyeSaysMutation,
  useEyesQuery,
  useEyeUndoMutation,
  useRemoveEyeMutation,
} from './judging-api.ts';
import { useWholeConditionsQuery } from '../api/api.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { AXIS } from '../parts/chart.ts';
import { ChoiceField, TextField, TickField } from '../parts/form.tsx';
import { conditionLine, day } from '../parts/label.ts';
import { ErrorNote, Waiting } from '../parts/messages.tsx';
import { useRemembered } from '../parts/remembered.ts';
import { useKeys } from '../parts/use-keys.ts';
import type { CompareProps } from './compare-screen.tsx';

/** Prints compared by eye, two at a time, behind codes. */
export function EyePlace({ laid }: CompareProps) {
  const { data: eyes, error } = useEyesQuery();
  const [openId, setOpen] = useState<string>();
  const open = eyes?.find((e) => e.id === openId);
  if (open) return <Session key={open.id} eye={open} onClose={() => setOpen(undefined)} />;
  return (
    <div className="grid grid-cols-2 gap-x-8 gap-y-6 max-[1150px]:grid-cols-1">
      <Begin laid={laid} onBegun={setOpen} />
      <section aria-label="What eyes have said">
        <h3 className="mb-1 text-[1.1rem]">What eyes have said</h3>
        <ErrorNote error={error} />
        {!eyes && !error && <Waiting what="Fetching the comparisons" />}
        {eyes?.length === 0 && <p className="text-quiet">Nothing yet.</p>}
        <ul className="border-t border-edge">
          {eyes?.map((e) => (
            <li key={e.id} className="border-b border-line py-2">
              <QuietButton className="-ml-1.5 font-serif text-[1.05rem]" onClick={() => setOpen(e.id)}>
                {questionOf(e)} {e.conditionIds.length} prints
              </QuietButton>
              <p className="text-[13px] text-quiet">
                {e.left
                  ? `${e.choices.length} of ${e.pairCount} pairs seen`
                  : e.toldApart
                    ? 'told apart'
                    : 'the eye could not tell'}
                ; {e.observer}, {e.light}, {day(e.createdAt)}
              </p>
            </li>
          ))}
        </ul>
      </section>
    </div>
  );
}

function Begin({ laid, onBegun }: { laid: CompareProps['laid']; onBegun: (id: string) => void }) {
  const [chosen, setChosen] = useState(() => new Set(laid.map((c) => c.id)));
  const [criterion, setCriterion] = useState<EyeCriterion>(EYE_CRITERIA[0]);
  const [question, setQuestion] = useState('');
  const [times, setTimes] = useState('2');
  const [observer, setObserver] = useRemembered('printmaker', '');
  const [light, setLight] = useRemembered('judging-light', '');
  const [wrong, setWrong] = useState<string>();
  const [begin, beginning] = useBeginEyeMutation();
  const pairs = (chosen.size * (chosen.size - 1)) / 2;
  const start = async () => {
    if (chosen.size < 2) return setWrong('Choose two prints or more.');
    if (!observer.trim() || !light.trim()) return setWrong('Say who looks, and under which light.');
    setWrong(undefined);
    const { data } = await begin({
      conditionIds: [...chosen],
      criterion,
      times: Number(times),
      observer,
      light,
      question: question.trim() || undefined,
    });
    if (data) onBegun(data.id);
  };
  return (
    <form
      noValidate
      aria-label="Begin"
      className="space-y-3"
      onSubmit={(e) => {
        e.preventDefault();
        void start();
      }}
    >
      <h3 className="text-[1.1rem]">A blind comparison</h3>
      <p className="max-w-[62ch] text-[13px] text-quiet">
        Prints of the same picture, a code on the back of each, two at a time in random order and sides. What lies
        behind a code is told when all pairs were seen. One light, edge to edge.
      </p>
      <fieldset>
        <legend>Prints</legend>
        {laid.map((c) => (
          <TickField
            key={c.id}
            label={`${c.paper.name}, ${conditionLine(c)}`}
            checked={chosen.has(c.id)}
            onChange={(e) =>
              setChosen(new Set(e.target.checked ? [...chosen, c.id] : [...chosen].filter((id) => id !== c.id)))
            }
          />
        ))}
      </fieldset>
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <ChoiceField
          label="What the eye is asked"
          options={EYE_CRITERIA.map((c) => [c, QUESTIONS[c] || 'A question of my own'] as const)}
          value={criterion}
          onChange={(e) => setCriterion(e.target.value as EyeCriterion)}
        />
        <ChoiceField
          label="Each pair"
          unit={`${pairs * Number(times)} looks in all`}
          options={[
            ['1', 'once'],
            ['2', 'twice'],
            ['3', 'three times'],
            ['4', 'four times'],
            ['6', 'six times'],
          ]}
          value={times}
          onChange={(e) => setTimes(e.target.value)}
        />
        {criterion === 'a question of my own' && (
          <TextField
            label="The question"
            className="col-span-2"
            maxLength={120}
            value={question}
            onChange={(e) => setQuestion(e.target.value)}
          />
        )}
        <TextField label="Who looks" maxLength={80} value={observer} onChange={(e) => setObserver(e.target.value)} />
        <TextField label="Light" maxLength={80} value={light} onChange={(e) => setLight(e.target.value)} />
      </div>
      {wrong && <p role="alert">{wrong}</p>}
      <ErrorNote error={beginning.error} />
      <Button main type="submit" disabled={beginning.isLoading}>
        Begin to look
      </Button>
    </form>
  );
}

function Session({ eye, onClose }: { eye: EyeView; onClose: () => void }) {
  // Nothing of them is fetched before the end: until then they have no names.
  const { data: conditions = [] } = useWholeConditionsQuery(
    eye.places.length > 0 ? eye.places.map((p) => p.conditionId) : skipToken,
  );
  const [say, saying] = useEyeSaysMutation();
  const [undo, undoing] = useEyeUndoMutation();
  const [remove] = useRemoveEyeMutation();
  const [ready, setReady] = useState(eye.choices.length > 0 || !eye.left);
  const [sure, setSure] = useState(false);
  const answer = (said: 'left' | 'right' | 'neither') =>
    eye.left && ready && !saying.isLoading && void say({ id: eye.id, turn: eye.choices.length, said });
  useKeys({
    ArrowLeft: () => answer('left'),
    ArrowRight: () => answer('right'),
    ArrowDown: () => answer('neither'),
    u: () => eye.choices.length > 0 && void undo(eye.id),
  });
  const nameOf = (id: string) => conditions.find((c) => c.id === id);
  return (
    <section aria-label="A blind comparison" className="space-y-4">
      <div className="flex items-baseline justify-between gap-4">
        <h3 className="text-[1.2rem]">{questionOf(eye)}</h3>
        <p className="text-[13px] text-quiet">
          {eye.observer}, {eye.light}
        </p>
      </div>
      {!ready && (
        <div className="max-w-[62ch] space-y-2 border border-edge bg-sheet p-4">
          <p>
            Nobody is blind who has seen the names. Let another person open the codes, write them on the backs, and lay
            the prints out; or draw them face down yourself, without reading the list.
          </p>
          <p>
            <a
              className="underline underline-offset-3"
              href={`/compare/eye/${eye.id}/codes`}
              target="_blank"
              rel="noreferrer"
            >
              The codes, for whoever lays the prints out
            </a>
          </p>
          <Button main onClick={() => setReady(true)}>
            The codes are on the backs
          </Button>
        </div>
      )}
      {ready && eye.left && (
        <>
          <p role="status">
            Pair {eye.choices.length + 1} of {eye.pairCount}
          </p>
          <div className="grid max-w-[720px] grid-cols-[1fr_auto_1fr] gap-5">
            <PairButton code={eye.left} side="left" onClick={() => answer('left')} disabled={saying.isLoading} />
            <Button className="self-center" onClick={() => answer('neither')} disabled={saying.isLoading}>
              Can’t tell ↓
            </Button>
            <PairButton code={eye.right!} side="right" onClick={() => answer('right')} disabled={saying.isLoading} />
          </div>
        </>
      )}
      {!eye.left && <Result eye={eye} nameOf={nameOf} />}
      <ErrorNote error={saying.error ?? undoing.error} />
      <div className="flex gap-3">
        <Button onClick={onClose}>{eye.left ? 'Go on later' : 'Back to the comparisons'}</Button>
        <QuietButton disabled={eye.choices.length === 0} onClick={() => void undo(eye.id)}>
          Take the last answer back
        </QuietButton>
        <QuietButton className="ml-auto" onClick={() => (sure ? void remove(eye.id).then(onClose) : setSure(true))}>
          {sure ? 'Put in the bin' : 'Remove this comparison'}
        </QuietButton>
      </div>
    </section>
  );
}

const QUESTIONS: Record<EyeCriterion, string> = {
  'deeper black': 'Which is the deeper black?',
  whiter: 'Which is whiter?',
  'more detail': 'Which shows more detail?',
  'better skin': 'Which renders the skin better?',
  'nicer in the hand': 'Which is nicer in the hand?',
  'which would you hang': 'Which would you hang?',
  'a question of my own': '',
};
const questionOf = ({ criterion, question }: EyeView) => question || QUESTIONS[criterion];

function PairButton({
  code,
  side,
  onClick,
  disabled,
}: {
  code: string;
  side: 'left' | 'right';
  onClick: () => void;
  disabled: boolean;
}) {
  return (
    <button
      type="button"
      disabled={disabled}
      onClick={onClick}
      aria-label={`${side === 'left' ? 'Left' : 'Right'}: ${code}`}
      className="flex min-h-44 flex-col items-center justify-center border border-edge bg-sheet hover:bg-field"
    >
      <span className="font-serif text-[2.4rem] leading-none">{code}</span>
      <span className="mt-2 text-[13px] text-quiet">{side === 'left' ? '← the left one' : 'the right one →'}</span>
    </button>
  );
}

/** The measure that asks what the criterion asks, and which way it points. */
const MEASURED: Partial<Record<EyeCriterion, { measure: Measure; of: (f: Figure) => number | undefined }>> = {
  'deeper black': { measure: dmax, of: (f) => (f.shape === 'scalar' ? f.value : undefined) },
  // Whiter is nearer to the perfect white, in lightness and in tint.
  whiter: { measure: white, of: (f) => (f.shape === 'colour' ? -deltaE2000(f.lab, [100, 0, 0]) : undefined) },
};
const NINETY_FIVE = 1.96;
/** Whether one place stands clear of another: beyond chance, 95 in 100. */
const standsClear = (p: EyeView['places'][number], q: EyeView['places'][number]) =>
  p.scale - q.scale > NINETY_FIVE * Math.hypot(p.error ?? Infinity, q.error ?? Infinity);

function Result({ eye, nameOf }: { eye: EyeView; nameOf: (id: string) => ConditionView | undefined }) {
  const asked = MEASURED[eye.criterion];
  const data = eye.places.map((p, i) => ({
    ...p,
    rank: eye.places.length - i,
    name: nameOf(p.conditionId)?.paper.name ?? p.code,
    spread: NINETY_FIVE * (p.error ?? 0),
  }));
  const most = Math.max(1, ...data.map((d) => Math.abs(d.scale) + d.spread));
  const range = Math.ceil(most);
  const value = (c?: ConditionView) => {
    const f = c?.facts?.figures[asked?.measure.key ?? ''];
    return f && asked?.of(f);
  };
  // The eye and the instrument disagree where a pair the eye parted is measured the other way round.
  const quarrels = eye.places.flatMap((p, i) =>
    eye.places.slice(i + 1).flatMap((q) => {
      const [one, other] = [nameOf(p.conditionId), nameOf(q.conditionId)];
      const [a, b] = [value(one), value(other)];
      // Read wet against dried, or with UV against without: by that the eye is not contradicted.
      const alike = one && other && asked && unlike(asked.measure, one, other) === undefined;
      return alike && standsClear(p, q) && a !== undefined && b !== undefined && a < b
        ? [`The eye puts ${one.paper.name} before ${other.paper.name}; measured it is the other way round.`]
        : [];
    }),
  );
  return (
    <div className="space-y-3">
      <p className="font-serif text-[1.1rem]">
        {eye.toldApart && eye.places.length > 1
          ? standsClear(eye.places[0], eye.places[1])
            ? `By this eye, ${data[0].name} comes first.`
            : `This eye tells some of them apart; ${data[0].name} and ${data[1].name} lead, and it does not surely part the two.`
          : 'This eye could not tell them apart: what was said is no more than chance would give.'}{' '}
        <span className="font-sans text-[13px] text-quiet">
          (χ² {formatNumber(eye.chiSquared ?? 0, 1)}, likelihood ratio against “all alike”)
        </span>
      </p>
      <figure className="max-w-[640px]">
        <figcaption className="text-[13px] text-quiet">
          Judged: Bradley–Terry scale, natural logarithms, with 95 % intervals; further right is more often chosen.
        </figcaption>
        <div
          role="img"
          aria-label={data
            .map(
              (d, i) => `${i + 1}. ${d.name}: ${formatNumber(d.scale, 1)}, plus or minus ${formatNumber(d.spread, 1)}`,
            )
            .join('; ')}
        >
          <ResponsiveContainer width="100%" height={60 + 36 * data.length}>
            <ScatterChart margin={{ top: 8, right: 20, bottom: 18, left: 0 }} accessibilityLayer={false}>
              <CartesianGrid stroke="var(--line)" horizontal={false} />
              <XAxis
                type="number"
                dataKey="scale"
                domain={[-range, range]}
                {...AXIS}
                label={{ value: 'less often chosen … more often chosen', position: 'bottom', offset: 0, ...AXIS.label }}
              />
              <YAxis
                type="number"
                dataKey="rank"
                domain={[0.5, data.length + 0.5]}
                ticks={data.map((d) => d.rank)}
                width={150}
                {...AXIS}
                tickFormatter={(rank: number) => data.find((d) => d.rank === rank)?.name ?? ''}
              />
              <Scatter data={data} fill="var(--ink)" isAnimationActive={false}>
                <ErrorBar dataKey="spread" direction="x" stroke="var(--ink)" width={6} />
              </Scatter>
            </ScatterChart>
          </ResponsiveContainer>
        </div>
      </figure>
      <table className="max-w-[640px] border-t border-edge">
        <thead>
          <tr className="text-left text-[13px] text-quiet">
            <th scope="col" className="py-1 pr-6 font-normal">
              Print
            </th>
            <th scope="col" className="py-1 pr-6 font-normal">
              judged
            </th>
            {asked && (
              <th scope="col" className="py-1 pr-6 font-normal">
                measured, {asked.measure.name}
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {data.map((d) => {
            const c = nameOf(d.conditionId);
            const f = asked && c?.facts?.figures[asked.measure.key];
            return (
              <tr key={d.conditionId} className="border-t border-line">
                <th scope="row" className="py-1 pr-6 text-left font-serif font-normal">
                  {d.name} <span className="font-sans text-[13px] text-quiet">{d.code}</span>
                </th>
                <td className="py-1 pr-6 font-serif">
                  {formatNumber(d.scale, 2)} ± {d.error === undefined ? '∞' : formatNumber(d.spread, 2)}
                </td>
                {asked && (
                  <td className="py-1 pr-6 whitespace-pre">
                    {f && f.shape !== 'missing'
                      ? `${formatFigure(asked.measure, f)} ${f.shape === 'scalar' ? asked.measure.unit : ''}`
                      : '—'}
                  </td>
                )}
              </tr>
            );
          })}
        </tbody>
      </table>
      {quarrels.map((q) => (
        <p key={q} className="border-l-4 border-ink bg-field px-3 py-1.5">
          {q}
        </p>
      ))}
    </div>
  );
}
