import { Injectable } from '@nestjs/common';
import { EMPTY_SURVEY, type Plan, type Survey, say } from '@water-clock/core';
import { DataSource, In, type EntityManager } from 'typeorm';
import { claimId, idempotentWrite } from '../changes/record.ts';
import { tell } from '../changes/tell.ts';
import { touch } from '../changes/ticks.ts';
import type { Actor } from '../identity/actor.ts';
import { AuditRow } from '../audit/audit.entity.ts';
import { AuditService } from '../audit/audit.service.ts';
import { ApiError, notAccepted, notFound } from '../http/api-error.ts';
import type { WriteBody } from '../http/write-body.ts';
import { Site } from '../sites/site.entity.ts';
import { readPlanBody, siteView, type SiteView } from '../sites/sites.service.ts';
import { nameOf, Timer } from '../sites/timer.entity.ts';
import { lockedTimer } from '../timers/timers.service.ts';
import type { AddTimerBody, DeletionBody, PlaceBody, SiteStateBody } from './house-body.ts';

export interface HouseTimerView {
  readonly id: string;
  /** Empty if the timer goes by its kind. */
  readonly name: string;
  /** Version of name, site and archive state. */
  readonly placeVersion: number;
  readonly siteId: string;
  readonly isArchived: boolean;
  /** Version of the record. */
  readonly version: number;
  readonly plan: Plan;
  readonly survey: Survey;
}

export interface HouseView extends SiteView {
  readonly isArchived: boolean;
  readonly timers: readonly HouseTimerView[];
}

const MOST_TIMERS = 20;

const timerView = (timer: Timer): HouseTimerView => ({
  id: timer.id,
  name: timer.name,
  placeVersion: timer.placeVersion,
  siteId: timer.siteId,
  isArchived: timer.archivedAt !== null,
  version: timer.version,
  plan: timer.plan,
  survey: timer.survey,
});

/** What a copy leaves out: photos, faults, decoder serials and the clock as found belong to the original. */
function surveyedOf({ stations, device, school, season, rain, wish }: Survey): Survey {
  const { clockShown: _shown, clockReally: _really, ...box } = device ?? {};
  return {
    stations: stations.map(
      ({ photos: _photos, faults: _faults, decoder: _decoder, ...one }) => one,
    ),
    device: box,
    ...(school ? { school } : {}),
    ...(season ? { season } : {}),
    ...(rain ? { rain } : {}),
    ...(wish ? { wish } : {}),
  };
}

/** Everything stored for timers, in an order that respects foreign keys. */
const OF_TIMERS = [
  'delete from proposals where company_id = $1 and timer_id = any($2)',
  'delete from page_links where company_id = $1 and timer_id = any($2)',
  'delete from visits where company_id = $1 and timer_id = any($2)',
  'delete from timer_status where company_id = $1 and id = any($2)',
  `delete from changes where company_id = $1 and subject in ('timer', 'timer-place') and subject_id = any($2)`,
  'delete from timers where company_id = $1 and id = any($2)',
] as const;

/** Sites and their timers: placing, archiving and permanent deletion. */
@Injectable()
export class HousesService {
  constructor(
    private readonly database: DataSource,
    private readonly audit: AuditService,
  ) {}

  one(actor: Actor, id: string): Promise<HouseView> {
    return this.view(this.database.manager, actor, id);
  }

  private async view(
    database: EntityManager,
    { companyId }: Actor,
    id: string,
  ): Promise<HouseView> {
    const site = await database.findOneBy(Site, { companyId, id });
    if (!site) throw notFound('site');
    const timers = await database.find(Timer, {
      where: { companyId, siteId: id },
      order: { name: 'ASC', id: 'ASC' },
    });
    return {
      ...siteView(site),
      isArchived: site.archivedAt !== null,
      timers: timers.map(timerView),
    };
  }

  async addTimer(actor: Actor, siteId: string, body: AddTimerBody): Promise<{ timerId: string }> {
    const { companyId } = actor;
    const timerId = body.timerId.toLowerCase();
    const copyOf = body.copyOf?.toLowerCase() ?? null;
    await this.assertThere(actor, siteId);
    if ((copyOf === null) === (body.plan === undefined))
      throw notAccepted([
        {
          code: 'missing',
          path: 'plan',
          message: 'send a plan, or the timer that it is a copy of',
        },
      ]);
    const given = copyOf === null ? readPlanBody(body.plan) : null;
    return idempotentWrite(this.database, actor, {
      // The timer's id is also the id of the write.
      id: timerId,
      meaning: ['timer-added', siteId, timerId, body.name, given, copyOf, body.withSurvey ?? false],
      again: () => ({ timerId }),
      make: async (database, written) => {
        await claimId(database, actor, Timer, timerId, 'timer');
        await this.assertRoom(database, companyId, siteId);
        const other =
          copyOf === null ? null : await database.findOneBy(Timer, { companyId, id: copyOf });
        if (copyOf !== null && !other) throw notFound('timer to copy');
        const plan = given ?? other?.plan;
        if (!plan) throw notFound('timer to copy');
        const survey = other && body.withSurvey ? surveyedOf(other.survey) : EMPTY_SURVEY;
        const row = { companyId, id: timerId, siteId, version: 1, name: body.name, plan, survey };
        await database.insert(Timer, row);
        await written({ subject: 'timer-place', subjectId: timerId, version: 1 });
        return { timerId };
      },
    });
  }

  private async assertThere({ companyId }: Actor, id: string): Promise<void> {
    if (!(await this.database.manager.existsBy(Site, { companyId, id }))) throw notFound('site');
  }

  /** Locks the site, so that the second of two new timers sees the first. */
  private async assertRoom(
    database: EntityManager,
    companyId: string,
    siteId: string,
  ): Promise<void> {
    const site = await database.findOne(Site, {
      where: { companyId, id: siteId },
      lock: { mode: 'pessimistic_write' },
    });
    if (!site) throw notFound('site');
    if ((await database.countBy(Timer, { companyId, siteId })) >= MOST_TIMERS)
      throw notAccepted([
        {
          code: 'too-many',
          path: 'siteId',
          message: say`a site can have at most ${MOST_TIMERS} timers; delete an archived one first`,
        },
      ]);
  }

  /** Renames, moves, archives or restores a timer. */
  async place(actor: Actor, id: string, body: PlaceBody): Promise<HouseTimerView> {
    const { companyId } = actor;
    const { name, isArchived, baseVersion } = body;
    const siteId = body.siteId.toLowerCase();
    return idempotentWrite(this.database, actor, {
      id: body.id.toLowerCase(),
      meaning: ['timer-place', id, baseVersion, name, siteId, isArchived],
      again: async (_earlier, database) =>
        timerView(await database.findOneByOrFail(Timer, { companyId, id })),
      make: async (database, written) => {
        const timer = await lockedTimer(database, actor, id);
        if (timer.placeVersion !== baseVersion)
          throw new ApiError({
            code: 'stale-version',
            message: say`someone else renamed, moved or archived this timer: it is now at version ${timer.placeVersion}; your change was based on version ${baseVersion}`,
            current: timerView(timer),
          });
        const isMoved = siteId !== timer.siteId;
        if (!isMoved && name === timer.name && isArchived === (timer.archivedAt !== null))
          throw notAccepted([
            { code: 'no-change', path: 'siteId', message: say`the timer is already at this site` },
          ]);
        if (isMoved) await this.assertRoom(database, companyId, siteId);
        if (isArchived) this.assertNoVisit([timer]);
        const placeVersion = timer.placeVersion + 1;
        const archivedAt = isArchived ? (timer.archivedAt ?? new Date()) : null;
        const columns = { name, siteId, archivedAt, placeVersion };
        await database.update(Timer, { companyId, id }, columns);
        await written({ subject: 'timer-place', subjectId: id, version: placeVersion });
        return timerView({ ...timer, ...columns });
      },
    });
  }

  private assertNoVisit(timers: readonly Pick<Timer, 'survey' | 'plan' | 'name'>[]): void {
    const busy = timers.find(({ survey }) => survey.visit !== undefined);
    if (busy)
      throw new ApiError({
        code: 'visit-open',
        message: say`a visit at ${nameOf(busy)} is in progress; close it first`,
      });
  }

  /** Archives or restores a site. */
  setState(actor: Actor, id: string, { isArchived, ...body }: SiteStateBody): Promise<HouseView> {
    return this.changeSite(actor, id, body, ['site-state', isArchived], async (database, site) => {
      if (isArchived) this.assertNoVisit(await this.timersOf(database, actor, id));
      return { archivedAt: isArchived ? (site.archivedAt ?? new Date()) : null };
    });
  }

  /** Deletes the customer's name, contact details and notes; the garden stays. */
  deletePersonalData(actor: Actor, id: string, body: WriteBody): Promise<HouseView> {
    return this.changeSite(actor, id, body, ['personal-data'], async (database, site) => {
      const { companyId, personId } = actor;
      const noted = { companyId, personId, subjectId: id } as const;
      await this.audit.note({ ...noted, what: 'personal-data-deleted' }, database);
      const locality = site.locality ?? 'a place not noted';
      return {
        name: `House in ${locality}`,
        people: [],
        notes: '',
        houseNumber: null,
        street: null,
      };
    });
  }

  private changeSite(
    actor: Actor,
    id: string,
    { id: write, baseVersion }: WriteBody,
    what: readonly unknown[],
    make: (database: EntityManager, site: Site) => Promise<Partial<Site>>,
  ): Promise<HouseView> {
    const { companyId } = actor;
    return idempotentWrite(this.database, actor, {
      id: write.toLowerCase(),
      meaning: [...what, id, baseVersion],
      again: (_earlier, database) => this.view(database, actor, id),
      make: async (database, written) => {
        const site = await database.findOne(Site, {
          where: { companyId, id },
          lock: { mode: 'pessimistic_write' },
        });
        if (!site) throw notFound('site');
        if (site.version !== baseVersion)
          throw new ApiError({
            code: 'stale-version',
            message: say`someone else changed this site: it is now at version ${site.version}; your change was based on version ${baseVersion}`,
            current: siteView(site),
          });
        const version = site.version + 1;
        await database.update(
          Site,
          { companyId, id },
          { ...(await make(database, site)), version },
        );
        await written({ subject: 'site', subjectId: id, version });
        return this.view(database, actor, id);
      },
    });
  }

  private timersOf(
    database: EntityManager,
    { companyId }: Actor,
    siteId: string,
  ): Promise<Timer[]> {
    return database.find(Timer, {
      where: { companyId, siteId },
      lock: { mode: 'pessimistic_write' },
    });
  }

  /** Only the fact that the timer was deleted remains. Deleting twice is harmless. */
  async deleteTimer(actor: Actor, id: string, { name }: DeletionBody): Promise<void> {
    await this.database.transaction(async (database) => {
      if (await this.isDeleted(database, actor, id)) return;
      const timer = await lockedTimer(database, actor, id);
      const called = nameOf(timer);
      assertMeant(name, called);
      this.assertNoVisit([timer]);
      await this.assertSaved(database, actor, [id, timer.siteId]);
      await this.forget(database, actor, [id]);
      await this.audit.note(
        { ...own(actor), what: 'timer-deleted', subjectId: id, subjectName: called },
        database,
      );
    });
    touch(actor.companyId);
  }

  async deleteSite(actor: Actor, id: string, { name }: DeletionBody): Promise<void> {
    const { companyId } = actor;
    await this.database.transaction(async (database) => {
      if (await this.isDeleted(database, actor, id)) return;
      const site = await database.findOne(Site, {
        where: { companyId, id },
        lock: { mode: 'pessimistic_write' },
      });
      if (!site) throw notFound('site');
      assertMeant(name, site.name);
      const timers = await this.timersOf(database, actor, id);
      this.assertNoVisit(timers);
      await this.assertSaved(database, actor, [id]);
      await this.forget(
        database,
        actor,
        timers.map((timer) => timer.id),
      );
      await database.query(
        `delete from changes where company_id = $1 and subject = 'site' and subject_id = $2`,
        [companyId, id],
      );
      await database.delete(Site, { companyId, id });
      await this.audit.note(
        { ...own(actor), what: 'site-deleted', subjectId: id, subjectName: site.name },
        database,
      );
    });
    touch(companyId);
  }

  /** Answer to a repeated request. */
  private async isDeleted(
    database: EntityManager,
    { companyId }: Actor,
    subjectId: string,
  ): Promise<boolean> {
    return database.existsBy(AuditRow, {
      companyId,
      subjectId,
      what: In(['timer-deleted', 'site-deleted']),
    });
  }

  private async forget(
    database: EntityManager,
    { companyId }: Actor,
    timerIds: readonly string[],
  ): Promise<void> {
    for (const sql of OF_TIMERS) await database.query(sql, [companyId, timerIds]);
    await tell(database, { kind: 'stale', companyId });
  }

  /** Permanent deletion requires that the same person saved an archive within a day. */
  private async assertSaved(
    database: EntityManager,
    { companyId, personId }: Actor,
    subjects: readonly string[],
  ): Promise<void> {
    const saved: unknown[] = await database.query(
      `select from audit where company_id = $1 and person_id = $2 and what = 'export'
         and subject_id = any($3) and at > now() - interval '1 day' limit 1`,
      [companyId, personId, subjects],
    );
    if (saved.length === 0)
      throw new ApiError({
        code: 'export-first',
        message: say`export it first; you cannot restore what you delete`,
      });
  }
}

const own = ({ companyId, personId }: Actor) => ({ companyId, personId });

function assertMeant(typed: string, name: string): void {
  if (typed.trim() !== name)
    throw notAccepted([
      { code: 'another-name', path: 'name', message: say`type the name exactly: ${name}` },
    ]);
}
