import { Check, Column, Entity, PrimaryColumn } from 'typeorm';

/** A company of technicians. Every other row belongs to one. */
@Entity('companies')
@Check('companies_keep_changes', 'keep_changes_days between 90 and 3650')
export class Company {
  @PrimaryColumn('uuid')
  id: string;

  @Column('text')
  name: string;

  /** Version of the settings. */
  @Column('integer', { default: 1 })
  version: number;

  /** Days after which old changes are thinned out; null: never. */
  @Column('integer', { name: 'keep_changes_days', nullable: true })
  keepChangesDays: number | null;
}
