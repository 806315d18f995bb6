import { say } from '@water-clock/core';
import { createHash, timingSafeEqual } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { DataSource, Not, type EntityManager } from 'typeorm';
import { demoCompany } from '../demo/demo-documents.ts';
import { Company } from '../identity/company.entity.ts';
import { createCompany, isCreated, lockCreation, type NewCompany } from '../auth/new-company.ts';
import { ApiError } from '../http/api-error.ts';
import { Settings } from '../platform/settings.ts';
import type { NewCompanyBody } from './new-company-body.ts';

/** Who can create a company here: anyone, the holder of the one-time code, or no one. */
export type Founding = 'open' | 'code' | 'closed';

const digest = (text: string) => createHash('sha256').update(text).digest();

/** Characters that are easy to read on one screen and type on another. */
const asTyped = (code: string) => code.replaceAll(/[\s-]/g, '').toUpperCase();

@Injectable()
export class NewCompanyService {
  constructor(
    private readonly database: DataSource,
    private readonly settings: Settings,
  ) {}

  async state(database: EntityManager = this.database.manager): Promise<Founding> {
    const { signUp, foundingCode, demo } = this.settings;
    if (signUp === 'open') return 'open';
    if (demo || foundingCode === null) return 'closed';
    const isThereOne = await database.existsBy(Company, { id: Not(demoCompany().company.id) });
    return isThereOne ? 'closed' : 'code';
  }

  /** @throws ApiError 403 `founding-closed`, 409 */
  async found(body: NewCompanyBody): Promise<{ readonly email: string }> {
    const company: NewCompany = {
      ...body,
      id: body.id.toLowerCase(),
      personId: body.personId.toLowerCase(),
    };
    return this.database.transaction(async (database) => {
      await lockCreation(database);
      if (!(await isCreated(database, company))) {
        this.assertMay(await this.state(database), body.code ?? '');
        await createCompany(database, company);
      }
      return { email: company.email };
    });
  }

  private assertMay(state: Founding, code: string): void {
    if (state === 'open') return;
    if (state === 'closed')
      throw new ApiError({
        code: 'founding-closed',
        message: say`new companies cannot be created here; ask your company’s owner to invite you`,
      });
    const due = digest(asTyped(this.settings.foundingCode ?? ''));
    if (!timingSafeEqual(due, digest(asTyped(code))))
      throw new ApiError({
        code: 'founding-closed',
        message: say`this is not the code printed by the start command`,
        faults: [{ code: 'wrong-code', path: 'code', message: say`not the code that was printed` }],
      });
  }
}
