import { ApiProperty } from '@nestjs/swagger';
import {
  ArrayNotEmpty,
  ArrayUnique,
  IsIn,
  IsInt,
  IsOptional,
  IsUUID,
  Max,
  Min,
} from 'class-validator';
import { SCOPES, type Scope } from '../identity/rights.ts';
import { PasswordBody } from './account-body.ts';
import { TokenField } from '../platform/token.ts';
import { NameField } from '../identity/person-fields.ts';

const MOST_DAYS = 365;
export const USUAL_DAYS = 90;

/** A new token. It takes the password, so that an unattended browser is not enough. */
export class ApiTokenBody extends PasswordBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @TokenField()
  token: string;

  @NameField('what the token is for')
  name: string;

  @ApiProperty({ enum: SCOPES, isArray: true })
  @IsIn(SCOPES, { each: true, message: `scopes: allowed are ${SCOPES.join(', ')}` })
  @ArrayUnique({ message: 'scopes: each once' })
  @ArrayNotEmpty({ message: 'scopes: at least one' })
  scopes: Scope[];

  @ApiProperty({ minimum: 1, maximum: MOST_DAYS, default: USUAL_DAYS, required: false })
  @Max(MOST_DAYS, { message: `a token lasts at most ${MOST_DAYS} days` })
  @Min(1, { message: 'a token lasts at least 1 day' })
  @IsInt({ message: `days must be a whole number, 1 to ${MOST_DAYS}` })
  @IsOptional()
  days?: number;
}
