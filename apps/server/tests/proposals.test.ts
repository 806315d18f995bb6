/** An apprentice's suggestions and their outcomes. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import type request from 'supertest';
import { FENNIMORE, LARKHOLT, startTestServer, type TestServer } from './testServer.ts';

let server: TestServer;
let linnet: request.Agent;
beforeAll(async () => {
  server = await startTestServer();
  linnet = await server.member('apprentice');
});
afterAll(() => server.stop());

interface Proposal {
  readonly id: string;
  readonly state: string;
  readonly version: number;
  readonly changes: readonly unknown[];
  readonly answeredBy: string | null;
}

const starts = (...times: string[]) => ({ type: 'set-starts', program: 'A', starts: times });
const list = async (who: request.Agent, timer = FENNIMORE) =>
  (await who.get(`/api/timers/${timer}/proposals`).expect(200)).body as Proposal[];
const propose = (baseVersion: number, change: object, timer = FENNIMORE) =>
  linnet
    .post(`/api/timers/${timer}/proposals/changes`)
    .send({ id: randomUUID(), baseVersion, way: 'do', change });
const move = (who: request.Agent, { id, version }: Proposal, state: string) =>
  who
    .post(`/api/proposals/${id}/moves`)
    .send({ id: randomUUID(), baseVersion: version, state, note: 'Earlier, for the wind.' });
const answer = (who: request.Agent, id: string, baseVersion: number, isAccepted = true) =>
  who
    .post(`/api/proposals/${id}/answers`)
    .send({ id: randomUUID(), baseVersion, isAccepted, answer: 'Good.' });
const timer = async (id = FENNIMORE) =>
  (await server.tamsin.get(`/api/timers/${id}`).expect(200)).body as {
    version: number;
    plan: { programs: { letter: string; starts: string[] }[] };
    history: { change: { type: string } }[];
  };
const startsOf = async () =>
  (await timer()).plan.programs.find(({ letter }) => letter === 'A')?.starts;
const one = async (who: request.Agent): Promise<Proposal> => {
  const [found] = await list(who);
  if (!found) throw new Error('there is no proposal');
  return found;
};

test('changes nothing until somebody accepts it; then it is one change of theirs', async () => {
  const before = await timer();
  const id = randomUUID();
  const first = { id, baseVersion: 1, way: 'do', change: starts('04:10') };
  for (let i = 0; i < 2; i++)
    expect(
      (await linnet.post(`/api/timers/${FENNIMORE}/proposals/changes`).send(first).expect(200))
        .body,
    ).toEqual({ version: 2 });
  await propose(2, { type: 'set-percent', percent: 90 }).expect(422);
  await propose(2, { type: 'note', fields: { rain: null } }).expect(200);
  const stale = await propose(2, starts('05:00')).expect(409);
  expect(stale.body).toMatchObject({ code: 'stale-version', current: { version: 3 } });
  expect((stale.body as { current: { plan: object } }).current.plan).toMatchObject({
    programs: expect.arrayContaining([expect.objectContaining({ starts: ['04:10'] })]) as object,
  });

  // A draft is visible to its author only.
  expect(await list(server.tamsin)).toEqual([]);
  const draft = await one(linnet);
  await answer(server.tamsin, draft.id, before.version).expect(404);
  await move(server.jory, draft, 'sent').expect(404);
  await move(linnet, draft, 'sent').expect(200);
  await propose(draft.version + 1, starts('05:00')).expect(409);

  const sent = await one(server.tamsin);
  expect(sent).toMatchObject({
    state: 'sent',
    by: 'Some-apprentice',
    note: 'Earlier, for the wind.',
  });
  expect(await timer()).toEqual(before);
  await answer(linnet, sent.id, before.version).expect(403);
  expect((await list(server.jory)).length).toBe(1);

  // Two people accept it at once: it is accepted once.
  const answers = await Promise.all([
    answer(server.tamsin, sent.id, before.version),
    answer(server.jory, sent.id, before.version),
  ]);
  expect(answers.map(({ status }) => status).sort()).toEqual([200, 409]);
  expect(answers.find(({ status }) => status === 409)?.body).toMatchObject({
    code: 'proposal-moved',
    message: /already accepted/,
  });
  expect((await timer()).version).toBe(before.version + 1);
  expect(await startsOf()).toEqual(['04:10']);
  expect(await one(linnet)).toMatchObject({ state: 'accepted', answer: 'Good.' });
  expect(await list(server.jory)).toEqual([]);
});

test('goes on top of what was set meanwhile, or is told that it does not fit', async () => {
  await propose(1, starts('03:00')).expect(200);
  await move(linnet, (await list(linnet))[0] as Proposal, 'sent').expect(200);
  const { version } = await timer();
  const write = { id: randomUUID(), baseVersion: version, way: 'do' };
  const note = { type: 'note', fields: { rain: null } };
  await server.tamsin
    .post(`/api/timers/${FENNIMORE}/changes`)
    .send({ ...write, change: note })
    .expect(200);
  const sent = await one(server.tamsin);
  // Accepting requires the timer's current version.
  const told = await answer(server.tamsin, sent.id, version).expect(409);
  expect(told.body).toMatchObject({ code: 'stale-version' });
  expect((await one(server.tamsin)).state).toBe('sent');

  const gone = { type: 'remove-program', program: 'A' };
  await server.tamsin
    .post(`/api/timers/${FENNIMORE}/changes`)
    .send({ ...write, id: randomUUID(), baseVersion: version + 1, change: gone })
    .expect(200);
  const unfit = await answer(server.tamsin, sent.id, version + 2).expect(422);
  expect(unfit.body).toMatchObject({ code: 'not-accepted', message: /no longer applies/ });
  expect((await timer()).version).toBe(version + 2);
  await answer(server.tamsin, sent.id, version + 2, false).expect(200);
  expect(await one(linnet)).toMatchObject({ state: 'refused', answeredBy: 'Tamsin Orrowby' });
  expect((await timer()).version).toBe(version + 2);
});

test('is taken back, changed, thrown away, and is the company’s own', async () => {
  await propose(1, starts('03:30'), LARKHOLT).expect(200);
  const [begun] = await list(linnet, LARKHOLT);
  if (!begun) throw new Error('nothing was begun');
  await move(linnet, begun, 'sent').expect(200);
  await move(linnet, { ...begun, version: 3 }, 'draft').expect(200);
  await propose(4, starts('03:40'), LARKHOLT).expect(200);
  await move(server.stranger, { ...begun, version: 5 }, 'sent').expect(404);
  await answer(server.stranger, begun.id, 1).expect(404);
  await server.stranger.get(`/api/timers/${LARKHOLT}/proposals`).expect(404);
  await move(linnet, { ...begun, version: 5 }, 'withdrawn').expect(200);
  expect(await list(linnet, LARKHOLT)).toEqual([]);
  // Two devices start one at once: one succeeds.
  const both = await Promise.all([1, 2].map(() => propose(1, starts('02:00'), LARKHOLT)));
  expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
});

test('whoever was taken out can change nothing, and hands over what they entered: the office reads it as theirs', async () => {
  const wren = await server.member('technician');
  const { person } = (await wren.get('/api/session').expect(200)).body as {
    person: { id: string; name: string };
  };
  const members = (await server.tamsin.get('/api/people').expect(200)).body as {
    id: string;
    version: number;
  }[];
  const { version = 0 } = members.find(({ id }) => id === person.id) ?? {};
  await server.tamsin
    .post(`/api/people/${person.id}/removal`)
    .send({ id: randomUUID(), baseVersion: version })
    .expect(200);
  const refused = await wren
    .post(`/api/timers/${LARKHOLT}/changes`)
    .send({ id: randomUUID(), baseVersion: 1, way: 'do', change: starts('04:00') })
    .expect(401);
  expect(refused.body).toMatchObject({ code: 'taken-out' });
  await wren.get('/api/sites').expect(401);
  const before = await timer(LARKHOLT);
  const left = { id: randomUUID(), timerId: LARKHOLT, changes: [starts('04:00')] };
  // Sent again under its id it exists once; another person's device is refused.
  for (let i = 0; i < 2; i++)
    expect((await wren.post('/api/left-behind').send(left).expect(200)).body).toEqual({
      changed: 1,
    });
  await wren
    .post('/api/left-behind')
    .set('water-clock-person', randomUUID())
    .send({ ...left, id: randomUUID() })
    .expect(403);
  await wren
    .post('/api/left-behind')
    .send({ ...left, id: randomUUID(), changes: [{ type: 'rubbish' }] })
    .expect(422);
  await server.nobody.post('/api/left-behind').send(left).expect(401);
  await server.stranger.post('/api/left-behind').send(left).expect(401);
  expect((await timer(LARKHOLT)).version).toBe(before.version);
  const [read] = await list(server.jory, LARKHOLT);
  expect(read).toMatchObject({
    state: 'sent',
    changes: [starts('04:00')],
    note: expect.stringMatching(/Entered by Some-technician .* taken out/),
  });
  await answer(server.jory, read?.id ?? '', before.version).expect(200);
  expect((await timer(LARKHOLT)).version).toBe(before.version + 1);
});
