import { Body, Controller, Get, Header, HttpCode, Param, Post, Query, Res } from '@nestjs/common';
import { attempt, PLAN_MEDIA_TYPE, writePlan } from '@water-clock/core';
import type { Response } from 'express';
import type { Actor } from '../people/actor.ts';
import { CurrentActor } from '../people/session.guard.ts';
import { apiFaults, notAccepted } from '../platform/api-error.ts';
import { parseId } from '../platform/validation.ts';
import { ChangePlanBody } from './change-body.ts';
import { runsTable, wateringCalendar } from './timer-formats.ts';
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

  /** What waters when, for a calendar: from today on at the house. */
  @Get(':id/watering.ics')
  async watering(
    @CurrentActor() actor: Actor,
    @Param('id') id: string,
    @Res() response: Response,
  ): Promise<void> {
    const timerId = parseId(id, 'timer');
    const { plan, name, today } = await this.timers.today(actor, timerId);
    const text = answered(() => wateringCalendar(plan, name, today, timerId));
    response.attachment('watering.ics');
    response.type('text/calendar').send(text);
  }

  /** Every run of the coming year, or of so many days. */
  @Get(':id/runs.csv')
  async runs(
    @CurrentActor() actor: Actor,
    @Param('id') id: string,
    @Res() response: Response,
    @Query('days') asked?: string,
  ): Promise<void> {
    const days = asked === undefined ? 365 : Number(asked);
    if (!Number.isInteger(days) || days < 1 || days > MOST_DAYS)
      throw notAccepted([
        {
          code: 'out-of-range',
          path: 'days',
          message: `days is a whole number, 1 to ${MOST_DAYS}`,
        },
      ]);
    const { plan, today } = await this.timers.today(actor, parseId(id, 'timer'));
    const text = answered(() => runsTable(plan, today, days));
    response.attachment('runs.csv');
    response.type('text/csv').send(text);
  }
}

/** As many days as the command line takes. */
const MOST_DAYS = 3660;

/** An answer of the engine; a plan that asks too much of it is refused by path. */
function answered<T>(question: () => T): T {
  const answer = attempt(question);
  if (!answer.ok) throw notAccepted(apiFaults(answer.faults, ['plan']));
  return answer.value;
}
