import { randomUUID } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import {
  formatDate,
  MOST_BY_PHONE,
  ruleTroubleWords,
  type EpochDay,
  type Speech,
  type TimerStatus,
} from '@water-clock/core';
import { DataSource, IsNull, Not, type EntityManager } from 'typeorm';
import { idempotentWrite } from '../changes/record.ts';
import { LibraryEntry } from '../library/library-entry.entity.ts';
import type { Actor } from '../identity/actor.ts';
import { notAccepted, notFound } from '../http/api-error.ts';
import { todayIn } from '../sites/today.ts';
import type { ProposalState } from '../proposals/proposal.entity.ts';
import type { ReplanBody, ReplanQuery } from './replan-body.ts';
import { Replan, type Aim, type ReplanState } from './replan.entity.ts';
import { ReplanningService } from './replanning.service.ts';

interface ReplanCounts {
  readonly all: number;
  readonly waiting: number;
  /** Nothing to change. */
  readonly fits: number;
  /** To tell by phone or by a visit; not decided yet. */
  readonly phone: number;
  readonly visit: number;
  /** No plan found. */
  readonly open: number;
  /** Accepted or declined. */
  readonly done: number;
  /** Being accepted by "Accept all". */
  readonly accepting: number;
  /** "Accept all" failed; still waiting for an answer. */
  readonly troubled: number;
}

export interface ReplanView {
  readonly id: string;
  readonly aim: Aim;
  readonly rulesId: string | null;
  /** Name of the rules. */
  readonly rules: string | null;
  readonly month: number | null;
  readonly by: string;
  readonly at: string;
  readonly counts: ReplanCounts;
}

interface ReplanLine {
  readonly id: string;
  readonly timerId: string;
  readonly timer: string;
  readonly site: string;
  readonly houseNumber: string | null;
  readonly street: string | null;
  readonly town: string;
  readonly person: string;
  readonly phone: string;
  readonly state: ReplanState;
  /** Rule that the current settings break; empty: none. */
  readonly reason: string;
  readonly why: string;
  /** Why "Accept all" failed on it; empty if it did not. */
  readonly trouble: string;
  readonly lines: number | null;
  /** `YYYY-MM-DD`. */
  readonly from: string | null;
  readonly proposal: { readonly id: string; readonly state: ProposalState } | null;
}

export type ReplanPage = ReplanView & {
  readonly total: number;
  readonly lines: readonly ReplanLine[];
};

/** Only the newest replans are listed. */
const MOST_LISTED = 20;
const PAGE = 50;

const TABLES = `replan_timers i
  join timer_status st on st.company_id = i.company_id and st.id = i.timer_id
  join sites s on s.company_id = st.company_id and s.id = st.site_id
  left join proposals p on p.company_id = i.company_id and p.id = i.proposal_id`;
const WAITS = `i.state = 'proposed' and p.state = 'sent'`;
const BY_PHONE = `i.lines <= ${MOST_BY_PHONE} and coalesce(s.people -> 0 ->> 'phone', '') <> ''`;
const CONDITIONS: Readonly<Record<keyof ReplanCounts, string>> = {
  all: 'true',
  waiting: `i.state = 'waiting'`,
  fits: `i.state = 'fits'`,
  phone: `${WAITS} and ${BY_PHONE}`,
  visit: `${WAITS} and not (${BY_PHONE})`,
  open: `i.state = 'none'`,
  done: `i.state = 'proposed' and p.state <> 'sent'`,
  accepting: `i.accepting_person_id is not null`,
  troubled: `${WAITS} and i.trouble <> ''`,
};
const COUNTS = Object.entries(CONDITIONS)
  .map(([name, condition]) => `count(*) filter (where ${condition})::int as "${name}"`)
  .join(', ');

interface Row {
  readonly id: string;
  readonly timer_id: string;
  readonly timer: string;
  readonly site: string;
  readonly house_number: string | null;
  readonly street: string | null;
  readonly town: string;
  readonly person: string | null;
  readonly phone: string | null;
  readonly state: ReplanState;
  readonly why: string;
  readonly trouble: string;
  readonly lines: number | null;
  readonly from_day: EpochDay | null;
  readonly status: TimerStatus | null;
  readonly time_zone: string;
  readonly proposal_id: string | null;
  readonly proposal_state: ProposalState | null;
}

const lineOf = (row: Row, style: Pick<Speech, 'clock' | 'order'>, now: Date): ReplanLine => ({
  id: row.id,
  timerId: row.timer_id,
  timer: row.timer,
  site: row.site,
  houseNumber: row.house_number,
  street: row.street,
  town: row.town,
  person: row.person ?? '',
  phone: row.phone ?? '',
  state: row.state,
  reason: row.status
    ? ruleTroubleWords(row.status, { on: todayIn(row.time_zone, now), ...style })
    : '',
  why: row.why,
  trouble: row.trouble,
  lines: row.lines,
  from: row.from_day === null ? null : formatDate(row.from_day),
  proposal:
    row.proposal_id && row.proposal_state
      ? { id: row.proposal_id, state: row.proposal_state }
      : null,
});

/** Replans and what became of each timer. */
@Injectable()
export class ReplansService {
  constructor(
    private readonly database: DataSource,
    private readonly replanning: ReplanningService,
  ) {}

  async add(actor: Actor, { id: given, rulesId, month }: ReplanBody): Promise<{ timers: number }> {
    const { companyId, personId } = actor;
    const id = given.toLowerCase();
    if ((rulesId === undefined) === (month === undefined))
      throw notAccepted([
        { code: 'missing', path: 'rulesId', message: 'send the rules, or the month' },
      ]);
    const answer = await idempotentWrite(this.database, actor, {
      id,
      meaning: ['replan', rulesId ?? null, month ?? null],
      again: async (_earlier, database) => ({
        timers: await database.countBy('replan_timers', { companyId, replanId: id }),
      }),
      make: async (database, written) => {
        if (rulesId !== undefined) {
          const rules = {
            companyId,
            id: rulesId,
            shelf: 'rules',
            document: Not(IsNull()),
          } as const;
          if (!(await database.existsBy(LibraryEntry, rules))) throw notFound('document');
        }
        const aim: Aim = rulesId === undefined ? 'percent' : 'rules';
        await database.insert(Replan, {
          ...{ companyId, id, aim, personId, rulesId: rulesId ?? null, month: month ?? null },
        });
        const timers: { id: string }[] = await database.query(
          `select id from timer_status where company_id = $1 and listed
             and case when $2::uuid is null then verdict is distinct from 'empty'
               else rules_id = $2 and (breaches > 0 or coming_day is not null or stale) end`,
          [companyId, rulesId ?? null],
        );
        await database.query(
          `insert into replan_timers (company_id, id, replan_id, timer_id)
           select $1, * from unnest($2::uuid[], $3::uuid[], $4::uuid[])`,
          [
            companyId,
            timers.map(() => randomUUID()),
            timers.map(() => id),
            timers.map((timer) => timer.id),
          ],
        );
        await written({ subject: 'replan', subjectId: id, version: 1 });
        return { timers: timers.length };
      },
    });
    void this.replanning.soon(companyId);
    return answer;
  }

  async list({ companyId }: Actor): Promise<ReplanView[]> {
    const replans = await this.database.manager.find(Replan, {
      where: { companyId },
      relations: { person: true, rules: true },
      order: { at: 'desc' },
      take: MOST_LISTED,
    });
    return Promise.all(replans.map((replan) => this.view(replan)));
  }

  async one(
    { companyId }: Actor,
    id: string,
    { show = 'all', page = 1, clock = '24', order }: ReplanQuery,
  ): Promise<ReplanPage> {
    // Read lines and counts in one snapshot, since both change during planning.
    const { rows, view } = await this.database.transaction('REPEATABLE READ', async (database) => {
      const replan = await database.findOne(Replan, {
        where: { companyId, id },
        relations: { person: true, rules: true },
      });
      if (!replan) throw notFound('replan');
      const rows: Row[] = await database.query(
        `select i.id, i.timer_id, st.name as timer, s.name as site, s.house_number, s.street, st.town,
         s.people -> 0 ->> 'name' as person, s.people -> 0 ->> 'phone' as phone, i.state, i.why, i.trouble, i.lines, i.from_day, st.status, st.time_zone,
         p.id as proposal_id, p.state as proposal_state
       from ${TABLES} where i.company_id = $1 and i.replan_id = $2 and ${CONDITIONS[show]}
       order by st.street_key, st.site_key, i.id limit $3 offset $4`,
        [companyId, id, PAGE, (page - 1) * PAGE],
      );
      return { rows, view: await this.view(replan, database) };
    });
    const style = { clock, ...(order ? { order } : {}) };
    const now = new Date();
    const lines = rows.map((row) => lineOf(row, style, now));
    return { ...view, total: view.counts[show], lines };
  }

  private async view(
    replan: Replan,
    database: EntityManager = this.database.manager,
  ): Promise<ReplanView> {
    const { companyId, id, aim, rulesId, rules, month, person, at } = replan;
    const [counts]: ReplanCounts[] = await database.query(
      `select ${COUNTS} from ${TABLES} where i.company_id = $1 and i.replan_id = $2`,
      [companyId, id],
    );
    if (!counts) throw new Error('a count has no row');
    return {
      ...{ id, aim, rulesId, month, counts },
      // Safe cast: every document on this shelf has a name.
      rules: (rules?.document as { name: string } | null | undefined)?.name ?? null,
      by: person.name,
      at: at.toISOString(),
    };
  }
}
