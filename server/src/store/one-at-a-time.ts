import { type CallHandler, type ExecutionContext, Injectable, type NestInterceptor, SetMetadata } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { from, lastValueFrom, type Observable } from 'rxjs';
import { DataSource } from 'typeorm';
import { RakuenError } from '../app/errors.ts';
import { Writer } from './writer.ts';

const BESIDE = 'beside the writer';
/** A request that changes nothing, or whose work goes on after the answer and takes its own turn then. */
export const Beside = () => SetMetadata(BESIDE, true);
export const isBeside = (reflector: Reflector, context: ExecutionContext): boolean =>
  reflector.get<boolean | undefined>(BESIDE, context.getHandler()) === true;
/** Interceptors that take an upload in before the deed begins bear this mark: a slow sender keeps nobody waiting. */
export const RECEIVES = Symbol('receives an upload');
const INTERCEPTORS = '__interceptors__';
const READS = new Set(['GET', 'HEAD', 'OPTIONS']);
/** Header by which a repeat of a request is known; its value is the client's own. */
const KEY = /^[\w-]{8,80}$/;

/** Every request that changes something has its turn with the one writer; a repeat under the same key gets the first answer. */
@Injectable()
export class OneAtATime implements NestInterceptor {
  constructor(
    private readonly writer: Writer,
    private readonly reflector: Reflector,
    private readonly database: DataSource,
  ) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const { method } = context.switchToHttp().getRequest<Request>();
    const handler = context.getHandler();
    const interceptors = (Reflect.getMetadata(INTERCEPTORS, handler) ?? []) as object[];
    if (READS.has(method) || isBeside(this.reflector, context) || interceptors.some((i) => RECEIVES in i))
      return next.handle();
    return this.inTurn(context, next);
  }

  /** The rest of a request as one deed. */
  inTurn(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const request = context.switchToHttp().getRequest<Request>();
    const what = `${request.method} ${(request.route as { path: string }).path.replace(/^\/api\//, '')}`;
    const handle = () => lastValueFrom(next.handle(), { defaultValue: undefined });
    return from(this.writer.run(what, () => this.once(request, what, handle)));
  }

  private async once(request: Request, what: string, handle: () => Promise<unknown>): Promise<unknown> {
    const key = request.get('Idempotency-Key');
    if (key === undefined) return handle();
    if (!KEY.test(key))
      throw new RakuenError(400, 'The idempotency key must be 8 to 80 letters, digits, - or _.', {
        field: 'Idempotency-Key',
        remedy: 'Send a fresh random key with each deed, and the same one with its repeat.',
      });
    const [known] = await this.database.query<{ what: string; answer: string }[]>(
      'SELECT what, answer FROM answers WHERE key = ?',
      [key],
    );
    if (known && known.what !== request.originalUrl + what)
      throw new RakuenError(422, 'This key was used for another deed.', {
        field: 'Idempotency-Key',
        remedy: 'Send a fresh random key with each deed.',
      });
    if (known) return JSON.parse(known.answer) as unknown;
    const answer = await handle();
    await this.database.query('INSERT INTO answers (key, at, what, answer) VALUES (?, ?, ?, ?)', [
      key,
      new Date().toISOString(),
      request.originalUrl + what,
      JSON.stringify(answer ?? null),
    ]);
    return answer;
  }
}
