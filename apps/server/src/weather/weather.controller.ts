import { Controller, Get, Param, Query } from '@nestjs/common';
import {
  parseDate,
  type ClimateDocument,
  type WeatherDay,
  type WeatherTown,
} from '@water-clock/core';
import { ApiError, notFound } from '../http/api-error.ts';
import { Answers } from '../http/openapi.ts';
import { WeatherFeed } from './weather-feed.ts';

/** A date in the query; the default if absent. */
function dateOf(name: string, text: string | undefined, usual: string): string {
  if (text === undefined) return usual;
  if (typeof text === 'string' && parseDate(text) !== null) return text;
  throw new ApiError({
    code: 'malformed-request',
    message: `${name} must be a date, YYYY-MM-DD`,
    faults: [{ code: 'malformed', path: name, message: 'a date of the calendar, YYYY-MM-DD' }],
  });
}

@Controller('weather')
export class WeatherController {
  constructor(private readonly feed: WeatherFeed) {}

  @Answers({ schema: ['Town'] })
  @Get('towns')
  towns(): Promise<readonly WeatherTown[]> {
    return this.feed.towns();
  }

  @Answers({ schema: 'LibraryDocument', fails: ['not-found'] })
  @Get('towns/:id/normals')
  async normals(@Param('id') id: string): Promise<ClimateDocument> {
    const normals = await this.feed.normals(id);
    if (!normals) throw notFound('town');
    return normals;
  }

  /** Days of weather; all if no range is given. */
  @Answers({ schema: ['WeatherDay'], fails: ['malformed-request', 'not-found'] })
  @Get('towns/:id/days')
  async days(
    @Param('id') id: string,
    @Query('from') from?: string,
    @Query('to') to?: string,
  ): Promise<readonly WeatherDay[]> {
    const span = this.feed.span();
    const days = await this.feed.days(
      id,
      dateOf('from', from, span.from),
      dateOf('to', to, span.to),
    );
    if (!days) throw notFound('town');
    return days;
  }
}
