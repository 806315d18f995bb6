import { ApiProperty } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsDefined,
  IsIn,
  IsObject,
  ValidateNested,
} from 'class-validator';
import { WAYS, type Way } from '../changes/change.entity.ts';
import { MergedWriteBody } from '../http/write-body.ts';

/** One change of a timer's record. */
export class ChangePlanBody extends MergedWriteBody {
  @ApiProperty({ enum: WAYS })
  @IsIn(WAYS, { message: `way must be one of ${WAYS.join(', ')}` })
  way: Way;

  /** A `RecordChange`, read by core. */
  @ApiProperty({ type: Object })
  @IsDefined({ message: 'change is missing' })
  change: unknown;
}

/** A device that was offline sends many; each is saved by itself, in order. */
const MOST_AT_ONCE = 50;

/** Changes of one timer that waited on a device. */
export class ChangesBody {
  @ApiProperty({ type: [ChangePlanBody], minItems: 1, maxItems: MOST_AT_ONCE })
  @Type(() => ChangePlanBody)
  @ValidateNested({ each: true })
  @IsObject({ each: true, message: 'each of the writes is a change with its id' })
  @ArrayMaxSize(MOST_AT_ONCE, { message: `at most ${MOST_AT_ONCE} writes are sent at once` })
  @ArrayMinSize(1, { message: 'writes must not be empty' })
  @IsArray({ message: 'writes must be a list' })
  writes: ChangePlanBody[];
}
