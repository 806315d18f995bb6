import { setTimeout as rest } from 'node:timers/promises';
import {
  Injectable,
  Logger,
  type OnApplicationBootstrap,
  type OnModuleDestroy,
} from '@nestjs/common';
import type { VisitFacts } from '@water-clock/core';
import { auditTime, filter, groupBy, mergeMap, type Subscription } from 'rxjs';
import { DataSource, In } from 'typeorm';
import { Listener } from '../events/listener.service.ts';
import { Company } from '../identity/company.entity.ts';
import { ApiError } from '../http/api-error.ts';
import { Settings } from '../platform/settings.ts';
import { VisitRow } from '../visits/visit.entity.ts';
import { WorkService } from '../work/work.service.ts';
import { VisitFactsRow } from './visit-facts.entity.ts';

/** Visits in one batch. */
const AT_ONCE = 16;
/** How long changes of one company are collected, in milliseconds. */
const GATHERED = 2_000;
const UNKNOWN: VisitFacts = { found: null, left: null };

/** Calculates what each visit changed, once, after closing. If two servers do the same visit, one of the equal results is kept. */
@Injectable()
export class FactsService implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly logger = new Logger('Facts');
  private listening?: Subscription;
  private readonly turns = new Map<string, { done: Promise<void>; again: boolean }>();

  constructor(
    private readonly database: DataSource,
    private readonly work: WorkService,
    private readonly listener: Listener,
    private readonly settings: Settings,
  ) {}

  onApplicationBootstrap(): void {
    // Closing a visit is a change of its timer.
    this.listening = this.listener.told
      .pipe(
        filter((told) => told?.kind === 'changed'),
        groupBy((told) => told.companyId),
        mergeMap((ofCompany) => ofCompany.pipe(auditTime(GATHERED))),
      )
      .subscribe(({ companyId }) => void this.soon(companyId));
    if (this.settings.jobs) void this.everywhere();
  }

  onModuleDestroy(): void {
    this.listening?.unsubscribe();
  }

  async everywhere(): Promise<void> {
    try {
      const companies = await this.database.manager.find(Company, { select: { id: true } });
      for (const { id } of companies) await this.soon(id);
    } catch (error) {
      this.logger.warn(error);
    }
  }

  /** Never throws; the next request continues. */
  soon(companyId: string): Promise<void> {
    const running = this.turns.get(companyId);
    if (running) {
      running.again = true;
      return running.done;
    }
    const turn = { again: false, done: Promise.resolve() };
    turn.done = this.all(companyId, turn)
      .catch((error: unknown) => this.logger.warn(error))
      .finally(() => this.turns.delete(companyId));
    this.turns.set(companyId, turn);
    return turn.done;
  }

  private async all(companyId: string, turn: { again: boolean }): Promise<void> {
    do {
      turn.again = false;
      // Rests between batches as long as a batch took, so that people come first.
      for (;;) {
        const began = performance.now();
        if (!(await this.some(companyId))) break;
        await rest(performance.now() - began, undefined, { ref: false });
      }
    } while (turn.again);
  }

  /** @returns whether there were any */
  private async some(companyId: string): Promise<boolean> {
    const missing: { id: string }[] = await this.database.query(
      `select v.id from visits v where v.company_id = $1
         and not exists (select from visit_facts f where f.company_id = v.company_id and f.id = v.id)
       limit $2`,
      [companyId, AT_ONCE],
    );
    if (missing.length === 0) return false;
    const visits = await this.database.manager.find(VisitRow, {
      where: { companyId, id: In(missing.map(({ id }) => id)) },
      relations: { timer: true },
    });
    const facts = await this.factsOf(visits);
    await this.database.manager
      .createQueryBuilder()
      .insert()
      .into(VisitFactsRow)
      .values(
        visits.map(({ id }, i) => {
          const { found, left } = facts[i] ?? UNKNOWN;
          return {
            ...{ companyId, id },
            ...{ foundHours: found?.hours ?? null, leftHours: left?.hours ?? null },
            ...{ foundLitres: found?.litres ?? null, leftLitres: left?.litres ?? null },
            ...{ foundOverlaps: found?.overlaps ?? null, leftOverlaps: left?.overlaps ?? null },
          };
        }),
      )
      .orIgnore()
      .execute();
    return true;
  }

  private async factsOf(visits: readonly VisitRow[]): Promise<readonly VisitFacts[]> {
    const input = visits.map(({ document, timer }) => ({ visit: document, survey: timer.survey }));
    try {
      return await this.work.run('', 'visitFacts', input, { inBackground: true });
    } catch (error) {
      if (!(error instanceof ApiError) || error.code !== 'too-much-work') throw error;
      if (visits.length === 1) return [UNKNOWN];
      const each: VisitFacts[] = [];
      for (const one of visits) each.push(...(await this.factsOf([one])));
      return each;
    }
  }
}
