import { Controller, Get, Query, Res } from '@nestjs/common';
import type { Response } from 'express';
import type { Actor } from '../people/actor.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { DueService, type DueEntry } from './due.service.ts';

@Controller()
export class DueController {
  constructor(private readonly due: DueService) {}

  /** What is due at all sites. `clock` is how times are written in it. */
  @Get('due')
  list(@CurrentActor() actor: Actor, @Query('clock') clock?: string): Promise<DueEntry[]> {
    return this.due.list(actor, clock === '12' ? '12' : '24');
  }

  @Get('due.ics')
  async calendar(@CurrentActor() actor: Actor, @Res() response: Response): Promise<void> {
    response.attachment('visits-due.ics');
    response.type('text/calendar').send(await this.due.calendar(actor));
  }
}
