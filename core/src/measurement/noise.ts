import { labToXyz } from '../colour/lab.ts';
import { noiseAt, type PatchGroup, type Repeatability } from './repeats.ts';

/** Standard deviation of a mean colour's place, ΔE*ab. */
export function channelSd(r: Repeatability, { lab, count }: Pick<PatchGroup, 'lab' | 'count'>): number {
  return Math.hypot(...noiseAt(r, lab[0])) / Math.sqrt(count);
}

/** Standard deviation of a mean colour's visual density: that of L*, carried through Y. */
export function densitySd(r: Repeatability, { lab, count }: Pick<PatchGroup, 'lab' | 'count'>): number {
  const [sdL] = noiseAt(r, lab[0]);
  const Y = (L: number) => Math.max(labToXyz([L, 0, 0])[1], 1e-3);
  return Math.abs(Math.log10(Y(lab[0] + sdL / 2) / Y(lab[0] - sdL / 2))) / Math.sqrt(count);
}
