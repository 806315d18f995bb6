/** Rules for what people enter about themselves. */
import { say, sayText } from '@water-clock/core';
import { applyDecorators } from '@nestjs/common';
import { ApiProperty } from '@nestjs/swagger';
import { Transform } from 'class-transformer';
import { IsEmail, IsNotEmpty, IsString, MaxLength, MinLength } from 'class-validator';
import { Line } from '../http/fields.ts';

const LEAST_PASSWORD = 10;

export const NameField = (what: string) =>
  applyDecorators(
    ApiProperty({ maxLength: 80 }),
    IsNotEmpty({ message: () => say`${sayText(what)} is missing` }),
    Line(what, 80),
  );

/** Lower case, trimmed. */
export const EmailField = () =>
  applyDecorators(
    ApiProperty({ format: 'email', maxLength: 254 }),
    IsEmail(
      {},
      { message: () => say`this is not an e-mail address; enter one like name@company.example` },
    ),
    MaxLength(254, { message: () => say`an e-mail address has at most 254 characters` }),
    IsString({ message: 'the e-mail address must be text' }),
    Transform(({ value }: { value: unknown }) =>
      typeof value === 'string' ? value.trim().toLowerCase() : value,
    ),
  );

/** A new password. */
export const NewPasswordField = () =>
  applyDecorators(
    ApiProperty({ minLength: LEAST_PASSWORD, maxLength: 1000 }),
    MinLength(LEAST_PASSWORD, {
      message: () =>
        say`a password needs at least ${LEAST_PASSWORD} characters; three words are easy to remember`,
    }),
    MaxLength(1000, { message: () => say`a password can have at most 1000 characters` }),
    IsString({ message: 'the password must be text' }),
  );

/** An existing password. */
export const PasswordField = () =>
  applyDecorators(
    ApiProperty(),
    MinLength(1, { message: () => say`type your password` }),
    MaxLength(1000, { message: () => say`a password can have at most 1000 characters` }),
    IsString({ message: 'the password must be text' }),
  );
