import {
  Body,
  Controller,
  Get,
  HttpCode,
  Ip,
  Param,
  Post,
  Query,
  StreamableFile,
} from '@nestjs/common';
import type { Actor } from '../identity/actor.ts';
import { May, Within } from '../identity/rights.ts';
import { CurrentActor } from '../identity/access.ts';
import { fileOf } from '../http/files.ts';
import { Answers, JSON_BODY, JSON_WRITE } from '../http/openapi.ts';
import { IdParam } from '../http/parameters.ts';
import { Public } from '../http/public.ts';
import { Tries } from '../auth/tries.ts';
import {
  CalendarLinkBody,
  DayOrderBody,
  DueQuery,
  SomeDayBody,
  StopBody,
  UnplanBody,
} from './calendar-body.ts';
import { CalendarFilesService } from './calendar-files.service.ts';
import { CalendarService, type Calendar, type OpenVisits } from './calendar.service.ts';

const CHANGE = [...JSON_WRITE, 'not-found', 'stale-version', 'id-reused'] as const;
const FILE = 'text/calendar';
const NAME = 'visits-due.ics';

@Within('calendar')
@Controller()
export class CalendarController {
  constructor(
    private readonly calendar: CalendarService,
    private readonly files: CalendarFilesService,
    private readonly tries: Tries,
  ) {}

  /** Visits due or planned in a range of days, day by day (at most 2,000), with the order of each day. */
  @Answers({ schema: 'Calendar', fails: ['malformed-request'] })
  @Get('calendar')
  list(@CurrentActor() actor: Actor, @Query() query: DueQuery): Promise<Calendar> {
    return this.calendar.list(actor, query);
  }

  /** Overdue visits, and visits for some day. */
  @Answers({ schema: 'OpenVisits', fails: ['malformed-request'] })
  @Get('calendar/open')
  open(@CurrentActor() actor: Actor, @Query() query: DueQuery): Promise<OpenVisits> {
    return this.calendar.open(actor, query);
  }

  @Answers({ mediaType: FILE })
  @Get('calendar.ics')
  async file(@CurrentActor() actor: Actor): Promise<StreamableFile> {
    return fileOf(await this.files.file(actor), FILE, NAME);
  }

  @Answers({ schema: 'Version', fails: [...CHANGE, 'not-accepted'] })
  @Post('timers/:id/stop')
  @HttpCode(200)
  plan(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
    @Body() body: StopBody,
  ): Promise<{ version: number }> {
    return this.calendar.plan(actor, id, body);
  }

  /** Cancels a planned visit; what is due stays due. */
  @Answers({ status: 204, fails: CHANGE })
  @Post('timers/:id/stop/taking-back')
  @HttpCode(204)
  unplan(
    @CurrentActor() actor: Actor,
    @IdParam('timer') id: string,
    @Body() body: UnplanBody,
  ): Promise<void> {
    return this.calendar.unplan(actor, id, body);
  }

  /** Plans a visit on some day for many timers; timers with a planned visit keep it. */
  @Answers({ schema: 'Planned', fails: [...JSON_WRITE, 'not-found', 'id-reused'] })
  @Post('calendar/some-day')
  @HttpCode(200)
  someDay(
    @CurrentActor() actor: Actor,
    @Body() body: SomeDayBody,
  ): Promise<{ readonly planned: number }> {
    return this.calendar.someDay(actor, body);
  }

  @Answers({ schema: 'Version', fails: [...CHANGE, 'not-accepted'] })
  @Post('calendar/orders')
  @HttpCode(200)
  order(@CurrentActor() actor: Actor, @Body() body: DayOrderBody): Promise<{ version: number }> {
    return this.calendar.order(actor, body);
  }

  /** When the calendar's address was made. */
  @May('own')
  @Answers({ schema: 'CalendarLink' })
  @Get('account/calendar')
  link(@CurrentActor() actor: Actor): Promise<{ madeAt: string | null }> {
    return this.files.link(actor);
  }

  /** Makes a new calendar address; the old one stops working. */
  @May('own')
  @Answers({ status: 204, fails: [...JSON_BODY, 'id-reused'] })
  @Post('account/calendar')
  @HttpCode(204)
  makeLink(@CurrentActor() actor: Actor, @Body() { token }: CalendarLinkBody): Promise<void> {
    return this.files.makeLink(actor, token);
  }

  /** A person's calendar, readable by anyone who has its address. */
  @Public()
  @Answers({ mediaType: FILE, fails: ['not-found', 'too-many-tries'], open: true })
  @Get('calendars/:token')
  async behindLink(@Ip() address: string, @Param('token') token: string): Promise<StreamableFile> {
    await this.tries.openPage(address);
    return fileOf(await this.files.ofLink(token.replace(/\.ics$/i, '')), FILE, NAME);
  }
}
