/** The page that loads the application, and the rules by which a browser takes nothing else into it. */
import { randomBytes } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import helmet from 'helmet';
import { isOfApi } from './api-mark.ts';
import type { Settings } from '../platform/settings.ts';

/** Stands in the built page where the nonce goes. */
const NONCE = '__CSP_NONCE__';

/** The nonce of an answer. */
const nonceOf = ({ locals }: Pick<Response, 'locals'>) => String(locals['nonce']);

/** A new one for each answer: styles that the component library adds carry it, and others do not count. */
export function makeNonce(_request: Request, response: Response, next: NextFunction): void {
  response.locals['nonce'] = randomBytes(16).toString('base64');
  next();
}

/** The headers that a browser is bound by. */
export const contentRules = ({ secureCookies }: Settings): RequestHandler =>
  helmet({
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        styleSrc: [
          "'self'",
          ({ url = '' }, response) =>
            // The page of the API's documentation is a library's own, and has its styles inside.
            url.startsWith('/api/docs')
              ? "'unsafe-inline'"
              : // The cast holds: it is an answer of Express.
                `'nonce-${nonceOf(response as Response)}'`,
        ],
        imgSrc: ["'self'", 'data:', 'blob:'],
        workerSrc: ["'self'"],
        // Without https, as on loopback, there is nothing to upgrade to.
        ...(secureCookies ? {} : { upgradeInsecureRequests: null }),
      },
    },
  });

const isFile = (place: string) => path.extname(place) !== '' || place === '/metrics';

function pageIn(webRoot: string): string {
  const file = path.join(webRoot, 'index.html');
  if (!fs.existsSync(file))
    throw new Error(`WATER_CLOCK_WEB_ROOT: there is no ${file}; build the application first`);
  return fs.readFileSync(file, 'utf8');
}

/** Serves the page at every address of the application. It is not kept: an old nonce would not fit. */
export function serveShell(webRoot: string | null): RequestHandler {
  const page = webRoot === null ? null : pageIn(webRoot);
  return ({ method, path: place }, response, next) => {
    const reads = method === 'GET' || method === 'HEAD';
    if (page === null || !reads || isOfApi(place) || isFile(place)) next();
    else
      response
        .setHeader('Cache-Control', 'no-store')
        .type('html')
        .send(page.replaceAll(NONCE, nonceOf(response)));
  };
}
