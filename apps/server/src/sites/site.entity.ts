import { Column, Entity, JoinColumn, ManyToOne, PrimaryColumn, type Relation } from 'typeorm';
import type { ClockStyle, Contact, Supply, UnitSystem, Weekday } from '@water-clock/core';
import { Company } from '../people/company.entity.ts';

/** A house with its timers. */
@Entity('sites')
export class Site {
  @PrimaryColumn('uuid', { name: 'company_id' })
  companyId: string;

  @ManyToOne(() => Company)
  @JoinColumn({ name: 'company_id', foreignKeyConstraintName: 'sites_company' })
  company: Relation<Company>;

  @PrimaryColumn('uuid')
  id: string;

  /** Counts the changes of this row; a write names the one that it was based on. */
  @Column('integer')
  version: number;

  @Column('text')
  name: string;

  @Column('text', { name: 'house_number', nullable: true })
  houseNumber: string | null;

  /** IANA name. */
  @Column('text', { name: 'time_zone' })
  timeZone: string;

  /** Degrees north. */
  @Column('double precision', { nullable: true })
  latitude: number | null;

  /** Degrees east. */
  @Column('double precision', { nullable: true })
  longitude: number | null;

  /** Where its water comes from; null: not noted. */
  @Column('text', { nullable: true })
  supply: Supply | null;

  /** Weekdays on which its lawns are mown. */
  @Column('text', { array: true, default: '{}' })
  mowing: Weekday[];

  @Column('text', { default: '' })
  notes: string;

  @Column('jsonb', { default: [] })
  people: Contact[];

  /** Units in which it is shown; null: as the person likes. */
  @Column('text', { nullable: true })
  units: UnitSystem | null;

  /** Hours in which it is shown; null: as the person likes. */
  @Column('text', { name: 'clock_style', nullable: true })
  clockStyle: ClockStyle | null;

  /** Its weather: a town of the feed, or a climate of the library. */
  @Column('text', { nullable: true })
  place: string | null;

  /** The watering rules of the library that hold for it. */
  @Column('uuid', { name: 'rules_id', nullable: true })
  rulesId: string | null;

  /** The library's table of minutes that it goes by; null: the one that ships. */
  @Column('uuid', { name: 'minutes_id', nullable: true })
  minutesId: string | null;
}
