/** Validation rules shared by request bodies. */
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

/** Control and text-direction characters: with them a name could look like another on a page, or add lines to a file. */
export const NOT_IN_NAMES = /^[^\p{Cc}\u2028\u2029\u202a-\u202e\u2066-\u2069]*$/u;

/** One line of text, trimmed. */
export const Line = (what: string, most: number) =>
  applyDecorators(
    // Decorators run last to first.
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

/** An object validated by its own class; a list is refused. */
export const Part = (type: () => Class, message: string) =>
  applyDecorators(
    // Must be written out: only a function named `type` is recognised as naming a class.
    ApiProperty({ type: () => type() }),
    Type(type),
    ValidateNested(),
    IsObject({ message }),
    IsDefined({ message }),
  );

/** One of a few words in a query; optional. */
export const Choice = (what: string, words: readonly string[]) =>
  applyDecorators(
    ApiProperty({ required: false, enum: words }),
    IsIn(words, { message: `${what} must be one of ${words.join(', ')}` }),
    IsOptional(),
  );

/** A whole number of 1 or more in a query; optional. */
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

/** A date in a query; optional. */
export const DateField = (what: string) =>
  applyDecorators(
    ApiProperty({ required: false, format: 'date' }),
    Matches(/^\d{4}-\d{2}-\d{2}$/, { message: `${what} must be a date, YYYY-MM-DD` }),
    IsISO8601({ strict: true }, { message: `${what} must be a date of the calendar, YYYY-MM-DD` }),
    IsOptional(),
  );
