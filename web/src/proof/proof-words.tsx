import type { ConditionHead } from '@rakuen/contract/conditions';
import type { EstimatedWhite } from '@rakuen/core/characterisation/packed';
import { formatNumber } from '@rakuen/core/measurement/show';
import { conditionLine } from '../parts/label.ts';
import type { LabImage } from '../pictures/lab-image.ts';
import { BeyondLine, SAMPLED } from './beyond-line.tsx';
import type { InHand } from './in-hand.ts';
import { screenSpace, type ProofView, type SeenSheet } from './proof-canvas.ts';

type Pair = readonly [InHand, InHand];

/** What lies in which hand, over the proof. */
export function PairNames({ pair: [left, right], same }: { pair: Pair; same: boolean }) {
  const oneSheet = right.condition.id === left.condition.id;
  return (
    <div className="mb-2 flex flex-wrap items-baseline justify-between gap-x-6">
      <p>
        <span className="font-serif text-[1.1rem]">{left.name}</span>{' '}
        <span className="text-[13px] text-quiet">{conditionLine(left.condition)}, in the left hand</span>
      </p>
      {!same && (
        <p>
          <span className="text-[13px] text-quiet">
            in the right hand{oneSheet || right.file ? '' : `, ${conditionLine(right.condition)}`}
          </span>{' '}
          <span className="font-serif text-[1.1rem]">{right.name}</span>
        </p>
      )}
    </div>
  );
}

/** A b* that differs by less is the same in every sentence. */
const LEAST_SAID = 0.1;

interface Laid {
  readonly seen: SeenSheet;
  readonly modelError?: number;
  readonly brightenerUnknown?: boolean;
  readonly estimatedWhite?: EstimatedWhite;
}

/** What the proof rests on, what the screen can't show of it, and what it can't tell. */
export function RestsOn({
  pair: [left, right],
  laid: [first, second],
  image,
  view,
  same,
  where,
  drawsSurface,
}: {
  pair: Pair;
  laid: readonly [Laid, Laid];
  image: LabImage;
  view: Omit<ProofView, 'recipes'>;
  same: boolean;
  /** Light and glass in words. */
  where: string;
  drawsSurface: boolean;
}) {
  const unread = [
    ...new Set([
      ...(first.brightenerUnknown ? [left.condition.paper.name] : []),
      ...(second.brightenerUnknown && !right.file ? [right.condition.paper.name] : []),
    ]),
  ];
  const guessed = [
    ...new Map(
      [left, right].flatMap(({ condition }, i) => {
        const { estimatedWhite: white } = [first, second][i];
        return white && white.between[1] - white.between[0] >= LEAST_SAID
          ? [[condition.paper.name, white] as const]
          : [];
      }),
    ),
  ];
  const looked = Math.min(SAMPLED, image.widthPx * image.heightPx);
  return (
    <p className="mt-1 max-w-[96ch] text-[12.5px] text-quiet">
      From the models of the two print conditions ({modelWords(left.condition, first.modelError)}
      {right.file
        ? '; the file through no model'
        : left.condition.id === right.condition.id
          ? ''
          : `; ${modelWords(right.condition, second.modelError)}`}
      ), in {where}
      {unread.length > 0 &&
        `, ${unread.join(' and ')} as if without brightener: not read both with and without UV (M1 and M2), its white in this light is not known`}
      {guessed.map(
        ([name, { between }]) =>
          `, ${name} with its brightener estimated from one spectrum: b* of its white in this light lies between ${formatNumber(between[0], 1)} and ${formatNumber(between[1], 1)} nine times in ten`,
      )}
      . Your screen is taken as {screenSpace().name}; beyond it lies{' '}
      <BeyondLine image={image} sheet={first.seen} recipe={left.recipe} view={view} name={left.name} />
      {!same && (
        <>
          {' '}
          and <BeyondLine image={image} sheet={second.seen} recipe={right.recipe} view={view} name={right.name} />
        </>
      )}
      , of some {looked} pixels looked at; drawn from {image.widthPx} × {image.heightPx} of the file’s pixels.
      {drawsSurface ? '' : ' Texture and sheen are not drawn.'} A proof on a screen is no print: judge the last step on
      a strip, dry, in the light of the place.
    </p>
  );
}

const modelWords = ({ paper }: ConditionHead, error: number | undefined): string =>
  error === undefined
    ? `${paper.name}: by the solid of its colours alone`
    : `${paper.name}: ± ${formatNumber(error, 1)} ΔE00`;
