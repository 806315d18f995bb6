import { ApiProperty } from '@nestjs/swagger';
import { IsInt, Max, Min, ValidateIf } from 'class-validator';
import { WriteBody } from '../http/write-body.ts';

/** Less would remove changes that people may still undo, and answers that a device coming back online still needs. */
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
