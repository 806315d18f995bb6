import { Controller, Get, Query } from '@nestjs/common';
import { formatDate } from '@water-clock/core';
import type { Actor } from '../identity/actor.ts';
import { May } from '../identity/rights.ts';
import { CurrentActor } from '../identity/access.ts';
import { DateField } from '../http/fields.ts';
import { Answers } from '../http/openapi.ts';
import { todayIn } from '../sites/today.ts';
import { ReportsService, type Report } from './reports.service.ts';

/** Both days inclusive; the last year by default. */
export class ReportQuery {
  @DateField('from')
  from?: string;

  @DateField('to')
  to?: string;
}

const YEAR = 365;

@May('company')
@Controller('reports')
export class ReportsController {
  constructor(private readonly reports: ReportsService) {}

  /** Totals of visits by month, person and site. */
  @Answers({ schema: 'Report', fails: ['malformed-request', 'not-allowed'] })
  @Get()
  of(@CurrentActor() actor: Actor, @Query() query: ReportQuery): Promise<Report> {
    const today = todayIn('Pacific/Kiritimati', new Date());
    const { from = formatDate(today - YEAR), to = formatDate(today) } = query;
    return this.reports.of(actor, from, to);
  }
}
