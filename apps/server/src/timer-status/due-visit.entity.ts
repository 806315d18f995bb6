import { Column, Entity, Index, JoinColumn, ManyToOne, type Relation } from 'typeorm';
import type { EpochDay, VisitReason } from '@water-clock/core';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { Timer } from '../sites/timer.entity.ts';

/** When a visit to a timer is due, calculated with its status. */
@Entity('due_visits')
@Index('due_visits_timer', ['companyId', 'timerId'])
@Index('due_visits_day', ['companyId', 'day'])
export class DueVisitRow extends CompanyRow {
  @Column('uuid', { name: 'timer_id' })
  timerId: string;

  @ManyToOne(() => Timer, { onDelete: 'CASCADE' })
  @JoinColumn(inCompany('timer_id', 'due_visits_of_timer'))
  timer: Relation<Timer>;

  @Column('integer')
  day: EpochDay;

  @Column('jsonb')
  reason: VisitReason;
}
