import { createParamDecorator, type ExecutionContext } from '@nestjs/common';
import type { Request } from 'express';
import type { Actor } from './actor.ts';

export type SignedInRequest = Request & {
  actor?: Actor;
  /** Was taken out of the company since they signed in here. */
  leaver?: Actor;
  cookies: Record<string, unknown>;
};

/** The person who is signed in; only in handlers that are not `Public`. */
export const CurrentActor = createParamDecorator((_data: unknown, context: ExecutionContext) => {
  return context.switchToHttp().getRequest<SignedInRequest>().actor;
});

/** Whoever hands over what waits on their device, having been taken out; undefined: nobody. */
export const CurrentLeaver = createParamDecorator((_data: unknown, context: ExecutionContext) => {
  return context.switchToHttp().getRequest<SignedInRequest>().leaver;
});
