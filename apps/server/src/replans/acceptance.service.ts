import { randomUUID } from 'node:crypto';
import { Injectable, Logger, type OnApplicationBootstrap } from '@nestjs/common';
import { say } from '@water-clock/core';
import { DataSource, IsNull, type EntityManager } from 'typeorm';
import { idempotentWrite } from '../changes/record.ts';
import type { Actor } from '../identity/actor.ts';
import { Company } from '../identity/company.entity.ts';
import { Person } from '../identity/person.entity.ts';
import { isAllowed } from '../identity/rights.ts';
import { ApiError, notFound } from '../http/api-error.ts';
import { Settings } from '../platform/settings.ts';
import { ProposalsService } from '../proposals/proposals.service.ts';
import { Timer } from '../sites/timer.entity.ts';
import { Replan, ReplanTimer } from './replan.entity.ts';

/** Longer than one acceptance takes. Another server takes over what a dead server left. */
const CLAIMED_SECONDS = 30;
/** If someone saves the timer in between, try again on what they saved. */
const MOST_TRIES = 5;

/** $1: company, $2: seconds. */
const CLAIM = `update replan_timers set claimed_until = now() + make_interval(secs => $2)
  where company_id = $1 and id = (
    select id from replan_timers where company_id = $1 and accepting_person_id is not null
      and (claimed_until is null or claimed_until < now())
    order by id limit 1 for update skip locked)
  returning id`;

/** Accepts all suggestions of a replan, one timer after another, in the name of the person who asked. */
@Injectable()
export class AcceptanceService implements OnApplicationBootstrap {
  private readonly logger = new Logger('Acceptance');
  private readonly turns = new Map<string, Promise<void>>();

  constructor(
    private readonly database: DataSource,
    private readonly proposals: ProposalsService,
    private readonly settings: Settings,
  ) {}

  onApplicationBootstrap(): void {
    if (this.settings.jobs) void this.everywhere();
  }

  /** Continues what another server left unfinished. */
  async everywhere(): Promise<void> {
    try {
      const companies = await this.database.manager.find(Company, { select: { id: true } });
      for (const { id } of companies) await this.soon(id);
    } catch (error) {
      this.logger.warn(error);
    }
  }

  /**
   * Marks everything waiting for an answer, and starts.
   *
   * @returns the number of timers marked
   */
  async start(actor: Actor, replanId: string, id: string): Promise<{ accepting: number }> {
    const marked = await this.write(actor, replanId, id, 'accept', (database) =>
      database.query(
        `update replan_timers i set accepting_person_id = $3, trouble = '', claimed_until = null
         from proposals p
         where i.company_id = $1 and i.replan_id = $2 and i.state = 'proposed'
           and p.company_id = i.company_id and p.id = i.proposal_id and p.state = 'sent'
         returning i.id`,
        [actor.companyId, replanId, actor.personId],
      ),
    );
    void this.soon(actor.companyId);
    return { accepting: marked };
  }

  /**
   * Stops; what was accepted stays accepted.
   *
   * @returns the number of timers not accepted
   */
  async stop(actor: Actor, replanId: string, id: string): Promise<{ left: number }> {
    const left = await this.write(actor, replanId, id, 'stop', (database) =>
      database.query(
        `update replan_timers set accepting_person_id = null
         where company_id = $1 and replan_id = $2 and accepting_person_id is not null returning id`,
        [actor.companyId, replanId],
      ),
    );
    return { left };
  }

  private write(
    actor: Actor,
    replanId: string,
    id: string,
    what: string,
    mark: (database: EntityManager) => Promise<[{ id: string }[], number]>,
  ): Promise<number> {
    const { companyId } = actor;
    return idempotentWrite(this.database, actor, {
      id: id.toLowerCase(),
      meaning: ['replan', what, replanId],
      again: () => 0,
      make: async (database, written) => {
        // Locked, so that two people who start or stop at once get different versions.
        const replan = await database.findOne(Replan, {
          where: { companyId, id: replanId },
          lock: { mode: 'pessimistic_write' },
        });
        if (!replan) throw notFound('replan');
        // For an update, the driver returns the rows and their count.
        const [rows] = await mark(database);
        const [{ version }]: [{ version: number }] = await database.query(
          `select coalesce(max(version), 0)::int + 1 as version from changes
           where company_id = $1 and subject = 'replan' and subject_id = $2`,
          [companyId, replanId],
        );
        await written({ subject: 'replan', subjectId: replanId, version });
        return rows.length;
      },
    });
  }

  /** Accepts everything marked in a company. Never throws. */
  soon(companyId: string): Promise<void> {
    const before = this.turns.get(companyId);
    if (before) return before;
    const turn = this.all(companyId)
      // The claims expire, and the next run continues.
      .catch((error: unknown) => this.logger.warn(error))
      .finally(() => this.turns.delete(companyId));
    this.turns.set(companyId, turn);
    return turn;
  }

  private async all(companyId: string): Promise<void> {
    for (;;) {
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
    const item = await manager.findOneBy(ReplanTimer, { companyId, id });
    if (!item?.acceptingPersonId || !item.proposalId) return;
    const trouble = await this.accepted(item, item.acceptingPersonId, item.proposalId);
    await manager.update(
      ReplanTimer,
      { companyId, id },
      { acceptingPersonId: null, claimedUntil: null, trouble },
    );
  }

  /** @returns why it could not be accepted; empty if it was */
  private async accepted(
    { companyId, timerId }: ReplanTimer,
    personId: string,
    proposalId: string,
  ): Promise<string> {
    const actor = await this.actorOf(companyId, personId);
    if (!actor) return say`the person who started this can no longer change timers`;
    for (let tries = 1; ; tries++) {
      const timer = await this.database.manager.findOneBy(Timer, { companyId, id: timerId });
      if (!timer) return say`the timer was deleted`;
      try {
        await this.proposals.answer(actor, proposalId, {
          ...{ id: randomUUID(), baseVersion: timer.version },
          ...{ isAccepted: true, answer: '' },
        });
        return '';
      } catch (error) {
        if (!(error instanceof ApiError)) throw error;
        if (error.code !== 'stale-version' || tries === MOST_TRIES) return error.message;
      }
    }
  }

  /** Null if they left the company or their role no longer allows it. */
  private async actorOf(companyId: string, personId: string): Promise<Actor | null> {
    const person = await this.database.manager.findOne(Person, {
      where: { companyId, id: personId, takenOutAt: IsNull() },
      relations: { company: true },
    });
    if (!person || !isAllowed(person.role, 'work')) return null;
    const { name: personName, role, company } = person;
    return { companyId, companyName: company.name, personId, personName, role };
  }
}
