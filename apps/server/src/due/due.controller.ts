import { Controller, Get, StreamableFile } from '@nestjs/common';
import { CLOCK_STYLES, DATE_ORDERS, type ClockStyle, type DateOrder } from '@water-clock/core';
import type { Actor } from '../people/actor.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { fileOf } from '../platform/files.ts';
import { Answers } from '../platform/openapi.ts';
import { WordQuery } from '../platform/parameters.ts';
import { DueService, type DueEntry } from './due.service.ts';

@Controller()
export class DueController {
  constructor(private readonly due: DueService) {}

  /** What is due at all sites. `clock` and `order` are how times and dates are written in it. */
  @Answers({ schema: ['DueEntry'], fails: ['malformed-request', 'busy'] })
  @Get('due')
  list(
    @CurrentActor() actor: Actor,
    @WordQuery('clock', ['24', ...CLOCK_STYLES]) clock: ClockStyle,
    @WordQuery('order', DATE_ORDERS) order: DateOrder,
  ): Promise<DueEntry[]> {
    return this.due.list(actor, { clock, order });
  }

  @Answers({ mediaType: 'text/calendar', fails: ['busy'] })
  @Get('due.ics')
  async calendar(@CurrentActor() actor: Actor): Promise<StreamableFile> {
    return fileOf(await this.due.calendar(actor), 'text/calendar', 'visits-due.ics');
  }
}
