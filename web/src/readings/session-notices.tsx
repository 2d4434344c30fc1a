import { useState, type ReactNode } from 'react';
import type { SessionView } from '@rakuen/contract/sessions';
import { formatNumber } from '@rakuen/core/measurement/show';
import { MISREADS } from '@rakuen/core/session/strip-check';
import { Button } from '../parts/button.tsx';
import { TickField } from '../parts/form.tsx';
import type { SessionDeed } from './session-api.ts';
import type { Reading } from './use-reading.ts';

export function Key({ children }: { children: string }) {
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

/** What stands in the way, or is done last. */
export function SessionNotices({ session, at }: { session: SessionView; at: Reading }) {
  const { open, busy, doIt } = at;
  return (
    <>
      {session.lay && (
        <Notice
          title={`Lay sheet ${session.lay.sheet} of ${session.lay.of} under the instrument`}
          saw={`Strip ${session.strips[session.next!.strip].label} is on it; its number is printed at its head.`}
          mend="Nothing is read before it lies there."
        >
          <Button main disabled={busy} onClick={at.lay}>
            It lies there <Key>l</Key>
          </Button>
        </Notice>
      )}
      {session.questioned && (
        <Question session={session} busy={busy} onKeep={at.keep} onAct={(deed) => void doIt(deed)} />
      )}
      {open && session.drift && (
        <Notice title={MISREADS.drift.name} saw={session.drift.saw} mend={MISREADS.drift.mend}>
          <Button disabled={busy} onClick={at.calibrate}>
            Calibrate <Key>c</Key>
          </Button>
        </Notice>
      )}
      {open && !session.next && !session.questioned && (
        <Finish session={session} busy={busy} onAct={(deed) => void doIt(deed, 'The readings are kept.')} />
      )}
    </>
  );
}

/** A strip in question: what was seen, and the ways to mend it. */
function Question({
  session,
  busy,
  onKeep,
  onAct,
}: {
  session: SessionView;
  busy: boolean;
  onKeep: () => void;
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
      <Button disabled={busy} onClick={onKeep}>
        Keep it as it is <Key>k</Key>
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
export function Outliers({ session, at }: { session: SessionView; at: Reading }) {
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
              {at.open && (
                <TickField
                  label="left out"
                  aria-label={`${called[patch]}, pass ${pass + 1}, left out`}
                  checked={out}
                  onChange={() => at.leaveOut({ patch, pass, out: !out })}
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
