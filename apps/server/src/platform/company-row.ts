import { PrimaryColumn } from 'typeorm';

/** A row of a company, under an id that is unique in that company. */
export abstract class CompanyRow {
  @PrimaryColumn('uuid', { name: 'company_id' })
  companyId: string;

  @PrimaryColumn('uuid')
  id: string;
}
