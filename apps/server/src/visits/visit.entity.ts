import {
  Column,
  CreateDateColumn,
  Entity,
  Index,
  JoinColumn,
  ManyToOne,
  PrimaryColumn,
  type Relation,
} from 'typeorm';
import type { ClosedVisit } from '@water-clock/core';
import { Person } from '../people/person.entity.ts';
import { Timer } from '../timers/timer.entity.ts';
import { inCompany } from '../platform/in-company.ts';

/** A visit that was closed. Never altered, never deleted. */
@Entity('visits')
@Index('visits_timer', ['companyId', 'timerId', 'began'])
export class VisitRow {
  @PrimaryColumn('uuid', { name: 'company_id' })
  companyId: string;

  /** That of the write which closed it. */
  @PrimaryColumn('uuid')
  id: string;

  @Column('uuid', { name: 'timer_id' })
  timerId: string;

  @ManyToOne(() => Timer)
  @JoinColumn(inCompany('timer_id', 'visits_of_timer'))
  timer: Relation<Timer>;

  /** Who closed it. */
  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'visits_person'))
  person: Relation<Person>;

  /** By the house's clocks, `YYYY-MM-DDTHH:MM`: the order of the logbook. */
  @Column('text')
  began: string;

  @Column('jsonb')
  document: ClosedVisit;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;
}
