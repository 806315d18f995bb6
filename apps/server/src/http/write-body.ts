import { ApiProperty } from '@nestjs/swagger';
import { IsInt, IsOptional, IsUUID, Min } from 'class-validator';

/** Every write has an id made by the client, so that repeating it is harmless, and the version it was based on. */
export class WriteBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @ApiProperty({ minimum: 1 })
  @Min(1, { message: 'baseVersion must be a whole number, 1 or more' })
  @IsInt({ message: 'baseVersion must be a whole number, 1 or more' })
  baseVersion: number;
}

/** A write that may have waited on a device while others saved. */
export class MergedWriteBody extends WriteBody {
  /** Version on which it was made, if the client rebased it on a later one. */
  @ApiProperty({ minimum: 1, required: false })
  @IsOptional()
  @Min(1, { message: 'madeOn must be a whole number, 1 or more' })
  @IsInt({ message: 'madeOn must be a whole number, 1 or more' })
  madeOn?: number;
}
