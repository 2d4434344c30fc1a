import { Progress } from 'radix-ui';
import { Link, useParams } from 'react-router';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { SessionView } from '@rakuen/contract/sessions';
import { useSessionQuery } from './session-api.ts';
import { useConditionsQuery } from '../api/api.ts';
import { Button } from '../parts/button.tsx';
import { conditionLine, dried, hour } from '../parts/label.ts';
import { ErrorNote, Waiting } from '../parts/messages.tsx';
import { Strip } from '../parts/strip.tsx';
import { BenchHead } from './bench-head.tsx';
import { StripMap } from './strip-map.tsx';
import { StripTable } from './strip-table.tsx';
import { Key, Outliers, SessionNotices } from './session-notices.tsx';
import { useReading, type Reading } from './use-reading.ts';

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
  const at = useReading(session);
  const { open } = at;
  return (
    <>
      <BenchHead
        title={session.chartName}
        question={open ? 'Does every patch read as it should?' : 'Read, and kept with the print condition.'}
        condition={condition}
      />
      <Sheet session={session} condition={condition} />
      <div className="mb-4 flex flex-wrap items-center gap-x-3 gap-y-2">
        {open && <Deeds session={session} at={at} />}
        <SoFar session={session} />
      </div>
      <div className="space-y-3 pb-4 empty:hidden">
        <ErrorNote error={at.error} />
        <SessionNotices session={session} at={at} />
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
          <StripMap session={session} chosen={at.chosen} onChoose={at.setLooked} />
          {session.outliers.length > 0 && <Outliers session={session} at={at} />}
        </div>
        <StripTable session={session} at={at.chosen} open={open} onLeaveOut={at.leaveOut} onAgain={at.again} />
      </div>
    </>
  );
}

/** Which sheet it is, how it was printed, and what reads it. */
function Sheet({ session, condition }: { session: SessionView; condition?: ConditionHead }) {
  return (
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
  );
}

function Deeds({ session, at }: { session: SessionView; at: Reading }) {
  return (
    <>
      <Button main={session.next !== undefined && !session.lay} disabled={!at.canRead || at.runs} onClick={at.read}>
        {session.next ? `Read strip ${session.strips[session.next.strip].label}` : 'Read'} <Key>s</Key>
      </Button>
      <Button disabled={!at.runs && !at.canRead} onClick={at.readOn}>
        {at.runs ? 'Pause' : 'Read on'} <Key>o</Key>
      </Button>
      <Button disabled={!at.canUndo} onClick={at.undo}>
        Undo the last strip <Key>u</Key>
      </Button>
      <Button disabled={at.busy} onClick={at.calibrate}>
        Calibrate <Key>c</Key>
      </Button>
    </>
  );
}

/** How far it is. */
function SoFar({ session }: { session: SessionView }) {
  const all = session.stripCount * session.passes;
  return (
    <div className="min-w-52 flex-1">
      <p role="status" className="text-[13px]">
        {session.kept} of {all} strips kept
        {session.next && session.passes > 1 && `, pass ${session.next.pass + 1} of ${session.passes}`}
        {session.state === 'open' && `, ${session.sinceCalibration} since the calibration`}
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
  );
}
