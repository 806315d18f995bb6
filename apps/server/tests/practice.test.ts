/** Practice results: one's own, everyone's for teachers, and never another company's. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { startTestServer, type TestServer } from './testServer.ts';

let server: TestServer;
let apprentice: Awaited<ReturnType<TestServer['member']>>;
beforeAll(async () => {
  server = await startTestServer();
  apprentice = await server.member('apprentice');
});
afterAll(() => server.stop());

const result = (points: number, task = 'set-01-clock') => ({
  ...{ id: randomUUID(), task, title: 'Set the clock', points },
  ...{ presses: 30, seconds: 61, hints: 1, tries: 0 },
});
interface Line {
  person: string;
  task: string;
  points: number;
  times: number;
}

test('the best of each task is kept, and what is sent again counts once', async () => {
  const first = result(40);
  await apprentice.post('/api/practice').send(first).expect(200);
  await apprentice.post('/api/practice').send(first).expect(200);
  await apprentice.post('/api/practice').send(result(80)).expect(200);
  const again = await apprentice.post('/api/practice').send(result(60)).expect(200);
  expect(again.body).toMatchObject([{ task: 'set-01-clock', points: 80, times: 3 }]);
  const reused = await apprentice
    .post('/api/practice')
    .send({ ...first, points: 100 })
    .expect(409);
  expect(reused.body).toMatchObject({ code: 'id-reused' });
});

test('an apprentice sees what is his own; who looks after gardens sees all; another company nothing', async () => {
  await server.jory.post('/api/practice').send(result(55, 'set-02-start')).expect(200);
  const own = (await apprentice.get('/api/practice').expect(200)).body as Line[];
  expect(own.map(({ task }) => task)).toEqual(['set-01-clock']);
  const all = (await server.tamsin.get('/api/practice').expect(200)).body as Line[];
  expect(all.map(({ task }) => task).sort()).toEqual(['set-01-clock', 'set-02-start']);
  const stranger = (await server.stranger.get('/api/practice').expect(200)).body as Line[];
  expect(stranger).toEqual([]);
});

test.each([
  [{ points: 101 }, 'points'],
  [{ points: 1.5 }, 'points'],
  [{ seconds: -1 }, 'seconds'],
  [{ task: '' }, 'task'],
  [{ id: 'seven' }, 'id'],
  [{ score: 5 }, 'score'],
])('a result with %j is refused by path', async (more, path) => {
  const answer = await server.tamsin
    .post('/api/practice')
    .send({ ...result(50), ...more })
    .expect(400);
  expect(answer.body).toMatchObject({ code: 'malformed-request', faults: [{ path }] });
});
