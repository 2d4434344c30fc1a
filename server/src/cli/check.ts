import { checkInWords } from '@rakuen/core/characterisation/profile-check';
import { promisedUnder, takenForGranted, whyNotHeld } from '@rakuen/core/characterisation/promised-under';
import { FormatError } from '@rakuen/core/formats/format-error';
import { readingsFromFile } from '@rakuen/core/formats/reading-formats';
import { openProfile, ProfileError } from '../colour-management/lcms.ts';
import { PRECEDENCE } from '@rakuen/core/measurement/speaking';
import { checkAgainst, type HeldCheck } from '../work/model-tasks.ts';
import { parseArguments, UseError } from './arguments.ts';
import { oneLine } from './profile.ts';
import { isProfile, shellFile } from './shell-file.ts';

const USE = 'Use: npm run --silent check -- PROFILE READINGS [--json]';

/** The shell's `check`: how readings of a strip printed through a profile hold against it. @returns the exit code */
export async function runCheck(words: readonly string[]): Promise<number> {
  let at = 'check';
  try {
    const { files, options } = parseArguments(words, { taking: [], flags: ['json'] });
    if (files.length !== 2) throw new UseError(USE);
    const [profileFile, readingsFile] = files;
    at = profileFile;
    const profileBytes = await shellFile(profileFile);
    if (!isProfile(profileBytes))
      throw new FormatError({
        message: 'It is not an ICC profile.',
        remedy: 'Name the profile first, then the readings.',
      });
    const under = promisedUnder(profileBytes);
    (await openProfile(profileBytes, true)).close();
    at = readingsFile;
    const all = readingsFromFile(await shellFile(readingsFile)).map((r) => r.reading);
    const inTurn = [...under.conditions, ...PRECEDENCE];
    const reading = inTurn.map((c) => all.find((r) => (r.condition ?? null) === c)).find(Boolean)!;
    const fault = whyNotHeld(under, reading.condition);
    if (fault) throw new FormatError(fault);
    const held = await checkAgainst({ profile: profileBytes, reading, others: [], boxes: [] });
    const check = { ...held, off: [...takenForGranted(under, reading.condition), ...held.off] };
    console.log(options.json ? JSON.stringify(asJson(check)) : inWords(under.name, check));
    return 0;
  } catch (error) {
    console.error(error instanceof ProfileError ? `${at}: ${error.message} Export it again.` : oneLine(at, error));
    return 1;
  }
}

const asJson = (check: HeldCheck) => ({
  mean: check.mean,
  p95: check.p95,
  max: check.max,
  greys: check.greys
    ? { maxDeltaC: check.greys.maxDeltaC, maxDeltaL: check.greys.maxDeltaL, monotone: check.greys.monotone }
    : null,
  verdict: check.verdict === 'passes' ? 'passes' : checkInWords(check),
  recognised: check.recognised ?? null,
  off: check.off,
});

function inWords(name: string, check: HeldCheck): string {
  const { greys } = check;
  const rows: [string, string][] = [
    ['Patches', String(check.patches)],
    [
      'From the promise',
      `ΔE00 ${check.mean.toFixed(2)} in the mean, 95 % within ${check.p95.toFixed(2)}, worst ${check.max.toFixed(2)}`,
    ],
    [
      'Greys',
      greys
        ? `within ${greys.maxDeltaC.toFixed(2)} ΔC* and ${greys.maxDeltaL.toFixed(2)} L*, ${greys.monotone ? 'no step falls back' : 'a step falls back'}`
        : 'fewer than three were printed',
    ],
    ...check.worst.map((w): [string, string] => ['Worst', `${w.patch}: ${w.deltaE00.toFixed(1)} ΔE00`]),
    ...check.off.map((words): [string, string] => ['Off', words]),
    ['', checkInWords(check)],
    ...(check.recognised ? [['', check.recognised.sentence] as [string, string]] : []),
  ];
  return [name, ...rows.map(([title, value]) => `  ${title.padEnd(18)}${value}`)].join('\n');
}
