import { Link } from 'react-router';
import type { ConditionHead } from '@rakuen/contract/conditions';
import type { DecisionView } from '@rakuen/contract/matches';
import type { NoteView } from '@rakuen/contract/notes';
import type { PictureView } from '@rakuen/contract/pictures';
import type { Stamp } from '@rakuen/contract/vocabulary';
import { LEANINGS } from '@rakuen/core/match/leanings/registry';
import type { Reason } from '@rakuen/core/match/leanings/leaning';
import { RECIPE_PARTS } from '@rakuen/core/proof/recipe';
import type { RankedSheet } from '@rakuen/core/match/rank';
import { Button, QuietButton } from '../parts/button.tsx';
import { conditionLine, day } from '../parts/label.ts';
import { Seal } from '../parts/seal.tsx';
import { Score } from './score.tsx';
import { SeenOnSheet } from './seen-on-sheet.tsx';
import { ShadowWedge } from './shadow-wedge.tsx';

const nameOf = (leaning: string) => (LEANINGS.find((l) => l.key === leaning)?.name ?? leaning).toLowerCase();
/** Reasons shown before the rest folds away. */
const SHOWN = 4;

/** One place of a ranking: the picture on that sheet, what parts it from the next, for and against, and the seal. */
export function PlaceRow({
  place,
  condition,
  picture,
  decision,
  judged,
  shared,
  level,
  first,
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
  /** The next stands in the same place. */
  level: boolean;
  first: boolean;
  onStamp: (stamp: Stamp) => void;
  onTakeBack: (id: string) => void;
}) {
  // What parts it from the next is said first; what weighs most after it.
  const order = new Map(place.parts.map((p, i) => [p.leaning, i]));
  const reasons = [...place.reasons].sort(
    (p, q) => (order.get(p.leaning) ?? 99) - (order.get(q.leaning) ?? 99) || q.cost - p.cost,
  );
  return (
    <li
      data-place={condition.id}
      className="grid grid-cols-[30px_minmax(120px,190px)_minmax(0,1fr)_128px] gap-x-4 border-t border-edge py-4 min-[1600px]:grid-cols-[40px_300px_minmax(0,1fr)_170px]"
    >
      <div>
        <p className="font-serif text-[1.7rem] leading-none">{place.place}</p>
        {shared && <p className="text-[12px] leading-tight text-quiet">shared</p>}
      </div>
      <SeenOnSheet
        picture={picture}
        conditionId={condition.id}
        name={condition.paper.name}
        px={400}
        marks={place.figures.marks}
      />
      <div
        className="min-w-0"
        tabIndex={0}
        data-row
        data-kind="paper"
        data-id={condition.id}
        data-name={condition.paper.name}
      >
        <div className="flex flex-wrap items-baseline justify-between gap-x-4">
          <h3 className="text-[1.1rem] break-words">{condition.paper.name}</h3>
          <Score score={place.score} sd={place.scoreSd} />
        </div>
        <p className="text-[13px]">{conditionLine(condition)}</p>
        <p className="text-[13px] text-quiet">{againstNext(place, level)}</p>
        <Reasons reasons={reasons.slice(0, SHOWN)} wedge={place.figures.shadowWedge} />
        {judged.map((note) => (
          <p key={note.id} className="mt-1 font-serif text-[0.98rem] leading-snug">
            {judgedWords(note)}
          </p>
        ))}
        {reasons.length > SHOWN && (
          <details className="mt-0.5 text-[13px]">
            <summary className="cursor-pointer text-quiet">{reasons.length - SHOWN} more</summary>
            <Reasons reasons={reasons.slice(SHOWN)} wedge={place.figures.shadowWedge} />
          </details>
        )}
      </div>
      <Stamping condition={condition} decision={decision} first={first} onStamp={onStamp} onTakeBack={onTakeBack} />
    </li>
  );
}

/** What parts a place from the next, and whether that is sure. Of two that share a place neither is before the other. */
function againstNext({ parts, closeToNext }: RankedSheet, level: boolean): string {
  const better = parts.filter((p) => p.by > 0).slice(0, 2);
  const worse = parts.find((p) => p.by < 0);
  const names = better.map((p) => nameOf(p.leaning)).join(' and ');
  if (level)
    return ['Level with the next', names && `it is better by ${names}`, worse && `the next by ${nameOf(worse.leaning)}`]
      .filter(Boolean)
      .join('; ')
      .concat('.');
  if (!names) return closeToNext ? 'A close call.' : '';
  return `${closeToNext ? 'A close call. ' : ''}Before the next by ${names}${worse ? `; the next is better by ${nameOf(worse.leaning)}` : ''}.`;
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
    <div className="flex flex-col items-end gap-2 text-right">
      {decision ? (
        <>
          <Seal stamp={decision.stamp} />
          <p className="font-serif text-[13px] leading-tight break-words">{decision.reason}</p>
          <p className="text-[12px] text-quiet">
            {decision.decidedBy && `${decision.decidedBy}, `}
            {day(decision.decidedAt)}
          </p>
          {decision.stamp === 'chosen' && (
            <Link className="underline" to={`/prints?picture=${decision.pictureId}&condition=${decision.conditionId}`}>
              Begin the print
            </Link>
          )}
          <div className="flex flex-wrap justify-end">
            <span className="self-center text-[12px] text-quiet">change to</span>
            {(['chosen', 'held', 'refused'] as const)
              .filter((s) => s !== decision.stamp)
              .map((s) => (
                <QuietButton key={s} onClick={() => onStamp(s)} aria-label={`Stamp ${condition.paper.name} ${s}`}>
                  {s}
                </QuietButton>
              ))}
            <QuietButton
              onClick={() => onTakeBack(decision.id)}
              aria-label={`Take the stamp on ${condition.paper.name} back`}
            >
              take back
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
