import { useState } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import { PICTURE_BOUNDS } from '@rakuen/core/picture/tally';
import { percent } from '@rakuen/core/match/words';
import { formatNumber } from '@rakuen/core/measurement/show';
import { usePicturesQuery, useRemovePictureMutation, useRenamePictureMutation } from '../api/api.ts';
import { STEPS } from '../app/steps.ts';
import { QuietButton } from '../parts/button.tsx';
import { Draggable } from '../parts/draggable.tsx';
import { Term } from '../parts/figure.tsx';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { moveFocus } from '../parts/use-keys.ts';
import { useTable } from '../table/use-table.ts';
import { LightnessHistogram } from './lightness-histogram.tsx';
import { PictureIntake } from './picture-intake.tsx';

/** The pictures, and what the one in hand asks of a paper. */
export function PicturesScreen() {
  const { data: pictures, error, isLoading } = usePicturesQuery();
  const table = useTable();
  const [chosen, setChosen] = useState<string>();
  const picture =
    pictures?.find((p) => p.id === chosen) ?? pictures?.find((p) => p.id === table.picture?.id) ?? pictures?.[0];

  return (
    <>
      <ScreenHead title="Pictures" question={STEPS[3].question} />
      <ErrorNote error={error as never} />
      {isLoading && <Waiting what="Fetching the pictures" />}
      {pictures?.length === 0 && (
        <Empty title="No pictures yet">
          Bring a JPEG, PNG or TIFF: its colours are read through its embedded profile, and you see its key, its
          contrast and what it holds before you match it to a paper.
        </Empty>
      )}
      {picture && <PictureSheet key={picture.id} picture={picture} />}
      {pictures && pictures.length > 0 && (
        <ul onKeyDown={moveFocus} aria-label="All pictures" className="mt-6 mb-5 flex flex-wrap gap-4">
          {pictures.map((p) => (
            <li key={p.id}>
              <Draggable kind="picture" id={p.id} name={p.title} className="w-36">
                <button
                  type="button"
                  data-row
                  data-kind="picture"
                  data-id={p.id}
                  data-name={p.title}
                  aria-pressed={p.id === picture?.id}
                  onClick={() => setChosen(p.id)}
                  className="block w-full text-left"
                >
                  <img
                    src={`/api/pictures/${p.id}/preview`}
                    alt=""
                    draggable={false}
                    className={`h-24 w-36 object-contain object-left-bottom ${p.id === picture?.id ? 'outline-2 outline-offset-2 outline-ink' : ''}`}
                  />
                  <span className="mt-1 line-clamp-2 font-serif leading-tight">{p.title}</span>
                </button>
              </Draggable>
              <QuietButton
                className="-ml-1.5"
                onClick={() => table.togglePicture(p.id, p.title)}
                aria-label={table.has(p.id) ? `Put ${p.title} back` : `Lay ${p.title} on the table`}
              >
                {table.has(p.id) ? 'Put back' : 'Lay out'}
              </QuietButton>
            </li>
          ))}
        </ul>
      )}
      <div className={pictures?.length === 0 ? 'mx-auto mt-6 max-w-[52ch]' : ''}>
        <PictureIntake onAdded={setChosen} />
      </div>
    </>
  );
}

function PictureSheet({ picture }: { picture: PictureView }) {
  const { figures: f } = picture;
  const [remove, removing] = useRemovePictureMutation();
  const [sure, setSure] = useState(false);
  return (
    <section
      aria-label={picture.title}
      className="grid grid-cols-[minmax(0,1.35fr)_minmax(0,1fr)] items-start gap-8 max-[1150px]:grid-cols-1"
    >
      <div>
        <img src={`/api/pictures/${picture.id}/preview`} alt={picture.title} className="max-h-[52vh] max-w-full" />
        <Title picture={picture} />
        <p className="text-[13px] text-quiet">
          {picture.format}, {picture.widthPx} × {picture.heightPx} px, {picture.bitsPerChannel} bits a channel.{' '}
          {picture.profileAssumed
            ? 'No profile was used: sRGB is assumed.'
            : `Read through its embedded profile, ${picture.profile}.`}{' '}
          {picture.notes.join(' ')}
        </p>
      </div>
      <div>
        <p className="font-serif text-[1.15rem] leading-snug">{inWords(picture)}</p>
        <LightnessHistogram figures={f} />
        <dl className="mt-2 grid grid-cols-[1fr_auto] gap-x-4 gap-y-0.5 [&_dd]:text-right">
          <Term name="Median L*, mean L*">
            {formatNumber(f.medianL, 1)}, {formatNumber(f.meanL, 1)}
          </Term>
          <Term name="Contrast, deviation of L*">
            {formatNumber(f.contrastSdL, 1)} ({f.contrast})
          </Term>
          <Term name="L* of 2 % and 98 %">
            {formatNumber(f.darkL, 0)} to {formatNumber(f.lightL, 0)}
          </Term>
          <Term name={`Near black, below L* ${PICTURE_BOUNDS.nearBlackL}`}>{percent(f.nearBlackShare)}</Term>
          <Term name={`Near white, above L* ${PICTURE_BOUNDS.nearWhiteL}`}>{percent(f.nearWhiteShare)}</Term>
          <Term name="Mean chroma, 95th percentile">
            {formatNumber(f.meanChroma, 1)}, {formatNumber(f.chroma95, 0)} C*
          </Term>
          <Term name={`Saturated, above C* ${PICTURE_BOUNDS.saturatedChroma}`}>{percent(f.saturatedShare)}</Term>
          <Term name="Cells of Lab it occupies">{formatNumber(picture.colourCells, 0)}</Term>
        </dl>
        <p className="mt-2 text-[12.5px] text-quiet">
          Computed from {formatNumber(f.pixelsRead, 0)} pixels of the file, CIELAB D50. Where “low key” or “soft” begins
          is our own bound.
        </p>
        <ErrorNote error={removing.error as never} />
        <QuietButton
          className="mt-1 -ml-1.5"
          onClick={() =>
            sure
              ? void remove(picture.id)
                  .unwrap()
                  .catch(() => setSure(false))
              : setSure(true)
          }
        >
          {sure ? 'Put in the bin' : 'Remove this picture'}
        </QuietButton>
      </div>
    </section>
  );
}

/** What the picture is, in a sentence. */
function inWords({ figures: f }: PictureView): string {
  const key = f.key.charAt(0).toUpperCase() + f.key.slice(1);
  const black =
    f.nearBlackShare > 0.02 ? `${percent(f.nearBlackShare)} of it is near black` : 'it has no true black to speak of';
  const colour =
    f.colour === 'colour'
      ? f.saturatedShare > 0.05
        ? 'saturated colour'
        : f.meanChroma < 12
          ? 'muted colour'
          : 'colour'
      : f.colour;
  return `${key}, ${f.contrast} contrast, ${colour}; ${black}.`;
}

function Title({ picture }: { picture: PictureView }) {
  const [rename, { error }] = useRenamePictureMutation();
  const [editing, setEditing] = useState(false);
  if (!editing) {
    return (
      <div className="mt-2 flex items-baseline gap-2">
        <h2 className="break-words">{picture.title}</h2>
        <QuietButton onClick={() => setEditing(true)}>Rename</QuietButton>
      </div>
    );
  }
  return (
    <form
      className="mt-2"
      onSubmit={(e) => {
        e.preventDefault();
        const title = new FormData(e.currentTarget).get('title') as string;
        void rename({ id: picture.id, title })
          .unwrap()
          .then(
            () => setEditing(false),
            () => undefined,
          );
      }}
    >
      <input
        name="title"
        aria-label="Title"
        autoFocus
        defaultValue={picture.title}
        maxLength={160}
        required
        className="min-h-8 w-full rounded-[3px] border border-edge bg-field px-2 font-serif"
      />
      <ErrorNote error={error as never} />
    </form>
  );
}
