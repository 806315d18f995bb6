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

/** Why timers are replanned: the rules changed, or the month did. */
const AIMS = ['rules', 'percent'] as const;
export type Aim = (typeof AIMS)[number];

/** Timers replanned together. */
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

  /** The person who asked for it, and the author of its suggestions. */
  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'replans_person'))
  person: Relation<Person>;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;
}

/** `fits`: nothing to change; `none`: no plan exists or none was found. */
const REPLAN_STATES = ['waiting', 'fits', 'none', 'proposed'] as const;
export type ReplanState = (typeof REPLAN_STATES)[number];

/** One timer of a replan. */
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

  /** Number of settings to change at the timer. */
  @Column('smallint', { nullable: true })
  lines: number | null;

  /** Date from which the timer must have it. */
  @Column('integer', { name: 'from_day', nullable: true })
  from: EpochDay | null;

  @Column('uuid', { name: 'proposal_id', nullable: true })
  proposalId: string | null;

  @ManyToOne(() => Proposal, { onDelete: 'CASCADE' })
  @JoinColumn(inCompany('proposal_id', 'replan_timers_proposal'))
  proposal: Relation<Proposal> | null;

  /** Who asked to accept it, until it is accepted. */
  @Column('uuid', { name: 'accepting_person_id', nullable: true })
  acceptingPersonId: string | null;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('accepting_person_id', 'replan_timers_accepting_person'))
  acceptingPerson: Relation<Person> | null;

  /** Why "Accept all" failed on it; empty if it did not. */
  @Column('text', { default: '' })
  trouble: string;

  /** A server is working on it until then. */
  @Column('timestamptz', { name: 'claimed_until', nullable: true })
  claimedUntil: Date | null;
}
