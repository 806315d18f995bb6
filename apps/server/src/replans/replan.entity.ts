import {
  Check,
  Column,
  CreateDateColumn,
  Entity,
  Index,
  JoinColumn,
  ManyToOne,
  type Relation,
} from 'typeorm';
import type { EpochDay } from '@water-clock/core';
import { LibraryEntry } from '../library/library-entry.entity.ts';
import { Person } from '../identity/person.entity.ts';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { oneOfWords } from '../platform/one-of.ts';
import { Proposal } from '../proposals/proposal.entity.ts';
import { Timer } from '../sites/timer.entity.ts';

/** Why many timers are planned anew: the rules of their place have changed, or the month has. */
const AIMS = ['rules', 'percent'] as const;
export type Aim = (typeof AIMS)[number];

/** Many timers that are planned anew together. */
@Entity('replans')
@Check('replans_aim_words', oneOfWords('aim', AIMS))
@Index('replans_by_age', ['companyId', 'at'])
@Index('replans_of_person', ['companyId', 'personId'])
@Index('replans_by_rules', ['companyId', 'rulesId'])
export class Replan extends CompanyRow {
  @Column('text')
  aim: Aim;

  @Column('uuid', { name: 'rules_id', nullable: true })
  rulesId: string | null;

  @ManyToOne(() => LibraryEntry, { onDelete: 'SET NULL' })
  @JoinColumn(inCompany('rules_id', 'replans_rules'))
  rules: Relation<LibraryEntry> | null;

  /** 1 to 12. */
  @Column('smallint', { nullable: true })
  month: number | null;

  /** Who asked for it, and so proposes what comes of it. */
  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'replans_person'))
  person: Relation<Person>;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;
}

/** `fits`: nothing is to be changed; `none`: there is no plan, or none was found. */
const REPLAN_STATES = ['waiting', 'fits', 'none', 'proposed'] as const;
export type ReplanState = (typeof REPLAN_STATES)[number];

/** One of them. */
@Entity('replan_timers')
@Check('replan_timers_state_words', oneOfWords('state', REPLAN_STATES))
@Index('replan_timers_by_replan', ['companyId', 'replanId'])
@Index('replan_timers_by_timer', ['companyId', 'timerId'])
@Index('replan_timers_by_proposal', ['companyId', 'proposalId'])
@Index('replan_timers_accepting', ['companyId', 'acceptingPersonId'], {
  where: 'accepting_person_id is not null',
})
@Index('replan_timers_waiting', ['companyId', 'id'], { where: `state = 'waiting'` })
export class ReplanTimer extends CompanyRow {
  @Column('uuid', { name: 'replan_id' })
  replanId: string;

  @ManyToOne(() => Replan, { onDelete: 'CASCADE' })
  @JoinColumn(inCompany('replan_id', 'replan_timers_of_replan'))
  replan: Relation<Replan>;

  @Column('uuid', { name: 'timer_id' })
  timerId: string;

  @ManyToOne(() => Timer, { onDelete: 'CASCADE' })
  @JoinColumn(inCompany('timer_id', 'replan_timers_of_timer'))
  timer: Relation<Timer>;

  @Column('text', { default: 'waiting' })
  state: ReplanState;

  /** One sentence for the office. */
  @Column('text', { default: '' })
  why: string;

  /** Settings that somebody at the box changes. */
  @Column('smallint', { nullable: true })
  lines: number | null;

  /** From when on it has to stand in the timer. */
  @Column('integer', { name: 'from_day', nullable: true })
  from: EpochDay | null;

  @Column('uuid', { name: 'proposal_id', nullable: true })
  proposalId: string | null;

  @ManyToOne(() => Proposal, { onDelete: 'CASCADE' })
  @JoinColumn(inCompany('proposal_id', 'replan_timers_proposal'))
  proposal: Relation<Proposal> | null;

  /** Who has asked for it to be accepted, until it is. */
  @Column('uuid', { name: 'accepting_person_id', nullable: true })
  acceptingPersonId: string | null;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('accepting_person_id', 'replan_timers_accepting_person'))
  acceptingPerson: Relation<Person> | null;

  /** Why it could not be accepted with all others; empty: it could, or nobody tried. */
  @Column('text', { default: '' })
  trouble: string;

  /** Until then some server is at it. */
  @Column('timestamptz', { name: 'claimed_until', nullable: true })
  claimedUntil: Date | null;
}
