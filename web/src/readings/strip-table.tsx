import { deltaE2000 } from '@rakuen/core/colour/difference';
import { formatNumber } from '@rakuen/core/measurement/show';
import type { PatchPlace, SessionView, StripPlace } from '@rakuen/contract/sessions';
import { QuietButton } from '../parts/button.tsx';
import { screenColour } from '../parts/screen-colour.ts';

/** One strip, patch by patch: what was expected, what every pass read, and how far apart they lie. */
export function StripTable({
  session,
  at,
  open,
  onLeaveOut,
  onAgain,
}: {
  session: SessionView;
  at: number;
  open: boolean;
  onLeaveOut: (place: PatchPlace) => void;
  onAgain: (place: StripPlace) => void;
}) {
  const strip = session.strips[at];
  const first = session.strips.slice(0, at).reduce((n, s) => n + s.patchIds.length, 0);
  const passes = [...strip.passes].sort((a, b) => a.pass - b.pass);
  return (
    <section aria-label={`Strip ${strip.label}`}>
      <div className="mb-1 flex flex-wrap items-baseline gap-x-3">
        <h2>Strip {strip.label}</h2>
        {open &&
          passes
            .filter((p) => p.state === 'kept')
            .map((p) => (
              <QuietButton key={p.pass} onClick={() => onAgain({ strip: at, pass: p.pass })}>
                Read {session.passes > 1 ? `pass ${p.pass + 1}` : 'it'} again
              </QuietButton>
            ))}
      </div>
      <table className="w-full text-[13px]">
        <thead>
          <tr className="text-left text-quiet">
            <th scope="col" className="pr-2 font-normal">
              Patch
            </th>
            <th scope="col" className="pr-2 font-normal">
              expected
            </th>
            {passes.map((p) => (
              <th key={p.pass} scope="col" className="pr-2 text-right font-normal">
                {session.passes > 1 ? `pass ${p.pass + 1}` : 'read'}, ΔE00
              </th>
            ))}
            <th scope="col" className="sr-only">
              Leave out
            </th>
          </tr>
        </thead>
        <tbody>
          {strip.patchIds.map((id, i) => (
            <PatchRow key={id} {...{ session, strip, passes, i, open, onLeaveOut }} patch={first + i} />
          ))}
        </tbody>
      </table>
      {passes.length === 0 && <p className="mt-1 text-[13px] text-quiet">Not read yet.</p>}
    </section>
  );
}

type StripRead = SessionView['strips'][number];

/** A patch: what was expected, what each pass read, and the way to leave one out. */
function PatchRow({
  session,
  strip,
  passes,
  i,
  patch,
  open,
  onLeaveOut,
}: {
  session: SessionView;
  strip: StripRead;
  passes: StripRead['passes'];
  /** Its place in the strip, and in the chart. */
  i: number;
  patch: number;
  open: boolean;
  onLeaveOut: (place: PatchPlace) => void;
}) {
  const isOut = (pass: number) => session.excluded.some((e) => e.patch === patch && e.pass === pass);
  const bad = (pass: number) =>
    passes.find((p) => p.pass === pass)?.findings.some((f) => f.patches?.includes(i)) ||
    session.outliers.some((o) => o.patch === patch && o.pass === pass);
  return (
    <tr className="border-t border-line">
      <th scope="row" className="py-px pr-2 text-left font-normal">
        {i + 1}
      </th>
      <td className="py-px pr-2">
        <Swatch lab={strip.expected[i]} />
      </td>
      {passes.map((p) => {
        const apart = deltaE2000(p.labs[i], strip.expected[i]);
        return (
          <td
            key={p.pass}
            className={`py-px pr-2 text-right ${bad(p.pass) ? 'font-semibold' : ''} ${isOut(p.pass) ? 'line-through' : ''}`}
            title={`L* ${p.labs[i].map((v) => v.toFixed(2)).join(', ')}`}
          >
            {bad(p.pass) && <span aria-label="lies apart">! </span>}
            {formatNumber(apart, 1)} <Swatch lab={p.labs[i]} />
          </td>
        );
      })}
      <td className="py-px text-right">
        {open &&
          passes
            .filter((p) => bad(p.pass) || isOut(p.pass))
            .map((p) => {
              const out = isOut(p.pass);
              return (
                <QuietButton
                  key={p.pass}
                  className="min-h-6"
                  aria-label={`${out ? 'Take back in' : 'Leave out'}: ${strip.patchIds[i]}, pass ${p.pass + 1}`}
                  onClick={() => onLeaveOut({ patch: patch, pass: p.pass, out: !out })}
                >
                  {out ? 'take back in' : 'leave out'}
                </QuietButton>
              );
            })}
      </td>
    </tr>
  );
}

function Swatch({ lab }: { lab: readonly [number, number, number] }) {
  return (
    <span aria-hidden className="inline-block h-3.5 w-7 align-[-2px]" style={{ background: screenColour(lab).css }} />
  );
}
