import { ApiProperty } from '@nestjs/swagger';
import { IsBoolean, IsOptional, Matches } from 'class-validator';
import { MergedWriteBody } from '../http/write-body.ts';

/** Closes the open visit. The id becomes the id of the logbook entry. */
export class CloseVisitBody extends MergedWriteBody {
  /** Local time at the site. */
  @ApiProperty({ example: '2026-11-27T10:40' })
  @Matches(/^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}$/, {
    message: 'closed must be a date and time by the house’s clocks, YYYY-MM-DDTHH:MM',
  })
  closed: string;

  /** Work left undone on purpose, a list of core's `Undone`; absent: nothing. */
  @ApiProperty({ type: 'array', items: { type: 'object' }, required: false })
  @IsOptional()
  undone?: unknown;

  /** Confirms that the settings saved as left are those in the timer, although they were changed elsewhere since. */
  @ApiProperty({ required: false })
  @IsBoolean({ message: 'leftAsFrozen must be true or false' })
  @IsOptional()
  leftAsFrozen?: boolean;
}
