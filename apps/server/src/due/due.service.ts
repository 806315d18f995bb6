import { Injectable } from '@nestjs/common';
import {
  formatDate,
  parseDate,
  visitReasonWords,
  visitSentence,
  type DueVisit,
  type EpochDay,
  type Speech,
  type VisitReason,
} from '@water-clock/core';
import { DataSource } from 'typeorm';
import type { Actor } from '../people/actor.ts';
import { calendarOf } from '../formats/calendar.ts';
import { todayIn } from '../sites/today.ts';
import { LinesService } from '../standings/lines.service.ts';
import type { DueQuery } from './due-query.ts';

export interface DueEntry {
  readonly timerId: string;
  readonly site: string;
  readonly timer: string;
  /** `YYYY-MM-DD`. */
  readonly date: string;
  readonly kind: DueVisit['reason']['kind'];
  readonly overdue: boolean;
  readonly sentence: string;
  /** The sentence without its date. */
  readonly reason: string;
}

/** Nobody reads more at once. */
const MOST = 2_000;

/** Of the database's whole numbers. */
const FIRST_DAY = -(2 ** 31);
const LAST_DAY = 2 ** 31 - 1;

interface DueRow {
  readonly timer_id: string;
  readonly timer: string;
  readonly time_zone: string;
  readonly site: string;
  readonly day: EpochDay;
  readonly reason: VisitReason;
}

@Injectable()
export class DueService {
  constructor(
    private readonly database: DataSource,
    private readonly lines: LinesService,
  ) {}

  /** What is due at a company's houses, the earliest first. */
  async list(
    { companyId }: Actor,
    { from, to, clock = '24', order }: DueQuery,
  ): Promise<DueEntry[]> {
    const now = new Date();
    await this.lines.settled(companyId, now);
    const rows: DueRow[] = await this.database.query(
      `select d.timer_id, d.day, d.reason, st.name as timer, st.time_zone, s.name as site
       from due_visits d join standings st on st.company_id = d.company_id and st.id = d.timer_id
       join sites s on s.company_id = st.company_id and s.id = st.site_id
       where d.company_id = $1 and st.listed and d.day between $2 and $3
       order by d.day, st.site_key, d.id limit $4`,
      [companyId, from ? parseDate(from) : FIRST_DAY, to ? parseDate(to) : LAST_DAY, MOST],
    );
    const style: Pick<Speech, 'clock' | 'order'> = { clock, ...(order ? { order } : {}) };
    const todays = new Map<string, EpochDay>();
    return rows.map(({ timer_id, timer, time_zone, site, day, reason }): DueEntry => {
      const on = todays.get(time_zone) ?? todayIn(time_zone, now);
      todays.set(time_zone, on);
      return {
        timerId: timer_id,
        site,
        timer,
        date: formatDate(day),
        kind: reason.kind,
        overdue: day < on,
        sentence: visitSentence({ date: day, reason }, { on, ...style }),
        reason: visitReasonWords(reason, { on, ...style }),
      };
    });
  }

  /** The same as an iCalendar of whole days. */
  async calendar(actor: Actor): Promise<string> {
    const entries = await this.list(actor, {});
    const events = entries.map(({ timerId, date, kind, site, reason }, i) => ({
      id: `${timerId}-${kind}-${date}-${i}`,
      start: date,
      end: formatDate((parseDate(date) ?? 0) + 1),
      summary: `${site}: ${reason}`,
    }));
    return calendarOf('Visits due', 'visits due', new Date().toISOString(), events);
  }
}
