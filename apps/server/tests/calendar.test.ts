/** Planned visits: when, who and in which order; and each person's private calendar. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import ICAL from 'ical.js';
import type { Calendar, CalendarVisit, OpenVisits } from '../src/calendar/calendar.service.ts';
import {
  FENNIMORE,
  HOLLIN_YARD,
  LARKHOLT,
  linesOf,
  SORREL_ROW,
  startTestServer,
  type TestServer,
} from './testServer.ts';

let server: TestServer;
let jory: string;
beforeAll(async () => {
  server = await startTestServer();
  const people = (await server.tamsin.get('/api/people')).body as { id: string; name: string }[];
  jory = people.find(({ name }) => name.startsWith('Jory'))?.id ?? '';
});
afterAll(() => server.stop());

/** Resolves when all changes are evaluated. */
const settled = () => linesOf(server.tamsin);
const on = async (date: string, query = '') => {
  await settled();
  const path = `/api/calendar?from=${date}&to=${date}${query}`;
  return (await server.tamsin.get(path).expect(200)).body as Calendar;
};
const open = async () => {
  await settled();
  return (await server.tamsin.get('/api/calendar/open').expect(200)).body as OpenVisits;
};
const plan = (timer: string, body: object, agent = server.tamsin) =>
  agent.post(`/api/timers/${timer}/stop`).send({ id: randomUUID(), note: '', ...body });
const takeBack = (timer: string, baseVersion: number) =>
  server.tamsin
    .post(`/api/timers/${timer}/stop/taking-back`)
    .send({ id: randomUUID(), baseVersion });
const order = (body: object, agent = server.tamsin) =>
  agent.post('/api/calendar/orders').send({ id: randomUUID(), ...body });
const of = (visits: readonly CalendarVisit[], timer: string) =>
  visits.find(({ timerId }) => timerId === timer);

async function note(timer: string, fields: object): Promise<void> {
  const { version } = (await server.tamsin.get(`/api/timers/${timer}`)).body as { version: number };
  await server.tamsin
    .post(`/api/timers/${timer}/changes`)
    .send({
      ...{ id: randomUUID(), baseVersion: version, way: 'do' },
      change: { type: 'note', fields },
    })
    .expect(200);
}

test('what is due moves to the day and the person that it is planned for, and back', async () => {
  await note(FENNIMORE, { next: [{ date: '2030-03-04', reason: 'percent', note: 'down' }] });
  expect(of((await on('2030-03-04')).visits, FENNIMORE)).toMatchObject({
    stop: null,
    person: null,
  });
  const first = { baseVersion: 0, day: '2030-03-06', personId: jory, note: 'gate code' };
  const id = randomUUID();
  for (let i = 0; i < 2; i++)
    expect((await plan(FENNIMORE, { ...first, id }).expect(200)).body).toEqual({ version: 1 });
  expect(of((await on('2030-03-04')).visits, FENNIMORE)).toBeUndefined();
  const moved = {
    reasons: expect.arrayContaining(['change the percent: down']),
    stop: { version: 1, note: 'gate code' },
  };
  expect(of((await on('2030-03-06', `&person=${jory}`)).visits, FENNIMORE)).toMatchObject(moved);
  const [tamsin] = (await server.tamsin.get('/api/people')).body as { id: string }[];
  expect(
    (await on('2030-03-06', `&person=${tamsin?.id === jory ? randomUUID() : tamsin?.id}`)).visits,
  ).toEqual([]);

  await plan(FENNIMORE, { ...first, day: '2030-03-07' }).expect(409);
  await plan(FENNIMORE, { baseVersion: 1, personId: jory }).expect(200);
  expect(of((await open()).someDay, FENNIMORE)).toMatchObject({ date: null, stop: { version: 2 } });
  expect(of((await on('2030-03-04')).visits, FENNIMORE)).toMatchObject({ stop: null });
  await takeBack(FENNIMORE, 1).expect(409);
  await takeBack(FENNIMORE, 2).expect(204);
  await takeBack(FENNIMORE, 2).expect(404);
  expect(of((await open()).someDay, FENNIMORE)).toBeUndefined();
});

test('many visits are planned for some day at once; those that are planned stay', async () => {
  const day = '2031-01-01';
  await plan(HOLLIN_YARD, { baseVersion: 0, day }).expect(200);
  const body = { id: randomUUID(), timerIds: [HOLLIN_YARD, SORREL_ROW], note: 'new rules' };
  const ask = (more: object = {}, agent = server.tamsin) =>
    agent.post('/api/calendar/some-day').send({ ...body, ...more });
  expect((await ask().expect(200)).body).toEqual({ planned: 1 });
  await ask().expect(200);
  expect(of((await open()).someDay, SORREL_ROW)).toMatchObject({ stop: { note: 'new rules' } });
  expect(of((await on(day)).visits, HOLLIN_YARD)).toMatchObject({ stop: { note: '' } });
  await ask({ id: randomUUID(), timerIds: [SORREL_ROW, randomUUID()] }).expect(404);
  await ask({ id: randomUUID() }, server.stranger).expect(404);
  await takeBack(SORREL_ROW, 1).expect(204);
});

test('a visit that was made is not planned any more', async () => {
  await plan(LARKHOLT, { baseVersion: 0, day: '2026-01-02' }).expect(200);
  expect(of((await open()).overdue, LARKHOLT)).toMatchObject({
    overdue: true,
    stop: { version: 1 },
  });
  await note(LARKHOLT, { visit: { began: '2027-06-01T10:00' } });
  const { version } = (await server.tamsin.get(`/api/timers/${LARKHOLT}`)).body as {
    version: number;
  };
  const close = (undone: object) =>
    server.tamsin
      .post(`/api/timers/${LARKHOLT}/visits`)
      .send({ id: randomUUID(), baseVersion: version, closed: '2027-06-01T11:00', ...undone });
  const refused = (await close({}).expect(422)).body as { faults: { path: string }[] };
  const undone = refused.faults.map(({ path }) => path.replace('undone.', ''));
  expect(undone.length).toBeGreaterThan(0);
  await server.database.query('update timers set survey = survey - $1 where id = $2', [
    'visit',
    LARKHOLT,
  ]);
  expect(of((await open()).overdue, LARKHOLT)).toBeDefined();
});

test('a day is put in order by one person at a time, and the order is that of one person or of all', async () => {
  const day = '2030-05-05';
  for (const timer of [FENNIMORE, SORREL_ROW])
    await plan(timer, { baseVersion: 0, day }).expect(200);
  const mine = { day, personId: null, timerIds: [SORREL_ROW, FENNIMORE] };
  expect((await order({ ...mine, baseVersion: 0 }).expect(200)).body).toEqual({ version: 1 });
  await order({ ...mine, baseVersion: 0 }, server.jory).expect(409);
  await order({ ...mine, personId: jory, baseVersion: 0 }).expect(200);
  await order({ ...mine, timerIds: [FENNIMORE], baseVersion: 1 }).expect(200);
  expect((await on(day)).orders).toEqual(
    expect.arrayContaining([
      { personId: null, date: day, version: 2, timerIds: [FENNIMORE] },
      { personId: jory, date: day, version: 1, timerIds: [SORREL_ROW, FENNIMORE] },
    ]),
  );
  await order({ ...mine, timerIds: [randomUUID()], baseVersion: 2 }).expect(404);
  await order({ ...mine, personId: randomUUID(), baseVersion: 0 }).expect(422);
  await order({ ...mine, day: '2030-02-30', baseVersion: 0 }).expect(400);
  await order({ ...mine, baseVersion: 0 }, server.stranger).expect(404);
  await plan(FENNIMORE, { baseVersion: 0, day }, server.stranger).expect(404);
  await plan(FENNIMORE, { baseVersion: 1, day, personId: randomUUID() }).expect(422);
});

test('a calendar has an address of its own that can be renewed, and shows what that person does', async () => {
  const tokens = ['a'.repeat(43), 'b'.repeat(43)] as const;
  await plan(SORREL_ROW, {
    baseVersion: 1,
    day: '2026-12-24',
    personId: jory,
    note: 'bring a ladder',
  }).expect(200);
  expect((await server.jory.get('/api/account/calendar').expect(200)).body).toEqual({
    madeAt: null,
  });
  await server.jory.post('/api/account/calendar').send({ token: tokens[0] }).expect(204);
  const { text } = await server.nobody.get(`/api/calendars/${tokens[0]}.ics`).expect(200);
  const events = new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents('vevent');
  expect(events.map((event) => String(event.getFirstPropertyValue('summary')))).toEqual([
    expect.stringMatching(/Sorrel Row.*bring a ladder/),
  ]);
  await server.jory.post('/api/account/calendar').send({ token: tokens[1] }).expect(204);
  await server.nobody.get(`/api/calendars/${tokens[0]}.ics`).expect(404);
  await server.nobody.get(`/api/calendars/${tokens[1]}`).expect(200);
  await server.jory.post('/api/account/calendar').send({ token: 'short' }).expect(400);
});
