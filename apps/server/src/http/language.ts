/** The language of the request; core writes messages in it until the request is answered. */
import { AsyncLocalStorage } from 'node:async_hooks';
import { LANGUAGES, setLocaleResolver, type Translator } from '@water-clock/core';
import { PSEUDO, translatorOf } from '@water-clock/words';
import type { NextFunction, Request, Response } from 'express';

const speakers = new AsyncLocalStorage<Translator | null>();
setLocaleResolver(() => speakers.getStore() ?? null);

/** From `Accept-Language`, including the pseudo-language of the tests; English if none matches. */
export async function inTheirLanguage(
  request: Request,
  _response: Response,
  next: NextFunction,
): Promise<void> {
  // The first is also that of a program that takes any, `*`.
  const language = request.acceptsLanguages([...LANGUAGES, PSEUDO]) || 'en';
  // Programs that name no language get English.
  const asked = request.headers['accept-language'] === undefined ? 'en' : language;
  const speaker = await translatorOf(asked).catch(() => null);
  speakers.run(speaker, next);
}
