import { createHash, randomBytes } from 'node:crypto';
import { applyDecorators } from '@nestjs/common';
import { ApiProperty } from '@nestjs/swagger';
import { Matches } from 'class-validator';

/** 32 random bytes in base64url. */
export const newToken = (): string => randomBytes(32).toString('base64url');

/** SHA-256 of a token, so that a leaked database gives no access. */
export const hashOfToken = (token: string): string =>
  createHash('sha256').update(token).digest('hex');

/** `Bearer TOKEN`. In a header, the token stays out of logs and browsing history. */
export const bearer = (header: string | undefined): string =>
  header?.replace(/^Bearer /i, '') ?? '';

/** A token made by the client, so that repeating the request is harmless. */
export const TokenField = () =>
  applyDecorators(
    ApiProperty({ minLength: 43, maxLength: 43 }),
    Matches(/^[A-Za-z0-9_-]{43}$/, {
      message: 'token must be 32 random bytes in base64url, 43 characters',
    }),
  );
