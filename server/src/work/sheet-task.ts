import { meshVolume, type GamutMesh } from '@rakuen/core/gamut/mesh';
import { FormatError } from '@rakuen/core/formats/format-error';
import { readProfile } from '@rakuen/core/formats/icc/profile-read';
import { parseLightSpectrum, type LampFile } from '@rakuen/core/formats/spectrum-table';
import { readingFacts, type ReadingFacts } from '@rakuen/core/measurement/reading-facts';
import { differenceOf, whyNotAlike } from '@rakuen/core/measurement/same-print';
import { printSpectra, type PrintSpectra } from '@rakuen/core/light/print-spectra';
import type { SheetSpectraView } from '@rakuen/contract/sheets';
import { openProfile, ProfileError } from '../colour-management/lcms.ts';
import { profileGamut } from '../colour-management/profile-gamut.ts';
import { readSource, type ReadingSource } from './tasks.ts';

const packed = (values: Float32Array) =>
  Buffer.from(values.buffer, values.byteOffset, values.byteLength).toString('base64');

/** Readings of a sheet, with those under other measurement conditions that belong to them. */
export interface SheetSet {
  readonly primary: ReadingSource;
  readonly companions: readonly ReadingSource[];
}

/**
 * Solid and spectra of a sheet, from its primary set. Spectra come from an earlier set where that alone was read with
 * and without UV, and the two agree: a further chart in M1 alone costs nothing of what is known of the brightener.
 */
export async function sheetOf({
  sets,
}: {
  readonly sets: readonly SheetSet[];
}): Promise<{ mesh?: GamutMesh; spectra?: SheetSpectraView }> {
  const [facts, ...others] = await Promise.all(sets.map(factsOf));
  const own = printSpectra(facts);
  const isRead = (s: PrintSpectra | undefined) => s?.luminous !== undefined && !s.estimated;
  const earlier = isRead(own)
    ? []
    : others.filter(({ reading }) => {
        const difference = differenceOf(facts.reading, reading);
        return difference && !whyNotAlike(difference);
      });
  const ready = earlier.map(printSpectra).find(isRead) ?? own;
  return {
    mesh: facts.gamut?.mesh,
    spectra: ready && {
      startNm: ready.startNm,
      stepNm: ready.stepNm,
      bands: ready.bands,
      reflected: packed(ready.reflected),
      luminous: ready.luminous && packed(ready.luminous),
      estimated: ready.estimated,
      white: ready.white,
      black: ready.black,
      greys: [...ready.greys],
      corners: [...ready.corners],
    },
  };
}

async function factsOf({ primary, companions }: SheetSet): Promise<ReadingFacts> {
  const others = await Promise.all(companions.map(async (c) => (await readSource(c)).reading));
  return readingFacts((await readSource(primary)).reading, others);
}

/** A profile as a solid. @throws FormatError when it encloses none */
export async function profileSolid({
  bytes,
}: {
  bytes: Uint8Array;
}): Promise<{ name: string; space: string; volume: number; mesh: GamutMesh }> {
  // Tag by tag first: a damaged one is named, where the library that computes would only fail.
  readProfile(bytes);
  try {
    const profile = await openProfile(bytes, true);
    try {
      const { mesh } = profileGamut(profile);
      if (!mesh) throw new ProfileError('A grey profile encloses no gamut.');
      return { name: profile.name, space: profile.space, volume: meshVolume(mesh), mesh };
    } finally {
      profile.close();
    }
  } catch (error) {
    if (error instanceof ProfileError)
      throw new FormatError({ message: error.message, remedy: 'Choose another profile, or export it again.' });
    throw error;
  }
}

export function lightSpectrum({ bytes }: { bytes: Uint8Array }): LampFile {
  return parseLightSpectrum(bytes);
}
