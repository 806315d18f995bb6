import { Injectable } from '@nestjs/common';
import {
  dueVisits,
  formatDate,
  parseDate,
  visitReasonWords,
  visitSentence,
  type Speech,
  type DueVisit,
} from '@water-clock/core';
import { DataSource, IsNull } from 'typeorm';
import type { Actor } from '../people/actor.ts';
import { calendarOf } from '../formats/calendar.ts';
import { StandingsService } from '../sites/standings.service.ts';
import { todayIn } from '../sites/today.ts';
import { nameOf, Timer } from '../sites/timer.entity.ts';

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

@Injectable()
export class DueService {
  constructor(
    private readonly database: DataSource,
    private readonly standings: StandingsService,
  ) {}

  /** Everything of a company that is due, the earliest first. */
  async list({ companyId }: Actor, style: Pick<Speech, 'clock' | 'order'>): Promise<DueEntry[]> {
    const timers = await this.database.manager.find(Timer, {
      where: { companyId, archivedAt: IsNull(), site: { archivedAt: IsNull() } },
      relations: { site: true },
    });
    const now = new Date();
    const standings = await this.standings.of(companyId, timers, now);
    return timers
      .flatMap((one) => {
        const { id, site, survey } = one;
        const on = todayIn(site.timeZone, now);
        const coming = standings.get(id)?.coming ?? null;
        return dueVisits(survey, coming).map((due): DueEntry => ({
          timerId: id,
          site: site.name,
          timer: nameOf(one),
          date: formatDate(due.date),
          kind: due.reason.kind,
          overdue: due.date < on,
          sentence: visitSentence(due, { on, ...style }),
          reason: visitReasonWords(due.reason, { on, ...style }),
        }));
      })
      .sort((a, b) => (a.date < b.date ? -1 : a.date > b.date ? 1 : a.site < b.site ? -1 : 1));
  }

  /** The same as an iCalendar of whole days. */
  async calendar(actor: Actor): Promise<string> {
    const entries = await this.list(actor, { clock: '24' });
    const events = entries.map(({ timerId, date, kind, site, reason }, i) => ({
      id: `${timerId}-${kind}-${date}-${i}`,
      start: date,
      end: formatDate((parseDate(date) ?? 0) + 1),
      summary: `${site}: ${reason}`,
    }));
    return calendarOf('Visits due', 'visits due', new Date().toISOString(), events);
  }
}
