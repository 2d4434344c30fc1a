import { useState } from 'react';
import { EYE_CRITERIA, type EyeCriterion } from '@rakuen/contract/vocabulary';
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
      <Prints laid={laid} chosen={chosen} onChoose={setChosen} />
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
