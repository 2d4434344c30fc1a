import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import express, { type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import type { NestExpressApplication } from '@nestjs/platform-express';

/** Where index.html wants the page's nonce. */
const NONCE_PLACE = '__NONCE__';

/** Security headers for everything; the API's documentation page alone brings styles of its own. */
export function secure(app: NestExpressApplication): void {
  app.use((request: Request, response: Response, next: NextFunction) => {
    const nonce = randomBytes(16).toString('base64');
    response.locals.nonce = nonce;
    const docs = request.path.startsWith('/api/docs');
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          workerSrc: ["'self'"],
          styleSrc: ["'self'", docs ? "'unsafe-inline'" : `'nonce-${nonce}'`],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          formAction: ["'self'"],
          baseUri: ["'none'"],
          frameAncestors: ["'none'"],
        },
      },
      // The page is served over plain loopback HTTP; asking for HTTPS would only lock people out of it.
      strictTransportSecurity: false,
      crossOriginEmbedderPolicy: false,
    })(request, response, next);
  });
}

/**
 * Serves the built interface: its files as they are, and its page for every other address outside the API.
 * @param opened told when somebody opens a page
 */
export function serveInterface(app: NestExpressApplication, folder: string, opened: () => void): void {
  const page = join(folder, 'index.html');
  if (!existsSync(page)) return;
  const html = readFileSync(page, 'utf8');
  app.use(express.static(folder, { index: false, immutable: true, maxAge: '1y' }));
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (
      request.method !== 'GET' ||
      request.path.startsWith('/api') ||
      !request.accepts('html') ||
      /\.\w+$/.test(request.path)
    )
      return next();
    opened();
    response
      .type('html')
      .set('Cache-Control', 'no-store')
      .send(html.replaceAll(NONCE_PLACE, String(response.locals.nonce)));
  });
}

/** What is neither of the API nor a page is answered in the API’s one shape of errors. */
export function nothingThere(request: Request, response: Response, next: NextFunction): void {
  if (request.path.startsWith('/api')) return next();
  response
    .status(404)
    .json({ statusCode: 404, message: 'There is no such address.', remedy: 'Begin at the first page.' });
}
