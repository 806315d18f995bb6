import { ApiProperty } from '@nestjs/swagger';
import { IsInt, IsUUID, Matches, Max, Min } from 'class-validator';

/** A new link. Its token is made by the client, so that repeating the request is harmless and the server keeps its hash only. */
export class MakeLinkBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @ApiProperty({ minLength: 43, maxLength: 43 })
  @Matches(/^[A-Za-z0-9_-]{43}$/, {
    message: 'token must be 32 random bytes in base64url, 43 characters',
  })
  token: string;

  @ApiProperty({ minimum: 1, maximum: 730 })
  @Max(730, { message: 'a link lasts at most 730 days' })
  @Min(1, { message: 'a link lasts at least 1 day' })
  @IsInt({ message: 'days must be a whole number, 1 to 730' })
  days: number;
}
