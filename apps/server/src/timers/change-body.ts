import { ApiProperty } from '@nestjs/swagger';
import { IsDefined, IsIn } from 'class-validator';
import { WAYS, type Way } from '../changes/change.entity.ts';
import { MergedWriteBody } from '../platform/write-body.ts';

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
