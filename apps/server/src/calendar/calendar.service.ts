import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import {
  formatDate,
  parseDate,
  visitReasonWords,
  type EpochDay,
  type Speech,
  type VisitReason,
  say,
} from '@water-clock/core';
import { DataSource, In, IsNull, type EntityManager } from 'typeorm';
import { claimId, idempotentWrite } from '../changes/record.ts';
import type { Actor } from '../identity/actor.ts';
import { Person } from '../identity/person.entity.ts';
import { ApiError, notAccepted, notFound } from '../http/api-error.ts';
import { Timer } from '../sites/timer.entity.ts';
import { todayIn } from '../sites/today.ts';
import { LinesService } from '../timer-status/lines.service.ts';
import type { DayOrderBody, DueQuery, SomeDayBody, StopBody } from './calendar-body.ts';
import { DayOrder, Stop } from './stop.entity.ts';

/** A visit to a timer on a day: due, or planned by the office. */
export interface CalendarVisit {
  readonly timerId: string;
  readonly timer: string;
  readonly siteId: string;
  readonly site: string;
  readonly houseNumber: string | null;
  readonly street: string | null;
  readonly town: string;
  readonly latitude: number | null;
  readonly longitude: number | null;
  readonly person: { readonly id: string; readonly name: string } | null;
  /** `YYYY-MM-DD`; null: some day. */
  readonly date: string | null;
  readonly overdue: boolean;
  /** Reasons, without dates. */
  readonly reasons: readonly string[];
  readonly kinds: readonly VisitReason['kind'][];
  /** The office's plan; null if the visit is only due. */
  readonly stop: { readonly version: number; readonly note: string } | null;
}

interface DayOrderView {
  readonly personId: string | null;
  readonly date: string;
  readonly version: number;
  readonly timerIds: readonly string[];
}

export interface Calendar {
  readonly visits: readonly CalendarVisit[];
  readonly orders: readonly DayOrderView[];
}

export interface OpenVisits {
  readonly overdue: readonly CalendarVisit[];
  /** Visits for some day. */
  readonly someDay: readonly CalendarVisit[];
}

const MOST = 2_000;
const MOST_OPEN = 200;
/** Largest integer of the database. */
const FIRST_DAY = -(2 ** 31);
const LAST_DAY = 2 ** 31 - 1;

/** $1: company, $2 to $3: days, $4: person or null. Due work stands on its own day, or with a planned visit that comes later. */
const VISITS = `with dated as (
    select d.timer_id, d.day, jsonb_agg(d.reason order by d.id) as reasons, false as planned
    from due_visits d left join stops sp on sp.company_id = d.company_id and sp.id = d.timer_id
    where d.company_id = $1 and d.day between $2 and $3 and (sp.day is null or d.day > sp.day)
    group by d.timer_id, d.day
    union all
    select sp.id, sp.day, coalesce((select jsonb_agg(d.reason order by d.day, d.id) from due_visits d
      where d.company_id = sp.company_id and d.timer_id = sp.id and d.day <= sp.day), '[]'), true
    from stops sp where sp.company_id = $1 and sp.day between $2 and $3),
  some_day as (
    select sp.id as timer_id, sp.day, '[]'::jsonb as reasons, true as planned
    from stops sp where sp.company_id = $1 and sp.day is null)
  select v.timer_id, st.name as timer, s.id as site_id, s.name as site, s.house_number, s.street, st.town, s.latitude,
    s.longitude, st.time_zone, p.id as person_id, p.name as person, v.day, v.reasons,
    case when v.planned then sp.version end as version, case when v.planned then sp.note end as note`;
const JOINS = `
  join timer_status st on st.company_id = $1 and st.id = v.timer_id
  join sites s on s.company_id = st.company_id and s.id = st.site_id
  left join stops sp on sp.company_id = st.company_id and sp.id = st.id
  left join people p on p.company_id = st.company_id
    and p.id = case when v.planned then coalesce(sp.person_id, st.person_id) else st.person_id end
  where st.listed and ($4::uuid is null or p.id = $4)
  order by v.day, st.street_key, st.site_key, v.timer_id`;

interface Row {
  readonly timer_id: string;
  readonly timer: string;
  readonly site_id: string;
  readonly site: string;
  readonly house_number: string | null;
  readonly street: string | null;
  readonly town: string;
  readonly latitude: number | null;
  readonly longitude: number | null;
  readonly time_zone: string;
  readonly person_id: string | null;
  readonly person: string | null;
  readonly day: EpochDay | null;
  readonly reasons: readonly VisitReason[];
  readonly version: number | null;
  readonly note: string | null;
}

type Style = Pick<Speech, 'clock' | 'order'>;

function visitOf(row: Row, style: Style, now: Date): CalendarVisit {
  const on = todayIn(row.time_zone, now);
  return {
    timerId: row.timer_id,
    timer: row.timer,
    siteId: row.site_id,
    site: row.site,
    houseNumber: row.house_number,
    street: row.street,
    town: row.town,
    latitude: row.latitude,
    longitude: row.longitude,
    person: row.person_id === null ? null : { id: row.person_id, name: row.person ?? '' },
    date: row.day === null ? null : formatDate(row.day),
    overdue: row.day !== null && row.day < on,
    reasons: row.reasons.map((reason) => visitReasonWords(reason, { on, ...style })),
    kinds: row.reasons.map(({ kind }) => kind),
    stop: row.version === null ? null : { version: row.version, note: row.note ?? '' },
  };
}

const styleOf = ({ clock = '24', order }: DueQuery): Style => ({
  clock,
  ...(order ? { order } : {}),
});

/** Who goes where on which day, and in which order. */
@Injectable()
export class CalendarService {
  constructor(
    private readonly database: DataSource,
    private readonly lines: LinesService,
  ) {}

  async list({ companyId }: Actor, query: DueQuery): Promise<Calendar> {
    const now = new Date();
    await this.lines.settled(companyId, now);
    const from = query.from ? (parseDate(query.from) ?? FIRST_DAY) : FIRST_DAY;
    const to = query.to ? (parseDate(query.to) ?? LAST_DAY) : LAST_DAY;
    const rows: Row[] = await this.database.query(`${VISITS} from dated v ${JOINS} limit $5`, [
      ...[companyId, from, to, query.person ?? null, MOST],
    ]);
    const orders: {
      person_id: string | null;
      day: EpochDay;
      version: number;
      timer_ids: string[];
    }[] = await this.database.query(
      'select person_id, day, version, timer_ids from day_orders where company_id = $1 and day between $2 and $3',
      [companyId, from, to],
    );
    return {
      visits: rows.map((row) => visitOf(row, styleOf(query), now)),
      orders: orders.map(({ person_id, day, version, timer_ids }) => ({
        ...{ personId: person_id, date: formatDate(day), version, timerIds: timer_ids },
      })),
    };
  }

  /** Overdue visits, and visits for some day. */
  async open({ companyId }: Actor, query: DueQuery): Promise<OpenVisits> {
    const now = new Date();
    await this.lines.settled(companyId, now);
    // The earliest today of all time zones; where it is still yesterday, visits that are not overdue are dropped below.
    const before = todayIn('Pacific/Kiritimati', now) - 1;
    const visits = async (table: string) => {
      const rows: Row[] = await this.database.query(`${VISITS} from ${table} v ${JOINS} limit $5`, [
        ...[companyId, FIRST_DAY, before, query.person ?? null, MOST_OPEN],
      ]);
      return rows.map((row) => visitOf(row, styleOf(query), now));
    };
    const [dated, someDay] = await Promise.all([visits('dated'), visits('some_day')]);
    return { overdue: dated.filter(({ overdue }) => overdue), someDay };
  }

  /** Plans the next visit to a timer, or changes it. */
  async plan(
    actor: Actor,
    timerId: string,
    { id, baseVersion, day, personId = null, note }: StopBody,
  ): Promise<{ version: number }> {
    const { companyId } = actor;
    return idempotentWrite(this.database, actor, {
      id: id.toLowerCase(),
      meaning: ['stop', timerId, baseVersion, day ?? null, personId, note],
      again: ({ version }) => ({ version }),
      make: async (database, written) => {
        const stop = await lockedStop(database, companyId, timerId);
        assertVersion(stop?.version ?? 0, baseVersion);
        await assertPerson(database, companyId, personId);
        const version = baseVersion + 1;
        const row = { day: day ? parseDate(day) : null, personId, note, version };
        await database.upsert(Stop, { companyId, id: timerId, ...row }, ['companyId', 'id']);
        await written({
          subject: 'stop',
          subjectId: timerId,
          version: await nextOf(database, companyId, timerId),
        });
        return { version };
      },
    });
  }

  /** Plans a visit on some day for many timers; timers with a planned visit keep it. */
  async someDay(
    actor: Actor,
    { id, timerIds, note }: SomeDayBody,
  ): Promise<{ readonly planned: number }> {
    const { companyId } = actor;
    const ids = timerIds.map((one) => one.toLowerCase()).sort();
    return idempotentWrite(this.database, actor, {
      id: id.toLowerCase(),
      meaning: ['some-day', ids, note],
      // The original count is not known any more; all of them are planned.
      again: () => ({ planned: ids.length }),
      make: async (database, written) => {
        if ((await database.countBy(Timer, { companyId, id: In(ids) })) < ids.length)
          throw notFound('timer');
        const rows: unknown[] = await database.query(
          `insert into stops (company_id, id, version, note) select $1, unnest($2::uuid[]), 1, $3
           on conflict do nothing returning id`,
          [companyId, ids, note],
        );
        const [first = ''] = ids;
        const version = await nextOf(database, companyId, first);
        await written({ subject: 'stop', subjectId: first, version });
        return { planned: rows.length };
      },
    });
  }

  /** Cancels a planned visit; what is due stays due. */
  async unplan(
    actor: Actor,
    timerId: string,
    { id, baseVersion }: { readonly id: string; readonly baseVersion: number },
  ): Promise<void> {
    const { companyId } = actor;
    await idempotentWrite(this.database, actor, {
      id: id.toLowerCase(),
      meaning: ['stop-taken-back', timerId, baseVersion],
      again: () => undefined,
      make: async (database, written) => {
        const stop = await lockedStop(database, companyId, timerId);
        if (!stop) throw notFound('planned visit');
        assertVersion(stop.version, baseVersion);
        await database.delete(Stop, { companyId, id: timerId });
        await written({
          subject: 'stop',
          subjectId: timerId,
          version: await nextOf(database, companyId, timerId),
        });
      },
    });
  }

  /** Saves the order of a day's visits. */
  async order(
    actor: Actor,
    { id, baseVersion, day: date, personId = null, timerIds }: DayOrderBody,
  ): Promise<{ version: number }> {
    const { companyId } = actor;
    const day = parseDate(date) ?? 0;
    return idempotentWrite(this.database, actor, {
      id: id.toLowerCase(),
      meaning: ['day-order', day, personId, baseVersion, timerIds],
      again: ({ version }) => ({ version }),
      make: async (database, written) => {
        await assertPerson(database, companyId, personId);
        await database.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', [
          `${companyId} day ${day} ${personId ?? 'all'}`,
        ]);
        const whose = personId === null ? IsNull() : personId;
        const order = await database.findOneBy(DayOrder, { companyId, day, personId: whose });
        assertVersion(order?.version ?? 0, baseVersion);
        const version = baseVersion + 1;
        const orderId = order?.id ?? randomUUID();
        const ids = timerIds.map((one) => one.toLowerCase());
        const there = await database.findBy(Timer, { companyId, id: In(ids) });
        if (there.length < ids.length) throw notFound('timer');
        if (order)
          await database.update(DayOrder, { companyId, id: orderId }, { timerIds: ids, version });
        else {
          await claimId(database, actor, DayOrder, orderId, 'order');
          await database.insert(DayOrder, {
            companyId,
            id: orderId,
            personId,
            day,
            version,
            timerIds: ids,
          });
        }
        await written({ subject: 'day-order', subjectId: orderId, version });
        return { version };
      },
    });
  }
}

/** Locks the timer's row, so that the second of two people who plan at once sees the first plan. */
async function lockedStop(
  database: EntityManager,
  companyId: string,
  id: string,
): Promise<Stop | null> {
  const timer = await database.findOne(Timer, {
    where: { companyId, id },
    select: { companyId: true, id: true },
    lock: { mode: 'for_no_key_update' },
  });
  if (!timer) throw notFound('timer');
  return database.findOneBy(Stop, { companyId, id });
}

/** Keeps the version counting when a planned visit is deleted and planned again. */
async function nextOf(
  database: EntityManager,
  companyId: string,
  subjectId: string,
): Promise<number> {
  const [row]: { next: number }[] = await database.query(
    `select coalesce(max(version), 0)::int + 1 as next from changes
     where company_id = $1 and subject = 'stop' and subject_id = $2`,
    [companyId, subjectId],
  );
  return row?.next ?? 1;
}

function assertVersion(now: number, baseVersion: number): void {
  if (now !== baseVersion)
    throw new ApiError({
      code: 'stale-version',
      message: say`someone else changed this visit: it is now at version ${now}; your change was based on version ${baseVersion}`,
      current: { version: now },
    });
}

async function assertPerson(
  database: EntityManager,
  companyId: string,
  id: string | null,
): Promise<void> {
  if (id === null) return;
  if (!(await database.existsBy(Person, { companyId, id, takenOutAt: IsNull() })))
    throw notAccepted([
      {
        code: 'unknown-document',
        path: 'personId',
        message: say`this person is not in your company`,
      },
    ]);
}
