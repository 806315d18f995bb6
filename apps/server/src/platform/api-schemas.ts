/** Schemas of what the API answers, by name. Documents with a format of their own are named, and described where that format is. */
import type { OpenAPIObject } from '@nestjs/swagger';

export type Schema = Exclude<
  NonNullable<NonNullable<OpenAPIObject['components']>['schemas']>[string],
  undefined
>;

const text: Schema = { type: 'string' };
const uuid: Schema = { type: 'string', format: 'uuid' };
const count: Schema = { type: 'integer', minimum: 0 };
const moment: Schema = { type: 'string', format: 'date-time' };
const date: Schema = { type: 'string', format: 'date' };
const flag: Schema = { type: 'boolean' };
const orNull = (schema: Schema): Schema => ({ ...schema, nullable: true });
const ref = (name: string): Schema => ({ $ref: `#/components/schemas/${name}` });
const listOf = (items: Schema): Schema => ({ type: 'array', items });
const record = (properties: Record<string, Schema>): Schema => ({
  type: 'object',
  properties,
  required: Object.keys(properties),
});
const document = (description: string): Schema => ({ type: 'object', description });

const siteFields: Record<string, Schema> = {
  name: text,
  houseNumber: orNull(text),
  street: orNull(text),
  locality: orNull(text),
  timeZone: text,
  latitude: orNull({ type: 'number' }),
  longitude: orNull({ type: 'number' }),
  supply: orNull(text),
  supplyFlow: orNull({ type: 'number' }),
  mowing: listOf(text),
  notes: text,
  people: listOf(record({ name: text, role: text, phone: text })),
  units: orNull(text),
  clockStyle: orNull(text),
  town: orNull(text),
  climateId: orNull(uuid),
  rulesId: orNull(uuid),
  minutesId: orNull(uuid),
};

const replan: Record<string, Schema> = {
  id: uuid,
  aim: text,
  rulesId: orNull(uuid),
  rules: orNull(text),
  month: orNull(count),
  by: text,
  at: moment,
  counts: { type: 'object', additionalProperties: count },
};

const reportRow: Record<string, Schema> = {
  visits: count,
  minutes: { type: 'number' },
  overlapsFound: count,
  overlapsCured: count,
  hoursSaved: { type: 'number' },
  litresSaved: { type: 'number' },
  repeatCalls: count,
};

const houseTimer: Record<string, Schema> = {
  id: uuid,
  name: text,
  placeVersion: count,
  siteId: uuid,
  isArchived: flag,
  version: count,
  plan: ref('Plan'),
  survey: ref('Survey'),
};

export const SCHEMAS: Record<string, Schema> = {
  Error: {
    type: 'object',
    required: ['code', 'message'],
    properties: {
      code: text,
      message: text,
      faults: listOf(record({ code: text, path: text, message: text })),
      moreFaults: { type: 'integer', description: 'faults that are not listed: 100 are' },
      current: document('with `stale-version`: what is saved'),
    },
  },
  Plan: document('a plan document, docs/spec/plan-format.md and plan.schema.json'),
  Survey: document('what was found out about a timer, core survey/survey.ts'),
  Visit: document('a closed visit, core visit/visit.ts'),
  HomeownerPage: document('the homeowner’s page, core homeowner/page.ts'),
  LibraryDocument: document('a document of the library, docs/spec/library-formats.md'),
  Site: record({ id: uuid, version: count, ...siteFields }),
  TimerLines: record({
    total: count,
    counts: { type: 'object', additionalProperties: count },
    checking: count,
    lines: listOf(
      record({
        id: uuid,
        name: text,
        site: record({
          id: uuid,
          version: count,
          name: text,
          houseNumber: orNull(text),
          street: orNull(text),
        }),
        town: text,
        ofSeveral: flag,
        person: orNull(record({ id: uuid, name: text })),
        stations: count,
        programs: count,
        verdict: orNull(text),
        headline: text,
        breaches: count,
        headroomPercent: orNull(count),
        trouble: orNull(date),
        battery: orNull(date),
        lastVisit: orNull(date),
        nextVisit: orNull(date),
        underWay: flag,
        week: listOf(record({ date, programs: text, overlaps: flag })),
        checked: flag,
      }),
    ),
  }),
  Report: record({
    months: listOf(record({ month: text, ...reportRow })),
    people: listOf(record({ person: text, ...reportRow })),
    houses: listOf(record({ siteId: uuid, site: text, ...reportRow })),
    waiting: count,
  }),
  Replan: record(replan),
  ReplanPage: record({
    ...replan,
    total: count,
    lines: listOf(
      record({
        id: uuid,
        timerId: uuid,
        timer: text,
        site: text,
        houseNumber: orNull(text),
        street: orNull(text),
        town: text,
        person: text,
        phone: text,
        state: text,
        reason: text,
        why: text,
        lines: orNull(count),
        from: orNull(date),
        proposal: orNull(record({ id: uuid, state: text })),
      }),
    ),
  }),
  NewReplan: record({ timers: count }),
  VersionedId: record({ id: uuid, version: count }),
  Changed: record({ changed: count }),
  NewSite: record({ siteId: uuid, timerId: uuid }),
  ImportedSite: record({ siteId: uuid, timerIds: listOf(uuid) }),
  Timer: record({
    id: uuid,
    name: text,
    version: count,
    site: ref('Site'),
    plan: ref('Plan'),
    survey: ref('Survey'),
    history: listOf(
      record({ way: text, change: document('a change'), inverse: document('a change') }),
    ),
  }),
  LastChange: record({ version: count, by: orNull(text), at: orNull(moment) }),
  Version: record({ version: count }),
  LibraryEntry: record({ id: uuid, version: count, document: orNull(ref('LibraryDocument')) }),
  Photo: record({ id: uuid, width: count, height: count }),
  VisitSummary: record({ id: uuid, by: text, visit: ref('Visit') }),
  VisitView: record({ id: uuid, timerId: uuid, by: text, visit: ref('Visit') }),
  Comment: record({ id: uuid, by: text, at: moment, text }),
  CalendarVisit: record({
    timerId: uuid,
    timer: text,
    siteId: uuid,
    site: text,
    houseNumber: orNull(text),
    street: orNull(text),
    town: text,
    latitude: orNull({ type: 'number' }),
    longitude: orNull({ type: 'number' }),
    person: orNull(record({ id: uuid, name: text })),
    date: orNull(date),
    overdue: flag,
    reasons: listOf(text),
    kinds: listOf(text),
    stop: orNull(record({ version: count, note: text })),
  }),
  Calendar: record({
    visits: listOf(ref('CalendarVisit')),
    orders: listOf(
      record({ personId: orNull(uuid), date, version: count, timerIds: listOf(uuid) }),
    ),
  }),
  OpenVisits: record({
    overdue: listOf(ref('CalendarVisit')),
    someDay: listOf(ref('CalendarVisit')),
  }),
  Planned: record({ planned: count }),
  CalendarLink: record({ madeAt: orNull(moment) }),
  Link: record({
    id: uuid,
    madeAt: moment,
    expiresAt: moment,
    withdrawnAt: orNull(moment),
  }),
  Session: record({
    person: orNull(
      record({
        id: uuid,
        name: text,
        companyId: uuid,
        company: text,
        role: text,
        email: text,
        secondFactor: flag,
      }),
    ),
    preferences: { allOf: [ref('Preferences')], nullable: true },
    demo: orNull(record({ name: text, email: text, password: text })),
  }),
  Preferences: record({
    version: count,
    preferences: document('what a person likes, server people/preferences.ts'),
  }),
  Town: record({
    id: text,
    name: text,
    region: text,
    timeZone: text,
    latitude: { type: 'number' },
    longitude: { type: 'number' },
    altitudeMetres: { type: 'number' },
  }),
  WeatherDay: document('one day of weather, core water/climate.ts'),
  Firm: record({ name: text, version: count, keepChangesDays: orNull(count) }),
  AuditEntry: record({
    id: uuid,
    at: moment,
    what: text,
    by: orNull(text),
    about: orNull(text),
    address: orNull(text),
  }),
  SessionEntry: record({
    id: uuid,
    device: text,
    address: orNull(text),
    since: moment,
    seen: moment,
    isThis: flag,
  }),
  ApiToken: record({
    id: uuid,
    name: text,
    madeAt: moment,
    expiresAt: moment,
    usedAt: orNull(moment),
  }),
  NewFactor: record({ secret: text, address: text }),
  Mail: record({
    id: uuid,
    at: moment,
    recipient: text,
    subject: text,
    text,
    state: { type: 'string', enum: ['sent', 'waiting', 'failed', 'kept'] },
  }),
  Member: record({
    id: uuid,
    name: text,
    email: text,
    role: text,
    version: count,
    secondFactor: flag,
    takenOutAt: orNull(moment),
  }),
  Invitation: record({
    id: uuid,
    name: text,
    email: text,
    role: text,
    madeAt: moment,
    expiresAt: moment,
  }),
  HouseTimer: record(houseTimer),
  House: record({
    id: uuid,
    version: count,
    ...siteFields,
    isArchived: flag,
    timers: listOf(record(houseTimer)),
  }),
  NewTimer: record({ timerId: uuid }),
  NewTimers: record({ timerIds: listOf(uuid) }),
  Proposal: record({
    id: uuid,
    personId: uuid,
    by: text,
    state: text,
    version: count,
    changes: listOf(document('a `RecordChange`, core record/record.ts')),
    note: text,
    answer: text,
    answeredBy: orNull(text),
    movedAt: moment,
  }),
  PersonLink: record({ purpose: text, firm: text, name: text, email: text, role: orNull(text) }),
  Account: record({ email: text }),
  Founding: record({ founding: { type: 'string', enum: ['open', 'code', 'closed'] } }),
  Health: record({ ok: flag }),
};
