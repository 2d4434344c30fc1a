import {
  type CallHandler,
  createParamDecorator,
  type ExecutionContext,
  Injectable,
  type NestInterceptor,
} from '@nestjs/common';
import type { Request, Response } from 'express';
import { type Observable, tap } from 'rxjs';
import type { ApiError } from '@rakuen/contract/settings';
import { RakuenError } from './errors.ts';

/** The revision a change was made from, of the header If-Match; undefined where nothing was said. @throws RakuenError (400) */
export const IfMatch = createParamDecorator((_: unknown, context: ExecutionContext): number | undefined => {
  const said = context.switchToHttp().getRequest<Request>().get('If-Match');
  if (said === undefined || said === '*') return undefined;
  const revision = /^"?(\d{1,9})"?$/.exec(said)?.[1];
  if (revision === undefined)
    throw new RakuenError(400, 'If-Match must be the revision that was read.', {
      field: 'If-Match',
      remedy: 'Send the ETag of the thing as it was read.',
    });
  return Number(revision);
});

/** What was changed by another since it was read; the answer holds it as it is now. */
export class ChangedMeanwhile extends RakuenError {
  constructor(what: string, current: object) {
    super(412, `${what} was changed in another window meanwhile.`, {
      remedy: 'Look at both, and keep yours or take theirs.',
    });
    (this.getResponse() as ApiError).current = current;
  }
}

/** @throws ChangedMeanwhile */
export function refuseStale(
  what: string,
  known: { readonly revision: number },
  from: number | undefined,
  view: object,
): void {
  if (from !== undefined && known.revision !== from) throw new ChangedMeanwhile(what, view);
}

/** Answers of things that have a revision carry it as their ETag. */
@Injectable()
export class RevisionTag implements NestInterceptor {
  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const response = context.switchToHttp().getResponse<Response>();
    return next.handle().pipe(
      tap((body: unknown) => {
        const revision = (body as { revision?: unknown } | null | undefined)?.revision;
        if (typeof revision === 'number') response.setHeader('ETag', `"${revision}"`);
      }),
    );
  }
}
