import { Controller, Get, Query, StreamableFile } from '@nestjs/common';
import type { Actor } from '../people/actor.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { fileOf } from '../platform/files.ts';
import { Answers } from '../platform/openapi.ts';
import { DueQuery } from './due-query.ts';
import { DueService, type DueEntry } from './due.service.ts';

@Controller()
export class DueController {
  constructor(private readonly due: DueService) {}

  /** What is due at all sites, the earliest first, 2,000 at most. */
  @Answers({ schema: ['DueEntry'], fails: ['malformed-request'] })
  @Get('due')
  list(@CurrentActor() actor: Actor, @Query() query: DueQuery): Promise<DueEntry[]> {
    return this.due.list(actor, query);
  }

  @Answers({ mediaType: 'text/calendar' })
  @Get('due.ics')
  async calendar(@CurrentActor() actor: Actor): Promise<StreamableFile> {
    return fileOf(await this.due.calendar(actor), 'text/calendar', 'visits-due.ics');
  }
}
