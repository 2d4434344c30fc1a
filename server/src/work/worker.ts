import { randomUUID } from 'node:crypto';
import { copyFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { learnEye, type Choice, type OwnSchool } from '@rakuen/core/match/eye';
import { FormatError } from '@rakuen/core/formats/format-error';
import { drawPicture, sceneOf, type SceneName } from '@rakuen/demo/pictures/draw';
import { PictureError } from './picture-error.ts';
import { analysePicture, type PictureTask } from './picture-task.ts';
import {
  drawChart,
  drawTestPage,
  expectedLabs,
  readScan,
  readStripTask,
  simulateScan,
  writeSession,
} from './bench-tasks.ts';
import { compareSetsOf, conditionFacts, fingerprints, previewReading, readingFigures, writeReading } from './tasks.ts';
import { writeStrips } from './strip-task.ts';
import { checkProfileOf, fitPrintOf, makeProfileOf, nextPatches, stripThrough } from './model-tasks.ts';
import { countInk } from './ink-task.ts';
import { layFromSolid, layModel, matchSheets, readyFor, sendFor } from './lay-tasks.ts';
import { ScanError } from '@rakuen/core/scan/sheet-in-scan';
import { matchRecipes, suggestRecipe } from './recipe-task.ts';
import { nestPieces } from './nest-task.ts';
import { planRun } from './run-task.ts';
import { gistsOf, scoreShow, suitPictures } from './suit-task.ts';
import { writeCopy } from './copy-task.ts';
import { holdScan } from './scan-task.ts';
import { drawOnSheet, labImageOf } from './lab-image-task.ts';
import { lightSpectrum, profileSolid, sheetOf } from './sheet-task.ts';
import { ProfileError } from '../colour-management/lcms.ts';
import { TextureError } from '@rakuen/core/measurement/texture';

/** The tasks a worker knows. */
export const TASKS = {
  previewReading,
  conditionFacts,
  writeReading,
  readingFigures,
  compareSetsOf,
  expectedLabs,
  readStrip: readStripTask,
  writeSession,
  drawChart,
  drawTestPage,
  readScan,
  simulateScan,
  sheetOf,
  fingerprints,
  profileSolid,
  lightSpectrum,
  fitPrintOf,
  makeProfileOf,
  checkProfileOf,
  writeStrips,
  stripThrough,
  nextPatches,
  matchSheets,
  suitPictures,
  scoreShow,
  nestPieces,
  planRun,
  suggestRecipe,
  matchRecipes,
  gistsOf,
  readyFor,
  learnEye: ({ choices, own }: { choices: Choice[]; own: OwnSchool[] }) => Promise.resolve(learnEye(choices, own)),
  sendFor,
  labImageOf,
  drawOnSheet,
  writeCopy,
  holdScan,
  layModel,
  layFromSolid,
  countInk,
  /** A picture of the invented studio: as it was drawn when Rakuen was built, else drawn now. */
  async drawDemoPicture({ name, folder }: { name: SceneName; folder: string }) {
    const path = join(folder, randomUUID());
    try {
      await copyFile(new URL(import.meta.resolve(`@rakuen/demo/drawn/${name}.tif`)), path);
      return { path, ...sceneOf(name) };
    } catch {
      const { scene, tiff } = await drawPicture(name);
      await writeFile(path, tiff);
      return { path, ...scene };
    }
  },
  analysePicture: (task: PictureTask) => analysePicture(task),
};
export type TaskName = keyof typeof TASKS;

/** An error in a form that survives the way between threads. */
export interface Fault {
  readonly message: string;
  readonly remedy: string;
  readonly line?: number;
  readonly field?: string;
}

/** Entry of a worker thread. Faults of the input are an answer; anything else is thrown. */
export default async function run({
  name,
  task,
}: {
  name: TaskName;
  task: never;
}): Promise<{ result: unknown } | { fault: Fault }> {
  try {
    return { result: await (TASKS[name] as (task: never) => unknown)(task) };
  } catch (error) {
    if (error instanceof TextureError || error instanceof ScanError)
      return { fault: { message: error.message, remedy: error.remedy } };
    if (error instanceof FormatError || error instanceof PictureError) {
      return {
        fault: {
          message: error.message,
          remedy: error.remedy,
          field: error.field,
          line: error instanceof FormatError ? error.line : undefined,
        },
      };
    }
    if (error instanceof ProfileError)
      return { fault: { message: error.message, remedy: 'Choose another profile, or write it again.' } };
    throw error;
  }
}
