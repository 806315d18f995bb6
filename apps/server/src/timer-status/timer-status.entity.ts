import { Check, Column, Entity, Index, JoinColumn, OneToOne, type Relation } from 'typeorm';
import type { EpochDay, TimerStatusWords, TimerStatus } from '@water-clock/core';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { oneOfWords } from '../platform/one-of.ts';
import { Timer } from '../sites/timer.entity.ts';

const VERDICTS = [
  'overlap',
  'breach',
  'incomplete',
  'empty',
  'clear',
] as const satisfies readonly TimerStatusWords['verdict'][];

/**
 * A timer as lists show it, seek it and sort it, under the timer's own id. What costs nothing to know the database itself keeps up to date as
 * the timer, its site or its rules are written; how it stands is worked out after that. Days are epoch days.
 */
@Entity('timer_status')
@Check('timer_status_verdict_words', oneOfWords('verdict', VERDICTS))
// Of trigrams, which the library cannot say.
@Index('timer_status_search', { synchronize: false })
@Index('timer_status_stale', ['companyId', 'id'], { where: 'stale and listed' })
@Index('timer_status_until', ['companyId', 'timeZone', 'until'], { where: 'listed' })
@Index('timer_status_by_name', ['companyId', 'siteKey', 'id'], { where: 'listed' })
@Index('timer_status_of_site', ['companyId', 'siteId'])
@Index('timer_status_of_rules', ['companyId', 'rulesId'])
@Index('timer_status_counts', [
  ...['companyId', 'listed', 'verdict', 'coming', 'next', 'underWay', 'timeZone'],
])
export class TimerStatusRow extends CompanyRow {
  @OneToOne(() => Timer, { onDelete: 'CASCADE' })
  @JoinColumn(inCompany('id', 'timer_status_of_timer'))
  timer: Relation<Timer>;

  @Column('uuid', { name: 'site_id' })
  siteId: string;

  /** The house's name in small letters. */
  @Column('text', { name: 'site_key' })
  siteKey: string;

  /** Town, street and number in small letters. */
  @Column('text', { name: 'street_key' })
  streetKey: string;

  @Column('text', { name: 'time_zone' })
  timeZone: string;

  @Column('uuid', { name: 'person_id', nullable: true })
  personId: string | null;

  @Column('uuid', { name: 'rules_id', nullable: true })
  rulesId: string | null;

  /** Neither the timer nor its house is put away. */
  @Column('boolean')
  listed: boolean;

  /** What the timer is called. */
  @Column('text')
  name: string;

  @Column('smallint')
  stations: number;

  @Column('smallint')
  programs: number;

  /** A visit was begun and is not closed. */
  @Column('boolean', { name: 'under_way' })
  underWay: boolean;

  /** Counts the changes of all that it depends on. */
  @Column('integer', { default: 1 })
  mark: number;

  /** It was not worked out since the last of them. What is not stale holds for its dates. */
  @Column('boolean', { default: true })
  stale: boolean;

  /** Until then some server is at it. */
  @Column('timestamptz', { name: 'claimed_until', nullable: true })
  claimedUntil: Date | null;

  /** Which release worked it out. */
  @Column('text', { default: '' })
  engine: string;

  /** The first and the last date for which it holds. */
  @Column('integer', { name: 'from_day', default: 0 })
  from: EpochDay;

  @Column('integer', { name: 'until_day', default: -1 })
  until: EpochDay;

  /** Null: never worked out. */
  @Column('jsonb', { nullable: true })
  status: TimerStatus | null;

  /** All words by which it is found, folded. */
  @Column('text', { default: '' })
  search: string;

  @Column('text', { default: '' })
  town: string;

  @Column('text', { nullable: true })
  verdict: TimerStatusWords['verdict'] | null;

  @Column('smallint', { default: 0 })
  breaches: number;

  /** The highest percent at which nothing overlaps; null: none, or any. */
  @Column('integer', { nullable: true })
  headroom: number | null;

  /** The first date of trouble: an overlap, a breach, or rules to come that it breaks. */
  @Column('integer', { name: 'trouble_day', nullable: true })
  trouble: EpochDay | null;

  /** From when on announced rules are broken. */
  @Column('integer', { name: 'coming_day', nullable: true })
  coming: EpochDay | null;

  /** When somebody has to come back next. */
  @Column('integer', { name: 'next_day', nullable: true })
  next: EpochDay | null;

  @Column('integer', { name: 'battery_day', nullable: true })
  battery: EpochDay | null;

  /** When the last closed visit began. */
  @Column('integer', { name: 'last_visit', nullable: true })
  lastVisit: EpochDay | null;
}
