/** Reports: the sums of core's results for each visit, by month, person and site. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { visitFacts, type Plan } from '@water-clock/core';
import type { Report } from '../src/reports/reports.service.ts';
import { VisitRow } from '../src/visits/visit.entity.ts';
import { demoCompany } from '../src/demo/demo-documents.ts';
import {
  FENNIMORE,
  HOLLIN_YARD,
  LARKHOLT,
  startTestServer,
  type TestServer,
} from './testServer.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
  const rows = server.database.getRepository(VisitRow);
  const [model] = await rows.find({ where: { companyId } });
  if (!model) throw new Error('the demo company has a visit');
  // Timers with overlaps, as found, and without their last program, as left.
  const ids = [FENNIMORE, LARKHOLT, HOLLIN_YARD];
  for (const [i, timerId] of ids.entries()) {
    const { plan } = (await server.tamsin.get(`/api/timers/${timerId}`)).body as { plan: Plan };
    const began = `2026-0${i + 3}-02T09:00`;
    const less = { ...plan, programs: plan.programs.slice(0, -1) };
    await rows.insert({
      ...{ companyId, id: randomUUID(), timerId, personId: model.personId, began },
      document: {
        ...model.document,
        ...{ began, closed: began.replace('09:00', `09:${10 + i}`) },
        asFound: { at: began, plan, hidden: 'none-found' },
        asLeft: { at: began, plan: less },
      },
    });
  }
});
afterAll(() => server.stop());

const { id: companyId } = demoCompany().company;
const ALL = 'from=2000-01-01&to=2100-01-01';
async function report(query = ALL, agent = server.tamsin): Promise<Report> {
  for (;;) {
    const answer = (await agent.get(`/api/reports?${query}`).expect(200)).body as Report;
    if (answer.waiting === 0) return answer;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}
const visitsOf = () =>
  server.database
    .getRepository(VisitRow)
    .find({ where: { companyId }, relations: { timer: true } });
const sum = (numbers: readonly number[]) => numbers.reduce((a, b) => a + b, 0);
const minutesOf = ({ document: { began, closed } }: VisitRow) =>
  (Date.parse(`${closed}Z`) - Date.parse(`${began}Z`)) / 60_000;

test('each way of adding up gives what the visits say', async () => {
  const visits = await visitsOf();
  expect(visits.length).toBeGreaterThan(3);
  const facts = visits.map(({ document, timer }) => visitFacts(document, timer.survey));
  const saved = sum(facts.map(({ found, left }) => (found && left ? found.hours - left.hours : 0)));
  const overlaps = facts.filter(({ found }) => (found?.overlaps ?? 0) > 0);
  expect([saved > 0, overlaps.length > 0]).toEqual([true, true]);
  const { months, people, houses } = await report();
  for (const rows of [months, people, houses]) {
    expect(sum(rows.map((row) => row.visits))).toBe(visits.length);
    expect(sum(rows.map(({ minutes }) => minutes))).toBeCloseTo(sum(visits.map(minutesOf)), 3);
    expect(sum(rows.map(({ hoursSaved }) => hoursSaved))).toBeCloseTo(saved, 6);
    expect(sum(rows.map(({ overlapsFound }) => overlapsFound))).toBe(overlaps.length);
    expect(sum(rows.map(({ overlapsCured }) => overlapsCured))).toBe(
      overlaps.filter(({ left }) => left?.overlaps === 0).length,
    );
  }
  const dates = visits.map(({ began }) => began.slice(0, 7));
  expect(months.map(({ month }) => month)).toEqual([...new Set(dates)].sort());
});

test('days bound it, and a call within thirty days counts as one again', async () => {
  const visit = (await visitsOf()).find(({ timerId }) => timerId === LARKHOLT);
  if (!visit) throw new Error('the demo company has visits');
  const day = visit.began.slice(0, 10);
  const before = await report(`from=${day}&to=${day}`);
  expect(before.months).toMatchObject([{ month: day.slice(0, 7), repeatCalls: 0 }]);
  const began = new Date(Date.parse(`${visit.began}Z`) + 20 * 86_400_000)
    .toISOString()
    .slice(0, 16);
  await server.database.getRepository(VisitRow).insert({
    ...{ companyId, id: randomUUID(), timerId: visit.timerId, personId: visit.personId, began },
    document: { ...visit.document, began, closed: began },
  });
  const later = began.slice(0, 10);
  expect((await report(`from=${later}&to=${later}`)).people).toMatchObject([
    { visits: 1, minutes: 0, repeatCalls: 1 },
  ]);
});

test('it is for owners, of their own company', async () => {
  await server.jory.get(`/api/reports?${ALL}`).expect(403);
  expect(await report(ALL, server.stranger)).toEqual({
    ...{ months: [], people: [], houses: [], waiting: 0 },
  });
  await server.tamsin.get('/api/reports?from=yesterday').expect(400);
});
