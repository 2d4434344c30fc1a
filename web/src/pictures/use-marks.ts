import { useEffect, useRef, useState } from 'react';
import type { PictureChange, PictureView } from '@rakuen/contract/pictures';
import { markName, type Mark } from '@rakuen/core/picture/marks';
import { said, useAppDispatch } from '../app/store.ts';
import { theirsOf } from '../parts/conflict.tsx';
import { labImage, sampleAt } from './lab-image.ts';
import { useChangePictureMutation } from './picture-api.ts';

/**
 * The marks of a picture, and what a hand changes of it. Changes of this page wait for each other and are sent one
 * after the other, each with the revision the last one gave: only another window can come between.
 */
export function useMarks(picture: PictureView) {
  const [send, { error, reset }] = useChangePictureMutation();
  const dispatch = useAppDispatch();
  const [chosen, setChosen] = useState<number>();
  /** Marks as this page has them, until the server's are as new. */
  const [own, setOwn] = useState<readonly Mark[]>();
  const [asked, setAsked] = useState<PictureChange>();
  const queue = useRef<{ busy: boolean; looking: number; waiting?: PictureChange; revision: number }>({
    busy: false,
    looking: 0,
    revision: picture.revision,
  });
  const latest = useRef<readonly Mark[]>(picture.marks);

  useEffect(() => {
    const { busy, looking, revision } = queue.current;
    // A move that is still being looked at, or sent, is newer than what was fetched.
    if (busy || looking > 0 || picture.revision < revision) return;
    queue.current.revision = picture.revision;
    latest.current = picture.marks;
    setOwn(undefined);
  }, [picture]);

  const flush = async () => {
    const at = queue.current;
    if (at.busy) return;
    at.busy = true;
    while (at.waiting) {
      const what = at.waiting;
      at.waiting = undefined;
      setAsked(what);
      const { data } = await send({ id: picture.id, revision: at.revision, ...what });
      if (data) at.revision = data.revision;
      // What was refused is shown; what waits behind it was made on top of it.
      else at.waiting = undefined;
    }
    at.busy = false;
  };
  const change = (what: PictureChange) => {
    queue.current.waiting = { ...queue.current.waiting, ...what };
    void flush();
  };
  const show = (marks: readonly Mark[]) => {
    latest.current = marks;
    setOwn(marks);
  };
  const keep = (marks: readonly Mark[]) => {
    show(marks);
    change({ marks: marks.map((m) => ({ ...m })) });
  };
  const seenAt = async (x: number, y: number) => sampleAt(await labImage(picture.id), x, y);
  const theirs = theirsOf<PictureView>(error);
  return {
    marks: own ?? picture.marks,
    chosen,
    setChosen,
    change: (what: PictureChange) => {
      if (what.asFound) setOwn(undefined);
      change(what);
    },
    add: async () => keep([...latest.current, { kind: 'own', x: 0.5, y: 0.5, ...(await seenAt(0.5, 0.5)) }]),
    /** @param word nothing: it is called by what lies there again */
    rename: (i: number, word: string) =>
      keep(latest.current.map((m, at): Mark => (at === i ? { ...m, word: word.trim() || undefined } : m))),
    remove: (i: number) => keep(latest.current.filter((_, at) => at !== i)),
    move: async (i: number, x: number, y: number) => {
      // It is there at once, so that the next key moves it on from there. Away from where it was found it is no longer
      // the deepest shadow or the lightest light: it is a place of one's own.
      show(latest.current.map((m, at): Mark => (at === i ? { ...m, kind: 'own', x, y } : m)));
      queue.current.looking++;
      const seen = await seenAt(x, y).finally(() => queue.current.looking--);
      const still = latest.current[i];
      if (!still || still.x !== x || still.y !== y) return;
      keep(latest.current.map((m, at): Mark => (at === i ? { ...m, ...seen } : m)));
      dispatch(said(`Mark ${i + 1}, ${markName({ ...still, ...seen })}, is moved.`));
    },
    error,
    theirs,
    asked,
    keepMine: () => {
      if (!asked || !theirs) return;
      queue.current.revision = theirs.revision;
      change(asked);
    },
    leave: () => {
      reset();
      setOwn(undefined);
      latest.current = theirs?.marks ?? picture.marks;
      if (theirs) queue.current.revision = theirs.revision;
    },
  };
}
