import { ApiProperty } from '@nestjs/swagger';
import { IsInt, IsOptional, IsUUID, Max, Min } from 'class-validator';
import { CLOCK_STYLES, DATE_ORDERS, type ClockStyle, type DateOrder } from '@water-clock/core';
import { Choice, Count } from '../http/fields.ts';

/** Which timers to replan: those that break given rules now or later, or those whose percent should change in a month. */
export class ReplanBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;

  @ApiProperty({ type: String, format: 'uuid', required: false })
  @IsUUID(undefined, { message: 'rulesId must be the id of rules in your library' })
  @IsOptional()
  rulesId?: string;

  @ApiProperty({ required: false, minimum: 1, maximum: 12 })
  @Max(12, { message: 'month must be 1 to 12' })
  @Min(1, { message: 'month must be 1 to 12' })
  @IsInt({ message: 'month must be 1 to 12' })
  @IsOptional()
  month?: number;
}

/**
 * How the customer is told: by phone or by a visit. `open`: no plan found; `done`: accepted or declined; `troubled`: "Accept all" failed on
 * it.
 */
const SHOWN = ['all', 'phone', 'visit', 'open', 'done', 'troubled'] as const;
export type Shown = (typeof SHOWN)[number];

/** A request about all timers of a replan. */
export class ReplanActBody {
  @ApiProperty({ format: 'uuid' })
  @IsUUID(undefined, { message: 'id must be a UUID made by the client' })
  id: string;
}

export class ReplanQuery {
  @Choice('show', SHOWN)
  show?: Shown;

  @Count('page', 10_000)
  page?: number;

  @Choice('clock', CLOCK_STYLES)
  clock?: ClockStyle;

  @Choice('order', DATE_ORDERS)
  order?: DateOrder;
}
