import { asThree } from '@rakuen/core/colour/three';
import { visualDensity } from '@rakuen/core/colour/density';
import { labToXyz } from '@rakuen/core/colour/lab';
import { meshVolume } from '@rakuen/core/gamut/mesh';
import { FormatError, describeFault } from '@rakuen/core/formats/format-error';
import { readingsFromFile } from '@rakuen/core/formats/reading-formats';
import type { Figure } from '@rakuen/core/measurement/figure';
import { computeFigures, MEASURES } from '@rakuen/core/measurement/measures/registry';
import { readingFacts } from '@rakuen/core/measurement/reading-facts';
import { formatFigure } from '@rakuen/core/measurement/show';
import { openProfile, ProfileError } from '../colour-management/lcms.ts';
import { PRECEDENCE } from '@rakuen/core/measurement/speaking';
import { profileGamut } from '../colour-management/profile-gamut.ts';
import { isProfile, shellFile } from './shell-file.ts';

/** What the shell prints of a file; the same shape with --json. */
export interface Inspection {
  readonly file: string;
  readonly kind: 'readings' | 'ICC profile';
  readonly description: string;
  readonly patches?: number;
  /** Null where the readings hold no bare paper, or no full black. */
  readonly whiteLab: readonly number[] | null;
  readonly blackLab: readonly number[] | null;
  readonly dmax: number | null;
  readonly dmin: number | null;
  /** Cubic Lab units; null where the data enclose no gamut. */
  readonly gamutVolume: number | null;
  readonly figures?: Record<string, Figure>;
  readonly missing: readonly string[];
}

/** @throws FormatError or ProfileError */
export async function inspectFile(file: string): Promise<Inspection> {
  const bytes = await shellFile(file);
  return isProfile(bytes) ? inspectProfile(file, bytes) : inspectReadings(file, bytes);
}

function inspectReadings(file: string, bytes: Uint8Array): Inspection {
  // The same reading speaks as in the application: M1 before M0, unstated, M2 and M3.
  const all = readingsFromFile(bytes);
  const first = PRECEDENCE.map((c) => all.find((r) => (r.reading.condition ?? null) === c)).find(Boolean)!;
  const { reading, missing, recognised } = first;
  const facts = readingFacts(
    reading,
    all.map((r) => r.reading).filter((other) => other !== reading),
  );
  const figures = computeFigures(facts);
  const scalar = (key: string) => (figures[key].shape === 'scalar' ? figures[key].value : null);
  const lab = (key: string) => (figures[key].shape === 'colour' ? figures[key].lab : null);
  return {
    file,
    kind: 'readings',
    description: [reading.description, ...recognised].filter(Boolean).join('; '),
    patches: reading.patches.length,
    whiteLab: lab('white'),
    blackLab: lab('black'),
    dmax: scalar('dmax'),
    dmin: scalar('dmin'),
    gamutVolume: scalar('gamutVolume'),
    figures,
    // Each missing thing is said once, however many figures want it.
    missing: [
      ...new Set([...missing, ...Object.values(figures).flatMap((f) => (f.shape === 'missing' ? [f.why] : []))]),
    ],
  };
}

/** Y below which a black is a model's and not a print's: a density of 4 and more. */
const IDEAL_BLACK_Y = 0.01;

async function inspectProfile(file: string, bytes: Uint8Array): Promise<Inspection> {
  const profile = await openProfile(bytes, true);
  try {
    const { white, black, mesh } = profileGamut(profile);
    // A working space or a monitor reaches Y = 0 in its model; no print does, and a density of it says nothing.
    const isIdeal = labToXyz(black)[1] < IDEAL_BLACK_Y;
    return {
      file,
      kind: 'ICC profile',
      description: `${profile.name} (${profile.space}, class ${profile.deviceClass})`,
      whiteLab: white,
      blackLab: black,
      dmax: isIdeal ? null : visualDensity(labToXyz(black)[1]),
      dmin: visualDensity(labToXyz(white)[1]),
      gamutVolume: mesh ? meshVolume(mesh) : null,
      missing: [
        'Patches: the figures are from a profile, nothing was measured.',
        ...(isIdeal ? ['Dmax: the black of this profile is ideal (no light at all), so it has no density.'] : []),
        ...(mesh ? [] : ['Gamut: a grey profile encloses none.']),
      ],
    };
  } finally {
    profile.close();
  }
}

function print(inspection: Inspection): string {
  const measure = (key: string) => MEASURES.find((m) => m.key === key)!;
  const lab = (key: string, values: readonly number[] | null) =>
    values === null ? '—' : formatFigure(measure(key), { shape: 'colour', lab: asThree(values), sd: 0 });
  const known = (key: string, value: number | null) =>
    value === null ? '—' : formatFigure(measure(key), inspection.figures?.[key] ?? { shape: 'scalar', value, sd: 0 });
  const rows: [string, string][] = [
    ['Kind', inspection.kind],
    ['Description', inspection.description],
    ...(inspection.patches === undefined ? [] : [['Patches', String(inspection.patches)] as [string, string]]),
    ['White L* a* b*', lab('white', inspection.whiteLab)],
    ['Black L* a* b*', lab('black', inspection.blackLab)],
    ['Dmax', `${known('dmax', inspection.dmax)} D`],
    ['Dmin', `${known('dmin', inspection.dmin)} D`],
    [
      'Gamut volume',
      inspection.gamutVolume === null ? '—' : `${known('gamutVolume', inspection.gamutVolume)} cubic Lab units`,
    ],
    ...inspection.missing.map((m): [string, string] => ['Missing', m]),
  ];
  return [inspection.file, ...rows.map(([name, value]) => `  ${name.padEnd(16)}${value}`)].join('\n');
}

/** The shell's `inspect FILE [FILE…] [--json]`. @returns the exit code */
export async function runInspect(args: readonly string[]): Promise<number> {
  const json = args.includes('--json');
  const files = args.filter((a) => a !== '--json');
  if (files.length === 0 || files.some((f) => f.startsWith('--'))) {
    console.error('Use: npm run --silent inspect -- FILE [FILE…] [--json]');
    return 1;
  }
  const found: Inspection[] = [];
  let code = 0;
  for (const file of files) {
    try {
      const inspection = await inspectFile(file);
      found.push(inspection);
      if (!json) console.log(print(inspection));
    } catch (error) {
      code = 1;
      if (error instanceof FormatError) console.error(describeFault(file, error));
      else if (error instanceof ProfileError)
        console.error(`${file}: ${error.message} Choose another profile, or export it again.`);
      else throw error;
    }
  }
  if (json) console.log(JSON.stringify(found, null, 2));
  return code;
}
