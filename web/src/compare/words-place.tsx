import { alikeMeasures, unlike, unlikeByReason, unstated } from '@rakuen/core/measurement/basis';
import { gamutVolume } from '@rakuen/core/measurement/measures/gamut-volume';
import { white } from '@rakuen/core/measurement/measures/white';
import { MEASURES } from '@rakuen/core/measurement/measures/registry';
import { describeBeside, describePair, describeWhites } from '@rakuen/core/measurement/sentences';
import type { ColourFigure } from '@rakuen/core/measurement/figure';
import type { Thresholds } from '@rakuen/core/measurement/thresholds';
import { TABLE_LIGHTS } from '@rakuen/core/light/table-lights';
import type { Lab } from '@rakuen/core/colour/types';
import { memo, useEffect, useState, type ReactNode } from 'react';
import { Waiting } from '../parts/messages.tsx';
import { Download } from '../parts/download.tsx';
import { GamutOutline } from '../parts/gamut-outline.tsx';
import { conditionLine } from '../parts/label.ts';
import { Strip } from '../parts/strip.tsx';
import { TakeSvg } from '../parts/take-svg.tsx';
import { useAfterPaint } from '../parts/use-after-paint.ts';
import type { CompareProps } from './compare-props.ts';
import { desk } from './desk.ts';
import { DmaxBars } from './dmax-bars.tsx';
import { MeasureTable } from './measure-table.tsx';
import { PairDrawn } from './pair-drawn.tsx';
import type { LitCondition } from './use-light.ts';

const DARK = TABLE_LIGHTS.find((l) => l.key === 'D50-no-uv')!;

/** The pair in hand as a colleague would say it, then every measure of all that lies on the table. */
export function WordsPlace({ laid, left, right, lit, thresholds }: CompareProps) {
  // The sentences and the table first; what is drawn below them follows, and is not seen before.
  const later = useAfterPaint(laid);
  return (
    <>
      <PairInHand left={left} right={right} lit={lit} thresholds={thresholds}>
        <div className={`will-change-[opacity] ${later === laid ? '' : 'opacity-0'}`} inert={later !== laid}>
          <PairOutlines laid={later} leftId={left.id} rightId={right.id} />
        </div>
      </PairInHand>
      <MeasureTable laid={laid} left={left} right={right} thresholds={thresholds} />
      <div inert={later !== laid} className={`will-change-[opacity] ${later === laid ? '' : 'opacity-0'}`}>
        <Drawings laid={later} leftId={left.id} rightId={right.id} />
      </div>
    </>
  );
}

/** What is drawn of the table, and which of it is in hand. */
interface Drawn {
  laid: LitCondition[];
  leftId: string;
  rightId: string;
}

const Drawings = memo(function Drawings({ laid, leftId, rightId }: Drawn) {
  const inHand = (c: LitCondition) => c.id === leftId || c.id === rightId;
  return (
    <div className="mt-7 grid grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)] gap-8 max-[1150px]:grid-cols-1">
      <TakeSvg name="Gamut outline">
        <GamutOutline
          outlines={laid.map((c) => ({
            id: c.id,
            name: c.paper.name,
            points: c.facts?.outline ?? [],
            strong: inHand(c),
          }))}
        />
      </TakeSvg>
      <TakeSvg name="Blackest black">
        <DmaxBars laid={laid} inHand={inHand} />
      </TakeSvg>
    </div>
  );
});

/** The outlines of the pair, where they rest on what is alike. */
const PairOutlines = memo(function PairOutlines({ laid, leftId, rightId }: Drawn) {
  const [left, right] = [leftId, rightId].map((id) => laid.find((c) => c.id === id));
  if (!left || !right || !alikeMeasures(left, right).some((m) => m.key === gamutVolume.key)) return null;
  return (
    <TakeSvg name={`Outlines of ${left.paper.name} and ${right.paper.name}`}>
      <PairDrawn left={left} right={right} />
    </TakeSvg>
  );
});

const NOTES: Partial<Record<LitCondition['underLight'], string>> = {
  'no spectra': 'holds no spectra: its figures stay as they were measured under D50, and take no part in what is said.',
  waiting: 'is being computed for this light.',
  estimated:
    'was not read both with and without UV (M1 and M2): what its brightener does in this light is estimated from the shape of its white’s spectrum. Figures that rest on it are marked ≈, and say between what they lie.',
  'no UV reading':
    'was not read both with and without UV (M1 and M2): what its brightener does in this light is not known, nor can it be estimated from its spectra.',
};

/** Everything that is said of a pair, by what an eye makes of it. */
function toldOf(left: LitCondition, right: LitCondition, thresholds: Thresholds) {
  const [l, r] = [left.facts?.figures, right.facts?.figures];
  const alike = alikeMeasures(left, right);
  const told = l && r ? describePair(alike, l, r, thresholds) : [];
  // A difference that rounds to nothing is not worth a sentence of its own.
  const isNothing = (t: (typeof told)[number]) => t.verdict === 'within your noise' || / by 0(\.0+)? /.test(t.sentence);
  return {
    told,
    seen: told.filter((t) => t.verdict.startsWith('visible')),
    unseen: told.filter((t) => t.verdict === 'too small to see' && !isNothing(t)),
    nothing: told.filter(isNothing).map((t) => MEASURES.find((m) => m.key === t.measure)!.name),
    beside: l && r ? describeBeside(alike, l, r) : [],
    /** What can't be held against each other, by its reason. */
    apart: [...unlikeByReason(left, right)],
    silent: unstated([left, right]).map((i) => [left, right][i].paper.name),
  };
}
type Told = ReturnType<typeof toldOf>;

function PairInHand({
  left,
  right,
  lit,
  thresholds,
  children,
}: Pick<CompareProps, 'left' | 'right' | 'lit'> & { thresholds: Thresholds; children: ReactNode }) {
  const said = toldOf(left, right, thresholds);
  const whites = useWhitesSentence(left, right, lit);
  const waiting = [left, right].some((c) => c.underLight === 'waiting');
  return (
    <section aria-label="The pair in hand" className="mb-6">
      <div className="grid grid-cols-2 gap-8">
        <InHand hand="Left hand" condition={left} />
        <InHand hand="Right hand" condition={right} />
      </div>
      {waiting ? (
        <Waiting what="Carrying the pair into this light" />
      ) : said.told.length + said.apart.length === 0 ? (
        <p className="mt-4">
          {(left.facts?.readingId ? right : left).paper.name} was not measured yet, so nothing can be said of the pair.
        </p>
      ) : (
        <div
          aria-busy={!lit.settled}
          className="flex items-start justify-between gap-8 min-[1500px]:justify-start min-[1500px]:gap-24"
        >
          <div className="min-w-0">
            <Seen said={said} whites={whites} />
            <Unseen said={said} />
            <p className="mt-2 flex flex-wrap items-center gap-x-4 text-[13px]">
              Export:
              <Download href={`/api/comparison?as=csv&${askedOf(lit, left, right)}`} label="The comparison as CSV">
                CSV
              </Download>
              <Download href={`/api/comparison?as=pdf&${askedOf(lit, left, right)}`} label="The comparison as PDF">
                PDF
              </Download>
            </p>
          </div>
          <div className="mt-3 max-[1150px]:hidden">{children}</div>
        </div>
      )}
    </section>
  );
}

function InHand({ hand, condition: c }: { hand: string; condition: LitCondition }) {
  return (
    <div className="min-w-0">
      <p className="text-[13px] text-quiet">{hand}</p>
      <TakeSvg name={`Strip of ${c.paper.name}`}>
        <Strip paper={c.paper} facts={c.facts} size="large" />
      </TakeSvg>
      <h2 className="mt-1 truncate" title={c.paper.name}>
        {c.paper.name}
      </h2>
      <p className="truncate text-[13px]" title={conditionLine(c)}>
        {conditionLine(c)}
      </p>
      {NOTES[c.underLight] && (
        <p className="text-[13px]">
          {c.paper.name} {NOTES[c.underLight]}
        </p>
      )}
    </div>
  );
}

/** What can be seen; and what the light, the lamp and the hand tell besides. */
function Seen({ said: { told, seen, beside, apart }, whites }: { said: Told; whites?: string }) {
  return (
    <>
      <ul aria-label="What can be seen" className="mt-4 max-w-[72ch] font-serif text-[1.08rem] leading-snug">
        {seen.map((t) => (
          <li key={t.measure}>{t.sentence}</li>
        ))}
        {seen.length === 0 && told.length > 0 && (
          <li>
            Nobody could tell these two apart by {apart.length > 0 ? 'what can be compared' : 'what was measured'}.
          </li>
        )}
      </ul>
      {(whites || beside.length > 0) && (
        <ul aria-label="By the light, the lamp and the hand" className="mt-2 max-w-[72ch] font-serif leading-snug">
          {whites && <li>{whites}</li>}
          {beside.map((t) => (
            <li key={t.measure}>{t.sentence}</li>
          ))}
        </ul>
      )}
    </>
  );
}

/** What can't be seen, and what is not held against each other. */
function Unseen({ said: { unseen, nothing, apart, silent } }: { said: Told }) {
  if (unseen.length + nothing.length + apart.length + silent.length === 0) return null;
  return (
    <ul aria-label="What can not be seen" className="mt-2 max-w-[80ch] text-[13px]">
      {unseen.map((t) => (
        <li key={t.measure}>{t.sentence}</li>
      ))}
      {nothing.length > 0 && <li>Within your noise, or nothing to speak of: {nothing.join('; ')}.</li>}
      {silent.map((name) => (
        <li key={name}>
          The readings of {name} do not say their measurement condition: they are taken for like, and the whites may not
          be.
        </li>
      ))}
      {apart.map(([why, measures]) => (
        <li key={why}>
          Not held against each other, {why}: {measures.map((m) => m.name).join('; ')}.
        </li>
      ))}
    </ul>
  );
}

/** The pair in hand first, then the others, under the light over the table. */
function askedOf({ conditions, light, glass }: CompareProps['lit'], left: LitCondition, right: LitCondition): string {
  const ids = [left.id, right.id, ...conditions.map((c) => c.id).filter((id) => id !== left.id && id !== right.id)];
  return new URLSearchParams({ ids: ids.join(','), light: light.key, glass: glass.key }).toString();
}
const whiteOf = (c: LitCondition): Lab | undefined => {
  const figure = c.facts?.figures.white;
  return figure?.shape === 'colour' ? figure.lab : undefined;
};

/** Whether it is the UV of the light that parts the two whites; nothing where what either does without it is not known. */
function useWhitesSentence(left: LitCondition, right: LitCondition, lit: CompareProps['lit']): string | undefined {
  const [dark, setDark] = useState<{ key: string; whites: readonly (Lab | undefined)[] }>();
  const key = `${left.id}/${right.id}`;
  useEffect(() => {
    if (!lit.ready) return;
    let live = true;
    void Promise.all([left.id, right.id].map((id) => desk().lit(id, DARK, 'none', false))).then(
      (both) =>
        live &&
        setDark({
          key,
          whites: both.map((b) => {
            const there = b?.figures.white as ColourFigure | undefined;
            // What is only estimated does not say what parts two whites.
            return b?.brightenerUnknown || there?.between ? undefined : there?.lab;
          }),
        }),
    );
    return () => void (live = false);
  }, [key, lit.ready, left.id, right.id]);
  const [l, r] = [whiteOf(left), whiteOf(right)];
  const [dl, dr] = dark?.key === key && !unlike(white, left, right) ? dark.whites : [];
  return l && r && dl && dr ? describeWhites([l, r], [dl, dr], lit.light.name) : undefined;
}
