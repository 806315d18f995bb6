import {
  Column,
  Entity,
  Generated,
  Index,
  JoinColumn,
  ManyToOne,
  PrimaryColumn,
  type Relation,
} from 'typeorm';
import { Person } from '../identity/person.entity.ts';
import { inCompany } from '../platform/in-company.ts';

/** A signed-in browser. The cookie holds a random token; the row holds only its SHA-256. */
@Entity('sessions')
@Index('sessions_of_person', ['companyId', 'personId'])
export class Session {
  @PrimaryColumn('text', { name: 'token_hash' })
  tokenHash: string;

  /** Names the session in lists; gives no access. */
  @Column('uuid')
  @Generated('uuid')
  id: string;

  @Column('uuid', { name: 'company_id' })
  companyId: string;

  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'sessions_person'))
  person: Relation<Person>;

  @Column('timestamptz', { name: 'expires_at' })
  expiresAt: Date;

  /** Last use, to within a few minutes. */
  @Column('timestamptz', { name: 'seen_at', default: () => 'now()' })
  seenAt: Date;

  /** When the password was last given. */
  @Column('timestamptz', { name: 'confirmed_at', default: () => 'now()' })
  confirmedAt: Date;

  @Column('timestamptz', { default: () => 'now()' })
  at: Date;

  /** User agent. */
  @Column('text', { default: '' })
  device: string;

  /** Network address at sign-in. */
  @Column('text', { nullable: true })
  address: string | null;
}
