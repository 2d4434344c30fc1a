import type { SheetQualities, SheetSize } from '@rakuen/core/match/sheet';
import { basisOf } from '@rakuen/core/measurement/basis';
import { betweenOf } from '@rakuen/core/measurement/figure';
import { gamutVolume } from '@rakuen/core/measurement/measures/gamut-volume';
import { feedPaths } from '@rakuen/core/print/handling';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { PaperRow } from '../papers/papers.entity.ts';
import { fedOf } from '../prints/cautions.ts';

/** How each way into the printer took it, by the newest word. */
function feedingOf({ observations }: ConditionView): SheetQualities['feeding'] {
  const paths = feedPaths(fedOf(observations));
  return paths.size === 0 ? undefined : Object.fromEntries([...paths].map(([key, { takes }]) => [key, takes]));
}

/** No sheet for a printer is as long as this: what is, and comes one by one, is a roll (practice). */
const SHORTEST_ROLL_MM = 2500;

const sheetSizeOf = ({ widthMm, heightMm, sheets, label }: PaperRow['sizes'][number]): SheetSize => ({
  widthMm,
  heightMm,
  roll: sheets === 1 && (heightMm >= SHORTEST_ROLL_MM || /\broll\b/i.test(label)),
});

/** What is known of a sheet beside what it does to colours. @param condition one that was measured */
export function qualitiesOf(condition: ConditionView, { base, sizes }: PaperRow): SheetQualities {
  const { paper } = condition;
  const figures = condition.facts!.figures;
  const value = (key: string): number | undefined => {
    const figure = figures[key];
    return figure?.shape === 'scalar' ? figure.value : undefined;
  };
  const { told, wet, condition: measurementCondition } = basisOf(condition, gamutVolume);
  return {
    id: condition.id,
    paperId: condition.paperId,
    coating: paper.coating,
    surface: paper.surface,
    base: base ?? undefined,
    weightGsm: value('weight') ?? paper.weightGsm,
    weightClaimed: value('weight') === undefined,
    textureL: value('textureAmplitude'),
    gloss60: value('gloss60'),
    glossDifferential: value('glossDifferential'),
    bronzing: value('bronzing'),
    hairlines: value('hairlines'),
    linearity: value('linearity'),
    greysOff: value('neutrality'),
    metamerism: value('metamerism'),
    monochrome: condition.printMode === 'driver black-and-white',
    brightenerShift: value('brightenerShift'),
    brightenerBetween: betweenOf(figures.brightenerShift),
    measurementCondition,
    told,
    wet,
    feeding: feedingOf(condition),
    sizes: sizes.length === 0 ? undefined : sizes.map(sheetSizeOf),
    pricePerM2: paper.pricePerM2,
    currency: paper.currency,
  };
}
