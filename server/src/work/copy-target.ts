import type { RenderingKey } from '@rakuen/core/characterisation/renderings';
import { labToXyz } from '@rakuen/core/colour/lab';
import { xyzToRgb } from '@rakuen/core/colour/rgb-space';
import { readProfile } from '@rakuen/core/formats/icc/profile-read';
import { spaceProfile } from '@rakuen/core/formats/icc/space-write';
import { WORKING_SPACES, type WorkingSpace } from '@rakuen/core/gamut/working-spaces';
import { openProfile, ProfileError } from '../colour-management/lcms.ts';
import { aimOf } from './lay-tasks.ts';

/** What a copy’s values are of: a printer, through its profile, or a working space. */
export type CopyTarget =
  { readonly icc: Uint8Array; readonly rendering: RenderingKey } | { readonly space: WorkingSpace };

/** A target that values are written for. */
export interface OpenTarget {
  readonly name: string;
  /** What is embedded. */
  readonly icc: Uint8Array;
  /** Lab, three numbers a colour, to 16-bit values; the labs are used up. */
  written(labs: Float32Array): Uint16Array;
  close(): void;
}

const code = (v: number) => Math.round(Math.min(1, Math.max(0, v)) * 65_535);

/** @throws ProfileError, FormatError */
export async function openTarget(target: CopyTarget): Promise<OpenTarget> {
  return 'space' in target ? ofSpace(target.space) : ofPrinter(target.icc, target.rendering);
}

async function ofPrinter(icc: Uint8Array, rendering: RenderingKey): Promise<OpenTarget> {
  readProfile(icc);
  const relative = await openProfile(icc);
  const sender = await openProfile(icc, rendering);
  const close = () => {
    relative.close();
    sender.close();
  };
  if (relative.space !== 'RGB') {
    close();
    throw new ProfileError(`It is for ${relative.space}; print copies are written for printers driven in RGB.`);
  }
  const aim = aimOf(relative, rendering);
  return {
    name: relative.name,
    icc,
    written: (labs) => {
      for (let p = 0; p < labs.length; p += 3) labs.set(aim([labs[p], labs[p + 1], labs[p + 2]]), p);
      return Uint16Array.from(sender.fromLab(labs), code);
    },
    close,
  };
}

/** Colours as they are in the file; what the space does not hold is cut at its edge. */
function ofSpace(key: WorkingSpace): OpenTarget {
  const space = WORKING_SPACES[key];
  return {
    name: space.name,
    icc: spaceProfile(space),
    written: (labs) => {
      const out = new Uint16Array(labs.length);
      for (let p = 0; p < labs.length; p += 3)
        xyzToRgb(space, labToXyz([labs[p], labs[p + 1], labs[p + 2]])).forEach((v, c) => (out[p + c] = code(v)));
      return out;
    },
    close: () => undefined,
  };
}
