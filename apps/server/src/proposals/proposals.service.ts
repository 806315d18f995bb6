import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import {
  applyRecordChange,
  readRecordChange,
  type Fault,
  type RecordChange,
  type TimerRecord,
  say,
} from '@water-clock/core';
import { DataSource, In, type EntityManager } from 'typeorm';
import { idempotentWrite, type Written } from '../changes/record.ts';
import { tell } from '../changes/tell.ts';
import type { Actor } from '../identity/actor.ts';
import { ApiError, apiFaults, notAccepted, notFound } from '../http/api-error.ts';
import { Timer } from '../sites/timer.entity.ts';
import type { ChangePlanBody } from '../timers/change-body.ts';
import { lockedTimer, refuseStale } from '../timers/timers.service.ts';
import type { AnswerProposalBody, MoveProposalBody } from './proposal-body.ts';
import type { LeftBehindBody } from './left-behind-body.ts';
import { Proposal, type ProposalState } from './proposal.entity.ts';

export interface ProposalView {
  readonly id: string;
  readonly personId: string;
  readonly by: string;
  readonly state: ProposalState;
  readonly version: number;
  readonly changes: readonly RecordChange[];
  readonly note: string;
  readonly answer: string;
  readonly answeredBy: string | null;
  /** ISO instant of the last step. */
  readonly movedAt: string;
}

const OPEN: readonly ProposalState[] = ['draft', 'sent'];
const MOST_CHANGES = 500;
/** How long the author sees an answer. */
const SHOWN_DAYS = 14;

const proposalView = (proposal: Proposal): ProposalView => ({
  id: proposal.id,
  personId: proposal.personId,
  by: proposal.person.name,
  state: proposal.state,
  version: proposal.version,
  changes: proposal.changes,
  note: proposal.note,
  answer: proposal.answer,
  answeredBy: proposal.answerer?.name ?? null,
  movedAt: proposal.movedAt.toISOString(),
});

/** What a step does to the suggestion, and the change it makes to the timer. */
interface Step {
  readonly columns: Partial<Pick<Proposal, 'state' | 'note' | 'answer' | 'answeredBy'>>;
  readonly change?: Written;
}

type Together =
  | { readonly ok: true; readonly record: TimerRecord }
  | { readonly ok: false; readonly faults: readonly Fault[] };

/** A record with changes applied in order. */
function withChanges(record: TimerRecord, changes: readonly RecordChange[]): Together {
  let made = record;
  for (const change of changes) {
    const applied = applyRecordChange(made, change);
    if (!applied.ok) return applied;
    ({ record: made } = applied.value);
  }
  return { ok: true, record: made };
}

/** A single undoable step. */
const asOne = (changes: readonly RecordChange[]): RecordChange => ({
  type: 'together',
  changes: changes.flatMap((change) => (change.type === 'together' ? change.changes : [change])),
});

/** 409 with the current suggestion. */
function staleProposal(
  { plan, survey }: Timer,
  changes: readonly RecordChange[],
  version: number,
  baseVersion: number,
): ApiError {
  const together = withChanges({ plan, survey }, changes);
  const record = together.ok ? together.record : { plan, survey };
  return new ApiError({
    code: 'stale-version',
    message: say`this suggestion was changed on another device: it is now at version ${version}; your change was based on version ${baseVersion}`,
    current: { version, ...record, by: null, at: null },
  });
}

/** An apprentice's changes to a timer, until someone accepts or declines them. */
/** Ways in which a suggestion is closed. */
function movedWords({ state, answerer }: Proposal): string {
  const by = answerer?.name;
  if (state === 'withdrawn') return say`this suggestion was already withdrawn`;
  if (state === 'accepted')
    return by === undefined
      ? say`this suggestion was already accepted`
      : say`${by} already accepted this suggestion`;
  return by === undefined
    ? say`this suggestion was already declined`
    : say`${by} already declined this suggestion`;
}

@Injectable()
export class ProposalsService {
  constructor(private readonly database: DataSource) {}

  /** Suggestions waiting for an answer; and one's own, open or recently answered. */
  async list({ companyId, personId }: Actor, timerId: string): Promise<readonly ProposalView[]> {
    if (!(await this.database.manager.existsBy(Timer, { companyId, id: timerId })))
      throw notFound('timer');
    const rows = await this.database.manager
      .createQueryBuilder(Proposal, 'proposal')
      .innerJoinAndSelect('proposal.person', 'person')
      .leftJoinAndSelect('proposal.answerer', 'answerer')
      .where('proposal.companyId = :companyId and proposal.timerId = :timerId', {
        companyId,
        timerId,
      })
      .andWhere(
        `(proposal.state = 'sent' or proposal.personId = :personId and (proposal.state = 'draft'
          or proposal.state in ('accepted', 'refused') and proposal.movedAt > now() - make_interval(days => :days)))`,
        { personId, days: SHOWN_DAYS },
      )
      .orderBy('proposal.movedAt', 'DESC')
      .getMany();
    return rows.map(proposalView);
  }

  /** Adds a change to one's open suggestion for a timer, creating it if needed. */
  async change(
    actor: Actor,
    timerId: string,
    { id, baseVersion, way, change: given }: ChangePlanBody,
  ): Promise<{ version: number }> {
    const { companyId, personId } = actor;
    const read = readRecordChange(given);
    if (!read.ok) throw notAccepted(apiFaults(read.faults, ['change']));
    const change = read.value;
    return idempotentWrite(this.database, actor, {
      id: id.toLowerCase(),
      meaning: ['proposal', timerId, baseVersion, way, change],
      again: ({ version }) => ({ version }),
      make: async (database, written) => {
        const timer = await lockedTimer(database, actor, timerId);
        const proposal = await database.findOneBy(Proposal, {
          ...{ companyId, timerId, personId },
          state: In(OPEN),
        });
        const { changes = [], version: before = 1 } = proposal ?? {};
        if (proposal?.state === 'sent')
          throw new ApiError({
            code: 'proposal-moved',
            message: say`this suggestion was sent; withdraw it before you change it`,
          });
        if (before !== baseVersion) throw staleProposal(timer, changes, before, baseVersion);
        if (changes.length >= MOST_CHANGES)
          throw notAccepted([
            {
              code: 'too-many',
              path: 'change',
              message: say`a suggestion can have ${MOST_CHANGES} changes; send this one and start another`,
            },
          ]);
        const made = [...changes, change];
        const together = withChanges(timer, made);
        if (!together.ok) throw notAccepted(apiFaults(together.faults, ['change']));
        const proposalId = proposal?.id ?? randomUUID();
        const version = before + 1;
        const row = { changes: made, version, movedAt: new Date() };
        if (proposal) await database.update(Proposal, { companyId, id: proposalId }, row);
        else
          await database.insert(Proposal, {
            ...{ companyId, id: proposalId, timerId, personId, state: 'draft', ...row },
          });
        await written({ subject: 'proposal', subjectId: proposalId, version });
        return { version };
      },
    });
  }

  /** Saves a removed person's waiting changes as a suggestion for the office. */
  async leaveBehind(
    leaver: Actor,
    { id, timerId, changes }: LeftBehindBody,
  ): Promise<{ changed: number }> {
    const { companyId, personId, personName } = leaver;
    const read = changes.map((change) => readRecordChange(change));
    const faulty = read.findIndex(({ ok }) => !ok);
    const [first] = read.slice(faulty === -1 ? read.length : faulty);
    if (first && !first.ok) throw notAccepted(apiFaults(first.faults, ['changes', faulty]));
    const entered = read.flatMap((one) => (one.ok ? [one.value] : []));
    const answer = { changed: entered.length };
    return idempotentWrite(this.database, leaver, {
      id: id.toLowerCase(),
      meaning: ['left-behind', timerId, entered],
      again: () => answer,
      make: async (database, written) => {
        const timer = await lockedTimer(database, leaver, timerId.toLowerCase());
        const open = await database.findOneBy(Proposal, {
          ...{ companyId, timerId: timer.id, personId },
          state: In(OPEN),
        });
        const proposalId = open?.id ?? randomUUID();
        const version = (open?.version ?? 1) + 1;
        const row = {
          changes: [...(open?.changes ?? []), ...entered],
          ...{ version, movedAt: new Date(), state: 'sent' as const },
          note: `Entered by ${personName} on a device without a network, and handed over after they were taken out of the company.`,
        };
        if (open) await database.update(Proposal, { companyId, id: proposalId }, row);
        else
          await database.insert(Proposal, {
            ...{ companyId, id: proposalId, timerId: timer.id, personId, ...row },
          });
        await written({ subject: 'proposal', subjectId: proposalId, version });
        await tell(database, { kind: 'proposals', companyId, timerId: timer.id });
        return answer;
      },
    });
  }

  /** The author sends, withdraws or discards a suggestion. */
  move(
    actor: Actor,
    id: string,
    { state, note, ...body }: MoveProposalBody,
  ): Promise<ProposalView> {
    const meaning = ['proposal-move', id, body.baseVersion, state, note];
    return this.step(actor, id, body.id, meaning, (_database, proposal) => {
      if (proposal.personId !== actor.personId) throw notFound('suggestion');
      if (proposal.version !== body.baseVersion)
        throw new ApiError({
          code: 'stale-version',
          message: say`this suggestion has changed; check it again`,
          current: proposalView(proposal),
        });
      return Promise.resolve({ columns: { state, note } });
    });
  }

  /** Accepts a suggestion, as one change by whoever accepts it, or declines it. The first answer counts. */
  answer(
    actor: Actor,
    id: string,
    { isAccepted, answer, ...body }: AnswerProposalBody,
  ): Promise<ProposalView> {
    const { companyId, personId } = actor;
    const meaning = ['proposal-answer', id, body.baseVersion, isAccepted, answer];
    return this.step(actor, id, body.id, meaning, async (database, proposal, timer) => {
      if (proposal.state !== 'sent') throw notFound('suggestion');
      const columns = { answer, answeredBy: personId } as const;
      if (!isAccepted) return { columns: { ...columns, state: 'refused' } };
      await refuseStale(database, timer, body.baseVersion);
      const change = asOne(proposal.changes);
      const applied = applyRecordChange({ plan: timer.plan, survey: timer.survey }, change);
      if (!applied.ok)
        throw new ApiError({
          ...{ code: 'not-accepted', faults: apiFaults(applied.faults, ['changes']) },
          message: say`settings have changed since; this suggestion no longer applies. Decline it and say why`,
        });
      const { record, inverse } = applied.value;
      const version = timer.version + 1;
      await database.update(Timer, { companyId, id: timer.id }, { ...record, version });
      return {
        columns: { ...columns, state: 'accepted' },
        change: { subject: 'timer', subjectId: timer.id, version, change, inverse },
      };
    });
  }

  private step(
    actor: Actor,
    id: string,
    write: string,
    meaning: readonly unknown[],
    make: (database: EntityManager, proposal: Proposal, timer: Timer) => Promise<Step>,
  ): Promise<ProposalView> {
    const { companyId } = actor;
    const one = async (database: EntityManager) =>
      database.findOne(Proposal, {
        where: { companyId, id },
        relations: { person: true, answerer: true },
      });
    return idempotentWrite(this.database, actor, {
      id: write.toLowerCase(),
      meaning,
      again: async (_earlier, database) => proposalView(seen(await one(database))),
      make: async (database, written) => {
        const asked = seen(await one(database));
        // Locking the timer's row locks its suggestions.
        const timer = await lockedTimer(database, actor, asked.timerId);
        const proposal = seen(await one(database));
        if (!OPEN.includes(proposal.state))
          throw new ApiError({
            code: 'proposal-moved',
            message: movedWords(proposal),
            current: proposalView(proposal),
          });
        const version = proposal.version + 1;
        const { columns, change } = await make(database, proposal, timer);
        const row = { ...columns, version, movedAt: new Date() };
        await database.update(Proposal, { companyId, id }, row);
        await written(change ?? { subject: 'proposal', subjectId: id, version });
        await tell(database, { kind: 'proposals', companyId, timerId: timer.id });
        return proposalView(seen(await one(database)));
      },
    });
  }
}

function seen(proposal: Proposal | null): Proposal {
  if (!proposal) throw notFound('suggestion');
  return proposal;
}
