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
import { rankSheets } from '@rakuen/core/match/rank';
import { SCHOOLS } from '@rakuen/core/match/schools';
import type { LaidSheet, SheetQualities } from '@rakuen/core/match/sheet';
import { PictureError } from '../work/picture-error.ts';
import { analysePicture, type PictureResult } from '../work/picture-task.ts';
import { ProfileError } from '../colour-management/lcms.ts';
import { parseArguments, UseError, chosen } from './arguments.ts';
import { oneLine } from './profile.ts';
import { sheetFromFile } from './sheet-file.ts';

const USE =
  'Use: npm run --silent match -- --picture FILE [--sheets READINGS…] [--light NAME] [--glass NAME] [--school NAME] [--json]';
export const MOST_PIXELS = 400_000_000;

/** The shell's `match`: reads a picture, and ranks sheets for it. @returns the exit code */
export async function runMatch(words: readonly string[]): Promise<number> {
  let at = 'match';
  try {
    const { files, options } = parseArguments(words, {
      taking: ['picture', 'light', 'glass', 'school'],
      flags: ['json', 'sheets'],
    });
    if (typeof options.picture !== 'string' || (files.length > 0 && !options.sheets)) throw new UseError(USE);
    const light = chosen('light', options.light, TABLE_LIGHTS);
    const glass = chosen('glass', options.glass, GLASSES);
    const school = chosen('school', options.school, SCHOOLS);

    at = options.picture;
    const picture = await readPicture(options.picture);
    const sheets: { sheet: SheetQualities; laid: LaidSheet }[] = [];
    const leftOut: { sheet: string; why: string }[] = [];
    for (const file of files) {
      // One file that can't be used stops none of the others.
      try {
        sheets.push(await sheetFromFile(file, { light, glass }));
      } catch (error) {
        leftOut.push({ sheet: file, why: pictureLine(file, error) });
      }
    }
    at = files.join(', ');
    if (files.length > 0 && sheets.length === 0) throw new UseError(leftOut.map((l) => l.why).join('\n'));
    const cells = { count: picture.cells.length / 4, data: picture.cells };
    const { structure } = picture.figures;
    const candidates = sheets.map(({ sheet, laid }): Candidate => {
      const ready = readySheet(laid);
      return { sheet, figures: onSheet(paletteOf(cells, ready.nodes), structure?.marks ?? [], ready) };
    });
    const ranking = rankSheets(
      {
        picture: picture.figures,
        hints: (structure?.hints ?? []).map((h) => h.hint),
        commission: { ...USUAL_COMMISSION, light: light.key, glass: glass.key },
        weights: school.weights,
      },
      candidates,
    );
    const answer = {
      picture: pictureInFigures(picture),
      places: ranking.places.map((p) => ({
        sheet: p.id,
        place: p.place,
        score: p.score,
        scoreSd: p.scoreSd,
        closeToNext: p.closeToNext,
        outsideShare: p.figures.outsideShare,
        meanDeltaE00: p.figures.meanDeltaE,
        shadowStepsKept: p.figures.shadowStepsKept,
        greysDeviation: p.figures.greysDeviation,
        chromaKept: p.figures.chromaKept,
        whiteSeen: p.figures.whiteSeen,
        reasons: [...p.reasons, ...ranking.shared].map(({ leaning, speaks, sentence, cost, figures }) => ({
          leaning,
          speaks,
          sentence,
          cost,
          figures,
        })),
      })),
      refused: ranking.refused.map(({ id, why }) => ({ sheet: id, why })),
      leftOut,
      light: light.name,
      glass: glass.name,
      school: school.name,
    };
    console.log(options.json ? JSON.stringify(answer) : inWords(options.picture, answer));
    return 0;
  } catch (error) {
    console.error(pictureLine(at, error));
    return 1;
  }
}

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
      `${place.place}. ${place.sheet}: ${place.score.toFixed(1)} of 10 ± ${place.scoreSd.toFixed(1)}${place.closeToNext ? ', close to the next' : ''}`,
      ...place.reasons.map((r) => `     ${{ for: '+', against: '-', neither: '·' }[r.speaks]} ${r.sentence}`),
    ]),
    ...refused.map((r) => `refused: ${r.sheet}: ${r.why}`),
    ...leftOut.map((l) => `left out: ${l.why}`),
  ].join('\n');
}
