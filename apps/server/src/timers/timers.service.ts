import { Injectable } from '@nestjs/common';
import {
  applyRecordChange,
  documentSite,
  readRecordChange,
  touchesPlan,
  type EpochDay,
  type OthersChange,
  type Plan,
  type RecordChange,
  type Survey,
  say,
} from '@water-clock/core';
import { DataSource, type EntityManager } from 'typeorm';
import { AuditService } from '../audit/audit.service.ts';
import { Change, type Way } from '../changes/change.entity.ts';
import { idempotentWrite } from '../changes/record.ts';
import { Person } from '../identity/person.entity.ts';
import type { Actor } from '../identity/actor.ts';
import { ApiError, apiFaults, notAccepted, notFound } from '../http/api-error.ts';
import { todayIn } from '../sites/today.ts';
import { siteView, type SiteView } from '../sites/sites.service.ts';
import type { ChangePlanBody, ChangesBody } from './change-body.ts';
import { Timer } from '../sites/timer.entity.ts';

export interface LastChange {
  readonly version: number;
  /** Null if no one has changed the timer yet. */
  readonly by: string | null;
  readonly at: string | null;
}

/** Result of several writes: the versions made, up to the first refused write. */
export interface SavedSeveral {
  readonly versions: readonly number[];
  /** Null: none was refused. */
  readonly refusal: { readonly status: number; readonly body: unknown } | null;
}

export interface PastChange {
  readonly way: Way;
  readonly change: RecordChange;
  readonly inverse: RecordChange;
}

/** Changes rebased on what others saved, until someone changes the settings again. */
interface Merging {
  readonly by: string;
  readonly at: string;
  /** Authors of the changes they were rebased on. */
  readonly over: readonly string[];
}

export interface TimerView {
  readonly id: string;
  /** Name at the site; empty if it goes by its kind. */
  readonly name: string;
  readonly version: number;
  readonly site: SiteView;
  readonly plan: Plan;
  readonly survey: Survey;
  /** This person's latest changes with no one else's in between, oldest first: what they can undo. */
  readonly history: readonly PastChange[];
  /** Null: the settings are as one person left them. */
  readonly merging: Merging | null;
}

const HISTORY_LENGTH = 100;
/** A device that was offline longer gets only the last of them. */
const MOST_SINCE = 500;

async function authorOf(
  database: EntityManager,
  companyId: string,
  id: string,
  version: number,
): Promise<{ by: string | null; at: string | null }> {
  const change = await database.findOneBy(Change, {
    companyId,
    subject: 'timer',
    subjectId: id,
    version,
  });
  if (!change) return { by: null, at: null };
  const person = await database.findOneBy(Person, { companyId, id: change.personId });
  return { by: person?.name ?? null, at: change.at.toISOString() };
}

/** A timer's row, locked until the transaction ends: a second write waits and then sees the first. */
export async function lockedTimer(
  database: EntityManager,
  { companyId }: Actor,
  id: string,
): Promise<Timer> {
  const timer = await database.findOne(Timer, {
    where: { companyId, id },
    lock: { mode: 'pessimistic_write' },
  });
  if (!timer) throw notFound('timer');
  return timer;
}

const changesOf = (database: EntityManager, companyId: string, subjectId: string) =>
  database
    .createQueryBuilder(Change, 'c')
    .innerJoinAndSelect('c.person', 'p')
    .where(`c.companyId = :companyId and c.subject = 'timer' and c.subjectId = :subjectId`, {
      ...{ companyId, subjectId },
    });

/** What others need for a rebase: who changed what after a version, oldest first. */
async function changesSince(
  database: EntityManager,
  { companyId, id }: Timer,
  version: number,
): Promise<OthersChange[]> {
  const rows = await changesOf(database, companyId, id)
    .andWhere('c.version > :version', { version })
    .orderBy('c.version', 'DESC')
    .take(MOST_SINCE)
    .getMany();
  return rows
    .reverse()
    .map(({ person, at, change }) => ({ by: person.name, at: at.toISOString(), change }));
}

/** The last change of the settings, if it was rebased on others'. */
async function mergingOf(
  database: EntityManager,
  companyId: string,
  id: string,
): Promise<Merging | null> {
  const latest = await changesOf(database, companyId, id)
    .orderBy('c.version', 'DESC')
    .take(HISTORY_LENGTH)
    .getMany();
  const isOfPlan = ({ change }: Change) => change !== null && touchesPlan(change);
  const last = latest.find(isOfPlan);
  if (!last || last.madeOn === null) return null;
  const { madeOn, personId, person, at } = last;
  const over = latest
    .filter((one) => one.version > madeOn && one.version < last.version)
    .filter((one) => one.personId !== personId && isOfPlan(one))
    .map((one) => one.person.name);
  if (over.length === 0) return null;
  return { by: person.name, at: at.toISOString(), over: [...new Set(over)] };
}

/** @throws ApiError 409 `stale-version` with the current record and who saved since, if the write was based on another version */
export async function refuseStale(
  database: EntityManager,
  timer: Timer,
  baseVersion: number,
): Promise<void> {
  const { id, companyId, version, plan, survey } = timer;
  if (version === baseVersion) return;
  const author = await authorOf(database, companyId, id, version);
  throw new ApiError({
    code: 'stale-version',
    message: say`someone else changed this timer: it is now at version ${version}; your change was based on version ${baseVersion}`,
    current: { version, plan, survey, ...author },
    since: await changesSince(database, timer, baseVersion),
  });
}

@Injectable()
export class TimersService {
  constructor(
    private readonly database: DataSource,
    private readonly audit: AuditService,
  ) {}

  async one(actor: Actor, id: string): Promise<TimerView> {
    const timer = await this.withSite(actor, id);
    return {
      id,
      name: timer.name,
      version: timer.version,
      site: siteView(timer.site),
      plan: timer.plan,
      survey: timer.survey,
      history: await this.history(actor, id),
      merging: await mergingOf(this.database.manager, actor.companyId, id),
    };
  }

  async document(actor: Actor, id: string): Promise<Plan> {
    const { plan, site } = await this.withSite(actor, id);
    const { companyId, personId } = actor;
    await this.audit.note({ companyId, personId, what: 'export', subjectId: id });
    return { ...plan, site: documentSite(site) };
  }

  /** The settings, the site's name and today's date there. */
  async today(actor: Actor, id: string): Promise<{ plan: Plan; name: string; today: EpochDay }> {
    const { plan, site } = await this.withSite(actor, id);
    return { plan, name: site.name, today: todayIn(site.timeZone, new Date()) };
  }

  async lastChange({ companyId }: Actor, id: string): Promise<LastChange> {
    const timer = await this.database.manager.findOne(Timer, {
      where: { companyId, id },
      select: { version: true, companyId: true, id: true },
    });
    if (!timer) throw notFound('timer');
    const by = await authorOf(this.database.manager, companyId, id, timer.version);
    return { version: timer.version, ...by };
  }

  /** Saves one change. Locks the timer's row and refuses a stale change with the current record. A change that core refuses changes nothing. */
  async change(actor: Actor, id: string, body: ChangePlanBody): Promise<{ version: number }> {
    const { companyId } = actor;
    const read = readRecordChange(body.change);
    if (!read.ok) throw notAccepted(apiFaults(read.faults, ['change']));
    const change = read.value;
    const { way, baseVersion, madeOn = null } = body;
    return idempotentWrite(this.database, actor, {
      id: body.id.toLowerCase(),
      meaning: ['timer', id, baseVersion, way, change],
      again: ({ version }) => ({ version }),
      make: async (database, written) => {
        const timer = await lockedTimer(database, actor, id);
        await refuseStale(database, timer, baseVersion);
        const applied = applyRecordChange({ plan: timer.plan, survey: timer.survey }, change);
        if (!applied.ok) throw notAccepted(apiFaults(applied.faults, ['change']));
        const version = timer.version + 1;
        const { record, inverse } = applied.value;
        await database.update(Timer, { companyId, id }, { ...record, version });
        await written({ subject: 'timer', subjectId: id, version, way, change, inverse, madeOn });
        return { version };
      },
    });
  }

  /** Saves changes one after another, each as if it came alone. If the server fails on the way, the rest can be sent again. */
  async changes(actor: Actor, id: string, { writes }: ChangesBody): Promise<SavedSeveral> {
    const versions: number[] = [];
    for (const write of writes)
      try {
        versions.push((await this.change(actor, id, write)).version);
      } catch (error) {
        const status = error instanceof ApiError ? error.getStatus() : 500;
        // No such timer, or the server is in trouble: this is not about one write.
        if (!(error instanceof ApiError) || status === 404 || status >= 500) throw error;
        return { versions, refusal: { status, body: error.getResponse() } };
      }
    return { versions, refusal: null };
  }

  private async withSite({ companyId }: Actor, id: string): Promise<Timer> {
    const timer = await this.database.manager.findOne(Timer, {
      where: { companyId, id },
      relations: { site: true },
    });
    if (!timer) throw notFound('timer');
    return timer;
  }

  private async history({ companyId, personId }: Actor, id: string): Promise<PastChange[]> {
    const latest = await this.database.manager.find(Change, {
      where: { companyId, subject: 'timer', subjectId: id },
      order: { version: 'desc' },
      take: HISTORY_LENGTH,
    });
    // Undo stops at a closed visit, as it does at someone else's change.
    const foreign = latest.findIndex(
      (change) => change.personId !== personId || change.change === null,
    );
    return (foreign < 0 ? latest : latest.slice(0, foreign)).reverse().flatMap((one) => {
      const { way, change, inverse } = one;
      return change && inverse ? [{ way, change, inverse }] : [];
    });
  }
}
