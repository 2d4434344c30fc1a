import { writeFile } from 'node:fs/promises';
import { basename, extname } from 'node:path';
import { makeProfile, RGB_ONLY } from '@rakuen/core/characterisation/make-profile';
import { ModelFault, printModel, type PrintModel } from '@rakuen/core/characterisation/print-model';
import { samplesOf } from '@rakuen/core/characterisation/print-samples';
import { writeCgats } from '@rakuen/core/formats/cgats-write';
import { describeFault, FormatError } from '@rakuen/core/formats/format-error';
import { readingsFromFile } from '@rakuen/core/formats/reading-formats';
import { TABLE_LIGHTS } from '@rakuen/core/light/table-lights';
import type { Reading } from '@rakuen/core/measurement/reading';
import { withProfileId } from '../colour-management/profile-id.ts';
import { parseArguments, UseError } from './arguments.ts';
import { isProfile, shellFile } from './shell-file.ts';

const USE =
  'Use: npm run --silent profile -- READINGS [READINGS…] --out NAME.icc [--icc 2|4] [--light D50] [--greys paper|D50] [--grid 17|33|45] [--json]';

/** What the shell prints of a profile it wrote; the same shape with --json. */
export interface WrittenProfile {
  /** Patches read, repeats and misfits included. */
  readonly patches: number;
  readonly crossValidated: PrintModel['error']['crossValidated'];
  readonly misfits: readonly { readonly patch: string; readonly deltaE00: number }[];
  readonly file: string;
}

const one = <T extends string>(name: string, value: string | true | undefined, of: readonly T[], otherwise: T): T => {
  if (value === undefined) return otherwise;
  const found = of.find((v) => v === value);
  if (!found) throw new UseError(`--${name} is one of ${of.join(', ')}.`);
  return found;
};

/** The shell's `profile`. @returns the exit code */
export async function runProfile(words: readonly string[]): Promise<number> {
  let at = 'profile';
  try {
    const { files, options } = parseArguments(words, {
      taking: ['out', 'icc', 'light', 'greys', 'grid'],
      flags: ['json'],
    });
    if (files.length === 0 || typeof options.out !== 'string') throw new UseError(USE);
    const version = one('icc', options.icc, ['2', '4'], '2') === '4' ? 4 : 2;
    const lightKey = one(
      'light',
      options.light,
      TABLE_LIGHTS.map((l) => l.key),
      'D50',
    );
    const greys = one('greys', options.greys, ['paper', 'D50'] as const, 'paper');
    const grid = Number(one('grid', options.grid, ['17', '33', '45'], '33')) as 17 | 33 | 45;

    const readings: Reading[] = [];
    for (const file of files) {
      at = file;
      const bytes = await shellFile(file);
      if (isProfile(bytes))
        throw new FormatError({ message: 'It is a profile, not readings.', remedy: 'Name files of readings.' });
      readings.push(...readingsFromFile(bytes).map((r) => r.reading));
    }
    at = files.join(', ');
    if (readings.every((r) => r.deviceSpace === 'CMYK')) throw new ModelFault(RGB_ONLY);
    const model = printModel(readings);
    const { reading } = samplesOf(readings);
    const profile = makeProfile(
      model,
      { version, greys, grid, light: TABLE_LIGHTS.find((l) => l.key === lightKey)! },
      {
        description: basename(options.out, extname(options.out)),
        licence: 'Made from readings of the owner’s own prints; the owner decides on its use.',
        createdAt: new Date(),
        matt: false,
        readings: writeCgats(reading),
      },
    );
    at = options.out;
    await writeFile(options.out, withProfileId(profile));
    const { crossValidated, misfits } = model.error;
    const written: WrittenProfile = {
      patches: reading.patches.length,
      crossValidated,
      misfits: misfits.map(({ patch, deltaE00 }) => ({ patch, deltaE00 })),
      file: options.out,
    };
    console.log(options.json ? JSON.stringify(written) : inWords(written, model));
    return 0;
  } catch (error) {
    console.error(oneLine(at, error));
    return 1;
  }
}

function inWords({ patches, crossValidated: { mean, p95, max }, misfits, file }: WrittenProfile, model: PrintModel) {
  const rows: [string, string][] = [
    ['Patches', `${patches}, ${model.error.patches} of them different${model.spectra ? ', with spectra' : ''}`],
    [
      'Model’s error',
      `ΔE00 ${mean.toFixed(2)} in the mean, 95 % within ${p95.toFixed(2)}, worst ${max.toFixed(2)} (each patch told from the others)`,
    ],
    ...(model.error.noise === undefined
      ? []
      : [['Readings’ noise', `ΔE00 ${model.error.noise.toFixed(2)}`] as [string, string]]),
    ...misfits.map((m): [string, string] => [
      'Left out',
      `${m.patch}: ${m.deltaE00.toFixed(1)} ΔE00 from what the others say; read it again`,
    ]),
  ];
  return [file, ...rows.map(([name, value]) => `  ${name.padEnd(18)}${value}`)].join('\n');
}

/** One line for whatever can't be used. @throws what was not foreseen */
export function oneLine(at: string, error: unknown): string {
  if (error instanceof FormatError) return describeFault(at, error);
  if (error instanceof UseError) return error.message;
  if (error instanceof ModelFault) return `${at}: ${error.message}`;
  const code = (error as NodeJS.ErrnoException).code;
  if (code) return `${at}: the file can’t be written (${code}). Choose another place.`;
  throw error;
}
