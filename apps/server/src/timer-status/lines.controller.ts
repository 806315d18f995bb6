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

  /** The company's timers with their houses and verdicts, a page of them, and how many there are under each filter. */
  @Answers({ schema: 'TimerLines', fails: ['malformed-request'] })
  @Get('timers')
  list(@CurrentActor() actor: Actor, @Query() query: LinesQuery): Promise<TimerLines> {
    return this.lines.list(actor, query);
  }

  /** All of the list as CSV. */
  @Answers({ mediaType: 'text/csv', fails: ['malformed-request'] })
  @Get('timers.csv')
  async table(@CurrentActor() actor: Actor, @Query() query: LinesQuery): Promise<StreamableFile> {
    return fileOf(await this.lines.table(actor, query), 'text/csv', 'sites.csv');
  }

  /** The houses of the timers that are sought, for a write that names many. */
  @Answers({ schema: ['VersionedId'], fails: ['malformed-request'] })
  @Get('timers-sites')
  sites(@CurrentActor() actor: Actor, @Query() query: WhichTimers) {
    return this.lines.sites(actor, query);
  }
}
