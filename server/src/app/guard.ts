import type { IncomingMessage, ServerResponse } from 'node:http';
import type { NextFunction, Request, RequestHandler, Response } from 'express';

/**
 * Answers only requests that were meant for this server: the Host must name the loopback address it listens on (which defeats DNS
 * rebinding), and a browser's Origin, where there is one, must be its own.
 */
export function loopbackOnly(port: () => number, extraOrigins: readonly string[]): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) => {
    const hosts = ['127.0.0.1', 'localhost', '[::1]'].map((name) => `${name}:${port()}`);
    const { host, origin } = request.headers;
    const origins = [...hosts.map((h) => `http://${h}`), ...extraOrigins];
    const allowed =
      host !== undefined &&
      hosts.includes(host.toLowerCase()) &&
      (origin === undefined || origins.includes(origin.toLowerCase()));
    if (allowed && request.headers['sec-fetch-site'] !== 'cross-site') return next();
    response.status(403).json({
      statusCode: 403,
      message: 'This address is not served here.',
      remedy: `Open http://127.0.0.1:${port()} on this machine.`,
    });
  };
}

const SETTING_UP = { statusCode: 503, message: 'The studio is being set up.', remedy: 'Try again in a few seconds.' };

/** Answers every request so, before there is a studio to ask. */
export function settingUp(_request: IncomingMessage, response: ServerResponse): void {
  response.writeHead(SETTING_UP.statusCode, { 'Retry-After': '2', 'Content-Type': 'application/json' });
  response.end(JSON.stringify(SETTING_UP));
}

/** Nobody comes in while the studio is being set up: what they changed could be lost with it. */
export function waitAt(gate: { readonly open: boolean }): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) =>
    gate.open ? next() : settingUp(request, response);
}

/** Lets nothing be changed while a studio is only looked at. */
export function lookOnly(): RequestHandler {
  return (request: Request, response: Response, next: NextFunction) => {
    if (request.method === 'GET' || request.method === 'HEAD') return next();
    response.status(403).json({
      statusCode: 403,
      message: 'This studio is only looked at: nothing can be changed.',
      remedy: 'Start Rakuen without --read-only.',
    });
  };
}
