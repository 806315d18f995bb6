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

/** One attempt at a bench task. Never updated. */
@Entity('practice_results')
@Index('practice_results_by_person', ['companyId', 'personId', 'task'])
export class PracticeResult extends CompanyRow {
  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'practice_results_person'))
  person: Relation<Person>;

  @Column('text')
  task: string;

  @Column('text')
  title: string;

  @Column('integer')
  points: number;

  @Column('integer')
  presses: number;

  @Column('integer')
  seconds: number;

  @Column('integer')
  hints: number;

  @Column('integer')
  tries: number;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;
}
