import { ApiProperty } from '@nestjs/swagger';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsUUID } from 'class-validator';

const MOST = 500;

/** A removed person's waiting changes to one timer. */
export class LeftBehindBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'timerId must be the id of a timer' })
  timerId: string;

  /** `RecordChange`s in order, each read by core. */
  @ApiProperty({ type: 'array', items: { type: 'object' }, minItems: 1, maxItems: MOST })
  @ArrayMaxSize(MOST, { message: `at most ${MOST} changes are handed over at once` })
  @ArrayMinSize(1, { message: 'changes must not be empty' })
  @IsArray({ message: 'changes must be a list' })
  changes: unknown[];
}
