import {
  Body,
  Controller,
  DefaultValuePipe,
  Get,
  HttpCode,
  ParseIntPipe,
  Post,
  Query,
  StreamableFile,
} from '@nestjs/common';
import { PLAN_MEDIA_TYPE, writePlan } from '@water-clock/core';
import type { Actor } from '../identity/actor.ts';
import { CurrentActor } from '../identity/access.ts';
import { notAccepted } from '../http/api-error.ts';
import { fileOf } from '../http/files.ts';
import { Answers, JSON_WRITE, WORK } from '../http/openapi.ts';
import { IdParam } from '../http/parameters.ts';
import { WorkService } from '../work/work.service.ts';
import { ChangePlanBody, ChangesBody } from './change-body.ts';
import {
  TimersService,
  type LastChange,
  type SavedSeveral,
  type TimerView,
} from './timers.service.ts';

/** As many days as on the command line. */
const MOST_DAYS = 3660;

const badDays = () =>
  notAccepted([
    {
      code: 'out-of-range',
      path: 'days',
      message: `days must be a whole number, 1 to ${MOST_DAYS}`,
    },
  ]);

@Controller('timers')
export class TimersController {
  constructor(
    private readonly timers: TimersService,
    private readonly work: WorkService,
  ) {}

  @Answers({ schema: 'Timer', fails: ['not-found'] })
  @Get(':id')
  one(@CurrentActor() actor: Actor, @IdParam('timer') id: string): Promise<TimerView> {
    return this.timers.one(actor, id);
  }

  /** Only the version, its author and time, small enough to poll every few seconds. */
  @Answers({ schema: 'LastChange', fails: ['not-found'] })
  @Get(':id/version')
  version(@CurrentActor() actor: Actor, @IdParam('timer') id: string): Promise<LastChange> {
    return this.timers.lastChange(actor, id);
  }

  @Answers({
    schema: 'Version',
    fails: [...JSON_WRITE, 'not-found', 'stale-version', 'id-reused', 'not-accepted'],
  })
  @Post(':id/changes')
  @HttpCode(200)
  change(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
    @Body() body: ChangePlanBody,
  ): Promise<{ version: number }> {
    return this.timers.change(actor, id, body);
  }

  /** Saves several changes, each by itself, in order. Stops at the first refused one and answers as it would alone. */
  @Answers({ schema: 'Saved', fails: [...JSON_WRITE, 'not-found'] })
  @Post(':id/changes/several')
  @HttpCode(200)
  changes(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
    @Body() body: ChangesBody,
  ): Promise<SavedSeveral> {
    return this.timers.changes(actor, id, body);
  }

  /** The timer as a plan document, to download. */
  @Answers({ mediaType: PLAN_MEDIA_TYPE, fails: ['not-found'] })
  @Get(':id/export')
  async export(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
  ): Promise<StreamableFile> {
    const plan = await this.timers.document(actor, id);
    return fileOf(writePlan(plan), PLAN_MEDIA_TYPE, `${plan.site?.name ?? 'timer'}.plan.json`);
  }

  /** The watering as a calendar file, from today at the site. */
  @Answers({ mediaType: 'text/calendar', fails: ['not-found', ...WORK] })
  @Get(':id/watering.ics')
  async watering(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
  ): Promise<StreamableFile> {
    const { plan, name, today } = await this.timers.today(actor, id);
    const made = new Date().toISOString();
    const input = { plan, name, today, timerId: id, made };
    const text = await this.work.run(actor.companyId, 'calendar', input);
    return fileOf(text, 'text/calendar', 'watering.ics');
  }

  /** Every run of the coming year, or of the given number of days. */
  @Answers({ mediaType: 'text/csv', fails: ['not-found', ...WORK] })
  @Get(':id/runs.csv')
  async runs(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
    @Query('days', new DefaultValuePipe(365), new ParseIntPipe({ exceptionFactory: badDays }))
    days: number,
  ): Promise<StreamableFile> {
    if (days < 1 || days > MOST_DAYS) throw badDays();
    const { plan, today } = await this.timers.today(actor, id);
    const text = await this.work.run(actor.companyId, 'runs', { plan, today, days });
    return fileOf(text, 'text/csv', 'runs.csv');
  }
}
