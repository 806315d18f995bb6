import {
  Column,
  CreateDateColumn,
  Entity,
  JoinColumn,
  ManyToOne,
  PrimaryColumn,
  type Relation,
} from 'typeorm';
import { Person } from '../people/person.entity.ts';
import { inCompany } from '../platform/in-company.ts';

/** A photo of a station or of a panel. Never altered: another picture is another photo. */
@Entity('photos')
export class Photo {
  @PrimaryColumn('uuid', { name: 'company_id' })
  companyId: string;

  /** Made by the client. */
  @PrimaryColumn('uuid')
  id: string;

  /** Told from its content, whatever it was called. */
  @Column('text', { name: 'media_type' })
  mediaType: string;

  @Column('bytea')
  bytes: Buffer;

  /** Pixels. */
  @Column('integer')
  width: number;

  @Column('integer')
  height: number;

  @Column('uuid', { name: 'person_id' })
  personId: string;

  @ManyToOne(() => Person)
  @JoinColumn(inCompany('person_id', 'photos_person'))
  person: Relation<Person>;

  @CreateDateColumn({ type: 'timestamptz' })
  at: Date;
}
