import { say } from '@water-clock/core';
import { ApiProperty } from '@nestjs/swagger';
import { IsNotEmpty, IsString, IsUUID, MaxLength } from 'class-validator';

const MOST = 2_000;

export class CommentBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @ApiProperty({ minLength: 1, maxLength: MOST })
  @MaxLength(MOST, { message: `a comment has at most ${MOST} characters` })
  @IsNotEmpty({ message: () => say`a comment must not be empty` })
  @IsString({ message: 'a comment must be text' })
  text: string;
}
