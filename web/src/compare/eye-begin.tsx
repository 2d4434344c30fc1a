import { useMemo, useState } from 'react';
import { EYE_CRITERIA, type EyeCriterion } from '@rakuen/contract/vocabulary';
import { CLARITIES, timesNeeded, type Clarity } from '@rakuen/core/eye/decision';
import { Button } from '../parts/button.tsx';
import { ChoiceField, TextField, TickField } from '../parts/form.tsx';
import { conditionLine } from '../parts/label.ts';
import { ErrorNote } from '../parts/messages.tsx';
import { useRemembered } from '../parts/remembered.ts';
import type { CompareProps } from './compare-props.ts';
import { QUESTIONS } from './eye-questions.ts';
import { useBeginEyeMutation } from './judging-api.ts';

/** Which prints, what is asked, who looks and under which light. */
export function EyeBegin({ laid, onBegun }: { laid: CompareProps['laid']; onBegun: (id: string) => void }) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(() => new Set(laid.map((c) => c.id)));
  const [criterion, setCriterion] = useState<EyeCriterion>(EYE_CRITERIA[0]);
  const [question, setQuestion] = useState('');
  const [clarity, setClarity] = useState<Clarity>('clear');
  const [ownTimes, setTimes] = useState<string>();
  const [observer, setObserver] = useRemembered('printmaker', '');
  const [light, setLight] = useRemembered('judging-light', '');
  const [wrong, setWrong] = useState<string>();
  const [begin, beginning] = useBeginEyeMutation();
  const needed = useMemo(() => timesNeeded(chosen.size, clarity), [chosen.size, clarity]);
  // As often as the difference needs, until somebody says otherwise.
  const times = ownTimes ?? String(needed ?? 2);
  const start = async () => {
    if (chosen.size < 2) return setWrong('Choose two prints or more.');
    if (!/^\d+$/.test(times.trim()) || Number(times) < 1 || Number(times) > 60)
      return setWrong('Each pair is seen 1 to 60 times. Enter a whole number.');
    if (!observer.trim() || !light.trim()) return setWrong('Enter who looks, and under which light.');
    setWrong(undefined);
    const { data } = await begin({
      conditionIds: [...chosen],
      criterion,
      times: Number(times),
      clarity,
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
        Prints of the same picture, a code on the back of each, two at a time in random order and sides. The codes are
        resolved when all pairs were seen. One light, edge to edge.
      </p>
      <Prints laid={laid} chosen={chosen} onChoose={setChosen} />
      <div className="grid grid-cols-2 gap-x-4 gap-y-3">
        <ChoiceField
          label="What the eye is asked"
          options={EYE_CRITERIA.map((c) => [c, QUESTIONS[c] || 'A question of my own'] as const)}
          value={criterion}
          onChange={(e) => setCriterion(e.target.value as EyeCriterion)}
        />
        <Looks prints={chosen.size} {...{ clarity, setClarity, times, setTimes, needed }} />
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

/** The difference expected, and how often each pair is seen. */
function Looks({
  prints,
  clarity,
  setClarity,
  times,
  setTimes,
  needed,
}: {
  prints: number;
  clarity: Clarity;
  setClarity: (clarity: Clarity) => void;
  times: string;
  setTimes: (times: string) => void;
  needed: number | undefined;
}) {
  const pairs = (prints * (prints - 1)) / 2;
  return (
    <>
      <ChoiceField
        label="Difference expected"
        options={Object.entries(CLARITIES).map(([key, c]) => [key, c.name] as const)}
        value={clarity}
        onChange={(e) => setClarity(e.target.value as Clarity)}
      />
      <TextField
        label="Each pair"
        unit="times"
        inputMode="numeric"
        value={times}
        onChange={(e) => setTimes(e.target.value)}
      />
      <p className="self-end pb-1.5 text-[13px] text-quiet">{looksInWords(prints, pairs, Number(times), needed)}</p>
    </>
  );
}

/** How many looks it makes, and how many the difference needs. */
function looksInWords(prints: number, pairs: number, times: number, needed: number | undefined): string {
  if (prints < 2) return 'Choose two prints or more.';
  const asked = Number.isInteger(times) && times > 0 ? `${pairs * times} looks. ` : '';
  if (needed === undefined) return `${asked}No number of looks up to 60 a pair finds such a difference.`;
  return times < needed
    ? `${asked}Too few to find such a difference: it needs each pair ${needed} times, ${pairs * needed} looks.`
    : `${asked}Such a difference is found in 4 of 5 comparisons from ${needed} times on.`;
}

function Prints({
  laid,
  chosen,
  onChoose,
}: {
  laid: CompareProps['laid'];
  chosen: ReadonlySet<string>;
  onChoose: (chosen: ReadonlySet<string>) => void;
}) {
  return (
    <fieldset>
      <legend>Prints</legend>
      {laid.map((c) => (
        <TickField
          key={c.id}
          label={`${c.paper.name}, ${conditionLine(c)}`}
          checked={chosen.has(c.id)}
          onChange={(e) =>
            onChoose(new Set(e.target.checked ? [...chosen, c.id] : [...chosen].filter((id) => id !== c.id)))
          }
        />
      ))}
    </fieldset>
  );
}
