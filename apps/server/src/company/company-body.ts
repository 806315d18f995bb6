import { ApiProperty } from '@nestjs/swagger';
import { IsInt, Max, Min, ValidateIf } from 'class-validator';
import { WriteBody } from '../http/write-body.ts';

/** Less would take from people what they may still want to undo, and from a device that was away the answer to what it sends again. */
const LEAST_DAYS = 90;
const MOST_DAYS = 3650;
const ALLOWED = `keepChangesDays must be a whole number, ${LEAST_DAYS} to ${MOST_DAYS}, or null: for ever`;

export class ChangeCompanyBody extends WriteBody {
  @ApiProperty({ type: 'integer', minimum: LEAST_DAYS, maximum: MOST_DAYS, nullable: true })
  @Max(MOST_DAYS, { message: ALLOWED })
  @Min(LEAST_DAYS, { message: ALLOWED })
  @IsInt({ message: ALLOWED })
  @ValidateIf((body: ChangeCompanyBody) => body.keepChangesDays !== null)
  keepChangesDays: number | null;
}
