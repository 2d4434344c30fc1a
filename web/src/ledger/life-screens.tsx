import type { NumberView } from '@rakuen/contract/editions';
import { WHEREABOUTS } from '@rakuen/core/print/whereabouts';
import { lastOf, whereWords } from '../clients/move-words.ts';
import type { ReactNode } from 'react';
import { Link, Navigate, useParams } from 'react-router';
import type { PaperLife } from '@rakuen/contract/ledger';
import type { ApiError } from '@rakuen/contract/settings';
import type { Stamp } from '@rakuen/contract/vocabulary';
import { formatNumber } from '@rakuen/core/measurement/show';
import { questionOf } from '../app/steps.ts';
import { day } from '../parts/label.ts';
import { usePrintsByCodeQuery } from '../prints/print-api.ts';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { Seal } from '../parts/seal.tsx';
import { usePaperLifeQuery, usePictureLifeQuery } from './ledger-api.ts';
import { NotesOf } from './notes.tsx';
import { Places } from './places.tsx';

function Page({
  title,
  error,
  children,
}: {
  title?: string;
  error: Partial<ApiError> | undefined;
  children: ReactNode;
}) {
  return (
    <>
      <ScreenHead title="Ledger" question={questionOf('/ledger')} />
      <Places />
      <ErrorNote error={error} />
      {!title && !error && <Waiting what="Opening the page" />}
      {title && (
        <article className="border border-edge bg-field px-8 py-6">
          <h2 className="mb-3 text-[1.6rem] break-words">{title}</h2>
          {children}
        </article>
      )}
    </>
  );
}

const SECTION = 'border-t border-line pt-2';
const percent = (share: number) => `${formatNumber(share * 100, 0)} %`;
const counted = (tally: Readonly<Record<string, number>>) =>
  Object.entries(tally)
    .sort((a, b) => b[1] - a[1])
    .map(([word, n]) => `${n} ${word}`)
    .join(', ');

/** A paper’s life: pictures on it, verdicts, what was spoilt, the boxes it came in. */
export function PaperLifeScreen() {
  const { paperId = '' } = useParams();
  const { data: life, error } = usePaperLifeQuery(paperId);
  return (
    <Page title={life?.name} error={error}>
      {life && (
        <div className="grid grid-cols-2 gap-x-10 gap-y-5 max-[1150px]:grid-cols-1">
          <PicturesOn life={life} />
          <div className="space-y-5">
            <NotesOf paperId={paperId} />
            <SaidOf life={life} />
            <Boxes life={life} />
            {life.trials.length > 0 && (
              <section aria-label="Media settings" className={SECTION}>
                <h3>Media settings stamped</h3>
                {life.trials.map((t) => (
                  <p key={t.stampedAt}>
                    {t.printer}: {t.mediaSetting}, {day(t.stampedAt)}. <span className="font-serif">{t.reason}</span>
                  </p>
                ))}
              </section>
            )}
            <p>
              <Link className="underline" to="/papers">
                To the papers
              </Link>
            </p>
          </div>
        </div>
      )}
    </Page>
  );
}

interface Life {
  life: PaperLife;
}

function PicturesOn({ life }: Life) {
  return (
    <section aria-label="Pictures on it" className={SECTION}>
      <h3>Pictures on it</h3>
      {life.pictures.length === 0 && <p>None yet.</p>}
      <ul>
        {life.pictures.map((p) => (
          <li key={p.pictureId} className="flex items-center gap-3 py-1">
            <img src={`/api/pictures/${p.pictureId}/preview`} alt="" className="h-10 w-14 object-contain object-left" />
            <span className="min-w-0 flex-1">
              <Link
                className="font-serif underline decoration-line underline-offset-3"
                to={`/ledger/pictures/${p.pictureId}`}
              >
                {p.title}
              </Link>
              <span className="block text-[13px] text-quiet">
                {p.prints === 0 ? 'not printed' : `${p.prints} printed: ${[...new Set(p.verdicts)].join(', ')}`}
              </span>
            </span>
            {p.stamp && <Seal stamp={p.stamp as Stamp} small />}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Stamps, verdicts and lessons; and what was spoilt. */
function SaidOf({ life }: Life) {
  return (
    <>
      <section aria-label="Verdicts" className={SECTION}>
        <h3>What was said of it</h3>
        <p>{Object.keys(life.stamps).length > 0 ? `Stamped: ${counted(life.stamps)}.` : 'Never stamped.'}</p>
        <p>{Object.keys(life.verdicts).length > 0 ? `Prints: ${counted(life.verdicts)}.` : 'Never printed.'}</p>
        {life.lessons.map((l) => (
          <p key={l.sentence} className="mt-1 border-l-2 border-ink pl-3 font-serif">
            {l.sentence}
          </p>
        ))}
      </section>
      <section aria-label="Spoiled" className={SECTION}>
        <h3>Spoiled</h3>
        {life.spoilage.of === 0 ? (
          <p>Nothing was printed on it yet.</p>
        ) : (
          <p>
            {life.spoilage.spoilt} of {life.spoilage.of} sheets; the rate lies between {percent(life.spoilage.low)} and{' '}
            {percent(life.spoilage.high)}.{' '}
            {life.causes.length > 0 && `By: ${life.causes.map((c) => `${c.cause} (${c.sheets})`).join(', ')}.`}
          </p>
        )}
      </section>
    </>
  );
}

function Boxes({ life }: Life) {
  return (
    <section aria-label="Boxes" className={SECTION}>
      <h3>Boxes and formulations</h3>
      {life.batches.map((b) => (
        <p key={b.batch}>
          {b.batch || 'the first box'}
          <span className="text-quiet"> read {day(b.readOn)}</span>
        </p>
      ))}
      {life.boxes.map((b) => (
        <p key={b.id}>
          {b.label}: {b.kind === 'sheet' ? `${b.left} of ${b.sheets} sheets` : `${formatNumber(b.left / 1000, 1)} m`}{' '}
          left
          {b.batch && <span className="text-quiet"> {b.batch}</span>}
        </p>
      ))}
      {life.batches.length + life.boxes.length === 0 && <p>None is known.</p>}
    </section>
  );
}

/** A picture’s life: the sheets that were tried, and why each was left. */
export function PictureLifeScreen() {
  const { pictureId = '' } = useParams();
  const { data: life, error } = usePictureLifeQuery(pictureId);
  return (
    <Page title={life?.title} error={error}>
      {life && (
        <div className="grid grid-cols-[220px_minmax(0,1fr)] gap-x-10 max-[1150px]:grid-cols-1">
          <div>
            <img src={`/api/pictures/${pictureId}/preview`} alt="" className="max-h-56 border border-line" />
            <p className="mt-2">
              {life.prints === 0 ? 'Not printed yet' : `${life.prints} printed`}
              {life.spoilt > 0 && `, ${life.spoilt} spoiled on the way`}.
            </p>
          </div>
          <div className="space-y-5">
            <section aria-label="Sheets tried" className={SECTION}>
              <h3>Sheets that were tried</h3>
              {life.sheets.length === 0 && <p>None yet.</p>}
              <ul>
                {life.sheets.map((s) => (
                  <li
                    key={s.conditionId}
                    className="grid grid-cols-[90px_minmax(0,1fr)] gap-x-4 border-b border-line py-2"
                  >
                    <span>{s.stamp && <Seal stamp={s.stamp as Stamp} small />}</span>
                    <div>
                      <p>
                        <span className="font-serif text-[1.06rem]">{s.paper}</span>
                        <span className="text-[13px] text-quiet"> {s.condition}</span>
                      </p>
                      {s.reason && (
                        <p className="font-serif">
                          {s.reason}
                          {s.decidedAt && <span className="font-sans text-[13px] text-quiet"> {day(s.decidedAt)}</span>}
                        </p>
                      )}
                      {s.verdicts.map((v, i) => (
                        <p key={i} className="text-[13px]">
                          printed {day(v.on)}: <b>{v.verdict}</b>
                          {v.reason && `, ${v.reason}`}
                        </p>
                      ))}
                    </div>
                  </li>
                ))}
              </ul>
            </section>
            {life.editions.map((e) => (
              <section key={e.id} aria-label={e.name} className={SECTION}>
                <h3>{e.name}</h3>
                <p>{e.numbers.map((n) => `${n.written} ${numberIsAt(n)}`).join('; ') || 'No number is given yet.'}</p>
              </section>
            ))}
            <NotesOf pictureId={pictureId} />
            {life.learned.map((l) => (
              <p key={l} className="font-serif">
                {l}
              </p>
            ))}
          </div>
        </div>
      )}
    </Page>
  );
}

/** Where a number is, in words. */
const numberIsAt = ({ moves }: NumberView): string => {
  const last = lastOf(moves);
  return last ? whereWords(last) : WHEREABOUTS.studio.name;
};

/** The address on a label: the record of its print. */
export function LabelledPrint() {
  const { printId = '' } = useParams();
  return <Navigate to={`/prints/${printId}`} replace />;
}

/** The code on a label: the record of its print. */
export function CodedPrint() {
  const { code = '' } = useParams();
  const { data: prints, error } = usePrintsByCodeQuery(code);
  if (prints?.length === 1) return <Navigate to={`/prints/${prints[0].id}`} replace />;
  return (
    <>
      <ScreenHead title="Ledger" question={questionOf('/ledger')} />
      <ErrorNote error={error} />
      {!prints && !error && <Waiting what="Looking for the record" />}
      {prints?.length === 0 && (
        <Empty title="No record has this code">
          The code {code} is well formed. The print was removed, or it is recorded in another studio.
        </Empty>
      )}
      {prints && prints.length > 1 && (
        <ul aria-label="Records with this code">
          {prints.map((p) => (
            <li key={p.id}>
              <Link className="underline" to={`/prints/${p.id}`}>
                {day(p.printedOn)}, {Math.round(p.widthMm)} × {Math.round(p.heightMm)} mm
              </Link>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
