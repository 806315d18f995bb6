import { ApiProperty } from '@nestjs/swagger';
import { IsBoolean, IsOptional, Matches } from 'class-validator';
import { MergedWriteBody } from '../http/write-body.ts';

/** Closes the visit that is under way. The id becomes that of the logbook's entry. */
export class CloseVisitBody extends MergedWriteBody {
  /** By the house's clocks. */
  @ApiProperty({ example: '2026-11-27T10:40' })
  @Matches(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/, {
    message: 'closed must be a date and time by the house’s clocks, YYYY-MM-DDTHH:MM',
  })
  closed: string;

  /** What somebody chose to leave undone, a list of core's `Undone`; absent: nothing. */
  @ApiProperty({ type: 'array', items: { type: 'object' }, required: false })
  @IsOptional()
  undone?: unknown;

  /** Settings were changed elsewhere since they were frozen as left: what was frozen is what is in the box. */
  @ApiProperty({ required: false })
  @IsBoolean({ message: 'leftAsFrozen must be true or false' })
  @IsOptional()
  leftAsFrozen?: boolean;
}
