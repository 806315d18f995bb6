import { Body, Controller, Get, HttpCode, Post } from '@nestjs/common';
import type { Actor } from '../identity/actor.ts';
import { May } from '../identity/rights.ts';
import { CurrentActor } from '../identity/access.ts';
import { Answers, JSON_WRITE } from '../http/openapi.ts';
import { IdParam } from '../http/parameters.ts';
import { WriteBody } from '../http/write-body.ts';
import { AddTimerBody, DeletionBody, PlaceBody, SiteStateBody } from './house-body.ts';
import { ImportSitesBody } from './import-body.ts';
import { ImportsService } from './imports.service.ts';
import { ManyBody } from './many-body.ts';
import { ManyService } from './many.service.ts';
import { HousesService, type HouseTimerView, type HouseView } from './houses.service.ts';

const CHANGE = [...JSON_WRITE, 'not-found', 'stale-version', 'id-reused', 'visit-open'] as const;
const DELETION = [
  ...JSON_WRITE,
  'not-found',
  'not-accepted',
  'visit-open',
  'export-first',
] as const;

/** Sites with all their timers. */
@Controller()
export class HousesController {
  constructor(
    private readonly houses: HousesService,
    private readonly imports: ImportsService,
    private readonly many: ManyService,
  ) {}

  /** A site with its timers and their records, including archived ones. */
  @Answers({ schema: 'House', fails: ['not-found'] })
  @Get('sites/:id')
  one(@CurrentActor() actor: Actor, @IdParam('site') id: string): Promise<HouseView> {
    return this.houses.one(actor, id);
  }

  /** Several sites at once, each with an empty timer; all or none. */
  @Answers({
    status: 201,
    schema: 'NewTimers',
    fails: [...JSON_WRITE, 'id-reused', 'not-accepted'],
  })
  @Post('sites/several')
  @HttpCode(201)
  bring(
    @CurrentActor() actor: Actor,
    @Body() body: ImportSitesBody,
  ): Promise<{ timerIds: string[] }> {
    return this.imports.bring(actor, body);
  }

  /** Rules, a person in charge or an archive state for many sites at once; all or none. */
  @Answers({ schema: 'Changed', fails: [...CHANGE, 'not-accepted'] })
  @Post('sites/many')
  @HttpCode(200)
  changeMany(@CurrentActor() actor: Actor, @Body() body: ManyBody): Promise<{ changed: number }> {
    return this.many.change(actor, body);
  }

  /** A new timer, from a plan or as a copy. */
  @Answers({
    status: 201,
    schema: 'NewTimer',
    fails: [...JSON_WRITE, 'not-found', 'id-reused', 'not-accepted'],
  })
  @Post('sites/:id/timers')
  @HttpCode(201)
  addTimer(
    @CurrentActor() actor: Actor,
    @IdParam('site') id: string,
    @Body() body: AddTimerBody,
  ): Promise<{ timerId: string }> {
    return this.houses.addTimer(actor, id, body);
  }

  /** The base version is that of the timer's place. */
  @Answers({ schema: 'HouseTimer', fails: [...CHANGE, 'not-accepted'] })
  @Post('timers/:id/place')
  @HttpCode(200)
  place(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
    @Body() body: PlaceBody,
  ): Promise<HouseTimerView> {
    return this.houses.place(actor, id, body);
  }

  @Answers({ schema: 'House', fails: CHANGE })
  @Post('sites/:id/state')
  @HttpCode(200)
  setState(
    @CurrentActor() actor: Actor,
    @IdParam('site') id: string,
    @Body() body: SiteStateBody,
  ): Promise<HouseView> {
    return this.houses.setState(actor, id, body);
  }

  @Answers({ schema: 'House', fails: CHANGE })
  @May('company')
  @Post('sites/:id/personal-data/deletion')
  @HttpCode(200)
  deletePersonalData(
    @CurrentActor() actor: Actor,
    @IdParam('site') id: string,
    @Body() body: WriteBody,
  ): Promise<HouseView> {
    return this.houses.deletePersonalData(actor, id, body);
  }

  /** Permanent; requires a saved archive. */
  @Answers({ status: 204, fails: DELETION })
  @May('company')
  @Post('timers/:id/deletion')
  @HttpCode(204)
  deleteTimer(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
    @Body() body: DeletionBody,
  ): Promise<void> {
    return this.houses.deleteTimer(actor, id, body);
  }

  /** Permanent, with timers and visits; requires a saved archive. */
  @Answers({ status: 204, fails: DELETION })
  @May('company')
  @Post('sites/:id/deletion')
  @HttpCode(204)
  deleteSite(
    @CurrentActor() actor: Actor,
    @IdParam('site') id: string,
    @Body() body: DeletionBody,
  ): Promise<void> {
    return this.houses.deleteSite(actor, id, body);
  }
}
