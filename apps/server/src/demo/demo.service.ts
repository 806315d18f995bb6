import { randomUUID } from 'node:crypto';
import { Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { LibraryEntry } from '../library/library-entry.entity.ts';
import { Company } from '../identity/company.entity.ts';
import type { DemoSignIn } from '../auth/demo-sign-in.ts';
import { Person } from '../identity/person.entity.ts';
import { Session } from '../auth/session.entity.ts';
import { hashPassword } from '../auth/session.service.ts';
import { Site } from '../sites/site.entity.ts';
import { columnsOf } from '../sites/sites.service.ts';
import { Timer } from '../sites/timer.entity.ts';
import { todayIn } from '../sites/today.ts';
import { VisitRow } from '../visits/visit.entity.ts';
import { demoCompany, demoLibrary, demoSites } from './demo-documents.ts';

/** Time zone of the demo sites. */
const DEMO_ZONE = 'Australia/Adelaide';

/** The person offered on the sign-in page: the first of the demo company. */
export function demoSignIn(): DemoSignIn {
  const [first] = demoCompany().people;
  if (!first) throw new Error('the demo company has nobody to sign in as');
  const { name, email, password } = first;
  return { name, email, password };
}

/** Loads the demo data if it is missing; never changes it afterwards. */
@Injectable()
export class DemoService implements OnApplicationBootstrap {
  constructor(private readonly database: DataSource) {}

  async onApplicationBootstrap(): Promise<void> {
    const { company, people } = demoCompany();
    const companyId = company.id;
    const today = todayIn(DEMO_ZONE, new Date());
    await this.database.transaction(async (database) => {
      // The second of two servers that start together waits for the first.
      await database.query('select pg_advisory_xact_lock(hashtextextended($1, 0))', [companyId]);
      const isThere = await database.existsBy(Company, { id: companyId });
      if (!isThere) await database.insert(Company, company);
      for (const { id, name, email, password, role } of people) {
        const passwordHash = await hashPassword(password);
        // Reopens a demo that was closed.
        if (isThere) await database.update(Person, { companyId, id }, { passwordHash, role });
        else await database.insert(Person, { companyId, id, name, email, role, passwordHash });
      }
      if (isThere) return;
      for (const entry of demoLibrary(today))
        await database.insert(LibraryEntry, { companyId, version: 1, ...entry });
      const technician = people.at(-1)?.id ?? companyId;
      for (const { siteId, timerId, site, plan, survey, visits } of demoSites(today)) {
        await database.insert(Site, { companyId, id: siteId, version: 1, ...columnsOf(site) });
        await database.insert(Timer, { companyId, id: timerId, siteId, version: 1, plan, survey });
        for (const document of visits)
          await database.insert(VisitRow, {
            companyId,
            id: randomUUID(),
            timerId,
            personId: technician,
            began: document.began,
            document,
          });
      }
    });
  }
}

/** Outside demo mode, disables the publicly known password and ends sessions started with it. */
@Injectable()
export class ClosedDemo implements OnApplicationBootstrap {
  constructor(private readonly database: DataSource) {}

  async onApplicationBootstrap(): Promise<void> {
    const companyId = demoCompany().company.id;
    const { manager } = this.database;
    if (!(await manager.existsBy(Company, { id: companyId }))) return;
    await manager.update(Person, { companyId }, { passwordHash: await hashPassword(randomUUID()) });
    await manager.delete(Session, { companyId });
  }
}
