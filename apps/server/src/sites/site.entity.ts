import { Column, Entity, JoinColumn, ManyToOne, PrimaryColumn, type Relation } from 'typeorm';
import type { Supply, Weekday } from '@water-clock/core';
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
}
