import { type CallHandler, type ExecutionContext, Injectable, type NestInterceptor, SetMetadata } from '@nestjs/common';
import { Reflector } from '@nestjs/core';
import type { Request } from 'express';
import { from, lastValueFrom, type Observable } from 'rxjs';
import { DataSource } from 'typeorm';
import { RakuenError } from '../app/errors.ts';
import { Writer } from './writer.ts';

const BESIDE = 'beside the writer';
type Beside = 'changes nothing' | 'takes its own turn';
/** A request that changes nothing, or whose work goes on after the answer, or beside it, and takes its own turn then. */
export const Beside = (how: Beside = 'changes nothing') => SetMetadata(BESIDE, how);
export const besideOf = (reflector: Reflector, context: ExecutionContext): Beside | undefined =>
  reflector.get<Beside | undefined>(BESIDE, context.getHandler());
/** Interceptors that take an upload in before the deed begins bear this mark: a slow sender keeps nobody waiting. */
export const RECEIVES = Symbol('receives an upload');
const INTERCEPTORS = '__interceptors__';
const READS = new Set(['GET', 'HEAD', 'OPTIONS']);
/** Header by which a repeat of a request is known; its value is the client's own. */
const KEY = /^[\w-]{8,80}$/;

/** Every request that changes something has its turn with the one writer; a repeat under the same key gets the first answer. */
@Injectable()
export class OneAtATime implements NestInterceptor {
  private readonly underWay = new Map<string, Promise<unknown>>();

  constructor(
    private readonly writer: Writer,
    private readonly reflector: Reflector,
    private readonly database: DataSource,
  ) {}

  intercept(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const { method } = context.switchToHttp().getRequest<Request>();
    const handler = context.getHandler();
    const interceptors = (Reflect.getMetadata(INTERCEPTORS, handler) ?? []) as object[];
    if (READS.has(method) || interceptors.some((i) => RECEIVES in i)) return next.handle();
    const beside = besideOf(this.reflector, context);
    if (beside === 'changes nothing') return next.handle();
    if (beside) {
      const request = context.switchToHttp().getRequest<Request>();
      return from(this.onceBeside(request, deedOf(request), () => answerOf(next)));
    }
    return this.inTurn(context, next);
  }

  /** The rest of a request as one deed. */
  inTurn(context: ExecutionContext, next: CallHandler): Observable<unknown> {
    const request = context.switchToHttp().getRequest<Request>();
    const what = deedOf(request);
    return from(this.writer.run(what, () => this.once(request, what, () => answerOf(next))));
  }

  /** The deed and the answer it is known by are one: neither is kept without the other, whenever the server is stopped. */
  private async once(request: Request, what: string, handle: () => Promise<unknown>): Promise<unknown> {
    const key = keyOf(request);
    if (key === undefined) return handle();
    const known = await this.answered(key, request, what);
    if (known) return known.answer;
    return this.database.transaction(async () => {
      const answer = await handle();
      await this.remember(key, request, what, answer);
      return answer;
    });
  }

  /** Of what takes its own turn: a repeat that comes meanwhile waits for the first. */
  private async onceBeside(request: Request, what: string, handle: () => Promise<unknown>): Promise<unknown> {
    const key = keyOf(request);
    if (key === undefined) return handle();
    const known = await this.answered(key, request, what);
    if (known) return known.answer;
    const first = this.underWay.get(key);
    if (first) return first;
    const answer = handle();
    this.underWay.set(key, answer);
    try {
      const given = await answer;
      await this.writer.run(what, () => this.remember(key, request, what, given));
      return given;
    } finally {
      this.underWay.delete(key);
    }
  }

  private async answered(key: string, request: Request, what: string): Promise<{ answer: unknown } | undefined> {
    const [known] = await this.database.query<{ what: string; answer: string }[]>(
      'SELECT what, answer FROM answers WHERE key = ?',
      [key],
    );
    if (known && known.what !== request.originalUrl + what)
      throw new RakuenError(422, 'This key was used for another deed.', {
        field: 'Idempotency-Key',
        remedy: 'Send a fresh random key with each deed.',
      });
    return known && { answer: JSON.parse(known.answer) as unknown };
  }

  private async remember(key: string, request: Request, what: string, answer: unknown): Promise<void> {
    await this.database.query('INSERT INTO answers (key, at, what, answer) VALUES (?, ?, ?, ?)', [
      key,
      new Date().toISOString(),
      request.originalUrl + what,
      JSON.stringify(answer ?? null),
    ]);
  }
}

function keyOf(request: Request): string | undefined {
  const key = request.get('Idempotency-Key');
  if (key === undefined || KEY.test(key)) return key;
  throw new RakuenError(400, 'The idempotency key must be 8 to 80 letters, digits, - or _.', {
    field: 'Idempotency-Key',
    remedy: 'Send a fresh random key with each deed, and the same one with its repeat.',
  });
}

const answerOf = (next: CallHandler): Promise<unknown> => lastValueFrom(next.handle(), { defaultValue: undefined });
const deedOf = (request: Request) =>
  `${request.method} ${(request.route as { path: string }).path.replace(/^\/api\//, '')}`;
