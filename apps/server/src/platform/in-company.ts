import type { JoinColumnOptions } from 'typeorm';

/**
 * The columns by which a row refers to another one of its own company: the company goes along, so that the database itself
 * refuses a reference that crosses companies.
 *
 * @param column that holds the other row's id; `constraint`: the name of the foreign key in the migrations.
 */
export const inCompany = (column: string, constraint: string): JoinColumnOptions[] => [
  {
    name: 'company_id',
    referencedColumnName: 'companyId',
    foreignKeyConstraintName: constraint,
  },
  { name: column, referencedColumnName: 'id' },
];
