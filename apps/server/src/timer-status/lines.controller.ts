import { Controller, Get, Query, StreamableFile } from '@nestjs/common';
import type { Actor } from '../identity/actor.ts';
import { CurrentActor } from '../identity/access.ts';
import { fileOf } from '../http/files.ts';
import { Answers } from '../http/openapi.ts';
import { LinesQuery, WhichTimers } from './lines-query.ts';
import { LinesService, type TimerLines } from './lines.service.ts';

@Controller()
export class LinesController {
  constructor(private readonly lines: LinesService) {}

  /** A page of the company's timers with site and verdict, and the count for each filter. */
  @Answers({ schema: 'TimerLines', fails: ['malformed-request'] })
  @Get('timers')
  list(@CurrentActor() actor: Actor, @Query() query: LinesQuery): Promise<TimerLines> {
    return this.lines.list(actor, query);
  }

  /** The whole list as CSV. */
  @Answers({ mediaType: 'text/csv', fails: ['malformed-request'] })
  @Get('timers.csv')
  async table(@CurrentActor() actor: Actor, @Query() query: LinesQuery): Promise<StreamableFile> {
    return fileOf(await this.lines.table(actor, query), 'text/csv', 'sites.csv');
  }

  /** Sites of the matching timers, for a write to many sites. */
  @Answers({ schema: ['VersionedId'], fails: ['malformed-request'] })
  @Get('timers-sites')
  sites(@CurrentActor() actor: Actor, @Query() query: WhichTimers) {
    return this.lines.sites(actor, query);
  }
}
