/** Serves the page that loads the application, with its content security policy. */
import { randomBytes } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import helmet from 'helmet';
import { isOfApi } from './api-mark.ts';
import type { Settings } from '../platform/settings.ts';

/** Placeholder for the nonce in the built page. */
const NONCE = '__CSP_NONCE__';

/** Nonce of this answer. */
const nonceOf = ({ locals }: Pick<Response, 'locals'>) => String(locals['nonce']);

/** New for each answer. Styles added by the component library carry it; all others are blocked. */
export function makeNonce(_request: Request, response: Response, next: NextFunction): void {
  response.locals['nonce'] = randomBytes(16).toString('base64');
  next();
}

/** Security headers. */
export const contentRules = ({ secureCookies }: Settings): RequestHandler =>
  helmet({
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        styleSrc: [
          "'self'",
          ({ url = '' }, response) =>
            // The API documentation page is from a library and has inline styles.
            url.startsWith('/api/docs')
              ? "'unsafe-inline'"
              : // Safe cast: an Express response.
                `'nonce-${nonceOf(response as Response)}'`,
        ],
        imgSrc: ["'self'", 'data:', 'blob:'],
        workerSrc: ["'self'"],
        // Without HTTPS, as on loopback, there is nothing to upgrade.
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

/** Serves the page at every address of the application. Never cached, because its nonce would be old. */
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
