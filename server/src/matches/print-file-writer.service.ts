import { today } from '@rakuen/core/day';
import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { Injectable } from '@nestjs/common';
import { WORKING_SPACES, type WorkingSpace } from '@rakuen/core/gamut/working-spaces';
import { FILE_PATTERN, fileName, type FileWords } from '@rakuen/core/print/file-name';
import { PLAIN } from '@rakuen/core/proof/recipe';
import type { ConditionView } from '@rakuen/contract/conditions';
import type { CopyQuery } from '@rakuen/contract/proofs';
import type { RecipeView } from '@rakuen/contract/recipes';
import { ConditionsService } from '../conditions/conditions.service.ts';
import { FileStore } from '../files/file-store.ts';
import { PicturesService } from '../pictures/pictures.service.ts';
import { noProfileFile } from '../profiles/no-profile-file.ts';
import { ProfilesService } from '../profiles/profiles.service.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { Workshop } from '../work/workshop.ts';
import { RecipesService } from './recipes.service.ts';

export const DEFAULT_PPI = 360;
const TYPES = { tif: 'image/tiff', jpeg: 'image/jpeg' } as const;
export const ENDINGS = { tif: 'tif', jpeg: 'jpg' } as const;

/** What a file is called by its pattern, without ending. */
export const printFileName = (query: CopyQuery, words: Omit<FileWords, 'date' | 'ppi'>): string =>
  fileName(query.name ?? FILE_PATTERN, {
    ...words,
    ppi: String(query.ppi ?? DEFAULT_PPI),
    date: today(),
  });

export const fileWords = (picture: string, condition: ConditionView, longSideMm: number, space?: WorkingSpace) => ({
  picture,
  paper: condition.paper.name,
  size: longSideMm.toFixed(0),
  profile: space ? WORKING_SPACES[space].name : condition.profile,
});

/** A print file that lies in the folder for files on their way, until it is discarded. */
export interface WrittenFile {
  readonly path: string;
  readonly name: string;
  readonly type: string;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly ppi: number;
  readonly recipe?: RecipeView;
  /** SHA-256 of the profile it is in; '' for a working space. */
  readonly profileHash: string;
}

/** Writes print files: a picture by its recipe in the values of a profile or of a working space. */
@Injectable()
export class PrintFileWriter {
  constructor(
    private readonly pictures: PicturesService,
    private readonly conditions: ConditionsService,
    private readonly profiles: ProfilesService,
    private readonly files: FileStore,
    private readonly settings: SettingsService,
    private readonly workshop: Workshop,
    private readonly recipes: RecipesService,
  ) {}

  /** @throws RakuenError (409) where only the name of the profile is known */
  async write(pictureId: string, query: CopyQuery): Promise<WrittenFile> {
    const { conditionId, ppi = DEFAULT_PPI, space, as = 'tif' } = query;
    const row = await this.pictures.get(pictureId);
    const { commission, title } = await this.pictures.view(pictureId);
    const condition = await this.conditions.view(conditionId);
    const recipe = query.recipe ? await this.recipes.of(query.recipe, pictureId) : undefined;
    const values = recipe?.values ?? PLAIN;
    const icc = space ? undefined : await this.profileOf(condition);
    const target = space ? { space } : { icc: icc!, rendering: values.rendering };
    const { limits } = await this.settings.get();
    const path = this.files.incomingPath();
    const landscape = row.widthPx >= row.heightPx;
    const short = (commission.longSideMm * Math.min(row.widthPx, row.heightPx)) / Math.max(row.widthPx, row.heightPx);
    const [widthMm, heightMm] = landscape ? [commission.longSideMm, short] : [short, commission.longSideMm];
    try {
      await this.files.scratch((scratch) =>
        this.workshop.run('writeCopy', {
          path: this.files.pathOf(row.contentHash),
          assumeSrgb: row.profileAssumed,
          maxPixels: Math.max(limits.picturePixels, row.widthPx * row.heightPx),
          target,
          as,
          widthMm,
          heightMm,
          ppi,
          recipe: values,
          out: path,
          scratch,
        }),
      );
    } catch (error) {
      void this.discard({ path });
      throw error;
    }
    const name = printFileName(query, fileWords(title, condition, commission.longSideMm, space));
    return {
      path,
      name: `${name}.${ENDINGS[as]}`,
      type: TYPES[as],
      widthMm,
      heightMm,
      ppi,
      recipe,
      profileHash: icc ? createHash('sha256').update(icc).digest('hex') : '',
    };
  }

  async hashOf({ path }: Pick<WrittenFile, 'path'>): Promise<string> {
    const hash = createHash('sha256');
    for await (const chunk of createReadStream(path)) hash.update(chunk as Buffer);
    return hash.digest('hex');
  }

  /** The file as it is sent; it is gone once it was. */
  stream(file: Pick<WrittenFile, 'path'>) {
    const stream = createReadStream(file.path);
    stream.on('close', () => void this.discard(file));
    return stream;
  }

  discard({ path }: Pick<WrittenFile, 'path'>): Promise<void> {
    return this.files.discard(path);
  }

  private async profileOf(condition: ConditionView): Promise<Uint8Array> {
    const { profileId } = condition;
    const bytes = profileId ? await this.profiles.bytesOf(profileId) : undefined;
    if (bytes) return bytes;
    throw noProfileFile(condition);
  }
}
