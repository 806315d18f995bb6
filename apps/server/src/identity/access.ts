import { createParamDecorator, type ExecutionContext } from '@nestjs/common';
import type { Request } from 'express';
import type { Actor } from './actor.ts';

export type SignedInRequest = Request & {
  actor?: Actor;
  /** Removed from the company since they signed in here. */
  leaver?: Actor;
  cookies: Record<string, unknown>;
};

/** The signed-in person; only in handlers that are not `Public`. */
export const CurrentActor = createParamDecorator((_data: unknown, context: ExecutionContext) => {
  return context.switchToHttp().getRequest<SignedInRequest>().actor;
});

/** A removed person handing in waiting changes; undefined if there is none. */
export const CurrentLeaver = createParamDecorator((_data: unknown, context: ExecutionContext) => {
  return context.switchToHttp().getRequest<SignedInRequest>().leaver;
});
