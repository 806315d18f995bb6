import { ApiProperty } from '@nestjs/swagger';
import { IsBoolean, IsOptional, IsString, IsUUID, MaxLength } from 'class-validator';
import { Line } from '../http/fields.ts';
import { WriteBody } from '../http/write-body.ts';

const TimerName = () => Line('the name of the timer', 80);

/** A new timer at a site, from a plan document or as a copy. */
export class AddTimerBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'timerId must be a UUID made by the client' })
  timerId: string;

  @ApiProperty({ maxLength: 80 })
  @TimerName()
  name: string;

  /** A plan document, read by core; absent for a copy. */
  @ApiProperty({ type: Object, required: false })
  @IsOptional()
  plan?: unknown;

  /** The timer to copy. */
  @ApiProperty({ type: String, format: 'uuid', nullable: true, required: false })
  @IsUUID(undefined, { message: 'copyOf must be the id of a timer, or null' })
  @IsOptional()
  copyOf?: string | null;

  /** Whether to copy the survey. */
  @ApiProperty({ required: false })
  @IsBoolean({ message: 'withSurvey must be true or false' })
  @IsOptional()
  withSurvey?: boolean;
}

/** A timer's site, its name there, and whether it is archived. */
export class PlaceBody extends WriteBody {
  @ApiProperty({ maxLength: 80 })
  @TimerName()
  name: string;

  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'siteId must be the id of a site' })
  siteId: string;

  @ApiProperty()
  @IsBoolean({ message: 'isArchived must be true or false' })
  isArchived: boolean;
}

export class SiteStateBody extends WriteBody {
  @ApiProperty()
  @IsBoolean({ message: 'isArchived must be true or false' })
  isArchived: boolean;
}

/** Deletes permanently; the name confirms it. */
export class DeletionBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @ApiProperty()
  @MaxLength(200, { message: 'the name has at most 200 characters' })
  @IsString({ message: 'the name must be text' })
  name: string;
}
