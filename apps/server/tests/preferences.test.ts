/** Preferences are kept with the person, versioned, validated, and no one else's. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { startTestServer, type TestServer } from './testServer.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer(8);
});
afterAll(() => server.stop());

interface Kept {
  readonly version: number;
  readonly preferences: object;
}
const keptOf = async (who: 'tamsin' | 'stranger') =>
  ((await server[who].get('/api/session').expect(200)).body as { preferences: Kept }).preferences;
const write = (baseVersion: number, preferences: object, id = randomUUID()) => ({
  id,
  baseVersion,
  preferences,
});
const send = (body: object, who: 'tamsin' | 'stranger' | 'nobody' = 'tamsin') =>
  server[who].post('/api/preferences/changes').send(body);

test('at first nothing is chosen; what is chosen comes back with the session, for this person alone', async () => {
  expect(await keptOf('tamsin')).toEqual({ version: 1, preferences: {} });
  const chosen = { clock: '12', dateOrder: 'month-day', textSize: 150, theme: null };
  const made = await send(write(1, chosen)).expect(200);
  expect(made.body).toEqual({ version: 2, preferences: chosen });
  expect(await keptOf('tamsin')).toEqual(made.body);
  expect(await keptOf('stranger')).toEqual({ version: 1, preferences: {} });
  await send(write(1, {}), 'nobody').expect(401);
});

test('a write that is repeated is made once; one of an old version is refused with what is saved', async () => {
  const before = await keptOf('tamsin');
  const body = write(before.version, { contrast: 'high' });
  const [first, again] = [await send(body).expect(200), await send(body).expect(200)];
  expect(again.body).toEqual(first.body);
  const reused = await send({ ...body, preferences: {} }).expect(409);
  expect((reused.body as { code: string }).code).toBe('id-reused');
  const stale = await send(write(before.version, { contrast: 'usual' })).expect(409);
  expect(stale.body).toMatchObject({ code: 'stale-version', current: first.body as object });
  expect(await keptOf('tamsin')).toEqual(first.body);
});

test('what is not allowed is told by its path, and nothing is changed', async () => {
  const before = await keptOf('tamsin');
  const bad = write(before.version, { clock: '13', textSize: 500, colour: 'red' });
  const answer = await send(bad).expect(400);
  const { faults } = answer.body as { faults: { path: string; message: string }[] };
  expect(faults.map(({ path }) => path).sort()).toEqual([
    'preferences.clock',
    'preferences.colour',
    'preferences.textSize',
  ]);
  expect(faults.find(({ path }) => path.endsWith('clock'))?.message).toMatch(/12, 24, or null/);
  expect(await keptOf('tamsin')).toEqual(before);
});
