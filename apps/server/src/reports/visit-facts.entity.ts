import { Column, Entity, JoinColumn, OneToOne, type Relation } from 'typeorm';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { VisitRow } from '../visits/visit.entity.ts';

/** What a visit changed, in numbers, under the visit's id. Null: not known. Hours and litres are yearly. */
@Entity('visit_facts')
export class VisitFactsRow extends CompanyRow {
  @OneToOne(() => VisitRow, { onDelete: 'CASCADE' })
  @JoinColumn(inCompany('id', 'visit_facts_of_visit'))
  visit: Relation<VisitRow>;

  @Column('double precision', { name: 'found_hours', nullable: true })
  foundHours: number | null;

  @Column('double precision', { name: 'left_hours', nullable: true })
  leftHours: number | null;

  @Column('double precision', { name: 'found_litres', nullable: true })
  foundLitres: number | null;

  @Column('double precision', { name: 'left_litres', nullable: true })
  leftLitres: number | null;

  @Column('integer', { name: 'found_overlaps', nullable: true })
  foundOverlaps: number | null;

  @Column('integer', { name: 'left_overlaps', nullable: true })
  leftOverlaps: number | null;
}
