import type { PictureView } from '@rakuen/contract/pictures';
import type { Mark } from '@rakuen/core/picture/marks';
import type { PictureFigures } from '@rakuen/core/picture/tally';
import { percent, sentenceCase } from '@rakuen/core/match/words';
import { formatNumber } from '@rakuen/core/measurement/show';
import { colourWords } from '@rakuen/core/colour/hue-names';

const one = (v: number) => formatNumber(v, 1);

/** What a picture asks of a paper, in two sentences. */
export function asksFor({ figures: f }: PictureView): string {
  const s = f.structure;
  const key =
    s && s.ground && s.subject.key !== f.key
      ? `${sentenceCase(s.subject.key)} on a ground of L* ${formatNumber(s.ground.lab[0], 0)}`
      : sentenceCase(f.key);
  const black = f.nearBlackShare > 0.02 ? `${percent(f.nearBlackShare)} of it near black` : 'no true black to speak of';
  return `${key}, ${f.contrast} contrast, ${colourOf(f)}; ${black}. ${structureOf(f)}`;
}

function colourOf(f: PictureFigures): string {
  if (f.colour !== 'colour') return f.colour;
  const accent = f.accents?.[0];
  if (f.saturatedShare > 0.05) return 'saturated colour';
  if (accent)
    return `${f.meanChroma < 12 ? 'muted colour' : 'colour'} with a small strong ${accent.name.replace(/s$/, '')}`;
  return f.meanChroma < 12 ? 'muted colour' : 'colour';
}

function structureOf({ structure: s, deepestL, highestL }: PictureFigures): string {
  if (!s) return '';
  const parts = [
    s.smoothShare > 0.35 ? `${percent(s.smoothShare)} is plain, where a texture would show` : undefined,
    s.busyShare > 0.15 ? `${percent(s.busyShare)} is busy detail` : undefined,
    s.shadowDetailShare > 0.05 ? `${percent(s.shadowDetailShare)} holds detail below L* 20` : undefined,
    s.shallowFocus ? 'its focus is shallow' : undefined,
  ].filter((p) => p !== undefined);
  if (parts.length === 0)
    parts.push(`its greys run from L* ${formatNumber(deepestL ?? 0, 0)} to ${formatNumber(highestL ?? 100, 0)}`);
  return `${sentenceCase(parts.slice(0, 2).join('; '))}.`;
}

/** A note to a mark: what it is called, and what is there. */
export function noteOf(mark: Mark): { name: string; figures: string } {
  const found = foundAt(mark);
  return mark.word ? { ...found, name: mark.word } : found;
}

function foundAt({ kind, lab, detailL }: Mark): { name: string; figures: string } {
  const L = `L* ${one(lab[0])}`;
  const C = Math.hypot(lab[1], lab[2]);
  switch (kind) {
    case 'shadow':
      return { name: 'Deepest shadow with detail', figures: `${L}, ${one(detailL)} L* drawn in it` };
    case 'light':
      return {
        name: 'Lightest light',
        figures: `${L}, b* ${one(lab[2])}${detailL > 0.7 ? `, ${one(detailL)} L* drawn in it` : ', bare'}`,
      };
    case 'colour':
      return { name: 'Most endangered colour', figures: `${colourWords(lab)}, ${L}, C* ${formatNumber(C, 0)}` };
    case 'smooth':
      return { name: 'Smoothest area', figures: `${L}, ${one(detailL)} L* about its slope` };
    case 'fine':
      return { name: 'Finest detail', figures: `${L}, ${one(detailL)} L* drawn in it` };
    case 'skin':
      return { name: 'Skin, or like it', figures: `${L}, C* ${formatNumber(C, 0)}` };
    case 'own':
      return {
        name: `Your own place: ${colourWords(lab)}`,
        figures: `${L}, C* ${formatNumber(C, 0)}, ${one(detailL)} L* drawn in it`,
      };
  }
}

/** Finest detail an eye tells apart at a distance, as pixels an inch (one minute of arc). */
const seenPpi = (viewingMm: number) => 25.4 / (viewingMm / 3438);
const IN_HAND_PPI = 300;

/** Resolution at the size of the print, with a plain word. */
export function resolutionOf({ widthPx, heightPx, commission }: PictureView): { ppi: number; words: string } {
  const ppi = Math.max(widthPx, heightPx) / (commission.longSideMm / 25.4);
  // A few per cent are nothing: the minute of arc is a round figure.
  const needed = seenPpi(commission.viewingMm);
  const words =
    ppi >= Math.min(needed, IN_HAND_PPI) * 0.97
      ? ppi >= IN_HAND_PPI
        ? 'enough in the hand'
        : `enough from ${formatNumber(commission.viewingMm / 10, 0)} cm`
      : `too little from ${formatNumber(commission.viewingMm / 10, 0)} cm; enough from ${formatNumber((25.4 * 3438) / ppi / 10, 0)} cm on`;
  return { ppi, words };
}
