import { Injectable } from '@nestjs/common';
import {
  attempt,
  check,
  dueVisits,
  faultSentence,
  formatDate,
  readPlan,
  verdictWords,
  WEEKDAYS,
  type ClockStyle,
  type Contact,
  type Plan,
  type Survey,
  type Supply,
  type UnitSystem,
  type Verdict,
  type VerdictWords,
  type Weekday,
} from '@water-clock/core';
import { DataSource } from 'typeorm';
import { fingerprintOf, record, repeatedWrite } from '../changes/record.ts';
import type { Actor } from '../people/actor.ts';
import { ApiError, apiFaults, notAccepted, notFound } from '../platform/api-error.ts';
import { Timer } from '../timers/timer.entity.ts';
import type { ChangeSiteBody, NewSiteBody, SiteFields } from './site-body.ts';
import { Site } from './site.entity.ts';
import { todayIn } from './today.ts';

export interface SiteView {
  readonly id: string;
  readonly version: number;
  readonly name: string;
  readonly houseNumber: string | null;
  readonly timeZone: string;
  readonly latitude: number | null;
  readonly longitude: number | null;
  readonly supply: Supply | null;
  readonly mowing: readonly Weekday[];
  readonly notes: string;
  readonly people: readonly Contact[];
  readonly units: UnitSystem | null;
  readonly clockStyle: ClockStyle | null;
  readonly place: string | null;
  readonly rulesId: string | null;
  readonly minutesId: string | null;
}

export interface TimerSummary {
  readonly id: string;
  readonly name: string;
  readonly stations: number;
  readonly programs: number;
  readonly verdict: Verdict;
  readonly headline: string;
  /** When somebody has to come back next, `YYYY-MM-DD`; null where nothing is due. */
  readonly nextVisit: string | null;
}

export type SiteSummary = SiteView & { readonly timers: readonly TimerSummary[] };

export const siteView = (site: SiteView): SiteView => ({
  id: site.id,
  version: site.version,
  name: site.name,
  houseNumber: site.houseNumber,
  timeZone: site.timeZone,
  latitude: site.latitude,
  longitude: site.longitude,
  supply: site.supply,
  mowing: site.mowing,
  notes: site.notes,
  people: site.people,
  units: site.units,
  clockStyle: site.clockStyle,
  place: site.place,
  rulesId: site.rulesId,
  minutesId: site.minutesId,
});

export const fieldsOf = (site: SiteFields) => ({
  name: site.name.trim(),
  houseNumber: site.houseNumber ?? null,
  timeZone: site.timeZone,
  latitude: site.latitude ?? null,
  longitude: site.longitude ?? null,
  supply: site.supply ?? null,
  mowing: WEEKDAYS.filter((weekday) => site.mowing?.includes(weekday)),
  notes: site.notes?.trim() ?? '',
  people: (site.people ?? []).map(({ name, role, phone }) => ({
    name: name.trim(),
    role: role.trim(),
    phone: phone.trim(),
  })),
  units: site.units ?? null,
  clockStyle: site.clockStyle ?? null,
  place: site.place ?? null,
  rulesId: site.rulesId ?? null,
  minutesId: site.minutesId ?? null,
});

/** A plan document from outside, sound, without its `site`; faults by paths below `plan`. */
export function readPlanBody(value: unknown): Plan {
  const read = readPlan(value);
  if (!read.ok) throw notAccepted(apiFaults(read.faults, ['plan']));
  const { site: _site, ...plan } = read.value;
  return plan;
}

/** A plan is judged as if it were on, so it is said where it is not. */
const seenFromAfar = ({ tone, headline }: VerdictWords, { settings }: Plan) => ({
  verdict: tone,
  headline:
    settings.mode === 'off'
      ? `${headline.replace(/\.$/, '')}. The timer is switched off.`
      : headline,
});

function nextVisitOf(survey: Survey): string | null {
  const [next] = dueVisits(survey);
  return next ? formatDate(next.date) : null;
}

@Injectable()
export class SitesService {
  constructor(private readonly database: DataSource) {}

  async list({ companyId }: Actor, clock: ClockStyle): Promise<SiteSummary[]> {
    const [sites, timers] = await Promise.all([
      this.database.manager.find(Site, { where: { companyId }, order: { name: 'asc', id: 'asc' } }),
      this.database.manager.find(Timer, { where: { companyId }, order: { id: 'asc' } }),
    ]);
    const now = new Date();
    return sites.map((site) => ({
      ...siteView(site),
      timers: timers
        .filter((timer) => timer.siteId === site.id)
        .map(({ id, plan, survey }) => {
          const on = todayIn(site.timeZone, now);
          const checked = attempt(() => check(plan, on));
          return {
            id,
            name: plan.timer.name,
            stations: plan.stations.length,
            programs: plan.programs.length,
            nextVisit: nextVisitOf(survey),
            ...(checked.ok
              ? seenFromAfar(verdictWords(checked.value, plan.timer.onOverlap, { on, clock }), plan)
              : {
                  verdict: 'incomplete' as const,
                  headline: checked.faults.map(faultSentence).join(' '),
                }),
          };
        }),
    }));
  }

  async add(actor: Actor, body: NewSiteBody): Promise<{ siteId: string; timerId: string }> {
    const { companyId } = actor;
    const siteId = body.siteId.toLowerCase();
    const timerId = body.timerId.toLowerCase();
    const plan = readPlanBody(body.plan);
    const fingerprint = fingerprintOf(['site', siteId, timerId, fieldsOf(body.site), plan]);
    await this.database.transaction(async (database) => {
      if (await repeatedWrite(database, actor, siteId, fingerprint)) return;
      // The site's id is the write's id as well. A timer's id that is taken is a repeated id, too.
      if (await database.existsBy(Timer, { companyId, id: timerId }))
        throw new ApiError(409, {
          code: 'id-reused',
          message: 'another timer has this timerId; every timer needs an id of its own',
        });
      await database.insert(Site, { companyId, id: siteId, version: 1, ...fieldsOf(body.site) });
      await database.insert(Timer, { companyId, id: timerId, siteId, version: 1, plan });
      const written = {
        id: siteId,
        subject: 'site',
        subjectId: siteId,
        version: 1,
        fingerprint,
      } as const;
      await record(database, actor, written);
    });
    return { siteId, timerId };
  }

  async change(actor: Actor, id: string, body: ChangeSiteBody): Promise<SiteView> {
    const { companyId } = actor;
    const fields = fieldsOf(body.site);
    const changeId = body.id.toLowerCase();
    const fingerprint = fingerprintOf(['site', id, body.baseVersion, fields]);
    return this.database.transaction(async (database) => {
      const site = await database.findOne(Site, {
        where: { companyId, id },
        lock: { mode: 'pessimistic_write' },
      });
      if (!site) throw notFound('site');
      if (await repeatedWrite(database, actor, changeId, fingerprint)) return siteView(site);
      if (site.version !== body.baseVersion)
        throw new ApiError(409, {
          code: 'stale-version',
          message: `this site was changed meanwhile: it is at version ${site.version}, and the change was based on ${body.baseVersion}`,
          current: siteView(site),
        });
      const version = site.version + 1;
      await database.update(Site, { companyId, id }, { ...fields, version });
      await record(database, actor, {
        id: changeId,
        subject: 'site',
        subjectId: id,
        version,
        fingerprint,
      });
      return siteView({ ...site, ...fields, version });
    });
  }
}
