import { useEffect, useMemo, useState } from 'react';
import type { PictureView } from '@rakuen/contract/pictures';
import { MARK_KINDS, type Mark } from '@rakuen/core/picture/marks';
import { usePicturesQuery, useRemovePictureMutation } from '../api/api.ts';
import { questionOf } from '../app/steps.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { QuietButton } from '../parts/button.tsx';
import { Conflict, theirsOf } from '../parts/conflict.tsx';
import { Empty, ErrorNote, Waiting } from '../parts/messages.tsx';
import { ScreenHead } from '../parts/screen-head.tsx';
import { useTable } from '../table/use-table.ts';
import { CommissionLine } from './commission-line.tsx';
import { Hatching } from './hatching.tsx';
import { labImage, sampleAt, type LabImage } from './lab-image.ts';
import { MarginNotes } from './margin-notes.tsx';
import { PictureIntake } from './picture-intake.tsx';
import { PicturePrint } from './picture-print.tsx';
import { PictureStack } from './picture-stack.tsx';
import { useChangePictureMutation, useLaidQuery } from './picture-api.ts';
import { sheetMaps } from './sheet-maps.ts';
import { asksFor } from './picture-words.ts';

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

const MAPS = {
  none: 'bare',
  busy: 'busy detail',
  smooth: 'plain areas',
  reach: 'out of reach',
  closed: 'closed shadows',
} as const;
type MapKey = keyof typeof MAPS;
/** Maps of what a sheet does: that in the left hand. */
const OF_A_SHEET: readonly MapKey[] = ['reach', 'closed'];

function PictureSheet({ picture }: { picture: PictureView }) {
  const { structure } = picture.figures;
  const [change, { error, originalArgs, reset }] = useChangePictureMutation();
  const theirs = theirsOf<PictureView>(error);
  const [mark, setMark] = useState<number>();
  const [map, setMap] = useState<MapKey>('none');
  const dispatch = useAppDispatch();
  const marks: readonly Mark[] = picture.marks;
  const keep = (next: readonly Mark[]) =>
    void change({ id: picture.id, revision: picture.revision, marks: next.map((m) => ({ ...m })) });
  const laidAt = async (kind: Mark['kind'], x: number, y: number): Promise<Mark> => ({
    kind,
    x,
    y,
    ...sampleAt(await labImage(picture.id), x, y),
  });
  const move = async (i: number, x: number, y: number) => {
    const moved = await laidAt(marks[i].kind, x, y);
    keep(marks.map((m, at) => (at === i ? moved : m)));
    dispatch(said(`Mark ${i + 1}, ${MARK_KINDS[moved.kind]}, is moved.`));
  };
  const levels = structure && [...structure.map.busy].map(Number);
  const { left } = useTable();
  const ofSheet = OF_A_SHEET.includes(map);
  const { currentData: laid, error: unlaid } = useLaidQuery(
    { conditionId: left?.id ?? '', light: picture.commission.light, glass: picture.commission.glass },
    { skip: !ofSheet || !left },
  );
  const [image, setImage] = useState<LabImage>();
  useEffect(() => {
    if (!ofSheet) return;
    void labImage(picture.id).then(setImage, () => undefined);
  }, [ofSheet, picture.id]);
  const maps = useMemo(
    () => (ofSheet && image && laid && structure ? sheetMaps(image, laid.seen, structure.map) : undefined),
    [ofSheet, image, laid, structure],
  );
  const level = (tile: number): number => {
    switch (map) {
      case 'busy':
        return levels![tile];
      case 'smooth':
        return levels![tile] === 0 ? 6 : levels![tile] === 1 ? 3 : 0;
      case 'reach':
        return maps && maps.outOfReach[tile] > 1 ? maps.outOfReach[tile] : 0;
      case 'closed':
        return maps && maps.closed[tile] > 0.15 ? maps.closed[tile] * 9 : 0;
      default:
        return 0;
    }
  };
  const mapWords = ofSheet ? `${MAPS[map]} on ${left?.paper.name}, where it will hang` : MAPS[map];
  return (
    <section aria-label={picture.title}>
      <p className="mb-3 max-w-[92ch] font-serif text-[1.12rem] leading-snug">{asksFor(picture)}</p>
      <div className="grid grid-cols-[minmax(0,1fr)_minmax(230px,290px)] items-start gap-6 min-[1600px]:grid-cols-[minmax(0,1fr)_340px]">
        <div className="mx-auto w-full" style={{ maxWidth: `calc(64vh * ${picture.widthPx / picture.heightPx})` }}>
          <PicturePrint
            picture={picture}
            marks={marks}
            chosen={mark}
            onChoose={setMark}
            onMove={(i, x, y) => void move(i, x, y)}
          >
            {levels && map !== 'none' && (!ofSheet || maps) && (
              <Hatching
                columns={structure.map.columns}
                rows={structure.map.rows}
                label={`Map: ${mapWords}, the denser the more`}
                level={level}
              />
            )}
          </PicturePrint>
          <div className="mt-2 flex flex-wrap items-baseline justify-between gap-x-4">
            <Title picture={picture} />
            {levels && (
              <div role="radiogroup" aria-label="Map over the picture" className="flex gap-3 text-[13px]">
                {(Object.keys(MAPS) as MapKey[])
                  .filter((key) => left || !OF_A_SHEET.includes(key))
                  .map((key) => (
                    <label key={key} className="flex items-center gap-1">
                      <input
                        type="radio"
                        name="map"
                        className="accent-ink"
                        checked={map === key}
                        onChange={() => setMap(key)}
                      />
                      {MAPS[key]}
                    </label>
                  ))}
              </div>
            )}
          </div>
          {ofSheet && <p className="text-[13px]">Hatched: {mapWords}.</p>}
          <ErrorNote error={unlaid} />
          {picture.caption && <p className="font-serif italic">{picture.caption}</p>}
          <CommissionLine picture={picture} />
          <p className="mt-1 text-[12.5px] text-quiet">
            {picture.format}, {picture.widthPx} × {picture.heightPx} px, {picture.bitsPerChannel} bits a channel, every
            pixel read.{' '}
            {picture.profileAssumed
              ? 'No profile was used: sRGB is assumed.'
              : `Read through its embedded profile, ${picture.profile}.`}{' '}
            {picture.notes.join(' ')} Where “low key”, “soft”, “plain” or “busy” begins is our own bound.
          </p>
          {theirs && originalArgs ? (
            <Conflict
              mine={seenIn({ ...theirs, ...originalArgs })}
              theirs={seenIn(theirs)}
              onMine={() => void change({ ...originalArgs, revision: theirs.revision })}
              onTheirs={reset}
            />
          ) : (
            <ErrorNote error={error} />
          )}
          <Remove picture={picture} />
        </div>
        <MarginNotes
          picture={picture}
          marks={marks}
          chosen={mark}
          onChoose={setMark}
          onRemove={(i) => keep(marks.filter((_, at) => at !== i))}
          onAdd={() => void laidAt('own', 0.5, 0.5).then((m) => keep([...marks, m]))}
          onAsFound={() => void change({ id: picture.id, revision: picture.revision, asFound: ['marks'] })}
          onHints={(hints) => void change({ id: picture.id, revision: picture.revision, hints })}
        />
      </div>
    </section>
  );
}

function Remove({ picture }: { picture: PictureView }) {
  const [remove, { error }] = useRemovePictureMutation();
  const [sure, setSure] = useState(false);
  return (
    <>
      <ErrorNote error={error} />
      <QuietButton
        className="-ml-1.5"
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
    .map((m) => `${MARK_KINDS[m.kind]} at ${Math.round(100 * m.x)} % across, ${Math.round(100 * m.y)} % down`)
    .join('; '),
  hints: hints.join(', '),
});
