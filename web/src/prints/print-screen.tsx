import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { PictureView } from '@rakuen/contract/pictures';
import type { PrintLook } from '@rakuen/contract/prints';
import { SETTING_KEYS } from '@rakuen/contract/vocabulary';
import { formatNumber } from '@rakuen/core/measurement/show';
import { useConditionsQuery, usePicturesQuery } from '../api/api.ts';
import { questionOf } from '../app/steps.ts';
import { Whereabouts } from '../clients/whereabouts.tsx';
import { Button } from '../parts/button.tsx';
import { conditionLine, day } from '../parts/label.ts';
import { ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { BackNotes } from './back-notes.tsx';
import { MadeBy } from './made-by.tsx';
import { MisprintForm } from './misprint-form.tsx';
import { useBeginPrintMutation, usePrintLookQuery } from './print-api.ts';
import { PrintPlaces } from './print-places.tsx';
import { SettingChoice } from './setting-choice.tsx';
import { Verdict } from './verdict.tsx';
import { WaitingBack } from './waiting-back.tsx';

/** One print: the sheet turned over, with what it is made with written on its back. */
export function PrintScreen() {
  const { printId = '' } = useParams();
  const look = usePrintLookQuery(printId);
  const { data: pictures } = usePicturesQuery();
  const { data: conditions } = useConditionsQuery();
  const print = look.data?.print;
  const picture = pictures?.find((p) => p.id === print?.pictureId);
  const condition = conditions?.find((c) => c.id === print?.conditionId);
  return (
    <>
      <ScreenHead title="Prints" question={questionOf('/prints')} />
      <PrintPlaces />
      <ErrorNote error={look.error} />
      {!look.error && !(look.data && picture && condition) && <Waiting what="Turning the sheet over" />}
      {look.data && picture && condition && (
        <Back key={printId} look={look.data} picture={picture} condition={condition} />
      )}
    </>
  );
}

function Back({ look, picture, condition }: { look: PrintLook; picture: PictureView; condition: ConditionHead }) {
  const { print } = look;
  const waiting = print.state === 'waiting';
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_300px] gap-8 max-[1100px]:grid-cols-1">
      <article aria-label="The back of the print" className="min-h-[420px] border border-edge bg-field px-7 py-6">
        <header className="mb-4 flex items-start justify-between gap-6">
          <div className="min-w-0">
            <h2 className="break-words text-[1.5rem]">{picture.title}</h2>
            <p className="font-serif break-words">
              {condition.paper.maker} {condition.paper.name}
              <span className="font-sans text-[13px] text-quiet"> {conditionLine(condition)}</span>
            </p>
            {!waiting && (
              <p className="text-[13px]">
                printed {day(print.printedOn)}
                {print.minutes !== undefined && `, ${formatNumber(print.minutes, 1)} min at the printer`}
              </p>
            )}
          </div>
          <img
            src={`/api/pictures/${picture.id}/preview`}
            alt=""
            className="max-h-24 max-w-40 shrink-0 border border-line"
          />
        </header>
        {waiting ? <WaitingBack look={look} picture={picture} condition={condition} /> : <MadeBack look={look} />}
      </article>
      <BackNotes look={look} picture={picture} condition={condition} />
    </div>
  );
}

/** A print that was made: its settings as they were, and the verdict. */
function MadeBack({ look }: { look: PrintLook }) {
  const { print } = look;
  const navigate = useNavigate();
  const [begin, beginning] = useBeginPrintMutation();
  const [spoilt, setSpoilt] = useState(false);
  return (
    <div className="space-y-5">
      <p>
        {formatNumber(print.widthMm, 0)} × {formatNumber(print.heightMm, 0)} mm
        {print.copies > 1 && `, ${print.copies} copies`}
      </p>
      <ul aria-label="Settings" className="flex flex-wrap gap-x-5 gap-y-0.5 text-[13px]">
        {SETTING_KEYS.filter((key) => print.settings[key] !== undefined && print.settings[key] !== '').map((key) => (
          <li key={key}>
            <SettingChoice name={key} print={print} open={false} />
          </li>
        ))}
      </ul>
      {print.carriedOver.length > 0 && (
        <p className="text-[13px] text-quiet">Carried over and never checked: {print.carriedOver.length}.</p>
      )}
      <MadeBy look={look} />
      {print.misprints > 0 && (
        <p className="text-[13px]">
          Spoiled on the way: {print.misprints}, {print.misprintCause}.
        </p>
      )}
      <Verdict print={print} />
      <div className="flex flex-wrap items-center gap-3">
        <Button
          disabled={beginning.isLoading}
          onClick={() =>
            void begin({ printId: print.id })
              .unwrap()
              .then((next) => navigate(`/prints/${next.id}`))
              .catch(() => undefined)
          }
        >
          Repeat this print
        </Button>
        <Button onClick={() => setSpoilt(!spoilt)}>Sheet spoiled</Button>
        <Link className="underline" to={`/ledger/pictures/${print.pictureId}`}>
          The picture’s page
        </Link>
      </div>
      <ErrorNote error={beginning.error} />
      {spoilt && <MisprintForm printId={print.id} onClose={() => setSpoilt(false)} />}
      <Whereabouts look={look} />
    </div>
  );
}
