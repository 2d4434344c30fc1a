import { useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import type { PrintView } from '@rakuen/contract/prints';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useConditionsQuery, useDecisionsQuery, usePicturesQuery, usePrintsQuery } from '../api/api.ts';
import { questionOf } from '../app/steps.ts';
import { Button, QuietButton } from '../parts/button.tsx';
import { conditionLine, day } from '../parts/label.ts';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { Seal } from '../parts/seal.tsx';
import { moveFocus } from '../parts/use-keys.ts';
import { PrintForm } from './print-form.tsx';

/** Prints made and to be made: what was chosen waits here to be printed and judged. */
export function PrintsScreen() {
  const [params, setParams] = useSearchParams();
  const navigate = useNavigate();
  const prints = usePrintsQuery();
  const { data: decisions = [] } = useDecisionsQuery();
  const { data: pictures = [] } = usePicturesQuery();
  const { data: conditions = [] } = useConditionsQuery();
  const [changing, setChanging] = useState<PrintView>();
  const picture = pictures.find((p) => p.id === (changing?.pictureId ?? params.get('picture')));
  const condition = conditions.find((c) => c.id === (changing?.conditionId ?? params.get('condition')));
  const close = () => {
    setChanging(undefined);
    setParams({});
  };

  // Of each picture and paper the newest stamp counts; what is chosen and was never printed waits.
  const newest = new Map([...decisions].reverse().map((d) => [`${d.pictureId} ${d.conditionId}`, d]));
  const waiting = [...newest.values()].filter(
    (d) =>
      d.stamp === 'chosen' && !prints.data?.some((p) => p.pictureId === d.pictureId && p.conditionId === d.conditionId),
  );
  const titleOf = (id: string) => pictures.find((p) => p.id === id)?.title ?? '';
  const conditionOf = (id: string) => conditions.find((c) => c.id === id);

  return (
    <>
      <ScreenHead title="Prints" question={questionOf('/prints')} />
      <ErrorNote error={prints.error as never} />
      {prints.isLoading && <Waiting what="Fetching the prints" />}
      {picture && condition ? (
        <PrintForm
          key={`${picture.id} ${condition.id} ${changing?.id ?? ''}`}
          picture={picture}
          condition={condition}
          print={changing}
          onClose={close}
        />
      ) : (
        <>
          {waiting.length > 0 && (
            <section aria-label="Chosen, not yet printed" className="mb-7">
              <h2 className="mb-1">Chosen, not yet printed</h2>
              <ul className="border-t border-edge">
                {waiting.map((d) => (
                  <li key={d.id} className="flex flex-wrap items-center gap-x-4 border-b border-line py-2">
                    <Seal stamp="chosen" small />
                    <span className="min-w-0 flex-1">
                      <span className="font-serif">{titleOf(d.pictureId)}</span> on{' '}
                      <span className="font-serif">{conditionOf(d.conditionId)?.paper.name}</span>
                      <span className="block text-[13px] text-quiet">{d.reason}</span>
                    </span>
                    <Button onClick={() => setParams({ picture: d.pictureId, condition: d.conditionId })}>
                      Record a print
                    </Button>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {prints.data?.length === 0 && waiting.length === 0 && (
            <Empty
              title="Nothing was printed yet"
              action={<Button onClick={() => void navigate('/match')}>To the match</Button>}
            >
              Choose a paper for a picture first; then record the print here, with every setting it was made with.
            </Empty>
          )}
          {prints.data && prints.data.length > 0 && (
            <section aria-label="Prints made">
              <h2 className="mb-1">Prints made</h2>
              <ul onKeyDown={moveFocus} className="border-t border-edge">
                {prints.data.map((p) => (
                  <PrintLine
                    key={p.id}
                    print={p}
                    title={titleOf(p.pictureId)}
                    paper={conditionOf(p.conditionId)?.paper.name ?? ''}
                    condition={conditionOf(p.conditionId) ? conditionLine(conditionOf(p.conditionId)!) : ''}
                    onChange={() => setChanging(p)}
                    onAgain={() => setParams({ picture: p.pictureId, condition: p.conditionId })}
                  />
                ))}
              </ul>
            </section>
          )}
        </>
      )}
    </>
  );
}

function PrintLine({
  print,
  title,
  paper,
  condition,
  onChange,
  onAgain,
}: {
  print: PrintView;
  title: string;
  paper: string;
  condition: string;
  onChange: () => void;
  onAgain: () => void;
}) {
  const { settings: s } = print;
  return (
    <li
      tabIndex={0}
      data-row
      className="grid grid-cols-[72px_minmax(0,1fr)_auto] items-start gap-x-4 border-b border-line py-2.5"
    >
      <img
        src={`/api/pictures/${print.pictureId}/preview`}
        alt=""
        className="max-h-14 w-[72px] object-contain object-left-top"
      />
      <div className="min-w-0">
        <p>
          <span className="font-serif text-[1.08rem]">{title}</span> on{' '}
          <span className="font-serif text-[1.08rem]">{paper}</span>, {formatNumber(print.widthMm, 0)} ×{' '}
          {formatNumber(print.heightMm, 0)} mm{print.copies > 1 && `, ${print.copies} copies`}
        </p>
        <p className="text-[13px]">
          {day(print.printedOn)} · {condition} · {s.resolution}, {s.intent}
          {s.blackPointCompensation && ', black point compensated'}, sharpening {s.sharpening}
        </p>
        <p className="text-[13px]">
          <b>{print.verdict}</b>
          {print.verdictReason && `: ${print.verdictReason}`}
          {print.misprints > 0 && ` Misprints: ${print.misprints}. ${print.misprintCause}`}
        </p>
      </div>
      <div className="flex">
        <QuietButton onClick={onChange} aria-label={`Judge or correct the print of ${title}`}>
          Judge or correct
        </QuietButton>
        <QuietButton onClick={onAgain} aria-label={`Print ${title} again`}>
          Again
        </QuietButton>
      </div>
    </li>
  );
}
