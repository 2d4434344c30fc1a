import { Progress } from 'radix-ui';
import { useEffect, useState, type ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import { MISREADS } from '@rakuen/core/session/strip-check';
import { formatNumber } from '@rakuen/core/measurement/show';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { SessionView } from '@rakuen/contract/sessions';
import { type SessionDeed, useInSessionMutation, useSessionQuery } from './session-api.ts';
import { useConditionsQuery } from '../api/api.ts';
import { said, useAppDispatch } from '../app/store.ts';
import { Button } from '../parts/button.tsx';
import { TickField } from '../parts/form.tsx';
import { conditionLine, dried, hour } from '../parts/label.ts';
import { ErrorNote, Waiting } from '../parts/messages.tsx';
import { Strip } from '../parts/strip.tsx';
import { useKeys } from '../parts/use-keys.ts';
import { BenchHead } from './bench-head.tsx';
import { StripMap } from './strip-map.tsx';
import { StripTable } from './strip-table.tsx';

/** A chart under the instrument. */
export function SessionScreen() {
  const { id = '' } = useParams();
  const { data: session, error, isLoading } = useSessionQuery(id);
  const { data: conditions } = useConditionsQuery();
  const condition = conditions?.find((c) => c.id === session?.conditionId);
  if (isLoading) return <Waiting what="Fetching the session" />;
  if (!session)
    return (
      <>
        <BenchHead title="Read a chart" question="Which sheet lies under the instrument?" />
        <ErrorNote error={error} />
      </>
    );
  return <Session key={id} session={session} condition={condition} />;
}

function Session({ session, condition }: { session: SessionView; condition?: ConditionHead }) {
  const { id } = session;
  const dispatch = useAppDispatch();
  const [act, acting] = useInSessionMutation();
  const [runs, setRuns] = useState(false);
  const at = session.questioned?.strip ?? session.next?.strip ?? 0;
  const [looked, setLooked] = useState<number>();
  // The map follows the instrument until a hand chooses another strip.
  const chosen = looked ?? lastRead(session) ?? at;
  const open = session.state === 'open';
  const all = session.stripCount * session.passes;
  const busy = acting.isLoading;

  const doIt = async (deed: SessionDeed, words?: string) => {
    setLooked(undefined);
    const done = await act({ id, ...deed });
    if ('error' in done) setRuns(false);
    else if (words) dispatch(said(words));
  };
  const canRead = open && !busy && session.next !== undefined && !session.lay;
  const lay = () => session.lay && !busy && void doIt({ deed: 'lay', body: { sheet: session.lay.sheet } });
  const read = () => canRead && void doIt({ deed: 'read' });
  const undo = () =>
    open &&
    !busy &&
    session.kept + (session.questioned ? 1 : 0) > 0 &&
    void doIt({ deed: 'undo' }, 'The last strip is withdrawn.');
  const again = () =>
    session.questioned &&
    !busy &&
    void doIt({ deed: 'again', body: session.questioned }, 'Withdrawn; it is read again next.');

  useEffect(() => {
    if (!runs) return;
    if (!session.next) return setRuns(false);
    // On another sheet it waits until that one lies there.
    if (!busy && !session.lay) void act({ id, deed: 'read' }).then((done) => 'error' in done && setRuns(false));
  }, [runs, busy, session.next, session.lay, act, id]);

  useKeys({ s: read, o: () => (runs || canRead) && setRuns(!runs), u: undo, a: again, l: lay });

  return (
    <>
      <BenchHead
        title={session.chartName}
        question={open ? 'Does every patch read as it should?' : 'Read, and kept with the print condition.'}
        condition={condition}
      />
      <div className="mb-4 flex flex-wrap items-center gap-x-6 gap-y-2">
        {condition && <Strip paper={condition.paper} facts={condition.facts} />}
        <div className="min-w-0">
          <h2 className="break-words">{condition?.paper.name ?? 'A print condition that was removed'}</h2>
          <p className="text-[13px]">{condition && conditionLine(condition)}</p>
        </div>
        <p className="ml-auto text-right text-[13px] text-quiet">
          {session.instrument}
          <br />
          printed {hour(session.printedAt)}, dried {dried(Math.max(0, session.driedHours))}
          {session.batch && `, ${session.batch}`}
        </p>
      </div>

      <div className="mb-4 flex flex-wrap items-center gap-x-3 gap-y-2">
        {open && (
          <>
            <Button main={session.next !== undefined && !session.lay} disabled={!canRead || runs} onClick={read}>
              {session.next ? `Read strip ${session.strips[session.next.strip].label}` : 'Read'} <Key>s</Key>
            </Button>
            <Button disabled={!runs && !canRead} onClick={() => setRuns(!runs)}>
              {runs ? 'Pause' : 'Read on'} <Key>o</Key>
            </Button>
            <Button disabled={busy || session.kept + (session.questioned ? 1 : 0) === 0} onClick={undo}>
              Undo the last strip <Key>u</Key>
            </Button>
            <Button disabled={busy} onClick={() => void doIt({ deed: 'calibrate' }, 'Calibrated on the white tile.')}>
              Calibrate
            </Button>
          </>
        )}
        <div className="min-w-52 flex-1">
          <p role="status" className="text-[13px]">
            {session.kept} of {all} strips kept
            {session.next && session.passes > 1 && `, pass ${session.next.pass + 1} of ${session.passes}`}
            {open && `, ${session.sinceCalibration} since the calibration`}
          </p>
          <Progress.Root
            value={session.kept}
            max={all}
            aria-label="Strips kept"
            className="h-2 overflow-hidden border border-edge bg-field"
          >
            <Progress.Indicator className="h-full bg-ink" style={{ width: `${(100 * session.kept) / all}%` }} />
          </Progress.Root>
        </div>
      </div>

      <div className="space-y-3 pb-4 empty:hidden">
        <ErrorNote error={acting.error} />
        {session.lay && (
          <Notice
            title={`Lay sheet ${session.lay.sheet} of ${session.lay.of} under the instrument`}
            saw={`Strip ${session.strips[session.next!.strip].label} is on it; its number is printed at its head.`}
            mend="Nothing is read before it lies there."
          >
            <Button main disabled={busy} onClick={lay}>
              It lies there <Key>l</Key>
            </Button>
          </Notice>
        )}
        {session.questioned && <Question session={session} busy={busy} onAct={(deed) => void doIt(deed)} />}
        {open && session.drift && (
          <Notice title={MISREADS.drift.name} saw={session.drift.saw} mend={MISREADS.drift.mend}>
            <Button disabled={busy} onClick={() => void doIt({ deed: 'calibrate' }, 'Calibrated on the white tile.')}>
              Calibrate now
            </Button>
          </Notice>
        )}
        {open && !session.next && !session.questioned && (
          <Finish session={session} busy={busy} onAct={(deed) => void doIt(deed, 'The readings are kept.')} />
        )}
        {!open && condition && (
          <p>
            <Link to={`/readings/${condition.id}/history`} className="font-semibold underline underline-offset-3">
              To the readings of {condition.paper.name}
            </Link>
          </p>
        )}
      </div>

      <div className="grid grid-cols-[minmax(0,1fr)_minmax(280px,0.56fr)] gap-x-7 gap-y-5 max-[1150px]:grid-cols-1">
        <div className="min-w-0 space-y-5">
          <StripMap session={session} chosen={chosen} onChoose={setLooked} />
          {session.outliers.length > 0 && <Outliers session={session} open={open} onAct={(deed) => void doIt(deed)} />}
        </div>
        <StripTable
          session={session}
          at={chosen}
          open={open}
          onLeaveOut={(body) => void act({ id, deed: 'patches', body })}
          onAgain={(body) => void doIt({ deed: 'again', body }, 'Withdrawn; it is read again next.')}
        />
      </div>
    </>
  );
}

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

function Key({ children }: { children: string }) {
  return <kbd className="border border-current px-1 text-[11px] leading-4 opacity-80">{children}</kbd>;
}

function Notice({ title, saw, mend, children }: { title: string; saw: string; mend: string; children: ReactNode }) {
  return (
    <div
      role="alert"
      className="flex flex-wrap items-center gap-x-6 gap-y-2 border-l-4 border-ink bg-field px-4 py-2.5"
    >
      <div className="min-w-0 flex-1">
        <p className="font-semibold">{title}</p>
        <p>{saw}</p>
        <p className="font-serif">{mend}</p>
      </div>
      <div className="flex flex-wrap gap-2">{children}</div>
    </div>
  );
}

/** A strip in question: what was seen, and the ways to mend it. */
function Question({
  session,
  busy,
  onAct,
}: {
  session: SessionView;
  busy: boolean;
  onAct: (deed: SessionDeed) => void;
}) {
  const place = session.questioned!;
  const strip = session.strips[place.strip];
  const finding = strip.passes.find((p) => p.pass === place.pass)?.findings[0];
  if (!finding) return null;
  const { name, mend } = MISREADS[finding.misread];
  return (
    <Notice
      title={`Strip ${strip.label}: ${name.charAt(0).toLowerCase()}${name.slice(1)}`}
      saw={finding.saw}
      mend={mend}
    >
      <Button disabled={busy} onClick={() => onAct({ deed: 'again', body: place })}>
        Read it again <Key>a</Key>
      </Button>
      {finding.patches && (
        <Button disabled={busy} onClick={() => onAct({ deed: 'mend', body: { ...place, mend: 'leave out' } })}>
          Leave {finding.patches.length === 1 ? 'the patch' : 'the patches'} out
        </Button>
      )}
      <Button disabled={busy} onClick={() => onAct({ deed: 'mend', body: { ...place, mend: 'keep' } })}>
        Keep it as it is
      </Button>
    </Notice>
  );
}

/** All is read: what is done about drift and outliers, and then kept. */
function Finish({ session, busy, onAct }: { session: SessionView; busy: boolean; onAct: (deed: SessionDeed) => void }) {
  const [takeDriftOut, setTakeDriftOut] = useState(session.drift !== undefined);
  const standing = session.outliers.filter(
    (o) => !session.excluded.some((e) => e.patch === o.patch && e.pass === o.pass),
  ).length;
  return (
    <section aria-label="Every strip is read" className="border border-edge bg-sheet px-4 py-3">
      <p className="font-semibold">Every strip is read.</p>
      <p>
        {session.outliers.length === 0
          ? 'No pass lies apart from the others.'
          : `${session.outliers.length} ${session.outliers.length === 1 ? 'pass lies' : 'passes lie'} apart; ${standing === 0 ? 'none' : standing} of them ${standing === 1 ? 'goes' : 'go'} into the mean.`}{' '}
        {session.excluded.length > 0 &&
          `${session.excluded.length} ${session.excluded.length === 1 ? 'patch is' : 'patches are'} left out.`}
      </p>
      <div className="mt-1 flex flex-wrap items-center gap-x-6">
        <TickField
          label="Take the drift out by the repeated whites"
          checked={takeDriftOut}
          onChange={(e) => setTakeDriftOut(e.target.checked)}
        />
        <Button main disabled={busy} onClick={() => onAct({ deed: 'finish', body: { takeDriftOut } })}>
          {busy ? 'Keeping…' : 'Keep the readings'}
        </Button>
      </div>
    </section>
  );
}

const MOST_SHOWN = 12;

/** Passes that disagree with the others of their patch: shown, and in the mean until a hand takes them out. */
function Outliers({
  session,
  open,
  onAct,
}: {
  session: SessionView;
  open: boolean;
  onAct: (deed: SessionDeed) => void;
}) {
  const called = session.strips.flatMap((s) => s.patchIds.map((_, i) => `strip ${s.label}, patch ${i + 1}`));
  return (
    <section aria-label="Passes that lie apart">
      <h2 className="mb-1">Passes that lie apart</h2>
      <ul className="grid grid-cols-2 gap-x-6">
        {session.outliers.slice(0, MOST_SHOWN).map(({ patch, pass, deltaE }) => {
          const out = session.excluded.some((e) => e.patch === patch && e.pass === pass);
          return (
            <li key={`${patch}/${pass}`} className="flex items-center justify-between border-b border-line">
              <span className={out ? 'line-through' : ''}>
                {called[patch]}, pass {pass + 1}: {formatNumber(deltaE, 1)} ΔE00 from the middle
              </span>
              {open && (
                <TickField
                  label="left out"
                  aria-label={`${called[patch]}, pass ${pass + 1}, left out`}
                  checked={out}
                  onChange={() => onAct({ deed: 'patches', body: { patch, pass, out: !out } })}
                />
              )}
            </li>
          );
        })}
      </ul>
      {session.outliers.length > MOST_SHOWN && (
        <p className="text-[13px] text-quiet">
          and {session.outliers.length - MOST_SHOWN} more; each is marked in its strip.
        </p>
      )}
    </section>
  );
}
