import { Injectable } from '@nestjs/common';
import { formatDate, parseDate, say } from '@water-clock/core';
import { DataSource, Not } from 'typeorm';
import { calendarOf } from '../formats/calendar.ts';
import { ApiError, notFound } from '../http/api-error.ts';
import type { Actor } from '../identity/actor.ts';
import { hashOfToken } from '../platform/token.ts';
import { todayIn } from '../sites/today.ts';
import { CalendarService } from './calendar.service.ts';
import { CalendarLink } from './stop.entity.ts';

/** What a calendar feed includes. */
const AHEAD_DAYS = 400;
const BEHIND_DAYS = 60;

/** The calendar as a file, and the addresses from which other programs read it. */
@Injectable()
export class CalendarFilesService {
  constructor(
    private readonly database: DataSource,
    private readonly calendar: CalendarService,
  ) {}

  /** Gives a person a new calendar address; the old one stops working. */
  async makeLink({ companyId, personId }: Actor, token: string): Promise<void> {
    const tokenHash = hashOfToken(token);
    const { manager } = this.database;
    if (await manager.existsBy(CalendarLink, { tokenHash, id: Not(personId) }))
      throw new ApiError({ code: 'id-reused', message: 'this token is taken; make another one' });
    await manager.upsert(CalendarLink, { companyId, id: personId, tokenHash, madeAt: new Date() }, [
      'companyId',
      'id',
    ]);
  }

  async link({ companyId, personId }: Actor): Promise<{ madeAt: string | null }> {
    const row = await this.database.manager.findOneBy(CalendarLink, { companyId, id: personId });
    return { madeAt: row?.madeAt.toISOString() ?? null };
  }

  /**
   * The calendar behind an address.
   *
   * @throws ApiError 404 if the address is not valid
   */
  async ofLink(token: string): Promise<string> {
    const row = await this.database.manager.findOne(CalendarLink, {
      where: { tokenHash: hashOfToken(token) },
      relations: { person: { company: true } },
    });
    if (!row || row.person.takenOutAt !== null) throw notFound('calendar');
    const { id, name, role, company } = row.person;
    return this.file(
      { companyId: row.companyId, companyName: company.name, personId: id, personName: name, role },
      id,
    );
  }

  /** Due and planned visits as an iCalendar of all-day events. */
  async file(actor: Actor, person?: string): Promise<string> {
    const today = todayIn('UTC', new Date());
    const { visits } = await this.calendar.list(actor, {
      ...(person ? { person } : {}),
      from: formatDate(today - BEHIND_DAYS),
      to: formatDate(today + AHEAD_DAYS),
    });
    const events = visits.flatMap((visit) => {
      const { timerId, site, date, reasons, stop, street, houseNumber, town } = visit;
      if (date === null) return [];
      const place = [[street, houseNumber].filter(Boolean).join(' '), town].filter(Boolean);
      const why = [...(stop?.note ? [stop.note] : []), ...reasons].join('; ') || say`visit`;
      return [
        {
          id: `${timerId}-${date}`,
          start: date,
          end: formatDate((parseDate(date) ?? 0) + 1),
          summary: `${site}: ${why}${place.length > 0 ? ` (${place.join(', ')})` : ''}`,
        },
      ];
    });
    return calendarOf(say`Visits due`, 'visits due', new Date().toISOString(), events);
  }
}
