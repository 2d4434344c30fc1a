import { useState } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import { markName } from '@rakuen/core/picture/marks';
import { usePicturesQuery, useRemovePictureMutation } from '../api/api.ts';
import { questionOf } from '../app/steps.ts';
import { BinButton } from '../parts/bin-button.tsx';
import { QuietButton } from '../parts/button.tsx';
import { Conflict, theirsOf } from '../parts/conflict.tsx';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { useTable } from '../table/use-table.ts';
import { CommissionLine } from './commission-line.tsx';
import { MarginNotes } from './margin-notes.tsx';
import { PictureIntake } from './picture-intake.tsx';
import { PicturePrint } from './picture-print.tsx';
import { PictureStack } from './picture-stack.tsx';
import { useChangePictureMutation } from './picture-api.ts';
import { useMarks } from './use-marks.ts';
import { asksFor } from './picture-words.ts';
import { MapChoice, useMap } from './use-map.tsx';

/** The pictures, and what the one in hand asks of a paper. */
export function PicturesScreen() {
  const { data: pictures, error, isLoading } = usePicturesQuery();
  const table = useTable();
  const [chosen, setChosen] = useState<string>();
  const picture =
    pictures?.find((p) => p.id === chosen) ?? pictures?.find((p) => p.id === table.picture?.id) ?? pictures?.[0];

  return (
    <>
      <ScreenHead title="Pictures" question={questionOf('/pictures')} />
      <ErrorNote error={error} />
      {isLoading && <Waiting what="Fetching the pictures" />}
      {pictures?.length === 0 && (
        <Empty title="No pictures yet">
          Bring a JPEG, PNG or TIFF: its colours are read through its embedded profile, and you see its key, its
          contrast and what it holds before you match it to a paper.
        </Empty>
      )}
      {picture && <PictureSheet key={picture.id} picture={picture} />}
      {pictures && pictures.length > 0 && (
        <PictureStack pictures={pictures} chosen={picture?.id} onChoose={setChosen} />
      )}
      <div className={pictures?.length === 0 ? 'mx-auto mt-6 max-w-[52ch]' : 'mt-5'}>
        <PictureIntake onAdded={setChosen} />
      </div>
    </>
  );
}

function PictureSheet({ picture }: { picture: PictureView }) {
  const at = useMarks(picture);
  const map = useMap(picture);
  return (
    <section aria-label={picture.title}>
      <p className="mb-3 max-w-[92ch] font-serif text-[1.12rem] leading-snug">{asksFor(picture)}</p>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(230px,290px)] items-start gap-6 min-[1600px]:grid-cols-[minmax(0,1fr)_340px]">
        <div className="mx-auto w-full" style={{ maxWidth: `calc(64vh * ${picture.widthPx / picture.heightPx})` }}>
          <PicturePrint
            picture={picture}
            marks={at.marks}
            chosen={at.chosen}
            onChoose={at.setChosen}
            onMove={(i, x, y) => void at.move(i, x, y)}
            onRemove={at.remove}
          >
            {map.drawn}
          </PicturePrint>
          <div className="mt-2 flex flex-wrap items-baseline justify-between gap-x-4">
            <Title picture={picture} />
            {map.choices.length > 0 && <MapChoice at={map} />}
          </div>
          {map.ofSheet && <p className="text-[13px]">Hatched: {map.words}.</p>}
          <ErrorNote error={map.error} />
          {picture.caption && <p className="font-serif italic">{picture.caption}</p>}
          <CommissionLine picture={picture} />
          <AsRead picture={picture} />
          {at.theirs && at.asked ? (
            <Conflict
              mine={seenIn({ ...at.theirs, ...at.asked })}
              theirs={seenIn(at.theirs)}
              onMine={at.keepMine}
              onTheirs={at.leave}
            />
          ) : (
            <ErrorNote error={at.error} />
          )}
          <Remove picture={picture} />
        </div>
        <MarginNotes
          picture={picture}
          marks={at.marks}
          chosen={at.chosen}
          onChoose={at.setChosen}
          onRemove={at.remove}
          onRename={at.rename}
          onAdd={() => void at.add()}
          onAsFound={() => at.change({ asFound: ['marks'] })}
          onHints={(hints) => at.change({ hints })}
        />
      </div>
    </section>
  );
}

/** How it was read. */
function AsRead({ picture }: { picture: PictureView }) {
  return (
    <p className="mt-1 text-[12.5px] text-quiet">
      {picture.format}, {picture.widthPx} × {picture.heightPx} px, {picture.bitsPerChannel} bits a channel, every pixel
      read.{' '}
      {picture.profileAssumed
        ? 'No profile was used: sRGB is assumed.'
        : `Read through its embedded profile, ${picture.profile}.`}{' '}
      {picture.notes.join(' ')} Where “low key”, “soft”, “plain” or “busy” begins is our own bound.
    </p>
  );
}

function Remove({ picture }: { picture: PictureView }) {
  const [remove, { error }] = useRemovePictureMutation();
  return (
    <>
      <ErrorNote error={error} />
      <BinButton className="-ml-1.5" words="Remove this picture" onBin={() => remove(picture.id).unwrap()} />
    </>
  );
}

function Title({ picture }: { picture: PictureView }) {
  const [change, { error, originalArgs }] = useChangePictureMutation();
  const [editing, setEditing] = useState(false);
  const theirs = theirsOf<PictureView>(error);
  const typed = originalArgs?.title ?? picture.title;
  const rename = (title: string, revision: number) =>
    void change({ id: picture.id, revision, title })
      .unwrap()
      .then(
        () => setEditing(false),
        () => undefined,
      );
  if (!editing) {
    return (
      <div className="flex items-baseline gap-2">
        <h2 className="break-words">{picture.title}</h2>
        <QuietButton onClick={() => setEditing(true)}>Rename</QuietButton>
      </div>
    );
  }
  return (
    <form
      className="min-w-[50%]"
      onSubmit={(e) => {
        e.preventDefault();
        rename(new FormData(e.currentTarget).get('title') as string, picture.revision);
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
      {theirs ? (
        <Conflict
          mine={{ title: typed }}
          theirs={{ title: theirs.title }}
          onMine={() => rename(typed, theirs.revision)}
          onTheirs={() => setEditing(false)}
        />
      ) : (
        <ErrorNote error={error} />
      )}
    </form>
  );
}

/** What a hand says of a picture, in words that stand beside another’s. */
const seenIn = ({ marks = [], hints = [] }: Partial<Pick<PictureView, 'marks' | 'hints'>>): object => ({
  marks: marks
    .map((m) => `${markName(m)} at ${Math.round(100 * m.x)} % across, ${Math.round(100 * m.y)} % down`)
    .join('; '),
  hints: hints.join(', '),
});
