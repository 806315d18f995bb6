import { PrimaryColumn } from 'typeorm';

/** A company's row, with an id unique in that company. */
export abstract class CompanyRow {
  @PrimaryColumn('uuid', { name: 'company_id' })
  companyId: string;

  @PrimaryColumn('uuid')
  id: string;
}
