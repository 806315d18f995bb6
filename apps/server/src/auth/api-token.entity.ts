import {
  Check,
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
import type { Scope } from '../identity/rights.ts';

/** A personal token, with which a program uses the API with its owner's rights. */
@Entity('api_tokens')
@Check(
  'api_tokens_scopes',
  `cardinality(scopes) > 0 and scopes <@ array['read', 'write', 'calendar']`,
)
@Index('api_tokens_of_person', ['companyId', 'personId'])
export class ApiToken extends CompanyRow {
  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'api_tokens_person'))
  person: Relation<Person>;

  /** What the person uses it for. */
  @Column('text')
  name: string;

  /** SHA-256 of the token, so that a leaked database gives no access. */
  @Index('api_tokens_token', { unique: true })
  @Column('text', { name: 'token_hash' })
  tokenHash: string;

  /** What it may be used for. */
  @Column('text', { array: true })
  scopes: Scope[];

  @Column('timestamptz', { name: 'expires_at' })
  expiresAt: Date;

  /** Last use, to within a few minutes. */
  @Column('timestamptz', { name: 'used_at', nullable: true })
  usedAt: Date | null;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;
}
