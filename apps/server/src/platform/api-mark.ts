import type { NextFunction, Request, Response } from 'express';

/**
 * Marks every answer of the API as its own, so that a client takes nobody else's for it, and keeps what is personal out of every cache;
 * a route that may be kept says so itself.
 */
export function apiMark({ path }: Request, response: Response, next: NextFunction): void {
  if (path.startsWith('/api/')) {
    response.setHeader('Water-Clock-Api', '1');
    response.setHeader('Cache-Control', 'no-store');
  }
  next();
}
