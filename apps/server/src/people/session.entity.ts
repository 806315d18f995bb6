import { Column, Entity, JoinColumn, ManyToOne, PrimaryColumn, type Relation } from 'typeorm';
import { Person } from './person.entity.ts';

/** A signed-in browser. The cookie holds a random token; only its SHA-256 is kept here. */
@Entity('sessions')
export class Session {
  @PrimaryColumn('text', { name: 'token_hash' })
  tokenHash: string;

  @Column('uuid', { name: 'company_id' })
  companyId: string;

  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn([
    {
      name: 'company_id',
      referencedColumnName: 'companyId',
      foreignKeyConstraintName: 'sessions_person',
    },
    { name: 'person_id', referencedColumnName: 'id' },
  ])
  person: Relation<Person>;

  @Column('timestamptz', { name: 'expires_at' })
  expiresAt: Date;
}
