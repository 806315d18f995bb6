import { ApiProperty } from '@nestjs/swagger';
import { IsInt, IsUUID, Max, Min } from 'class-validator';
import { TokenField } from '../platform/token.ts';
import { NameField } from '../identity/person-fields.ts';

const MOST_DAYS = 366;

export class ApiTokenBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @TokenField()
  token: string;

  @NameField('what the token is for')
  name: string;

  @ApiProperty({ minimum: 1, maximum: MOST_DAYS })
  @Max(MOST_DAYS, { message: `a token lasts at most ${MOST_DAYS} days` })
  @Min(1, { message: 'a token lasts at least 1 day' })
  @IsInt({ message: `days must be a whole number, 1 to ${MOST_DAYS}` })
  days: number;
}
