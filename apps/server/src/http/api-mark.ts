import type { NextFunction, Request, Response } from 'express';

export const isOfApi = (path: string): boolean => path.startsWith('/api/');

/**
 * Marks every answer of the API as its own, so that a client takes nobody else's for it, and keeps what is personal out of every cache;
 * a route that may be kept says so itself. Search engines are to keep nothing at all.
 */
export function apiMark({ path }: Request, response: Response, next: NextFunction): void {
  response.setHeader('X-Robots-Tag', 'noindex, nofollow');
  if (isOfApi(path)) {
    response.setHeader('Water-Clock-Api', '1');
    response.setHeader('Cache-Control', 'no-store');
  }
  next();
}
