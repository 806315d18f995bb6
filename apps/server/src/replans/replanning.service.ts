import { randomUUID } from 'node:crypto';
import { Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import {
  civilOf,
  climateOf,
  SHIPPED_MINUTES,
  type Climate,
  type ClimateDocument,
  type MinutesTable,
  type Replanned,
  type ReplanAim,
  type ReplanSources,
} from '@water-clock/core';
import { DataSource, In, IsNull, Not, type EntityManager } from 'typeorm';
import { tell } from '../changes/tell.ts';
import { LibraryEntry } from '../library/library-entry.entity.ts';
import { Company } from '../identity/company.entity.ts';
import { ApiError } from '../http/api-error.ts';
import { Settings } from '../platform/settings.ts';
import { Proposal } from '../proposals/proposal.entity.ts';
import { rulesOfCompany } from '../sites/site-rules.ts';
import type { Site } from '../sites/site.entity.ts';
import { Timer } from '../sites/timer.entity.ts';
import { todayIn } from '../sites/today.ts';
import { WeatherFeed } from '../weather/weather-feed.ts';
import { WorkService } from '../work/work.service.ts';
import { ReplanTimer, type Replan } from './replan.entity.ts';
import { beforeSunrise } from './sunrise.ts';

/** Longer than one plan takes. Another server takes over what a dead server left. */
const CLAIMED_SECONDS = 150;

/** $1: company, $2: seconds. */
const CLAIM = `update replan_timers set claimed_until = now() + make_interval(secs => $2)
  where company_id = $1 and id = (
    select id from replan_timers where company_id = $1 and state = 'waiting'
      and (claimed_until is null or claimed_until < now())
    order by id limit 1 for update skip locked)
  returning id`;

const aimOf = ({ aim, month }: Replan): ReplanAim =>
  aim === 'rules' ? { of: 'rules' } : { of: 'percent', month: month ?? 1 };

/** Replans timers, one after another on each thread, and saves the results as suggestions. Servers share the work by claims. */
@Injectable()
export class ReplanningService implements OnApplicationBootstrap {
  private readonly logger = new Logger('Replanning');
  private readonly turns = new Map<string, Promise<void>>();

  constructor(
    private readonly database: DataSource,
    private readonly work: WorkService,
    private readonly weather: WeatherFeed,
    private readonly settings: Settings,
  ) {}

  onApplicationBootstrap(): void {
    if (this.settings.jobs) void this.everywhere();
  }

  /** Picks up what another server left. */
  async everywhere(): Promise<void> {
    try {
      const companies = await this.database.manager.find(Company, { select: { id: true } });
      for (const { id } of companies) await this.soon(id);
    } catch (error) {
      this.logger.warn(error);
    }
  }

  /** Plans everything waiting in a company. Never throws. */
  soon(companyId: string): Promise<void> {
    const before = this.turns.get(companyId);
    if (before) return before;
    const threads = Array.from({ length: this.settings.workers }, () => this.thread(companyId));
    const turn = Promise.all(threads)
      .then(() => undefined)
      // The claims expire, and the next request starts again.
      .catch((error: unknown) => this.logger.warn(error))
      .finally(() => this.turns.delete(companyId));
    this.turns.set(companyId, turn);
    return turn;
  }

  private async thread(companyId: string): Promise<void> {
    for (;;) {
      // For an update, the driver returns the rows and their count.
      const [rows]: [{ id: string }[], number] = await this.database.query(CLAIM, [
        companyId,
        CLAIMED_SECONDS,
      ]);
      const [row] = rows;
      if (!row) return;
      await this.one(companyId, row.id);
    }
  }

  private async one(companyId: string, id: string): Promise<void> {
    const { manager } = this.database;
    const item = await manager.findOne(ReplanTimer, {
      where: { companyId, id },
      relations: { replan: true, timer: { site: true } },
    });
    if (!item) return;
    const replanned = await this.replanned(companyId, item);
    await this.database.transaction((database) => this.keep(database, item, replanned));
  }

  private async replanned(companyId: string, { timer, replan }: ReplanTimer): Promise<Replanned> {
    const sources = await this.sourcesOf(companyId, timer);
    try {
      return await this.work.run(
        companyId,
        'replan',
        { sources, aim: aimOf(replan) },
        { inBackground: true },
      );
    } catch (error) {
      if (!(error instanceof ApiError) || error.code !== 'too-much-work') throw error;
      return { outcome: 'none', why: 'It takes too long to work out; plan it on its own page.' };
    }
  }

  private async sourcesOf(companyId: string, timer: Timer): Promise<ReplanSources> {
    const { manager } = this.database;
    const { site, plan, survey } = timer;
    const others = await manager.findBy(Timer, {
      ...{ companyId, siteId: site.id, id: Not(timer.id), archivedAt: IsNull() },
    });
    const documents = await manager.findBy(LibraryEntry, {
      companyId,
      id: In([site.minutesId, site.climateId].filter((id) => id !== null)),
    });
    const documentOf = (id: string | null) => documents.find((one) => one.id === id)?.document;
    const today = todayIn(site.timeZone, new Date());
    const { year, month } = civilOf(today);
    const { finishBeforeSunrise, hundredMonth = month } = survey;
    return {
      record: { plan, survey },
      house: { houseNumber: site.houseNumber, supply: site.supply, mowing: site.mowing },
      rules: (await rulesOfCompany(manager, companyId)).get(site.rulesId) ?? null,
      // Safe casts: each shelf holds only documents accepted by its reader.
      table: (documentOf(site.minutesId) as MinutesTable | undefined) ?? SHIPPED_MINUTES,
      climate: await this.climateOf(
        site,
        documentOf(site.climateId) as ClimateDocument | undefined,
      ),
      others: others.map((other) => other.plan).filter(({ settings }) => settings.mode !== 'off'),
      finishBy:
        finishBeforeSunrise === undefined
          ? null
          : beforeSunrise(site, year, hundredMonth, finishBeforeSunrise),
      today,
    };
  }

  private async climateOf(
    { town }: Site,
    document: ClimateDocument | undefined,
  ): Promise<Climate | null> {
    const weather = town === null ? (document ?? null) : await this.weather.normals(town);
    return weather && climateOf(weather);
  }

  private async keep(
    database: EntityManager,
    { companyId, id, timerId, timer, replan }: ReplanTimer,
    replanned: Replanned,
  ): Promise<void> {
    const { personId } = replan;
    const now = await database.findOne(Timer, {
      where: { companyId, id: timerId },
      lock: { mode: 'pessimistic_write' },
    });
    if (!now) return;
    // The timer changed in the meantime; plan it again.
    if (now.version !== timer.version) {
      await database.update(ReplanTimer, { companyId, id }, { claimedUntil: null });
      return;
    }
    if (replanned.outcome !== 'proposed') {
      const why = replanned.outcome === 'none' ? replanned.why : '';
      await database.update(ReplanTimer, { companyId, id }, { state: replanned.outcome, why });
      return;
    }
    const { change, why, lines, from } = replanned;
    // Suggestions of earlier replans are out of date.
    await database.update(
      Proposal,
      { companyId, timerId, personId, state: In(['draft', 'sent']) },
      { state: 'withdrawn', version: () => 'version + 1', movedAt: new Date() },
    );
    const proposalId = randomUUID();
    await database.insert(Proposal, {
      ...{ companyId, id: proposalId, timerId, personId, version: 2 },
      ...{ state: 'sent', changes: [change], note: why, movedAt: new Date() },
    });
    await database.update(
      ReplanTimer,
      { companyId, id },
      { state: 'proposed', why, lines, from, proposalId },
    );
    await tell(database, { kind: 'proposals', companyId, timerId });
  }
}
