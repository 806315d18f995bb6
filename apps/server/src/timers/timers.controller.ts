import { Body, Controller, Get, Header, HttpCode, Param, Post, Res } from '@nestjs/common';
import { PLAN_MEDIA_TYPE, writePlan } from '@water-clock/core';
import type { Response } from 'express';
import type { Actor } from '../people/actor.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { parseId } from '../platform/validation.ts';
import { ChangePlanBody } from './change-body.ts';
import { TimersService, type LastChange, type TimerView } from './timers.service.ts';

@Controller('timers')
export class TimersController {
  constructor(private readonly timers: TimersService) {}

  @Get(':id')
  one(@CurrentActor() actor: Actor, @Param('id') id: string): Promise<TimerView> {
    return this.timers.one(actor, parseId(id, 'timer'));
  }

  /** The version alone, with who made it and when: small enough to be asked for every few seconds. */
  @Get(':id/version')
  @Header('Cache-Control', 'no-store')
  version(@CurrentActor() actor: Actor, @Param('id') id: string): Promise<LastChange> {
    return this.timers.lastChange(actor, parseId(id, 'timer'));
  }

  @Post(':id/changes')
  @HttpCode(200)
  change(
    @CurrentActor() actor: Actor,
    @Param('id') id: string,
    @Body() body: ChangePlanBody,
  ): Promise<{ version: number }> {
    return this.timers.change(actor, parseId(id, 'timer'), body);
  }

  /** The timer as a plan document, to be saved as a file. */
  @Get(':id/export')
  async export(
    @CurrentActor() actor: Actor,
    @Param('id') id: string,
    @Res() response: Response,
  ): Promise<void> {
    const plan = await this.timers.document(actor, parseId(id, 'timer'));
    const name = `${plan.site?.name ?? 'timer'}.plan.json`.replaceAll(/[/\\]/g, '-');
    response.attachment(name);
    response.type(PLAN_MEDIA_TYPE).send(writePlan(plan));
  }
}
