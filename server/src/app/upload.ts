import {
  type CallHandler,
  type ExecutionContext,
  Injectable,
  mixin,
  type NestInterceptor,
  type Type,
} from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request, Response } from 'express';
import multer from 'multer';
import { catchError, finalize, from, mergeMap, type Observable, throwError } from 'rxjs';
import type { Settings } from '@rakuen/contract/settings';
import { FileStore } from '../files/file-store.ts';
import { SettingsService } from '../settings/settings.service.ts';
import { besideOf, OneAtATime, RECEIVES } from '../store/one-at-a-time.ts';
import { RakuenError } from './errors.ts';

const MEGA = 2 ** 20;

/**
 * Takes one uploaded file, field name `file`, to the folder of incoming files under a name of our own. The limit is a
 * setting, read for every request; `times` it for a file that holds several. Whoever handles the request keeps or
 * discards the file; if it fails, it is discarded here.
 */
export function upload(limit: keyof Settings['limits'], times = 1): Type<NestInterceptor> {
  @Injectable()
  class Upload implements NestInterceptor {
    static readonly [RECEIVES] = true;

    constructor(
      private readonly settings: SettingsService,
      private readonly files: FileStore,
      private readonly turns: OneAtATime,
      private readonly reflector: Reflector,
    ) {}

    async intercept(context: ExecutionContext, next: CallHandler): Promise<Observable<unknown>> {
      const request = context.switchToHttp().getRequest<Request>();
      const response = context.switchToHttp().getResponse<Response>();
      const fileSize = times * (await this.settings.get()).limits[limit];
      // Browsers send file names as UTF-8; multer reads them so only when told.
      const receive = multer({
        dest: this.files.incomingFolder,
        limits: { fileSize, files: 1, fields: 10, fieldSize: 100_000 },
        defParamCharset: 'utf8',
      }).single('file');
      await new Promise<void>((done, fail) =>
        receive(request, response, (error: unknown) => (error ? fail(asRakuen(error, fileSize)) : done())),
      );
      if (!request.file)
        throw new RakuenError(400, 'No file came with the request.', {
          field: 'file',
          remedy: 'Choose a file and send it again.',
        });
      const path = request.file.path;
      // Whatever a deed did not keep goes with it; what works on beside its answer keeps the file for that.
      const handled = besideOf(this.reflector, context)
        ? next.handle()
        : this.turns.inTurn(context, next).pipe(finalize(() => void this.files.discard(path)));
      // The file is gone before the refusal is heard.
      return handled.pipe(
        catchError((error) => from(this.files.discard(path)).pipe(mergeMap(() => throwError(() => error)))),
      );
    }
  }
  return mixin(Upload);
}

function asRakuen(error: unknown, fileSize: number): unknown {
  if (!(error instanceof multer.MulterError)) return error;
  if (error.code === 'LIMIT_FILE_SIZE') {
    return new RakuenError(413, `The file is larger than ${(fileSize / MEGA).toFixed(0)} MB.`, {
      field: 'file',
      remedy: 'Choose a smaller file, or raise the limit in the settings.',
    });
  }
  return new RakuenError(400, `The upload can’t be read (${error.code}).`, {
    field: error.field,
    remedy: 'Send one file in the field “file”.',
  });
}
