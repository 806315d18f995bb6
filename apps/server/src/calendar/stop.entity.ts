import { Column, Entity, Index, JoinColumn, ManyToOne, OneToOne, type Relation } from 'typeorm';
import type { EpochDay } from '@water-clock/core';
import { Person } from '../identity/person.entity.ts';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { Timer } from '../sites/timer.entity.ts';

/** The next planned visit to a timer, under the timer's id. It replaces what is due until then. */
@Entity('stops')
@Index('stops_by_day', ['companyId', 'day'])
@Index('stops_by_person', ['companyId', 'personId'])
export class Stop extends CompanyRow {
  @OneToOne(() => Timer, { onDelete: 'CASCADE' })
  @JoinColumn(inCompany('id', 'stops_of_timer'))
  timer: Relation<Timer>;

  /** Version; 0 for a visit never planned. */
  @Column('integer')
  version: number;

  /** Null: some day. */
  @Column('integer', { nullable: true })
  day: EpochDay | null;

  /** Who goes; null: the person who looks after the site. */
  @Column('uuid', { name: 'person_id', nullable: true })
  personId: string | null;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'stops_person'))
  person: Relation<Person> | null;

  @Column('text', { default: '' })
  note: string;
}

/** Order of a day's visits, for one person or for everyone. */
@Entity('day_orders')
// A row for everyone has no person. Two such rows must not exist, which TypeORM cannot express.
@Index('day_orders_of_day', { synchronize: false })
@Index('day_orders_by_person', ['companyId', 'personId'])
export class DayOrder extends CompanyRow {
  @Column('uuid', { name: 'person_id', nullable: true })
  personId: string | null;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'day_orders_person'))
  person: Relation<Person> | null;

  @Column('integer')
  day: EpochDay;

  @Column('integer')
  version: number;

  @Column('uuid', { name: 'timer_ids', array: true })
  timerIds: string[];
}

/** Address of a person's calendar, under the person's id. */
@Entity('calendar_links')
export class CalendarLink extends CompanyRow {
  @OneToOne(() => Person)
  @JoinColumn(inCompany('id', 'calendar_links_of_person'))
  person: Relation<Person>;

  @Index('calendar_links_token', { unique: true })
  @Column('text', { name: 'token_hash' })
  tokenHash: string;

  @Column('timestamptz', { name: 'made_at', default: () => 'now()' })
  madeAt: Date;
}
