import { randomUUID } from 'node:crypto';
import { Inject, Injectable, type OnApplicationBootstrap } from '@nestjs/common';
import { EMPTY_SURVEY, formatDate, type Plan } from '@water-clock/core';
import { DataSource } from 'typeorm';
import { LibraryEntry } from '../library/library-entry.entity.ts';
import { Company } from '../people/company.entity.ts';
import { Person } from '../people/person.entity.ts';
import { hashPassword } from '../people/session.service.ts';
import { CONFIG, type Config } from '../platform/config.ts';
import { Site } from '../sites/site.entity.ts';
import { Timer } from '../timers/timer.entity.ts';
import { todayIn } from '../sites/today.ts';
import { VisitRow } from '../visits/visit.entity.ts';
import { DEMO_COMPANY, DEMO_PEOPLE, DEMO_SITES, type DemoSite } from './demo-data.ts';
import { demoLibrary } from './demo-survey.ts';

/** The plan of a demo site, its rain delay counted from today. */
function planOf({ site, plan, rainDelayDays }: DemoSite): Plan {
  if (rainDelayDays === undefined) return plan;
  const wateringResumes = formatDate(todayIn(site.timeZone, new Date()) + rainDelayDays);
  return { ...plan, settings: { ...plan.settings, wateringResumes } };
}

/** Loads the demo data where demo mode is on and it is not there yet; never touches it again. */
@Injectable()
export class DemoService implements OnApplicationBootstrap {
  constructor(
    private readonly database: DataSource,
    @Inject(CONFIG) private readonly config: Config,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    if (!this.config.demo) return;
    await this.database.transaction(async (database) => {
      if (await database.existsBy(Company, { id: DEMO_COMPANY.id })) return;
      const companyId = DEMO_COMPANY.id;
      await database.insert(Company, DEMO_COMPANY);
      for (const { id, name, email, password } of DEMO_PEOPLE) {
        const passwordHash = await hashPassword(password);
        await database.insert(Person, { companyId, id, name, email, passwordHash });
      }
      for (const demo of DEMO_SITES) {
        const { site, timerId } = demo;
        await database.insert(Site, {
          companyId,
          version: 1,
          ...site,
          mowing: [...(site.mowing ?? [])],
        });
        await database.insert(Timer, {
          companyId,
          id: timerId,
          siteId: site.id,
          version: 1,
          plan: planOf(demo),
          survey: demo.survey?.(todayIn(site.timeZone, new Date())) ?? EMPTY_SURVEY,
        });
        const [, second] = DEMO_PEOPLE;
        const visits = demo.visits?.(todayIn(site.timeZone, new Date())) ?? [];
        for (const document of visits)
          await database.insert(VisitRow, {
            companyId,
            id: randomUUID(),
            timerId,
            personId: second?.id ?? '',
            began: document.began,
            document,
          });
      }
      const [first] = DEMO_SITES;
      const on = todayIn(first?.site.timeZone ?? 'UTC', new Date());
      for (const entry of demoLibrary(on))
        await database.insert(LibraryEntry, { companyId, version: 1, ...entry });
    });
  }
}
