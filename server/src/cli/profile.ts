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
  /** Patches read, repeats included. */
  readonly patches: number;
  /** Different patches among them. */
  readonly different: number;
  /** Files whose readings were joined. */
  readonly joined: readonly string[];
  /** Readings that were not used, by their file. */
  readonly leftOut: readonly { readonly file: string; readonly why: string }[];
  /** Patches to read again; they are in the model. */
  readonly questioned: readonly { readonly patch: string; readonly deltaE00: number }[];
  /** Patches left out because a repeat contradicts them. */
  readonly contradicted: readonly { readonly patch: string; readonly deltaE00: number }[];
  /** Expected error, ΔE00: of all colours the printer has, and of colours as pictures have them. */
  readonly stated: PrintModel['error']['stated'];
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

    const from: { file: string; reading: Reading }[] = [];
    for (const file of files) {
      at = file;
      const bytes = await shellFile(file);
      if (isProfile(bytes))
        throw new FormatError({ message: 'It is a profile, not readings.', remedy: 'Name files of readings.' });
      from.push(...readingsFromFile(bytes).map(({ reading }) => ({ file, reading })));
    }
    const readings = from.map((f) => f.reading);
    at = files.join(', ');
    if (readings.every((r) => r.deviceSpace === 'CMYK')) throw new ModelFault(RGB_ONLY);
    const model = printModel(readings);
    const { reading, joined, leftOut } = samplesOf(readings);
    const fileOf = (of: Reading) => from.find((f) => f.reading === of)!.file;
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
    const { patches: different, stated, questioned, contradicted } = model.error;
    const named = (list: WrittenProfile['questioned']) => list.map(({ patch, deltaE00 }) => ({ patch, deltaE00 }));
    const written: WrittenProfile = {
      patches: reading.patches.length,
      different,
      joined: [...new Set(joined.map(fileOf))],
      leftOut: leftOut.map((l) => ({ file: fileOf(l.reading), why: l.why })),
      questioned: named(questioned),
      contradicted: named(contradicted),
      stated,
      file: options.out,
    };
    console.log(options.json ? JSON.stringify(written) : inWords(written, model));
    return 0;
  } catch (error) {
    console.error(oneLine(at, error));
    return 1;
  }
}

function inWords(written: WrittenProfile, model: PrintModel) {
  const { patches, different, joined, leftOut, questioned, contradicted, stated, file } = written;
  const error = ({ mean, p95 }: (typeof stated)['all']) =>
    `ΔE00 ${mean.toFixed(2)} mean, 95 % within ${p95.toFixed(2)} (expected)`;
  const rows: [string, string][] = [
    ['Patches', `${patches}, ${different} of them different${model.spectra ? ', with spectra' : ''}`],
    ...joined.map((f): [string, string] => ['Joined', f]),
    ...leftOut.map((l): [string, string] => ['Left out', `${l.file}: ${l.why}`]),
    ['Error, all colours', error(stated.all)],
    ['Error, pictures', error(stated.pictures)],
    ...(model.error.noise === undefined
      ? []
      : [['Readings’ noise', `ΔE00 ${model.error.noise.toFixed(2)}`] as [string, string]]),
    ...questioned.map((q): [string, string] => [
      'Read again',
      `${q.patch}: ${q.deltaE00.toFixed(1)} ΔE00 from what the other patches say; it is in the model`,
    ]),
    ...contradicted.map((c): [string, string] => [
      'Patch left out',
      `${c.patch}: a repeat differs by ${c.deltaE00.toFixed(1)} ΔE00`,
    ]),
  ];
  return [file, ...rows.map(([name, value]) => `  ${name.padEnd(20)}${value}`)].join('\n');
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
