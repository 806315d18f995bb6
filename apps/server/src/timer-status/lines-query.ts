import { ApiProperty } from '@nestjs/swagger';
import { IsOptional, IsUUID } from 'class-validator';
import { CLOCK_STYLES, DATE_ORDERS, type ClockStyle, type DateOrder } from '@water-clock/core';
import { Choice, Count } from '../http/fields.ts';
import { SitesQuery } from '../sites/site-body.ts';
import { FILTER_WORDS, SORT_WORDS, type Filter, type SortWord } from './filters.ts';

/** Filters of the list. `find` searches name, number, street, town, timer, people, phone numbers, decoders and notes. */
export class WhichTimers extends SitesQuery {
  @Choice('show', FILTER_WORDS)
  show?: Filter;

  /** Timers of one site, whatever their state. */
  @ApiProperty({ required: false, format: 'uuid' })
  @IsUUID(undefined, { message: 'site must be the id of a site' })
  @IsOptional()
  site?: string;

  /** Sites with these rules. */
  @ApiProperty({ required: false, format: 'uuid' })
  @IsUUID(undefined, { message: 'rules must be the id of a document' })
  @IsOptional()
  rules?: string;

  /** Sites this person looks after. */
  @ApiProperty({ required: false, format: 'uuid' })
  @IsUUID(undefined, { message: 'person must be the id of a person' })
  @IsOptional()
  person?: string;
}

/** A page of the list, sorted, with times and dates in the person's format. */
export class LinesQuery extends WhichTimers {
  @Choice('sort', SORT_WORDS)
  sort?: SortWord;

  @Count('page', 1_000_000)
  page?: number;

  @Count('size', 200)
  size?: number;

  @Choice('clock', CLOCK_STYLES)
  clock?: ClockStyle;

  @Choice('order', DATE_ORDERS)
  order?: DateOrder;
}
