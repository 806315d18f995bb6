/** Rules of fields that many request bodies share. */
import { say, sayText } from '@water-clock/core';
import { applyDecorators, type Type as Class } from '@nestjs/common';
import { ApiProperty } from '@nestjs/swagger';
import { Transform, Type } from 'class-transformer';
import {
  IsDefined,
  IsISO8601,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';

/** Control characters, and those that turn the direction of all text after them: on a page a name could pass for another, in a file for a line of it. */
export const NOT_IN_NAMES = /^[^\p{Cc}\u2028\u2029\u202a-\u202e\u2066-\u2069]*$/u;

/** One line of text, without the space around it. */
export const Line = (what: string, most: number) =>
  applyDecorators(
    // The first that is written is the last that is checked.
    Matches(NOT_IN_NAMES, {
      message: () =>
        say`${sayText(what)} must be one line without control or text direction characters`,
    }),
    MaxLength(most, { message: () => say`${sayText(what)} has at most ${most} characters` }),
    IsString({ message: () => say`${sayText(what)} must be text` }),
    Transform(({ value }: { value: unknown }) =>
      typeof value === 'string' ? value.trim() : value,
    ),
  );

/** An object with rules of its own; a list is none. */
export const Part = (type: () => Class, message: string) =>
  applyDecorators(
    // Written out: only a function of the name `type` is taken for one that names a class.
    ApiProperty({ type: () => type() }),
    Type(type),
    ValidateNested(),
    IsObject({ message }),
    IsDefined({ message }),
  );

/** One of a few words of a query; it may be left out. */
export const Choice = (what: string, words: readonly string[]) =>
  applyDecorators(
    ApiProperty({ required: false, enum: words }),
    IsIn(words, { message: `${what} must be one of ${words.join(', ')}` }),
    IsOptional(),
  );

/** A whole number of a query, 1 or more; it may be left out. */
export const Count = (what: string, most: number) => {
  const message = `${what} must be a whole number, 1 to ${most}`;
  return applyDecorators(
    ApiProperty({ required: false, minimum: 1, maximum: most }),
    Max(most, { message }),
    Min(1, { message }),
    IsInt({ message }),
    Transform(({ value }: { value: unknown }) =>
      typeof value === 'string' && /^\d+$/.test(value) ? Number(value) : value,
    ),
    IsOptional(),
  );
};

/** A date of a query; it may be left out. */
export const DateField = (what: string) =>
  applyDecorators(
    ApiProperty({ required: false, format: 'date' }),
    Matches(/^\d{4}-\d{2}-\d{2}$/, { message: `${what} must be a date, YYYY-MM-DD` }),
    IsISO8601({ strict: true }, { message: `${what} must be a date of the calendar, YYYY-MM-DD` }),
    IsOptional(),
  );
