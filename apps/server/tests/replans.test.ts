/** Replans: which timers, with what result, and what becomes of the suggestions. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { ruleStatus, type Plan, type Rules, type Survey } from '@water-clock/core';
import { todayIn } from '../src/sites/today.ts';
import { linesOf, startTestServer, type TestServer } from './testServer.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

interface Line {
  readonly timerId: string;
  readonly town: string;
  readonly street: string | null;
  readonly phone: string;
  readonly state: string;
  readonly why: string;
  readonly trouble: string;
  readonly reason: string;
  readonly lines: number | null;
  readonly proposal: { readonly id: string; readonly state: string } | null;
}
interface Replan {
  readonly total: number;
  readonly counts: Readonly<
    Record<'all' | 'waiting' | 'fits' | 'phone' | 'visit' | 'open' | 'done' | 'accepting', number>
  >;
  readonly lines: readonly Line[];
}
interface Timer {
  readonly version: number;
  readonly plan: Plan;
  readonly survey: Survey;
  readonly site: {
    readonly rulesId: string;
    readonly houseNumber: string;
    readonly supply: null;
    readonly timeZone: string;
  };
}

const timerOf = async (id: string) =>
  (await server.tamsin.get(`/api/timers/${id}`).expect(200)).body as Timer;
const add = (body: object, agent = server.tamsin) => agent.post('/api/replans').send(body);
/** Resolves when nothing waits any more. */
async function worked(id: string, show = 'all'): Promise<Replan> {
  for (;;) {
    const replan = (await server.tamsin.get(`/api/replans/${id}?show=${show}`).expect(200))
      .body as Replan;
    if (replan.counts.waiting === 0) return replan;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
}

const OSTRELLE = '6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1d01';

test('timers that break their rules, now or soon, are planned so that they keep them; all others are left alone', async () => {
  const lines = [...(await linesOf(server.tamsin, `&rules=${OSTRELLE}`)).values()] as unknown as {
    id: string;
    breaches: number;
  }[];
  const id = randomUUID();
  const [first, again] = [
    await add({ id, rulesId: OSTRELLE }),
    await add({ id, rulesId: OSTRELLE }),
  ];
  expect([first.status, again.status]).toEqual([201, 201]);
  expect(first.body).toEqual(again.body);
  const replan = await worked(id);
  expect(replan.counts.all).toBe((first.body as { timers: number }).timers);
  const wanted = lines.filter(({ breaches }) => breaches > 0).map((line) => line.id);
  expect(wanted.length).toBeGreaterThan(0);
  expect(replan.lines.map(({ timerId }) => timerId)).toEqual(expect.arrayContaining(wanted));
  const places = replan.lines.map(({ town, street }) => `${town} ${street ?? ''}`.toLowerCase());
  expect(places).toEqual([...places].sort());

  const proposed = replan.lines.filter(({ state }) => state === 'proposed');
  expect(proposed.length).toBeGreaterThan(0);
  for (const { timerId, proposal, lines: count, why, reason } of proposed) {
    expect(reason).toMatch(/allow/);
    expect([(count ?? 0) > 0, why]).toEqual([true, expect.stringMatching(/rules are kept/)]);
    const before = await timerOf(timerId);
    await server.jory
      .post(`/api/proposals/${proposal?.id}/answers`)
      .send({ id: randomUUID(), baseVersion: before.version, isAccepted: true, answer: '' })
      .expect(200);
    const { plan, survey, site } = await timerOf(timerId);
    const rules = (
      (await server.tamsin.get('/api/library/rules')).body as { id: string; document: Rules }[]
    ).find((entry) => entry.id === OSTRELLE)?.document;
    const today = todayIn(site.timeZone, new Date());
    expect(ruleStatus({ plan, survey }, rules ?? null, site, today).breaches).toEqual([]);
  }
  const after = await worked(id, 'done');
  expect([after.counts.done, after.total]).toEqual([proposed.length, proposed.length]);
  expect((await linesOf(server.tamsin, `&rules=${OSTRELLE}&show=breach`)).size).toBe(
    replan.counts.open,
  );
});

test('the percent of a month is proposed where another one is set, and a later replan takes the place of an earlier', async () => {
  const [earlier, later] = [randomUUID(), randomUUID()];
  await add({ id: earlier, month: 2 }).expect(201);
  const before = await worked(earlier);
  const proposed = before.lines.filter(({ proposal }) => proposal);
  expect(proposed.length).toBeGreaterThan(0);
  expect(before.counts.fits).toBeGreaterThan(0);
  await add({ id: later, month: 8 }).expect(201);
  await worked(later);
  const moved = await worked(earlier);
  const again = new Set(
    (await worked(later)).lines.filter(({ proposal }) => proposal).map(({ timerId }) => timerId),
  );
  for (const { timerId, proposal } of moved.lines)
    if (proposal) expect(proposal.state).toBe(again.has(timerId) ? 'withdrawn' : 'sent');
  const phones = await worked(later, 'phone');
  expect(phones.lines.every(({ phone, lines }) => phone !== '' && (lines ?? 99) <= 8)).toBe(true);
});

test('what is asked for wrongly is refused, and nobody sees another company’s', async () => {
  const id = randomUUID();
  await add({ id }).expect(422);
  await add({ id, rulesId: OSTRELLE, month: 3 }).expect(422);
  await add({ id, month: 13 }).expect(400);
  await add({ id, rulesId: randomUUID() }).expect(404);
  await add({ id, rulesId: OSTRELLE }, server.stranger).expect(404);
  expect((await server.stranger.get('/api/replans').expect(200)).body).toEqual([]);
  await add({ id, month: 1 }).expect(201);
  await worked(id);
  await server.stranger.get(`/api/replans/${id}`).expect(404);
  await add({ id, month: 2 }).expect(409);
});

test('all plans are accepted by one request, which may be repeated; what does not fit is told, and what is stopped stays', async () => {
  const id = randomUUID();
  await add({ id, month: 11 }).expect(201);
  const before = await worked(id);
  const open = before.lines.filter(({ proposal }) => proposal?.state === 'sent');
  const [broken, ...others] = open;
  if (!broken?.proposal || others.length === 0) throw new Error('two timers get a percent');
  // A suggestion that no longer fits the timer.
  await server.database.query(`update proposals set changes = $1 where id = $2`, [
    JSON.stringify([{ type: 'set-starts', program: 'Z', starts: [] }]),
    broken.proposal.id,
  ]);
  const versions = new Map<string, number>();
  for (const { timerId } of open) versions.set(timerId, (await timerOf(timerId)).version);

  const act = randomUUID();
  const accept = () => server.jory.post(`/api/replans/${id}/acceptance`).send({ id: act });
  expect((await accept().expect(202)).body).toEqual({ accepting: open.length });
  await accept().expect(202);
  let after = await worked(id);
  while ((after.counts.accepting ?? 0) > 0) after = await worked(id);
  for (const { timerId } of others) {
    const line = after.lines.find((one) => one.timerId === timerId);
    expect([line?.proposal?.state, line?.trouble]).toEqual(['accepted', '']);
    // Once, although it was requested twice.
    expect((await timerOf(timerId)).version).toBe((versions.get(timerId) ?? 0) + 1);
  }
  const left = (await worked(id, 'troubled')).lines;
  expect(left.map(({ timerId, proposal }) => [timerId, proposal?.state])).toEqual([
    [broken.timerId, 'sent'],
  ]);
  expect(left[0]?.trouble).toMatch(/no longer applies/);
  expect((await timerOf(broken.timerId)).version).toBe(versions.get(broken.timerId));

  await server.stranger
    .post(`/api/replans/${id}/acceptance`)
    .send({ id: randomUUID() })
    .expect(404);
  // Left behind by a dead server and stopped before another took it over.
  await server.database.query(
    `update replan_timers set accepting_person_id = (select id from people where email like 'jory%' limit 1),
       claimed_until = now() + interval '1 hour' where timer_id = $1 and replan_id = $2`,
    [broken.timerId, id],
  );
  const stop = await server.jory
    .post(`/api/replans/${id}/acceptance/stop`)
    .send({ id: randomUUID() })
    .expect(200);
  expect(stop.body).toEqual({ left: 1 });
  expect((await worked(id)).counts.accepting).toBe(0);
});
