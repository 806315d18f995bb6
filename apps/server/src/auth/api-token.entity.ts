import {
  Column,
  CreateDateColumn,
  Entity,
  Index,
  JoinColumn,
  ManyToOne,
  type Relation,
} from 'typeorm';
import { CompanyRow } from '../platform/company-row.ts';
import { inCompany } from '../platform/in-company.ts';
import { Person } from '../identity/person.entity.ts';

/** By it a program of somebody's uses the API as they may. */
@Entity('api_tokens')
@Index('api_tokens_of_person', ['companyId', 'personId'])
export class ApiToken extends CompanyRow {
  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'api_tokens_person'))
  person: Relation<Person>;

  /** What it is for. */
  @Column('text')
  name: string;

  /** SHA-256 of the token: what is in the database opens nothing. */
  @Index('api_tokens_token', { unique: true })
  @Column('text', { name: 'token_hash' })
  tokenHash: string;

  @Column('timestamptz', { name: 'expires_at' })
  expiresAt: Date;

  /** When it was last used, to within some minutes. */
  @Column('timestamptz', { name: 'used_at', nullable: true })
  usedAt: Date | null;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;
}
