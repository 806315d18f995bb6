import { Injectable } from '@nestjs/common';
import {
  closeVisit,
  notAmong,
  parseDate,
  readClosedVisit,
  readUndonePoints,
  undoneId,
  undoneIn,
  undoneSentence,
  type ClosedVisit,
  say,
} from '@water-clock/core';
import { DataSource } from 'typeorm';
import { claimId, idempotentWrite } from '../changes/record.ts';
import type { Actor } from '../identity/actor.ts';
import { apiFaults, notAccepted, notFound } from '../http/api-error.ts';
import { Timer } from '../sites/timer.entity.ts';
import { lockedTimer, refuseStale } from '../timers/timers.service.ts';
import type { CloseVisitBody } from './close-visit-body.ts';
import { VisitRow } from './visit.entity.ts';

/** A visit without its saved plans. */
export interface VisitSummary {
  readonly id: string;
  readonly by: string;
  readonly visit: Omit<ClosedVisit, 'asFound' | 'asLeft'>;
}

export interface VisitView {
  readonly id: string;
  readonly timerId: string;
  readonly by: string;
  readonly visit: ClosedVisit;
}

@Injectable()
export class VisitsService {
  constructor(private readonly database: DataSource) {}

  async list({ companyId }: Actor, timerId: string): Promise<VisitSummary[]> {
    const { manager } = this.database;
    if (!(await manager.existsBy(Timer, { companyId, id: timerId }))) throw notFound('timer');
    const rows = await manager.find(VisitRow, {
      where: { companyId, timerId },
      relations: { person: true },
      order: { began: 'desc', at: 'desc' },
    });
    return rows.map(({ id, person, document }) => {
      const { asFound: _found, asLeft: _left, ...visit } = document;
      return { id, by: person.name, visit };
    });
  }

  async one({ companyId }: Actor, id: string): Promise<VisitView> {
    const row = await this.database.manager.findOne(VisitRow, {
      where: { companyId, id },
      relations: { person: true },
    });
    if (!row) throw notFound('visit');
    return { id, timerId: row.timerId, by: row.person.name, visit: row.document };
  }

  /** Moves the open visit into the logbook; settings and survey stay as they are. */
  async close(actor: Actor, timerId: string, body: CloseVisitBody): Promise<{ version: number }> {
    const { companyId, personId } = actor;
    const id = body.id.toLowerCase();
    const undone = readUndonePoints(body.undone ?? []);
    if (!undone.ok) throw notAccepted(apiFaults(undone.faults, ['undone']));
    return idempotentWrite(this.database, actor, {
      id,
      meaning: [
        ...['close-visit', timerId, body.baseVersion, body.closed],
        ...[undone.value, ...(body.leftAsFrozen ? ['as frozen'] : [])],
      ],
      again: ({ version }) => ({ version }),
      make: async (database, written) => {
        const timer = await lockedTimer(database, actor, timerId);
        await refuseStale(database, timer, body.baseVersion);
        const { plan, survey } = timer;
        const [last] = await database.find(VisitRow, {
          where: { companyId, timerId },
          order: { began: 'desc', at: 'desc' },
          take: 1,
        });
        if (!survey.visit)
          throw notAccepted([
            {
              code: 'no-visit',
              path: 'visit',
              message: say`No visit is in progress on this timer.`,
            },
          ]);
        const closed = closeVisit(
          ...([plan, survey, body.closed, undone.value, last?.document.faults] as const),
          body.leftAsFrozen,
        );
        if (!closed)
          throw notAccepted(
            notAmong(undoneIn(plan, survey), undone.value).map((point) => ({
              code: point.what,
              path: `undone.${undoneId(point)}`,
              message: undoneSentence(point),
            })),
          );
        const sound = readClosedVisit(closed.visit);
        if (!sound.ok) throw notAccepted(apiFaults(sound.faults, ['visit']));
        const version = timer.version + 1;
        await database.update(
          Timer,
          { companyId, id: timerId },
          { survey: closed.survey, version },
        );
        await claimId(database, actor, VisitRow, id, 'visit');
        await database.insert(VisitRow, {
          companyId,
          id,
          timerId,
          personId,
          began: sound.value.began,
          document: sound.value,
        });
        // This visit fulfils the planned one.
        const day = parseDate(sound.value.closed.slice(0, 10));
        await database.query(
          'delete from stops where company_id = $1 and id = $2 and (day is null or day <= $3)',
          [companyId, timerId, day],
        );
        // Earlier changes cannot be undone any more, because the logbook entry relies on them.
        const { madeOn = null } = body;
        await written({ subject: 'timer', subjectId: timerId, version, madeOn });
        return { version };
      },
    });
  }
}
