import {
  Column,
  CreateDateColumn,
  Entity,
  Index,
  JoinColumn,
  ManyToOne,
  type Relation,
} from 'typeorm';
import type { ClosedVisit } from '@water-clock/core';
import { Person } from '../identity/person.entity.ts';
import { Timer } from '../sites/timer.entity.ts';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';

const two = (n: number) => String(n).padStart(2, '0');

/** A local time as documents write it. The driver would return it in the server's zone. */
const civilText = (at: Date) =>
  `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}T${two(at.getHours())}:${two(at.getMinutes())}`;

/** A closed visit. Never updated or deleted. */
@Entity('visits')
@Index('visits_of_person', ['companyId', 'personId'])
@Index('visits_by_time', ['companyId', 'began'])
@Index('visits_timer', ['companyId', 'timerId', 'began'])
export class VisitRow extends CompanyRow {
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

  /** Local time at the site, `YYYY-MM-DDTHH:MM`: the order of the logbook. */
  @Column('timestamp', { transformer: { to: (text: string) => text, from: civilText } })
  began: string;

  @Column('jsonb')
  document: ClosedVisit;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;
}
