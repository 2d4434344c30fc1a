import { Link } from 'react-router';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { DecisionView } from '@rakuen/contract/matches';
import type { NoteView } from '@rakuen/contract/notes';
import type { PictureView } from '@rakuen/contract/pictures';
import type { Stamp } from '@rakuen/contract/vocabulary';
import { LEANINGS } from '@rakuen/core/match/leanings/registry';
import type { Reason } from '@rakuen/core/match/leanings/leaning';
import { RECIPE_PARTS } from '@rakuen/core/proof/recipe';
import type { PartedBy, RankedSheet } from '@rakuen/core/match/rank';
import type { PartingFigure } from '@rakuen/core/match/parting';
import { sentenceCase } from '@rakuen/core/match/words';
import { formatNumber } from '@rakuen/core/measurement/show';
import { Button, QuietButton } from '../parts/button.tsx';
import { conditionLine, day } from '../parts/label.ts';
import { Seal } from '../parts/seal.tsx';
import { Score } from './score.tsx';
import { SeenOnSheet } from './seen-on-sheet.tsx';
import { ShadowWedge } from './shadow-wedge.tsx';

const nameOf = (leaning: string) => LEANINGS.find((l) => l.key === leaning)?.name ?? leaning;
const numberOf = ({ unit }: PartingFigure, value: number): string =>
  formatNumber(value, Math.abs(value) >= 100 || unit === 'min' || unit === 'mm' ? 0 : unit.includes('per') ? 2 : 1);

/** "Shadow steps kept 89.0 %, next 84.6"; of a criterion that concerns one of the two alone, that one’s. */
function figureWords(figure: PartingFigure, word: string): string {
  const { name, unit, own, other } = figure;
  const value = (v: number) => `${numberOf(figure, v)}\u00a0${unit}`;
  if (own === undefined) return `${sentenceCase(name)}: ${word} ${value(other!)}, here none counted`;
  if (other === undefined) return `${sentenceCase(name)} ${value(own)}, ${word} none counted`;
  return `${sentenceCase(name)} ${value(own)}, ${word} ${numberOf(figure, other)}`;
}

/** Figures that part a place from the next, shown before the rest folds away. */
const SHOWN = 3;

/** What a place is compared with: the next, or for the last the one before it. */
export interface Beside {
  readonly parts: readonly PartedBy[];
  /** Its neighbour, as a word before the neighbour's figure. */
  readonly word: string;
  /** They share a place, or the difference is not sure. */
  readonly said?: string;
}

/** One place of a ranking: the picture on that sheet, the verdict, what parts it from its neighbour, and the decision. */
export function PlaceRow({
  place,
  condition,
  picture,
  decision,
  judged,
  shared,
  beside,
  marks,
  first,
  recipe,
  onStamp,
  onTakeBack,
}: {
  place: RankedSheet;
  condition: ConditionHead;
  picture: PictureView;
  decision?: DecisionView;
  /** What the eye found on its strips. */
  judged: readonly NoteView[];
  /** Several stand in this place. */
  shared: boolean;
  beside: Beside;
  /** Marks that come out differently on these sheets. */
  marks: readonly number[];
  first: boolean;
  /** The saved recipe it is printed by. */
  recipe?: { readonly id: string; readonly revision: number };
  onStamp: (stamp: Stamp) => void;
  onTakeBack: (id: string) => void;
}) {
  return (
    <li
      data-place={place.id}
      className="grid grid-cols-[26px_150px_minmax(0,1fr)_118px] gap-x-4 border-t border-edge py-2 max-[1180px]:grid-cols-[22px_110px_minmax(0,1fr)] min-[1600px]:grid-cols-[40px_210px_minmax(0,1fr)_150px]"
    >
      <div>
        <p className="font-serif text-[1.5rem] leading-none">{place.place}</p>
        {shared && <p className="text-[11px] leading-tight text-quiet">shared</p>}
      </div>
      <SeenOnSheet
        picture={picture}
        conditionId={condition.id}
        name={condition.paper.name}
        px={400}
        recipe={recipe}
        marks={place.figures.marks}
        shown={marks}
      />
      <div
        className="min-w-0"
        tabIndex={0}
        data-row
        data-kind="paper"
        data-id={condition.id}
        data-name={condition.paper.name}
      >
        <Verdict {...{ place, condition }} />
        <Parting beside={beside} />
        {decision?.reason && (
          <p className="text-[13px] leading-snug">
            <span className="text-quiet">Decision: </span>
            {decision.reason}
          </p>
        )}
        {judged.map((note) => (
          <p key={note.id} className="font-serif text-[0.95rem] leading-snug">
            {judgedWords(note)}
          </p>
        ))}
        <Behind place={place} conditionId={condition.id} />
      </div>
      <Stamping condition={condition} decision={decision} first={first} onStamp={onStamp} onTakeBack={onTakeBack} />
    </li>
  );
}

/** Which paper it is, its score, and what it does to the picture in a line. */
function Verdict({ place, condition }: { place: RankedSheet; condition: ConditionHead }) {
  return (
    <>
      <div className="flex items-baseline justify-between gap-x-4">
        <div className="flex min-w-0 items-baseline gap-x-2 max-[1180px]:flex-wrap">
          <h3 className="shrink-0 text-[1.05rem] leading-tight break-words max-[1180px]:shrink">
            {condition.paper.name}
          </h3>
          <p
            className="min-w-0 truncate text-[12.5px] text-quiet max-[1180px]:whitespace-normal"
            title={conditionLine(condition)}
          >
            {conditionLine(condition)}
          </p>
        </div>
        <Score score={place.score} sd={place.scoreSd} />
      </div>
      <p className="font-serif text-[1rem] leading-snug font-semibold">
        {place.verdict}
        {place.verdict.includes('shadow steps') && <ShadowWedge steps={place.figures.shadowWedge} />}
      </p>
    </>
  );
}

/** The three figures that part a sheet most from its neighbour. */
function Parting({ beside: { parts, word, said } }: { beside: Beside }) {
  return (
    <ul aria-label="Differences" className="flex flex-wrap gap-x-5 text-[13px] leading-[1.35]">
      {said && <li className="w-full text-quiet">{said}</li>}
      {parts.slice(0, SHOWN).map(({ leaning, by, figure }) => (
        <li key={leaning} className="grid grid-cols-[12px_auto]" title={nameOf(leaning)}>
          <span aria-hidden>{by > 0 ? '+' : '−'}</span>
          <span>
            <span className="sr-only">{by > 0 ? 'Better: ' : 'Worse: '}</span>
            {figure ? figureWords(figure, word) : nameOf(leaning)}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** Every reason as a sentence; folded until it is asked for. */
function Behind({ place, conditionId }: { place: RankedSheet; conditionId: string }) {
  const count = place.reasons.length;
  return (
    <details className="text-[13px]">
      <summary className="cursor-pointer text-quiet">{count === 1 ? 'The reason' : `All ${count} reasons`}</summary>
      <Reasons reasons={[...place.reasons].sort((p, q) => q.cost - p.cost)} wedge={place.figures.shadowWedge} />
      <Link className="underline" to={`/match/papers/${conditionId}`}>
        Which other pictures suit this paper?
      </Link>
    </details>
  );
}

/** Judged on paper, by one eye, of this sheet alone: it is said and counts for nothing. */
function judgedWords({ finding, by, at }: NoteView): string {
  const { name, written } = RECIPE_PARTS[finding!.part];
  const steps = finding!.steps.split(',').map((v) => written(Number(v)));
  return `Judged on strips, ${[by, finding!.light ?? 'the light not said', day(at)].filter(Boolean).join(', ')}: of ${name.toLowerCase()} ${steps.join(', ')} the best was ${written(finding!.value)}. Not counted in the score.`;
}

function Reasons({ reasons, wedge }: { reasons: readonly Reason[]; wedge: readonly number[] }) {
  return (
    <ul className="mt-1 max-w-[78ch] space-y-0.5 min-[1600px]:max-w-none min-[1600px]:columns-2 min-[1600px]:gap-8">
      {reasons.map((r) => (
        <li key={r.leaning} className="grid break-inside-avoid grid-cols-[16px_1fr]">
          <span
            aria-hidden
            title={{ for: 'speaks for it', against: 'speaks against it', neither: 'speaks neither way' }[r.speaks]}
          >
            {{ for: '+', against: '−', neither: '·' }[r.speaks]}
          </span>
          <span className="font-serif text-[0.98rem] leading-snug">
            <span className="sr-only">{{ for: 'For: ', against: 'Against: ', neither: '' }[r.speaks]}</span>
            {r.sentence}
            {r.leaning === 'shadowSteps' && <ShadowWedge steps={wedge} />}
          </span>
        </li>
      ))}
    </ul>
  );
}

const VERBS: Readonly<Record<Stamp, string>> = { chosen: 'Choose', held: 'Hold', refused: 'Refuse' };

function Stamping({
  condition,
  decision,
  first,
  onStamp,
  onTakeBack,
}: {
  condition: ConditionHead;
  decision?: DecisionView;
  first: boolean;
  onStamp: (stamp: Stamp) => void;
  onTakeBack: (id: string) => void;
}) {
  return (
    <div className="flex flex-col items-end gap-1 text-right max-[1180px]:col-start-3 max-[1180px]:mt-1 max-[1180px]:flex-row max-[1180px]:flex-wrap max-[1180px]:items-center">
      {decision ? (
        <>
          <Seal stamp={decision.stamp} />
          <p className="text-[11.5px] leading-tight text-quiet">
            {decision.decidedBy && `${decision.decidedBy}, `}
            {day(decision.decidedAt)}
          </p>
          {decision.stamp === 'chosen' && (
            <Link className="underline" to={`/prints?picture=${decision.pictureId}&condition=${decision.conditionId}`}>
              Begin the print
            </Link>
          )}
          <div className="flex flex-wrap justify-end">
            {(['chosen', 'held', 'refused'] as const)
              .filter((s) => s !== decision.stamp)
              .map((s) => (
                <QuietButton key={s} onClick={() => onStamp(s)} aria-label={`Stamp ${condition.paper.name} ${s}`}>
                  {VERBS[s]}
                </QuietButton>
              ))}
            <QuietButton
              onClick={() => onTakeBack(decision.id)}
              aria-label={`Undo the decision on ${condition.paper.name}`}
            >
              Undo
            </QuietButton>
          </div>
        </>
      ) : (
        <>
          <Button main={first} onClick={() => onStamp('chosen')} aria-label={`Stamp ${condition.paper.name} chosen`}>
            Choose
          </Button>
          <div className="flex flex-wrap justify-end">
            <QuietButton onClick={() => onStamp('held')} aria-label={`Stamp ${condition.paper.name} held`}>
              Hold
            </QuietButton>
            <QuietButton onClick={() => onStamp('refused')} aria-label={`Stamp ${condition.paper.name} refused`}>
              Refuse
            </QuietButton>
          </div>
        </>
      )}
    </div>
  );
}
