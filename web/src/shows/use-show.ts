import { useEffect, useRef, useState } from 'react';
import type { ShowInput, ShowView } from '@rakuen/contract/shows';
import { theirsOf } from '../parts/conflict.tsx';
import { useChangeShowMutation } from './show-api.ts';

/** A new show, before anything is said of it. */
export const NEW_SHOW: ShowInput = {
  name: '',
  place: '',
  maxLoss: 0.3,
  sameSurface: false,
  sameWhite: false,
  allPapers: true,
  pictureIds: [],
  papers: [],
};

export const inputOf = ({ id: _, createdAt: __, revision: ___, ...input }: ShowView): ShowInput => input;

/**
 * A show, and what this page changes of it. Changes wait for each other and are sent one after the other, each with the
 * revision that the last one returned: only another window can come between.
 */
export function useShow(show: ShowView) {
  const [send, { error, reset }] = useChangeShowMutation();
  const [own, setOwn] = useState<ShowInput>();
  const latest = useRef<ShowInput>(inputOf(show));
  /** As the server has it. */
  const saved = useRef<ShowInput>(latest.current);
  const queue = useRef({ busy: false, waiting: false, revision: show.revision });

  useEffect(() => {
    const { busy, revision } = queue.current;
    // What is being sent is newer than what was fetched.
    if (busy || show.revision < revision) return;
    queue.current.revision = show.revision;
    latest.current = saved.current = inputOf(show);
    setOwn(undefined);
  }, [show]);

  const flush = async () => {
    const at = queue.current;
    if (at.busy) return;
    at.busy = true;
    while (at.waiting) {
      at.waiting = false;
      const { data, error: refusal } = await send({ id: show.id, revision: at.revision, show: latest.current });
      if (data) {
        at.revision = data.revision;
        saved.current = inputOf(data);
        continue;
      }
      // What was refused is shown; what waits behind it was made on top of it.
      at.waiting = false;
      if (theirsOf(refusal)) continue;
      latest.current = saved.current;
      setOwn(undefined);
    }
    at.busy = false;
  };
  const change = (what: Partial<ShowInput>) => {
    latest.current = { ...latest.current, ...what };
    setOwn(latest.current);
    queue.current.waiting = true;
    void flush();
  };
  const theirs = theirsOf<ShowView>(error);
  return {
    /** As this page has it: what was changed here shows at once. */
    now: own ?? inputOf(show),
    change,
    /** Moves a picture on, or back, in the order of the show. */
    move: (id: string, by: 1 | -1) => {
      const order = [...latest.current.pictureIds];
      const from = order.indexOf(id);
      const to = from + by;
      if (from < 0 || to < 0 || to >= order.length) return;
      [order[from], order[to]] = [order[to], order[from]];
      change({ pictureIds: order });
    },
    error,
    theirs,
    keepMine: () => {
      if (!theirs) return;
      queue.current.revision = theirs.revision;
      change({});
    },
    takeTheirs: () => {
      if (!theirs) return;
      reset();
      queue.current.revision = theirs.revision;
      latest.current = inputOf(theirs);
      setOwn(latest.current);
    },
  };
}

export type ShowAtHand = ReturnType<typeof useShow>;
