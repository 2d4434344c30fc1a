import type { RenderingKey } from '@rakuen/core/characterisation/renderings';
import { PLAIN, RECIPE_PARTS, type Recipe } from '@rakuen/core/proof/recipe';
import type { PrintSettings } from '@rakuen/contract/prints';
import type { ConditionRow } from '../conditions/conditions.entity.ts';

/** Settings a print condition alone asks for. @param profileName of the profile in use, where the condition names none */
export function fromCondition(c: ConditionRow, profileName = ''): PrintSettings {
  const profiled = c.printMode === 'colour through a profile';
  return {
    printer: c.printer,
    inkSet: c.inkSet,
    blackInk: c.blackInk,
    mediaSetting: c.mediaSetting,
    resolution: c.resolution,
    printMode: c.printMode,
    profile: c.profile || profileName,
    blackOvercoat: c.blackOvercoat,
    intent: profiled ? 'relative colorimetric' : 'driver',
    blackPointCompensation: profiled,
    sharpening: 'none',
    feed: '',
  };
}

/** What a recipe’s rendering is among a print’s settings. */
const SENT_BY: Readonly<Record<RenderingKey, Pick<PrintSettings, 'intent' | 'blackPointCompensation'>>> = {
  relative: { intent: 'relative colorimetric', blackPointCompensation: true },
  uncompensated: { intent: 'relative colorimetric', blackPointCompensation: false },
  perceptual: { intent: 'perceptual', blackPointCompensation: false },
  saturation: { intent: 'saturation', blackPointCompensation: false },
  absolute: { intent: 'absolute colorimetric', blackPointCompensation: false },
};

/** Settings that go with the paper on the printer rather than with the print condition. */
export const loose = (s: PrintSettings) => ({
  intent: s.intent,
  blackPointCompensation: s.blackPointCompensation,
  sharpening: s.sharpening,
  feed: s.feed,
  direction: s.direction,
  headHeight: s.headHeight,
  suction: s.suction,
  dryingMinutes: s.dryingMinutes,
});

/**
 * What a recipe asks of a print.
 * @param printMode of the sheet: through the driver nothing is rendered by a profile
 */
export function fromRecipe(values: Partial<Recipe>, printMode: string): Partial<PrintSettings> {
  const { liftStops, sharpening, radiusMm, rendering } = { ...PLAIN, ...values };
  const rendered = printMode === 'colour through a profile' ? SENT_BY[rendering] : {};
  const sharpened = `${RECIPE_PARTS.sharpening.written(sharpening)} at ${radiusMm} mm, in the print file`;
  return { ...rendered, liftStops, sharpening: sharpening === 0 ? 'none' : sharpened };
}
