import { ApiProperty } from '@nestjs/swagger';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsDefined,
  IsInt,
  IsOptional,
  IsUUID,
  Min,
} from 'class-validator';
import { CLOCK_STYLES, DATE_ORDERS, type ClockStyle, type DateOrder } from '@water-clock/core';
import { Choice, DateField, Line } from '../http/fields.ts';
import { WriteBody } from '../http/write-body.ts';
import { TokenField } from '../platform/token.ts';

/** What is due from one date to another, inclusive, with times and dates in the person's format. */
export class DueQuery {
  @DateField('from')
  from?: string;

  @DateField('to')
  to?: string;

  /** Sites this person looks after, and visits assigned to them. */
  @ApiProperty({ required: false, format: 'uuid' })
  @IsUUID(undefined, { message: 'person must be the id of a person' })
  @IsOptional()
  person?: string;

  @Choice('clock', CLOCK_STYLES)
  clock?: ClockStyle;

  @Choice('order', DATE_ORDERS)
  order?: DateOrder;
}

const VERSION = 'baseVersion must be a whole number; 0 for what was never planned';

/** When someone goes to a timer, and who; without a date, some day. */
export class StopBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @ApiProperty({ minimum: 0 })
  @Min(0, { message: VERSION })
  @IsInt({ message: VERSION })
  baseVersion: number;

  /** Absent: some day. */
  @DateField('day')
  day?: string;

  @ApiProperty({ type: String, format: 'uuid', nullable: true })
  @IsUUID(undefined, { message: 'personId must be the id of a person, or null' })
  @IsOptional()
  personId?: string | null;

  @ApiProperty({ maxLength: 500 })
  @Line('the note', 500)
  note: string;
}

/** Cancels a planned visit. */
export class UnplanBody extends WriteBody {}

const MOST_IN_A_DAY = 200;

/** Order of a day's visits. */
export class DayOrderBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @ApiProperty({ minimum: 0 })
  @Min(0, { message: VERSION })
  @IsInt({ message: VERSION })
  baseVersion: number;

  @DateField('day')
  @IsDefined({ message: 'day must be a date, YYYY-MM-DD' })
  day: string;

  /** Person; null for everyone. */
  @ApiProperty({ type: String, format: 'uuid', nullable: true })
  @IsUUID(undefined, { message: 'personId must be the id of a person, or null' })
  @IsOptional()
  personId?: string | null;

  @ApiProperty({ type: [String], maxItems: MOST_IN_A_DAY })
  @IsUUID(undefined, { each: true, message: 'each of the timerIds must be the id of a timer' })
  @ArrayUnique({ message: 'a timer stands in timerIds twice' })
  @ArrayMaxSize(MOST_IN_A_DAY, { message: `a day has at most ${MOST_IN_A_DAY} visits` })
  @IsArray({ message: 'timerIds must be a list' })
  timerIds: string[];
}

const MOST_AT_ONCE = 1_000;

/** Timers to visit some day. */
export class SomeDayBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @ApiProperty({ type: [String], maxItems: MOST_AT_ONCE })
  @IsUUID(undefined, { each: true, message: 'each of the timerIds must be the id of a timer' })
  @ArrayUnique({ message: 'a timer stands in timerIds twice' })
  @ArrayMaxSize(MOST_AT_ONCE, { message: `at most ${MOST_AT_ONCE} visits are planned at once` })
  @ArrayMinSize(1, { message: 'there is no timer to go to' })
  @IsArray({ message: 'timerIds must be a list' })
  timerIds: string[];

  @ApiProperty({ maxLength: 500 })
  @Line('the note', 500)
  note: string;
}

export class CalendarLinkBody {
  @TokenField()
  token: string;
}
