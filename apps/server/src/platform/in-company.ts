import type { JoinColumnOptions } from 'typeorm';

/**
 * The columns of a foreign key within a company: the company is part of it, so that the database refuses references between companies.
 *
 * @param column that holds the other row's id; `constraint`: the foreign key's name in the migrations.
 */
export const inCompany = (column: string, constraint: string): JoinColumnOptions[] => [
  {
    name: 'company_id',
    referencedColumnName: 'companyId',
    foreignKeyConstraintName: constraint,
  },
  { name: column, referencedColumnName: 'id' },
];
