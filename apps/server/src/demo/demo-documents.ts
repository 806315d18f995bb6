/**
 * The demo company as documents in `demo/`. Everything in it is invented. Documents are read like a user's import. Dates are relative to
 * the day of loading: `today-150T09:10`, or `month+2` for the first day of the month after next.
 */
import fs from 'node:fs';
import path from 'node:path';
import {
  civilOf,
  epochDayOf,
  formatDate,
  readClosedVisit,
  readPlan,
  readSurvey,
  siteFields,
  type ClosedVisit,
  type EpochDay,
  type Outcome,
  type Plan,
  type SiteFields,
  type Survey,
} from '@water-clock/core';
import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import type { Role } from '../identity/person.entity.ts';
import type { Shelf } from '../library/library-entry.entity.ts';
import { readLibraryDocument } from '../library/library.service.ts';
import { apiFaults, type ApiFault } from '../http/api-error.ts';
import { faultsOf } from '../http/validation.ts';
import { SiteBody } from '../sites/site-body.ts';

const FOLDER = path.resolve(import.meta.dirname, '../../demo');

export interface DemoCompany {
  readonly company: { readonly id: string; readonly name: string };
  readonly people: readonly {
    readonly id: string;
    readonly name: string;
    readonly email: string;
    readonly password: string;
    readonly role: Role;
  }[];
}

export interface DemoSite {
  readonly siteId: string;
  readonly timerId: string;
  readonly site: SiteFields;
  readonly plan: Plan;
  readonly survey: Survey;
  readonly visits: readonly ClosedVisit[];
}

export interface DemoDocument {
  readonly shelf: Shelf;
  readonly id: string;
  readonly document: object;
}

const jsonOf = (file: string): unknown =>
  JSON.parse(fs.readFileSync(path.join(FOLDER, file), 'utf8'));

const filesIn = (folder: string) =>
  fs
    .readdirSync(path.join(FOLDER, folder))
    .sort()
    .map((name) => `${folder}/${name}`);

const RELATIVE = /^(?<unit>today|month)(?<count>[+-]\d+)?(?<time>T\d{2}:\d{2})?$/;

/** Replaces every relative date in a value with a calendar date. */
function dated(value: unknown, today: EpochDay): unknown {
  if (Array.isArray(value)) return value.map((one) => dated(one, today));
  if (typeof value === 'object' && value !== null)
    return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, dated(one, today)]));
  const groups = typeof value === 'string' ? RELATIVE.exec(value)?.groups : undefined;
  if (!groups) return value;
  const count = Number(groups['count'] ?? 0);
  const time = groups['time'] ?? '';
  if (groups['unit'] === 'today') return formatDate(today + count) + time;
  const { year, month } = civilOf(today);
  const months = year * 12 + month - 1 + count;
  return formatDate(
    epochDayOf({ year: Math.floor(months / 12), month: (months % 12) + 1, day: 1 }),
  );
}

/** @throws Error with the first fault; a faulty demo is our own mistake. */
function sound<T>(file: string, read: Outcome<T>): T {
  if (read.ok) return read.value;
  return refuse(file, apiFaults(read.faults, []));
}

function refuse(file: string, [first]: readonly ApiFault[]): never {
  throw new Error(`demo/${file}: ${first?.path}: ${first?.message}`);
}

export const demoCompany = (): DemoCompany =>
  // Safe cast: the file ships with the server.
  jsonOf('company.json') as DemoCompany;

/** All demo sites, with dates relative to `today`. */
export function demoSites(today: EpochDay): DemoSite[] {
  return filesIn('sites').map((file) => {
    // The cast only names the parts; each has its own reader.
    const parts = dated(jsonOf(file), today) as Record<keyof DemoSite, unknown>;
    const body = plainToInstance(SiteBody, parts.site);
    const wrong = faultsOf(
      validateSync(body, { whitelist: true, forbidNonWhitelisted: true }),
      'site',
    );
    if (wrong.length > 0) refuse(file, wrong);
    return {
      siteId: String(parts.siteId),
      timerId: String(parts.timerId),
      site: siteFields(body),
      plan: sound(file, readPlan(parts.plan)),
      survey: sound(file, readSurvey(parts.survey)),
      visits: (parts.visits as unknown[]).map((visit) => sound(file, readClosedVisit(visit))),
    };
  });
}

/** The demo company's library, with dates relative to `today`. */
export function demoLibrary(today: EpochDay): DemoDocument[] {
  return filesIn('library').map((file) => {
    const { shelf, id, document } = dated(jsonOf(file), today) as DemoDocument;
    return { shelf, id, document: sound(file, readLibraryDocument(shelf, document)) };
  });
}
