/** The language of whoever asks: sentences of core are said in it for as long as their request is answered. */
import { AsyncLocalStorage } from 'node:async_hooks';
import { LANGUAGES, setLocaleResolver, type Translator } from '@water-clock/core';
import { PSEUDO, translatorOf } from '@water-clock/words';
import type { NextFunction, Request, Response } from 'express';

const speakers = new AsyncLocalStorage<Translator | null>();
setLocaleResolver(() => speakers.getStore() ?? null);

/** By the header of that name, the language of tests included; English where it asks for nothing that there is. */
export async function inTheirLanguage(
  request: Request,
  _response: Response,
  next: NextFunction,
): Promise<void> {
  const language = request.acceptsLanguages([PSEUDO, ...LANGUAGES]) || 'en';
  // A program that names none gets English.
  const asked = request.headers['accept-language'] === undefined ? 'en' : language;
  const speaker = await translatorOf(asked).catch(() => null);
  speakers.run(speaker, next);
}
