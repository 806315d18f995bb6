import { Check, Column, Entity, Index, JoinColumn, ManyToOne, type Relation } from 'typeorm';
import {
  CLOCK_STYLES,
  LANGUAGES,
  SUPPLIES,
  UNIT_SYSTEMS,
  WEEKDAYS,
  type ClockStyle,
  type Contact,
  type Language,
  type SiteFields,
  type Supply,
  type UnitSystem,
  type Weekday,
} from '@water-clock/core';
import { LibraryEntry } from '../library/library-entry.entity.ts';
import { Company } from '../identity/company.entity.ts';
import { Person } from '../identity/person.entity.ts';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { oneOfWords } from '../platform/one-of.ts';

/** A site: core's `SiteFields` as columns. */
@Entity('sites')
@Check('sites_supply_words', oneOfWords('supply', SUPPLIES))
@Check('sites_mowing', `mowing <@ array[${WEEKDAYS.map((day) => `'${day}'`).join(', ')}]`)
@Check('sites_units_words', oneOfWords('units', UNIT_SYSTEMS))
@Check('sites_clock_style_words', oneOfWords('clock_style', CLOCK_STYLES))
@Check('sites_language_words', oneOfWords('language', LANGUAGES))
@Check('sites_one_weather', 'town is null or climate_id is null')
@Index('sites_by_rules', ['companyId', 'rulesId'])
@Index('sites_by_minutes', ['companyId', 'minutesId'])
@Index('sites_by_person', ['companyId', 'personId'])
@Index('sites_by_climate', ['companyId', 'climateId'])
export class Site extends CompanyRow implements SiteFields {
  @ManyToOne(() => Company)
  @JoinColumn({ name: 'company_id', foreignKeyConstraintName: 'sites_company' })
  company: Relation<Company>;

  /** Version of this row; a write names the one it is based on. */
  @Column('integer')
  version: number;

  @Column('text')
  name: string;

  @Column('text', { name: 'house_number', nullable: true })
  houseNumber: string | null;

  @Column('text', { nullable: true })
  street: string | null;

  @Column('text', { nullable: true })
  locality: string | null;

  @Column('text', { name: 'time_zone' })
  timeZone: string;

  @Column('double precision', { nullable: true })
  latitude: number | null;

  @Column('double precision', { nullable: true })
  longitude: number | null;

  @Column('text', { nullable: true })
  supply: Supply | null;

  @Column('double precision', { name: 'supply_flow', nullable: true })
  supplyFlow: number | null;

  @Column('text', { array: true, default: '{}' })
  mowing: Weekday[];

  @Column('text', { default: '' })
  notes: string;

  @Column('jsonb', { default: [] })
  people: Contact[];

  @Column('text', { nullable: true })
  units: UnitSystem | null;

  @Column('text', { name: 'clock_style', nullable: true })
  clockStyle: ClockStyle | null;

  @Column('text', { nullable: true })
  language: Language | null;

  @Column('text', { nullable: true })
  town: string | null;

  @Column('uuid', { name: 'climate_id', nullable: true })
  climateId: string | null;

  @ManyToOne(() => LibraryEntry)
  @JoinColumn(inCompany('climate_id', 'sites_climate'))
  climate: Relation<LibraryEntry> | null;

  @Column('uuid', { name: 'rules_id', nullable: true })
  rulesId: string | null;

  @ManyToOne(() => LibraryEntry)
  @JoinColumn(inCompany('rules_id', 'sites_rules'))
  rules: Relation<LibraryEntry> | null;

  @Column('uuid', { name: 'minutes_id', nullable: true })
  minutesId: string | null;

  @ManyToOne(() => LibraryEntry)
  @JoinColumn(inCompany('minutes_id', 'sites_minutes'))
  minutes: Relation<LibraryEntry> | null;

  /** Person who looks after it; null: no one in particular. */
  @Column('uuid', { name: 'person_id', nullable: true })
  personId: string | null;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'sites_person'))
  person: Relation<Person> | null;

  /** Archived: listed only on request. */
  @Column('timestamptz', { name: 'archived_at', nullable: true })
  archivedAt: Date | null;
}
