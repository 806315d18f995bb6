import {
  Column,
  CreateDateColumn,
  Entity,
  Index,
  JoinColumn,
  ManyToOne,
  type Relation,
} from 'typeorm';
import { Person } from '../identity/person.entity.ts';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { VisitRow } from './visit.entity.ts';

/** A colleague's comment on a visit. Never updated. */
@Entity('visit_comments')
@Index('visit_comments_by_visit', ['companyId', 'visitId', 'at'])
@Index('visit_comments_by_person', ['companyId', 'personId'])
export class VisitComment extends CompanyRow {
  @Column('uuid', { name: 'visit_id' })
  visitId: string;

  @ManyToOne(() => VisitRow, { onDelete: 'CASCADE' })
  @JoinColumn(inCompany('visit_id', 'visit_comments_of_visit'))
  visit: Relation<VisitRow>;

  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'visit_comments_person'))
  person: Relation<Person>;

  @Column('text')
  text: string;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;
}
