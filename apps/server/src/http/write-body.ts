import { ApiProperty } from '@nestjs/swagger';
import { IsInt, IsOptional, IsUUID, Min } from 'class-validator';

/** Every write carries an id made by the client, which makes repeating it harmless, and the version it was based on. */
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
  /** The version on which it was made, where the client put it on top of a later one. */
  @ApiProperty({ minimum: 1, required: false })
  @IsOptional()
  @Min(1, { message: 'madeOn must be a whole number, 1 or more' })
  @IsInt({ message: 'madeOn must be a whole number, 1 or more' })
  madeOn?: number;
}
