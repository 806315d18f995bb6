import { Column, Entity, JoinColumn, OneToOne, type Relation } from 'typeorm';
import type { EpochDay, TimerStanding } from '@water-clock/core';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { Timer } from './timer.entity.ts';

/** How a timer stands, kept under the timer's own id so that no list works it out again. */
@Entity('standings')
export class StandingRow extends CompanyRow {
  @OneToOne(() => Timer, { onDelete: 'CASCADE' })
  @JoinColumn(inCompany('id', 'standings_of_timer'))
  timer: Relation<Timer>;

  /** What it was worked out from: as long as that is the same, it holds. */
  @Column('text')
  basis: string;

  /** The first date for which it holds, as an epoch day; the standing says the last. */
  @Column('integer', { name: 'from_day', default: 0 })
  from: EpochDay;

  @Column('jsonb')
  standing: TimerStanding;
}
