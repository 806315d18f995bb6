import {
  DefaultValuePipe,
  Injectable,
  Param,
  ParseEnumPipe,
  ParseUUIDPipe,
  Query,
  type PipeTransform,
} from '@nestjs/common';
import { LANGUAGES } from '@water-clock/core';
import { isUUID } from 'class-validator';
import { ApiError, notFound } from './api-error.ts';

/** An id from a path, in lower case. A value that is not a UUID gets the same answer as an unknown id. */
class IdPipe extends ParseUUIDPipe {
  constructor(what: string) {
    super({ exceptionFactory: () => notFound(what) });
  }

  override async transform(value: string, metadata: Parameters<ParseUUIDPipe['transform']>[1]) {
    // Any UUID version; the library's own check requires RFC 9562.
    return isUUID(value) ? value.toLowerCase() : super.transform(value, metadata);
  }
}

/**
 * An id in the path.
 *
 * @param what names the subject in the answer if it is missing
 */
export const IdParam = (what: string, name = 'id') => Param(name, new IdPipe(what));

/** One of a few words in the query; the first by default. */
export const WordQuery = (name: string, words: readonly [string, ...string[]]) =>
  Query(
    name,
    new DefaultValuePipe(words[0]),
    new ParseEnumPipe(Object.fromEntries(words.map((word) => [word, word])), {
      exceptionFactory: () =>
        new ApiError({
          code: 'malformed-request',
          message: `${name} must be one of ${words.join(', ')}`,
          faults: [{ code: 'not-one-of', path: name, message: `one of ${words.join(', ')}` }],
        }),
    }),
  );

/** A language in the query; null if absent. */
export const LanguageQuery = () =>
  Query(
    'language',
    new ParseEnumPipe(Object.fromEntries(LANGUAGES.map((word) => [word, word])), {
      optional: true,
      exceptionFactory: () =>
        new ApiError({
          code: 'malformed-request',
          message: `language must be one of ${LANGUAGES.join(', ')}`,
          faults: [
            { code: 'not-one-of', path: 'language', message: `one of ${LANGUAGES.join(', ')}` },
          ],
        }),
    }),
    new DefaultValuePipe(null),
  );

const wrongId = (name: string) =>
  new ApiError({
    code: 'malformed-request',
    message: `${name} must be a UUID`,
    faults: [{ code: 'wrong-type', path: name, message: 'a UUID' }],
  });

@Injectable()
class OptionalIdPipe implements PipeTransform<unknown, string | null> {
  transform(value: unknown, { data = '' }: { readonly data?: string | undefined }): string | null {
    if (value === undefined) return null;
    if (typeof value !== 'string' || !isUUID(value)) throw wrongId(data);
    return value.toLowerCase();
  }
}

/** An id in the query; null if absent. */
export const IdQuery = (name: string) => Query(name, OptionalIdPipe);
