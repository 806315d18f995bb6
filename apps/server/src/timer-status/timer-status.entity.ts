import { Check, Column, Entity, Index, JoinColumn, OneToOne, type Relation } from 'typeorm';
import type { EpochDay, TimerStatusWords, TimerStatus } from '@water-clock/core';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { oneOfWords } from '../platform/one-of.ts';
import { Timer } from '../sites/timer.entity.ts';

const VERDICTS = [
  'overlap',
  'breach',
  'supply',
  'incomplete',
  'empty',
  'clear',
] as const satisfies readonly TimerStatusWords['verdict'][];

/**
 * A timer as lists show, search and sort it, under the timer's id. The database maintains the cheap columns when the timer, site or rules
 * are written; the status is calculated afterwards. Days are epoch days.
 */
@Entity('timer_status')
@Check('timer_status_verdict_words', oneOfWords('verdict', VERDICTS))
// A trigram index, which TypeORM cannot express.
@Index('timer_status_search', { synchronize: false })
@Index('timer_status_stale', ['companyId', 'id'], { where: 'stale and listed' })
@Index('timer_status_until', ['companyId', 'timeZone', 'until'], { where: 'listed' })
@Index('timer_status_by_name', ['companyId', 'siteKey', 'id'], { where: 'listed' })
@Index('timer_status_of_site', ['companyId', 'siteId'])
@Index('timer_status_of_rules', ['companyId', 'rulesId'])
@Index('timer_status_counts', [
  ...['companyId', 'listed', 'verdict', 'breaches', 'overSupply', 'coming'],
  ...['next', 'underWay', 'timeZone'],
])
export class TimerStatusRow extends CompanyRow {
  @OneToOne(() => Timer, { onDelete: 'CASCADE' })
  @JoinColumn(inCompany('id', 'timer_status_of_timer'))
  timer: Relation<Timer>;

  @Column('uuid', { name: 'site_id' })
  siteId: string;

  /** Name of the site, lower case. */
  @Column('text', { name: 'site_key' })
  siteKey: string;

  /** Town, street and number, lower case. */
  @Column('text', { name: 'street_key' })
  streetKey: string;

  @Column('text', { name: 'time_zone' })
  timeZone: string;

  @Column('uuid', { name: 'person_id', nullable: true })
  personId: string | null;

  @Column('uuid', { name: 'rules_id', nullable: true })
  rulesId: string | null;

  /** Neither the timer nor its site is archived. */
  @Column('boolean')
  listed: boolean;

  /** Name of the timer. */
  @Column('text')
  name: string;

  @Column('smallint')
  stations: number;

  @Column('smallint')
  programs: number;

  /** A visit is open. */
  @Column('boolean', { name: 'under_way' })
  underWay: boolean;

  /** Counts changes of everything the status depends on. */
  @Column('integer', { default: 1 })
  mark: number;

  /** Not recalculated since the last change. A row that is not stale is valid for its dates. */
  @Column('boolean', { default: true })
  stale: boolean;

  /** A server is working on it until then. */
  @Column('timestamptz', { name: 'claimed_until', nullable: true })
  claimedUntil: Date | null;

  /** Release that calculated it. */
  @Column('text', { default: '' })
  engine: string;

  /** First and last date for which it is valid. */
  @Column('integer', { name: 'from_day', default: 0 })
  from: EpochDay;

  @Column('integer', { name: 'until_day', default: -1 })
  until: EpochDay;

  /** Null: never calculated. */
  @Column('jsonb', { nullable: true })
  status: TimerStatus | null;

  /** All searchable words, folded. */
  @Column('text', { default: '' })
  search: string;

  @Column('text', { default: '' })
  town: string;

  @Column('text', { nullable: true })
  verdict: TimerStatusWords['verdict'] | null;

  @Column('smallint', { default: 0 })
  breaches: number;

  /** Stations take more than the supply gives. */
  @Column('boolean', { name: 'over_supply', default: false })
  overSupply: boolean;

  /** Highest percent without an overlap; null: none, or any. */
  @Column('integer', { nullable: true })
  headroom: number | null;

  /** First date with trouble: an overlap, a breach, too much for the supply, or a breach of announced rules. */
  @Column('integer', { name: 'trouble_day', nullable: true })
  trouble: EpochDay | null;

  /** Date from which announced rules are broken. */
  @Column('integer', { name: 'coming_day', nullable: true })
  coming: EpochDay | null;

  /** Next due visit. */
  @Column('integer', { name: 'next_day', nullable: true })
  next: EpochDay | null;

  @Column('integer', { name: 'battery_day', nullable: true })
  battery: EpochDay | null;

  /** Start of the last closed visit. */
  @Column('integer', { name: 'last_visit', nullable: true })
  lastVisit: EpochDay | null;
}
