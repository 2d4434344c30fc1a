import { useEffect, useState } from 'react';
import { colourTemperature, lightXyz } from '@rakuen/core/colour/temperature';
import { countedLights } from '@rakuen/core/light/own-lamp';
import type { ViewingLight } from '@rakuen/core/light/table-lights';
import { unlike } from '@rakuen/core/measurement/basis';
import { white } from '@rakuen/core/measurement/measures/white';
import { formatNumber } from '@rakuen/core/measurement/show';
import type { Turn } from '@rakuen/core/light/turns';
import { settingLine } from '../parts/label.ts';
import { MARKS } from '../parts/marks.ts';
import { Waiting } from '../parts/messages.tsx';
import { placeAmong } from '../parts/place.ts';
import type { CompareProps } from './compare-props.ts';
import { desk } from './desk.ts';
import { MonitorBeside } from './monitor-beside.tsx';
import { useLight, type LitCondition } from './use-light.ts';

/** What light does to each paper, which of them holds its colour, and what a monitor beside it can and can't match. */
export function LightPlace(props: CompareProps) {
  return (
    <div className="space-y-8">
      <Turns {...props} />
      <MonitorBeside {...props} />
    </div>
  );
}

interface Turning {
  readonly condition: LitCondition;
  readonly letter: string;
  readonly list: readonly Turn[];
  /** Over all lights; absent where the white or the greys are not known. */
  readonly mean?: number;
}

/** Papers with their turns from lamp to lamp, as they lie on the table; undefined until all are told. */
function useTurning({ laid, lit }: Pick<CompareProps, 'laid' | 'lit'>): Turning[] | undefined {
  const { own } = useLight();
  const [turning, setTurning] = useState<Turning[]>();
  const ids = laid.map((c) => c.id).join();
  const lamps = own.map((l) => `${l.key}/${l.source}`).join();
  useEffect(() => {
    if (!lit.ready) return;
    let live = true;
    void Promise.all(
      laid.map(async (condition, i) => ({
        condition,
        letter: MARKS[i].letter,
        ...(await desk().turns(condition.id, own)),
      })),
    ).then(
      (all) =>
        live &&
        setTurning(
          all.flatMap(({ condition, letter, list, mean }) => (list ? [{ condition, letter, list, mean }] : [])),
        ),
    );
    return () => void (live = false);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [ids, lamps, lit.ready]);
  return turning;
}

/** The steadiest first, then those of which that is not known; as they lie where what they rest on is unlike, and why. */
function inOrder(turning: readonly Turning[]): { shown: readonly Turning[]; why?: string } {
  const known = turning.filter((t) => t.mean !== undefined);
  // Turns are told from the sheets as they were read, whatever light is over the table now.
  const asRead = ({ condition }: Turning) => ({ ...condition, lit: undefined });
  const why = known.map((t) => unlike(white, asRead(known[0]), asRead(t))).find((reason) => reason !== undefined);
  if (why) return { shown: turning, why };
  return { shown: [...known.sort((p, q) => p.mean! - q.mean!), ...turning.filter((t) => t.mean === undefined)] };
}

const namesOf = (conditions: readonly LitCondition[]) => conditions.map((c) => c.paper.name).join(', ');

/** What is not known, of which papers. */
function Unknown({ turning, without }: { turning: readonly Turning[]; without: readonly LitCondition[] }) {
  const lacking = (part: 'white' | 'greys') =>
    turning.filter((t) => t.list.some((turn) => turn[part] === undefined)).map((t) => t.condition);
  const said = [
    [
      lacking('white'),
      'not read both with and without UV (M1 and M2). What its brightener does under these lamps is not known, nor how its white turns.',
    ],
    [
      turning
        .filter((t) => t.list.some((turn) => bears(turn.whiteBetween) && !turn.light.uvEnds))
        .map((t) => t.condition),
      'not read both with and without UV (M1 and M2). How its white turns (≈) is estimated from the shape of its one spectrum; nine times in ten it lies between the two figures beside it, and its place rests on that.',
    ],
    [
      turning
        .filter((t) => t.list.some((turn) => bears(turn.whiteBetween) && turn.light.uvEnds))
        .map((t) => t.condition),
      'under a lamp whose UV was not measured, how its white turns (≈) lies between the two figures beside it: with no UV, and with as much as daylight has.',
    ],
    [lacking('greys'), 'too few greys between L* 15 and 85 were read.'],
    [without, 'without spectra nothing can be said.'],
  ] as const;
  return said
    .filter(([papers]) => papers.length > 0)
    .map(([papers, what]) => (
      <p key={what} className="mt-2 max-w-[80ch] text-quiet">
        {namesOf(papers)}: {what}
      </p>
    ));
}

function Turns({ laid, lit }: CompareProps) {
  const turning = useTurning({ laid, lit });
  if (!turning) return <Waiting what="Carrying the papers from lamp to lamp" />;
  const without = laid.filter((c) => !turning.some((t) => t.condition.id === c.id));
  const { shown, why } = inOrder(turning);
  const placed = why ? [] : shown.flatMap((t) => t.mean ?? []);
  return (
    <section aria-label="Holding its colour">
      <h3 className="text-[1.1rem]">Which holds its colour</h3>
      <p className="mb-2 max-w-[80ch] text-[13px] text-quiet">
        ΔE00 from how it looks under D50 with its UV, the eye used to each light: first the white, then the mean of the
        middle greys against the paper.
        {why && ` They are put in no order: ${why}.`}
        {placed.length > 1 && ' The steadiest paper is first.'}
      </p>
      {shown.length > 0 && <TurnsTable turning={shown} means={placed.length > 1 ? placed.map(told) : []} />}
      <Unknown turning={turning} without={without} />
    </section>
  );
}

/** Hundredths of a ΔE00 are within the noise of any reading: they are not shown, and part nobody. */
const MEAN_DIGITS = 1;
const told = (mean: number) => Number(mean.toFixed(MEAN_DIGITS));

const shownOf = (turn: number | undefined) => (turn === undefined ? '–' : formatNumber(turn, 1));

/** An interval whose ends are shown alike is none. */
const bears = (between: Turn['whiteBetween']): boolean =>
  between !== undefined && shownOf(between[0]) !== shownOf(between[1]);

/** An estimated one with its interval beside it. */
const whiteOf = ({ white: turn, whiteBetween: between }: Turn) =>
  between && bears(between) ? `≈ ${shownOf(turn)} (${between.map(shownOf).join('–')})` : shownOf(turn);

const whyNotCounted = ({ power }: ViewingLight) =>
  colourTemperature(lightXyz(power)) ? 'same lamp as above: not counted again' : 'no white: not counted';

/** @param means of those that have a place; none where there is no order */
function TurnsTable({ turning, means }: { turning: readonly Turning[]; means: readonly number[] }) {
  const counted = new Set(countedLights(turning[0].list.map((t) => t.light)));
  return (
    <div className="scroll-quiet overflow-x-auto" tabIndex={0} role="region" aria-label="Turns from light to light">
      <table className="w-full border-t border-edge whitespace-nowrap">
        <thead>
          <tr className="text-left align-bottom text-[13px] text-quiet">
            <th scope="col" className="py-1 pr-4 font-normal">
              Under
            </th>
            {turning.map((t) => (
              <th key={t.condition.id} scope="col" className="py-1 pr-4 font-normal">
                <span className="text-ink">
                  {t.mean !== undefined && means.length > 0 && `${placeAmong(told(t.mean), means)}. `}
                  <b className="font-serif">{t.letter}</b> <span className="font-serif">{t.condition.paper.name}</span>
                </span>
                <span className="block max-w-40 truncate">{settingLine(t.condition)}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {turning[0].list.map((row, n) => (
            <tr key={row.light.key} className="border-t border-line" title={row.light.source}>
              <th scope="row" className="py-1 pr-4 text-left font-normal">
                {row.light.name}
                {!counted.has(row.light) && (
                  <span className="block text-[12px] text-quiet">{whyNotCounted(row.light)}</span>
                )}
              </th>
              {turning.map((t) => (
                <td key={t.condition.id} className="py-1 pr-4">
                  {whiteOf(t.list[n])} <span className="text-quiet">white,</span> {shownOf(t.list[n].greys)}{' '}
                  <span className="text-quiet">greys</span>
                </td>
              ))}
            </tr>
          ))}
          <tr className="border-t border-edge font-semibold">
            <th scope="row" className="py-1 pr-4 text-left">
              Over all
            </th>
            {turning.map((t) => (
              <td key={t.condition.id} className="py-1 pr-4">
                {t.mean === undefined
                  ? '–'
                  : `${t.list.some((turn) => bears(turn.whiteBetween)) ? '≈ ' : ''}${formatNumber(t.mean, MEAN_DIGITS)} ΔE00`}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </div>
  );
}
