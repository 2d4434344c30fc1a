import { useEffect, useState } from 'react';
import { formatNumber } from '@rakuen/core/measurement/show';
import { MONITOR_WHITES, type MonitorWhite, type ScreenMatch } from '@rakuen/core/light/screen-match';
import { decimal } from '../parts/decimal.ts';
import { ChoiceField, TextField } from '../parts/form.tsx';
import { MARKS } from '../parts/marks.ts';
import { useRemembered } from '../parts/remembered.ts';
import type { CompareProps } from './compare-props.ts';
import { desk } from './desk.ts';
import type { LitCondition } from './use-light.ts';

const OWN = 'measured';

/** The monitor's white, as chosen or measured. */
function useMonitor(): {
  monitor?: MonitorWhite;
  choice: string;
  setChoice: (v: string) => void;
  typed: Record<'x' | 'y' | 'Y', string>;
  type: (key: 'x' | 'y' | 'Y', value: string) => void;
  wrong?: string;
} {
  const [choice, setChoice] = useRemembered('monitor', 'D50');
  const [x, setX] = useRemembered('monitor-x', '0.3457');
  const [y, setY] = useRemembered('monitor-y', '0.3585');
  const [Y, setBright] = useRemembered('monitor-luminance', '90');
  const xy =
    choice === OWN
      ? { x: decimal(x), y: decimal(y) }
      : (MONITOR_WHITES[choice as keyof typeof MONITOR_WHITES] ?? MONITOR_WHITES.D50);
  const relativeLuminance = decimal(Y) / 100;
  const sound =
    xy.x > 0.2 && xy.x < 0.5 && xy.y > 0.2 && xy.y < 0.5 && relativeLuminance > 0.05 && relativeLuminance < 5;
  return {
    monitor: sound ? { ...xy, relativeLuminance } : undefined,
    choice,
    setChoice,
    typed: { x, y, Y },
    type: (key, value) => ({ x: setX, y: setY, Y: setBright })[key](value),
    wrong: sound ? undefined : 'x and y of a white lie between 0.2 and 0.5; the luminance between 5 and 500 %.',
  };
}

/** What the table comes to: a residual below what can be seen edge to edge is none. */
function saidOf(
  name: string,
  { toPaperWhite: { greys, colours }, toInks, lift, estimated }: ScreenMatch,
  seen: number,
): string {
  if (!lift)
    return `${name} was not read both with and without UV (M1 and M2): how well the screen can match it is not known.`;
  if (greys === undefined || colours === undefined || lift.colours === undefined || !toInks)
    return `${name} was read without ${greys === undefined ? 'greys' : 'colours'}: how well the screen can match it is not known.`;
  if (Math.max(greys, colours) < seen)
    return `${name}: set to its white, the screen matches it${estimated ? ', as far as its brightener is estimated from one spectrum' : ''}; greys stay off by ${formatNumber(greys, 1)} and colours by ${formatNumber(colours, 1)} ΔE00, less than can be seen.`;
  return `${name} can’t be matched whole: its brightener${estimated ? ', as it is estimated from one spectrum,' : ''} lifts the bare paper by ${formatNumber(lift.white, 1)} ΔE00 and its colours by ${formatNumber(lift.colours, 1)}. Set to its white, greys stay off by ${formatNumber(greys, 1)} and colours by ${formatNumber(colours, 1)}; set to the colours (${oneDigit(toInks.colours)}), the white is off by ${formatNumber(toInks.white, 1)}.`;
}

interface Matched {
  condition: LitCondition;
  letter: string;
  match: ScreenMatch;
}

/** How far the monitor can match each paper in this light; undefined until all are told. */
function useMatches(
  { laid, lit }: Pick<CompareProps, 'laid' | 'lit'>,
  monitor?: MonitorWhite,
): readonly Matched[] | undefined {
  const [found, setFound] = useState<{ key: string; list: Matched[] }>({ key: '', list: [] });
  const key = [
    laid.map((c) => c.id).join(),
    lit.light.key,
    lit.glass.key,
    monitor && [monitor.x, monitor.y, monitor.relativeLuminance].join(),
    lit.ready,
  ].join('/');
  useEffect(() => {
    if (!lit.ready || !monitor) return;
    let live = true;
    void Promise.all(
      laid.map(async (condition, i) => ({
        condition,
        letter: MARKS[i].letter,
        match: await desk().screen(condition.id, lit.light.power, lit.glass.key, monitor),
      })),
    ).then((all) => live && setFound({ key, list: all.flatMap((m) => (m.match ? [{ ...m, match: m.match }] : [])) }));
    return () => void (live = false);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  return found.key === key ? found.list : undefined;
}

/** What a monitor beside the print can and can't match of it. */
export function MonitorBeside({ laid, lit, thresholds }: CompareProps) {
  const at = useMonitor();
  const matches = useMatches({ laid, lit }, at.monitor);
  const without = matches ? laid.filter((c) => !matches.some((m) => m.condition.id === c.id)) : [];
  return (
    <section aria-label="A monitor beside the print">
      <h3 className="text-[1.1rem]">A monitor beside the print</h3>
      <p className="mb-2 max-w-[80ch] text-[13px] text-quiet">
        What is left between screen and print in this light, ΔE00: white · greys · colours. The screen is thought to
        show greys of its own white, and colours as the inks reflect them.
      </p>
      <MonitorFields at={at} />
      {at.wrong && <p role="alert">{at.wrong}</p>}
      {!at.wrong && matches && matches.length > 0 && <MatchTable matches={matches} plain={lit.plain} />}
      <ul className="mt-2 max-w-[80ch] font-serif text-[1.05rem]">
        {matches?.map(({ condition: c, match: m }) => (
          <li key={c.id}>{saidOf(c.paper.name, m, thresholds.deltaE.edgeToEdge)}</li>
        ))}
      </ul>
      {without.length > 0 && (
        <p className="mt-2 text-quiet">
          {without.map((c) => c.paper.name).join(', ')}: without spectra nothing can be said.
        </p>
      )}
    </section>
  );
}

function MonitorFields({ at: { choice, setChoice, typed, type } }: { at: ReturnType<typeof useMonitor> }) {
  return (
    <div className="mb-3 flex flex-wrap items-end gap-3">
      <ChoiceField
        label="Monitor white"
        className="w-40"
        value={choice}
        onChange={(e) => setChoice(e.target.value)}
        options={[
          ['D50', 'D50'],
          ['D65', 'D65'],
          [OWN, 'measured'],
        ]}
      />
      {choice === OWN && (
        <>
          <TextField
            label="x"
            className="w-24"
            inputMode="decimal"
            value={typed.x}
            onChange={(e) => type('x', e.target.value)}
          />
          <TextField
            label="y"
            className="w-24"
            inputMode="decimal"
            value={typed.y}
            onChange={(e) => type('y', e.target.value)}
          />
        </>
      )}
      <TextField
        label="Luminance"
        unit="% of a white card in the light"
        className="w-80"
        inputMode="decimal"
        value={typed.Y}
        onChange={(e) => type('Y', e.target.value)}
      />
    </div>
  );
}

const oneDigit = (value: number | undefined) => (value === undefined ? '–' : formatNumber(value, 1));
/** White, greys and colours that are left. */
const residual = (r: ScreenMatch['asItIs']) => [r.white, r.greys, r.colours].map(oneDigit).join(' · ');

/** @param plain as it was read, under D50 without glass: there the white is known in any case */
function MatchTable({ matches, plain }: { matches: readonly Matched[]; plain: boolean }) {
  const whiteKnown = (m: ScreenMatch) => plain || m.lift !== undefined;
  return (
    <table className="w-full border-t border-edge">
      <thead>
        <tr className="text-left text-[13px] text-quiet">
          {['Paper', 'Monitor as it is', 'Set to the paper’s white', 'Set to what suits the colours'].map((h) => (
            <th key={h} scope="col" className="py-1 pr-4 font-normal">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {matches.map(({ condition: c, letter, match: m }) => (
          <tr key={c.id} className="border-t border-line align-baseline">
            <th scope="row" className="py-1.5 pr-4 text-left font-normal">
              <b className="font-serif">{letter}</b> <span className="font-serif">{c.paper.name}</span>
            </th>
            <td className="py-1.5 pr-4">{whiteKnown(m) ? residual(m.asItIs) : '–'}</td>
            <td className="py-1.5 pr-4">
              {whiteKnown(m) ? residual(m.toPaperWhite) : '–'}
              {whiteKnown(m) && (
                <span className="block text-[12.5px] text-quiet">
                  x {m.paperWhiteXy[0].toFixed(4)}, y {m.paperWhiteXy[1].toFixed(4)}
                </span>
              )}
            </td>
            <td className="py-1.5 pr-4">
              {m.toInks ? residual(m.toInks) : '–'}
              {m.toInks && (
                <span className="block text-[12.5px] text-quiet">
                  x {m.toInks.xy[0].toFixed(4)}, y {m.toInks.xy[1].toFixed(4)}
                </span>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
