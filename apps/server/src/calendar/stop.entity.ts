import { Column, Entity, Index, JoinColumn, ManyToOne, OneToOne, type Relation } from 'typeorm';
import type { EpochDay } from '@water-clock/core';
import { Person } from '../identity/person.entity.ts';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { Timer } from '../sites/timer.entity.ts';

/** The next visit to a timer as the office plans it, under the timer's own id: it takes the place of what is due until then. */
@Entity('stops')
@Index('stops_by_day', ['companyId', 'day'])
@Index('stops_by_person', ['companyId', 'personId'])
export class Stop extends CompanyRow {
  @OneToOne(() => Timer, { onDelete: 'CASCADE' })
  @JoinColumn(inCompany('id', 'stops_of_timer'))
  timer: Relation<Timer>;

  /** Counts its changes; 0 is one that was never planned. */
  @Column('integer')
  version: number;

  /** Null: some day. */
  @Column('integer', { nullable: true })
  day: EpochDay | null;

  /** Who goes; null: who looks after the house. */
  @Column('uuid', { name: 'person_id', nullable: true })
  personId: string | null;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'stops_person'))
  person: Relation<Person> | null;

  @Column('text', { default: '' })
  note: string;
}

/** The order of a day's visits, of one person or of all. */
@Entity('day_orders')
// Of all is of nobody: two of those would be two orders, which the library cannot say.
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

/** The address of a person's calendar, under the person's own id. */
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
