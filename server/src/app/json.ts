import type { NextFunction, Request, RequestHandler, Response } from 'express';
import express from 'express';

/** What a request's JSON may be: no form of Rakuen is deeper or has more in it. */
const MOST = { depth: 24, parts: 50_000 } as const;

/**
 * Why bytes are not parsed as JSON, looked at before they are: nesting and number of values are counted in one pass, strings skipped.
 * @param most values it may hold
 * @returns undefined where they may be parsed
 */
export function tooMuchJson(bytes: Uint8Array, most: number = MOST.parts): string | undefined {
  let depth = 0;
  let parts = 0;
  let quoted = false;
  for (let i = 0; i < bytes.length; i++) {
    const c = bytes[i];
    if (quoted) {
      if (c === 0x5c) i++;
      else if (c === 0x22) quoted = false;
    } else if (c === 0x22) quoted = true;
    else if (c === 0x7b || c === 0x5b) {
      if (++depth > MOST.depth) return `It is nested more than ${MOST.depth} deep.`;
    } else if (c === 0x7d || c === 0x5d) depth--;
    else if ((c === 0x2c || c === 0x3a) && ++parts > most) return `It holds more than ${most} values.`;
  }
  return undefined;
}

/** Reads the JSON of a request, within bounds of size, depth and number. */
export function boundedJson(limit: string): RequestHandler {
  return express.json({
    limit,
    verify: (_request, _response, bytes) => {
      const why = tooMuchJson(bytes);
      if (why) throw Object.assign(new Error(why), { status: 413, type: 'json.too.much', said: why });
    },
  }) as RequestHandler;
}

/** What the API says is of this moment: no answer is kept on the way, but for those that say so themselves. */
export function neverCached(_request: Request, response: Response, next: NextFunction): void {
  response.setHeader('Cache-Control', 'no-store');
  next();
}
