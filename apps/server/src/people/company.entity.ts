import { Column, Entity, PrimaryColumn } from 'typeorm';

/** A firm of technicians. Every other row belongs to one. */
@Entity('companies')
export class Company {
  @PrimaryColumn('uuid')
  id: string;

  @Column('text')
  name: string;
}
