import { randomUUID } from 'node:crypto';
import { tmpdir } from 'node:os';
import { constants } from 'node:fs';
import { access, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { GLASSES } from '@rakuen/core/light/glass';
import { TABLE_LIGHTS } from '@rakuen/core/light/table-lights';
import { USUAL_COMMISSION } from '@rakuen/core/match/commission';
import { onSheet } from '@rakuen/core/match/on-sheet';
import { paletteOf } from '@rakuen/core/match/palette';
import { readySheet } from '@rakuen/core/match/ready-sheet';
import type { Candidate } from '@rakuen/core/match/judge';
import { rankSheets, type RankedSheet, type Ranking } from '@rakuen/core/match/rank';
import { SCHOOLS } from '@rakuen/core/match/schools';
import type { SheetQualities } from '@rakuen/core/match/sheet';
import { contrastKept } from '@rakuen/core/match/contrast-kept';
import { wouldHelp } from '@rakuen/core/match/would-help';
import { PictureError } from '../work/picture-error.ts';
import { analysePicture, type PictureResult } from '../work/picture-task.ts';
import { ProfileError } from '../colour-management/lcms.ts';
import { parseArguments, UseError, chosen } from './arguments.ts';
import { oneLine } from './profile.ts';
import { sheetFromFile } from './sheet-file.ts';

const USE =
  'Use: npm run --silent match -- --picture FILE [--sheets READINGS…], or --sheet READINGS --pictures FILE…; then [--light NAME] [--glass NAME] [--school NAME] [--json]';
export const MOST_PIXELS = 400_000_000;

interface Conditions {
  readonly light: (typeof TABLE_LIGHTS)[number];
  readonly glass: (typeof GLASSES)[number];
  readonly school: (typeof SCHOOLS)[number];
}
type LaidFile = Awaited<ReturnType<typeof sheetFromFile>>;

/** The shell's `match`: ranks sheets for a picture, or pictures for a sheet. @returns the exit code */
export async function runMatch(words: readonly string[]): Promise<number> {
  const at = { file: 'match' };
  try {
    const { files, options } = parseArguments(words, {
      taking: ['picture', 'sheet', 'light', 'glass', 'school'],
      flags: ['json', 'sheets', 'pictures'],
    });
    const conditions = {
      light: chosen('light', options.light, TABLE_LIGHTS),
      glass: chosen('glass', options.glass, GLASSES),
      school: chosen('school', options.school, SCHOOLS),
    };
    const json = options.json === true;
    if (typeof options.sheet === 'string' && options.pictures && files.length > 0 && !options.picture)
      console.log(await picturesFor(options.sheet, files, conditions, json, at));
    else if (typeof options.picture === 'string' && !options.sheet && (files.length === 0 || options.sheets))
      console.log(await sheetsFor(options.picture, files, conditions, json, at));
    else throw new UseError(USE);
    return 0;
  } catch (error) {
    console.error(pictureLine(at.file, error));
    return 1;
  }
}

async function sheetsFor(
  path: string,
  files: readonly string[],
  conditions: Conditions,
  json: boolean,
  at: { file: string },
): Promise<string> {
  at.file = path;
  const picture = await readPicture(path);
  const sheets: LaidFile[] = [];
  const leftOut: { sheet: string; why: string }[] = [];
  for (const file of files) {
    // One file that can't be used stops none of the others.
    try {
      sheets.push(await sheetFromFile(file, conditions));
    } catch (error) {
      leftOut.push({ sheet: file, why: pictureLine(file, error) });
    }
  }
  at.file = files.join(', ');
  if (files.length > 0 && sheets.length === 0) throw new UseError(leftOut.map((l) => l.why).join('\n'));
  const ranking = rank(picture, sheets, conditions);
  const answer = {
    picture: pictureInFigures(picture),
    places: ranking.places.map((p) => ({
      sheet: p.id,
      place: p.place,
      ...placeInFigures(p, ranking, picture, sheets.find(({ sheet }) => sheet.id === p.id)!.sheet),
    })),
    refused: ranking.refused.map(({ id, why }) => ({ sheet: id, why })),
    leftOut,
    ...named(conditions),
  };
  return json ? JSON.stringify(answer) : inWords(path, answer);
}

/** Which of some pictures suit a sheet: each is ranked on it alone, the best first. */
async function picturesFor(
  path: string,
  files: readonly string[],
  conditions: Conditions,
  json: boolean,
  at: { file: string },
): Promise<string> {
  at.file = path;
  const laid = await sheetFromFile(path, conditions);
  const found: (ReturnType<typeof placeInFigures> & { picture: string; wouldHelp: string[] })[] = [];
  const refused: { picture: string; why: string }[] = [];
  const leftOut: { picture: string; why: string }[] = [];
  for (const file of files) {
    try {
      const picture = await readPicture(file);
      const ranking = rank(picture, [laid], conditions);
      refused.push(...ranking.refused.map(({ why }) => ({ picture: file, why })));
      found.push(
        ...ranking.places.map((p) => ({
          picture: file,
          ...placeInFigures(p, ranking, picture, laid.sheet),
          wouldHelp: wouldHelp(picture.figures, p.figures, laid.sheet),
        })),
      );
    } catch (error) {
      leftOut.push({ picture: file, why: pictureLine(file, error) });
    }
  }
  if (found.length + refused.length === 0) throw new UseError(leftOut.map((l) => l.why).join('\n'));
  const inOrder = found.sort((p, q) => q.score - p.score || p.picture.localeCompare(q.picture));
  const places = inOrder.map((p) => ({ ...p, place: 1 + inOrder.findIndex((q) => q.score === p.score) }));
  const answer = { sheet: path, pictures: places, refused, leftOut, ...named(conditions) };
  if (json) return JSON.stringify(answer);
  return [
    path,
    ...places.map(
      (p) =>
        `${p.place}. ${p.picture}: ${p.score.toFixed(1)} of 10 ± ${p.scoreSd.toFixed(1)}. ${p.verdict}${p.wouldHelp.length > 0 ? `; would help: ${p.wouldHelp.join(', ')}` : ''}`,
    ),
    ...refused.map((r) => `refused: ${r.picture}: ${r.why}`),
    ...leftOut.map((l) => `left out: ${l.why}`),
  ].join('\n');
}

const named = ({ light, glass, school }: Conditions) => ({ light: light.name, glass: glass.name, school: school.name });

function rank(picture: PictureResult, sheets: readonly LaidFile[], { light, glass, school }: Conditions): Ranking {
  const cells = { count: picture.cells.length / 4, data: picture.cells };
  const { structure } = picture.figures;
  const candidates = sheets.map(({ sheet, laid }): Candidate => {
    const ready = readySheet(laid);
    return { sheet, figures: onSheet(paletteOf(cells, ready.nodes), structure?.marks ?? [], ready) };
  });
  return rankSheets(
    {
      picture: picture.figures,
      hints: (structure?.hints ?? []).map((h) => h.hint),
      commission: { ...USUAL_COMMISSION, light: light.key, glass: glass.key },
      weights: school.weights,
    },
    candidates,
  );
}

/** A place as the shell reports it; contrast by scale for a print of the usual size. */
const placeInFigures = (p: RankedSheet, ranking: Ranking, picture: PictureResult, sheet: SheetQualities) => ({
  score: p.score,
  scoreSd: p.scoreSd,
  closeToNext: p.closeToNext,
  verdict: p.verdict,
  outsideShare: p.figures.outsideShare,
  meanDeltaE00: p.figures.meanDeltaE,
  shadowStepsKept: p.figures.shadowStepsKept,
  greysDeviation: p.figures.greysDeviation,
  chromaKept: p.figures.chromaKept,
  contrastKept: contrastKept(picture.figures.structure?.scales ?? [], USUAL_COMMISSION.longSideMm, p.figures, sheet),
  whiteSeen: p.figures.whiteSeen,
  reasons: [...p.reasons, ...ranking.shared].map(({ leaning, speaks, sentence, cost, figures }) => ({
    leaning,
    speaks,
    sentence,
    cost,
    figures,
  })),
});

/** One line for whatever can't be used, pictures among it. @throws what was not foreseen */
export function pictureLine(at: string, error: unknown): string {
  if (error instanceof PictureError) return `${at}: ${error.message} ${error.remedy}`;
  if (error instanceof ProfileError || error instanceof RangeError) return `${at}: ${error.message}`;
  return oneLine(at, error);
}

/** @throws PictureError where a file can't be opened */
export async function existing(path: string): Promise<void> {
  try {
    await access(path, constants.R_OK);
  } catch (error) {
    throw new PictureError(
      `The file can’t be opened (${(error as NodeJS.ErrnoException).code ?? 'unknown'}).`,
      'Check its name and your right to read it.',
    );
  }
}

export async function readPicture(path: string): Promise<PictureResult> {
  await existing(path);
  const scratch = join(tmpdir(), `rakuen-${randomUUID()}`);
  try {
    return await analysePicture({ path, assumeSrgb: false, maxPixels: MOST_PIXELS, scratch });
  } finally {
    await rm(scratch, { recursive: true, force: true });
  }
}

/** A picture as the shell tells it: shares are 0–1, the key is that of the subject. */
function pictureInFigures({
  widthPx,
  heightPx,
  bitsPerChannel,
  profile,
  profileAssumed,
  title,
  notes,
  figures,
}: PictureResult) {
  const { structure, ...f } = figures;
  return {
    widthPx,
    heightPx,
    bitsPerChannel,
    profile,
    profileAssumed,
    title,
    notes,
    medianL: f.medianL,
    meanL: f.meanL,
    nearBlackShare: f.nearBlackShare,
    nearWhiteShare: f.nearWhiteShare,
    saturatedShare: f.saturatedShare,
    colour: f.colour,
    key: structure?.subject.key ?? f.key,
    keyOfWhole: f.key,
    ground: structure?.ground,
    contrast: f.contrast,
    toning: f.toning,
    families: f.families,
    accents: f.accents,
    smoothShare: structure?.smoothShare,
    busyShare: structure?.busyShare,
    noiseL: structure?.noiseL,
    fineL: structure?.fineL,
    scales: structure?.scales,
    shallowFocus: structure?.shallowFocus,
    hints: (structure?.hints ?? []).map((h) => h.hint),
    marks: structure?.marks ?? [],
  };
}

type Answer = {
  picture: ReturnType<typeof pictureInFigures>;
  places: {
    sheet: string;
    place: number;
    score: number;
    scoreSd: number;
    closeToNext: boolean;
    verdict: string;
    reasons: { speaks: string; sentence: string }[];
  }[];
  refused: { sheet: string; why: string }[];
  /** Files that can't be used, each with its error. */
  leftOut: { sheet: string; why: string }[];
};

function inWords(file: string, { picture: p, places, refused, leftOut }: Answer): string {
  const percent = (v: number) => `${(v * 100).toFixed(1)} %`;
  const ground = p.ground ? ` on a ground of L* ${p.ground.lab[0].toFixed(0)}` : '';
  return [
    file,
    `  ${p.widthPx} × ${p.heightPx} px; ${p.key}${ground}, ${p.contrast} contrast, ${p.colour}; median L* ${p.medianL.toFixed(1)}, near black ${percent(p.nearBlackShare)}, near white ${percent(p.nearWhiteShare)}, saturated ${percent(p.saturatedShare)}`,
    ...places.flatMap((place) => [
      `${place.place}. ${place.sheet}: ${place.score.toFixed(1)} of 10 ± ${place.scoreSd.toFixed(1)}${place.closeToNext ? ', close to the next' : ''}. ${place.verdict}`,
      ...place.reasons.map((r) => `     ${{ for: '+', against: '-', neither: '·' }[r.speaks]} ${r.sentence}`),
    ]),
    ...refused.map((r) => `refused: ${r.sheet}: ${r.why}`),
    ...leftOut.map((l) => `left out: ${l.why}`),
  ].join('\n');
}
