import { ApiProperty } from '@nestjs/swagger';
import { IsInt, IsUUID, Min } from 'class-validator';

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
