import { ApiProperty } from '@nestjs/swagger';
import { LANGUAGES, type Language } from '@water-clock/core';
import { IsIn, IsInt, IsOptional, IsUUID, Max, Min } from 'class-validator';
import { TokenField } from '../platform/token.ts';

/** A new link. The client makes the token, so that repeating the request is harmless and the server stores only a hash. */
export class MakeLinkBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @TokenField()
  token: string;

  @ApiProperty({ minimum: 1, maximum: 730 })
  @Max(730, { message: 'a link lasts at most 730 days' })
  @Min(1, { message: 'a link lasts at least 1 day' })
  @IsInt({ message: 'days must be a whole number, 1 to 730' })
  days: number;

  /** Language of the page; absent or null: the site's. */
  @ApiProperty({ enum: LANGUAGES, nullable: true, required: false })
  @IsIn(LANGUAGES, { message: `language must be one of ${LANGUAGES.join(', ')}, or null` })
  @IsOptional()
  language?: Language | null;
}
