import { useEffect, useState } from 'react';
import type { SessionView } from '@rakuen/contract/sessions';
import { said, useAppDispatch } from '../app/store.ts';
import { useKeys } from '../parts/use-keys.ts';
import { useInSessionMutation, type SessionDeed } from './session-api.ts';

/** A session as it goes: what may be done next, and the keys for it. */
export function useReading(session: SessionView) {
  const { id } = session;
  const dispatch = useAppDispatch();
  const [act, acting] = useInSessionMutation();
  const [runs, setRuns] = useState(false);
  const [looked, setLooked] = useState<number>();
  const open = session.state === 'open';
  const busy = acting.isLoading;
  const canRead = open && !busy && session.next !== undefined && !session.lay;
  const canUndo = open && !busy && session.kept + (session.questioned ? 1 : 0) > 0;

  const doIt = async (deed: SessionDeed, words?: string) => {
    setLooked(undefined);
    const done = await act({ id, ...deed });
    if ('error' in done) setRuns(false);
    else if (words) dispatch(said(words));
  };
  const again = (body: Again) => void doIt({ deed: 'again', body }, 'Withdrawn; it is read again next.');
  const lay = () => session.lay && !busy && void doIt({ deed: 'lay', body: { sheet: session.lay.sheet } });
  const read = () => canRead && void doIt({ deed: 'read' });
  const readOn = () => (runs || canRead) && setRuns(!runs);
  const undo = () => canUndo && void doIt({ deed: 'undo' }, 'The last strip is withdrawn.');

  useEffect(() => {
    if (!runs) return;
    if (!session.next) return setRuns(false);
    // On another sheet it waits until that one lies there.
    if (!busy && !session.lay) void act({ id, deed: 'read' }).then((done) => 'error' in done && setRuns(false));
  }, [runs, busy, session.next, session.lay, act, id]);

  const calibrate = () => open && !busy && void doIt({ deed: 'calibrate' }, 'Calibrated on the white tile.');
  const keep = () =>
    session.questioned && !busy && void doIt({ deed: 'mend', body: { ...session.questioned, mend: 'keep' } });

  useKeys({
    s: read,
    o: readOn,
    u: undo,
    a: () => session.questioned && !busy && again(session.questioned),
    k: keep,
    c: calibrate,
    l: lay,
  });

  const at = session.questioned?.strip ?? session.next?.strip ?? 0;
  return {
    /** The map follows the instrument until a hand chooses another strip. */
    chosen: looked ?? lastRead(session) ?? at,
    setLooked,
    open,
    busy,
    runs,
    canRead,
    canUndo,
    error: acting.error,
    doIt,
    again,
    lay,
    read,
    readOn,
    undo,
    calibrate,
    keep,
    leaveOut: (body: LeaveOut) => void act({ id, deed: 'patches', body }),
  };
}
export type Reading = ReturnType<typeof useReading>;
type Again = Extract<SessionDeed, { deed: 'again' }>['body'];
type LeaveOut = Extract<SessionDeed, { deed: 'patches' }>['body'];

/** The strip that was read last. */
function lastRead(session: SessionView): number | undefined {
  const last = session.strips
    .flatMap((s) => s.passes)
    .reduce<{ strip: number; takenAt: string } | undefined>(
      (latest, p) => (!latest || p.takenAt > latest.takenAt ? p : latest),
      undefined,
    );
  return last?.strip;
}
