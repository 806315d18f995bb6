import type { NextFunction, Request, Response } from 'express';

export const isOfApi = (path: string): boolean => path.startsWith('/api/');

/**
 * Marks every API answer as ours, so that clients do not mistake a proxy's page for one. Keeps answers out of caches, except on routes that
 * allow it, and out of search engines.
 */
export function apiMark({ path }: Request, response: Response, next: NextFunction): void {
  response.setHeader('X-Robots-Tag', 'noindex, nofollow');
  if (isOfApi(path)) {
    response.setHeader('Water-Clock-Api', '1');
    response.setHeader('Cache-Control', 'no-store');
  }
  next();
}
