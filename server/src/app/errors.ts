import { Catch, HttpException, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { ApiError } from '@rakuen/contract/settings';
import type { ValidationError } from 'class-validator';
import type { Response } from 'express';

/** Longest message that is sent: what is said of ten thousand fields is said of the first of them. */
const MOST_LETTERS = 1000;
const shortened = (text: string) => (text.length > MOST_LETTERS ? `${text.slice(0, MOST_LETTERS)}…` : text);

/** An error for the person at the table: what is wrong, where, and what to do. */
export class RakuenError extends HttpException {
  constructor(
    status: number,
    message: string,
    where: Pick<ApiError, 'remedy' | 'file' | 'line' | 'field' | 'current'> = {},
  ) {
    super({ statusCode: status, message, ...where } satisfies ApiError, status);
  }
}

export const notFound = (what: string): RakuenError =>
  new RakuenError(404, `There is no such ${what}.`, {
    remedy: 'It may have been removed. Go back to the list and choose again.',
  });

/** What a checked request got wrong, field by field. */
export function faultsOf(errors: readonly ValidationError[], path = ''): { field: string; message: string }[] {
  return errors.flatMap((error) => {
    const field = path ? `${path}.${error.property}` : error.property;
    const own = Object.values(error.constraints ?? {}).map((message) => ({
      field,
      message: path ? `${path}.${message}` : message,
    }));
    return [...own, ...faultsOf(error.children ?? [], field)];
  });
}

/** Every error leaves the server in one shape; what was not foreseen is logged and not told in detail. */
@Catch()
export class ErrorFilter implements ExceptionFilter {
  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) {
      response.end();
      return;
    }
    const body = this.bodyOf(error);
    response
      .status(body.statusCode)
      .json({ ...body, message: shortened(body.message), field: body.field && shortened(body.field) });
  }

  private bodyOf(error: unknown): ApiError {
    if (error instanceof RakuenError) return error.getResponse() as ApiError;
    if (error instanceof HttpException) {
      const answer = error.getResponse();
      const said = typeof answer === 'string' ? answer : (answer as { message?: string | string[] }).message;
      return {
        statusCode: error.getStatus(),
        message:
          error.getStatus() === 404
            ? 'There is no such address.'
            : Array.isArray(said)
              ? said.join('; ')
              : (said ?? error.message),
        remedy:
          error.getStatus() === 404
            ? 'Look at /api/docs for what there is.'
            : 'Correct what is named and send it again.',
      };
    }
    const storage = storageFault(error);
    if (storage) return storage;
    // body-parser's and multer's own faults carry a status.
    const { status, type, said } = error as { status?: number; type?: string; said?: unknown };
    if (typeof status === 'number' && status >= 400 && status < 500) {
      return {
        statusCode: status,
        message:
          type === 'entity.too.large'
            ? 'The request is too large.'
            : typeof said === 'string'
              ? `The request is too much. ${said}`
              : 'The request can’t be read.',
        remedy: 'Send well-formed JSON.',
      };
    }
    // The framework's own log is off, so that a start prints one line; what nobody foresaw is said all the same.
    console.error(error instanceof Error ? error.stack : error);
    return {
      statusCode: 500,
      message: 'Something in Rakuen went wrong; nothing was changed.',
      remedy: 'Try again. If it happens again, the server’s log says what it was.',
    };
  }
}

/** What the disk or the database refuses, by the code it says it with. */
const STORAGE: readonly (readonly [codes: RegExp, status: number, message: string, remedy: string])[] = [
  [
    /^(SQLITE_FULL|ENOSPC|EDQUOT)$/,
    507,
    'The disk is full: this was not kept.',
    'Make room on the disk of the data folder and send it again.',
  ],
  [
    /^(SQLITE_READONLY.*|EROFS|EACCES|EPERM)$/,
    507,
    'The data folder can’t be written: this was not kept.',
    'Change the rights of the folder, or move the studio to a disk that can be written.',
  ],
  [
    /^(SQLITE_BUSY.*|SQLITE_LOCKED.*)$/,
    503,
    'Another program holds the database: this was not kept.',
    'Close what else has the database open and send it again.',
  ],
  [
    /^(SQLITE_IOERR.*|EIO)$/,
    507,
    'The disk does not answer: this was not kept.',
    'Look at the disk of the data folder, and make a backup of what can still be read.',
  ],
  [
    /^(SQLITE_CORRUPT.*|SQLITE_NOTADB)$/,
    500,
    'The database is damaged.',
    'Stop Rakuen, put a backup back (npm run restore), or start with --read-only.',
  ],
  [
    /^SQLITE_CONSTRAINT_(UNIQUE|PRIMARYKEY)$/,
    409,
    'There is one like this already.',
    'Load the list again: somebody was quicker.',
  ],
  [
    /^SQLITE_CONSTRAINT_(FOREIGNKEY|TRIGGER)$/,
    409,
    'What this rests on is gone, or something rests on it.',
    'Load the list again.',
  ],
];

export function storageFault(error: unknown): ApiError | undefined {
  const { code, driverError } = error as { code?: unknown; driverError?: { code?: unknown } };
  const said = [driverError?.code, code].find((c): c is string => typeof c === 'string');
  const found = said === undefined ? undefined : STORAGE.find(([codes]) => codes.test(said));
  if (!found || said === undefined) return undefined;
  const [, statusCode, message, remedy] = found;
  if (statusCode >= 500) console.error(error instanceof Error ? error.stack : error);
  return { statusCode, message, remedy };
}
