import { labToXyz } from '@rakuen/core/colour/lab';
import { SRGB, xyzToRgb } from '@rakuen/core/colour/rgb-space';
import { mapThree } from '@rakuen/core/colour/three';
import { deltaE2000 } from '@rakuen/core/colour/difference';
import type { Lab, Rgb } from '@rakuen/core/colour/types';
import type { RenderingKey } from '@rakuen/core/characterisation/renderings';
import { simplest, type Hypothesis } from '@rakuen/core/proof/mistakes';
import { applyRecipe, RECIPE_PARTS, type Recipe, type RecipeKey } from '@rakuen/core/proof/recipe';
import { labsOf, openProfile } from '../colour-management/lcms.ts';
import { aimOf } from './lay-tasks.ts';

/** A place of a scanned sheet of strips: what the picture has there, and the recipe of its crop. */
export interface StripSample {
  readonly lab: Lab;
  readonly recipe: Recipe;
}

/** Parts of a recipe that act on each colour by itself, and so can be supposed otherwise colour by colour. */
const TONAL = ['liftStops', 'contrast', 'shadows', 'lights', 'saturation'] as const satisfies readonly RecipeKey[];
/** Lifts a whole sheet may have been printed with beside its own, stops. */
const LIFTS = [-1, -0.75, -0.5, -0.25, 0.25, 0.5, 0.75, 1];
/** Fewer places of a step do not say which step it was. */
const FEWEST_OF_STEP = 6;

/**
 * What a sheet of strips would read like if it had been sent without its profile, with another lift, or with another
 * ladder: worked out from the picture's own colours, which a scan of strips knows.
 * @param promised colours of the sheet as it was meant
 * @param read colours as they were scanned
 */
export async function stripSuppositions(
  { profile, rendering, errorDeltaE }: { profile: Uint8Array; rendering: RenderingKey; errorDeltaE: number },
  samples: readonly StripSample[],
  promised: readonly Lab[],
  read: readonly Lab[],
): Promise<Hypothesis[]> {
  const relative = await openProfile(profile);
  const sender = await openProfile(profile, rendering);
  const absolute = await openProfile(profile, true);
  try {
    const aim = aimOf(relative, rendering);
    const triples = (values: Float32Array) =>
      Array.from({ length: values.length / 3 }, (_, i): Rgb => [values[3 * i], values[3 * i + 1], values[3 * i + 2]]);
    const steps = stepsOf(samples);
    const turned = (recipeOf: (recipe: Recipe) => Recipe): Lab[] => {
      const out = new Array<Lab>(samples.length);
      // A recipe's tones are a table: it is made once for all colours of a step.
      for (const { recipe, at } of steps) {
        const labs = Float32Array.from(at.flatMap((i) => samples[i].lab));
        applyRecipe(labs, recipeOf(recipe));
        at.forEach((i, n) => (out[i] = [labs[3 * n], labs[3 * n + 1], labs[3 * n + 2]]));
      }
      return out;
    };
    const printed: Printed = (recipeOf) =>
      labsOf(absolute, triples(sender.fromLab(Float32Array.from(turned(recipeOf).flatMap((lab) => aim(lab))))));
    const unconverted = turned((recipe) => recipe).map((lab): Rgb =>
      mapThree(xyzToRgb(SRGB, labToXyz(lab)), (v) => Math.min(1, Math.max(0, v))),
    );
    const meant: Hypothesis = { mistake: 'as intended', labs: promised };
    const nested = [
      meant,
      best(
        read,
        LIFTS.map((by) => lifted(by, printed)),
      ),
    ];
    const ladders = TONAL.flatMap((key) => ladderOf(key, steps, read, printed) ?? []);
    if (ladders.length > 0) nested.push(best(read, ladders));
    return [
      { mistake: 'no profile', labs: labsOf(absolute, unconverted) },
      ...simplest(read, nested, errorDeltaE).filter((h) => h !== meant),
    ];
  } finally {
    relative.close();
    sender.close();
    absolute.close();
  }
}

const meanOff = (read: readonly Lab[], labs: readonly Lab[]) =>
  read.reduce((sum, lab, i) => sum + deltaE2000(lab, labs[i]), 0) / read.length;

const best = (read: readonly Lab[], of: readonly Hypothesis[]): Hypothesis =>
  of.reduce((p, q) => (meanOff(read, q.labs) < meanOff(read, p.labs) ? q : p));

type Printed = (recipeOf: (recipe: Recipe) => Recipe) => Lab[];

/** A step of a ladder: its recipe, and which samples are of it. */
interface Step {
  readonly recipe: Recipe;
  readonly at: readonly number[];
}

function stepsOf(samples: readonly StripSample[]): Step[] {
  // Crops of one step hold equal recipes, each its own.
  const at = new Map<string, { recipe: Recipe; at: number[] }>();
  samples.forEach(({ recipe }, i) => {
    const key = JSON.stringify(recipe);
    const step = at.get(key) ?? { recipe, at: [] };
    step.at.push(i);
    at.set(key, step);
  });
  return [...at.values()];
}

const lifted = (by: number, printed: Printed): Hypothesis => ({
  mistake: 'lift',
  which: `${RECIPE_PARTS.liftStops.written(Math.abs(by))} ${by < 0 ? 'less' : 'more'} than meant`,
  labs: printed((recipe) => ({ ...recipe, liftStops: recipe.liftStops + by })),
});

/** The value of a part that explains each step best, the steps taken apart; undefined where a step holds too little. */
function ladderOf(
  key: (typeof TONAL)[number],
  steps: readonly Step[],
  read: readonly Lab[],
  printed: Printed,
): Hypothesis | undefined {
  if (steps.some(({ at }) => at.length < FEWEST_OF_STEP)) return undefined;
  const { least, most, step } = RECIPE_PARTS[key];
  const grid = Array.from({ length: Math.round((most - least) / step) + 1 }, (_, i) => least + i * step);
  const by = grid.map((value) => printed((recipe) => ({ ...recipe, [key]: value })));
  const values = steps.map(({ at }) => {
    const off = by.map((labs) => at.reduce((sum, i) => sum + deltaE2000(read[i], labs[i]), 0));
    return off.indexOf(Math.min(...off));
  });
  const stepOf = new Map(steps.flatMap(({ at }, k) => at.map((i) => [i, k] as const)));
  return {
    mistake: 'ladder',
    which: `${RECIPE_PARTS[key].name.toLowerCase()} ${values.map((v) => RECIPE_PARTS[key].written(round(grid[v]))).join(', ')}`,
    labs: read.map((_, i) => by[values[stepOf.get(i)!]][i]),
  };
}

const round = (v: number) => Number(v.toFixed(3));
