/** A visit from start to logbook, the homeowner's page, and the formats for export and import. */
import { execFileSync } from 'node:child_process';
import { randomBytes, randomUUID } from 'node:crypto';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { deflateRawSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import {
  doorCard,
  emptyPlan,
  EMPTY_SURVEY,
  formatMoment,
  homeownerPage,
  NO_OFFICE,
  parseDate,
  SHIPPED_KINDS,
  simulate,
  startWords,
  type CardSources,
  type Plan,
  type Timer,
  type RecordChange,
  type Survey,
} from '@water-clock/core';
import ICAL from 'ical.js';
import type request from 'supertest';
import type { Calendar } from '../src/calendar/calendar.service.ts';
import { cardPdf, CARD_PAPERS } from '../src/formats/card-pdf.ts';
import { pagesIn } from '../src/formats/fonts.ts';
import { pagePdf, PAPERS } from '../src/formats/page-pdf.ts';
import { zipped } from '../src/formats/zip.ts';
import { wateringCalendar } from '../src/formats/watering.ts';
import {
  bytesOf,
  FENNIMORE,
  FENNIMORE_SITE,
  HOLLIN_YARD,
  LARKHOLT,
  linesOf,
  SORREL_ROW,
  startTestServer,
  unzipped,
  type TestServer,
} from './testServer.ts';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
});
afterAll(() => server.stop());

interface View {
  version: number;
  plan: Plan;
  survey: Survey;
  history: unknown[];
}
const view = async (timer: string) =>
  (await server.tamsin.get(`/api/timers/${timer}`).expect(200)).body as View;

async function change(timer: string, made: RecordChange): Promise<void> {
  const { version } = await view(timer);
  await server.tamsin
    .post(`/api/timers/${timer}/changes`)
    .send({ id: randomUUID(), baseVersion: version, way: 'do', change: made })
    .expect(200);
}

const close = (
  timer: string,
  baseVersion: number,
  id = randomUUID(),
  undone?: unknown,
): request.Test =>
  server.tamsin
    .post(`/api/timers/${timer}/visits`)
    .send({ id, baseVersion, closed: '2027-06-01T11:20', undone });

describe('a visit', () => {
  test('is closed once, when what is undone is done or said to be left, and stands in the logbook of its company', async () => {
    const found = (await view(FENNIMORE)).plan;
    await change(FENNIMORE, { type: 'note', fields: { visit: { began: '2027-06-01T10:00' } } });
    const asFound = { at: '2027-06-01T10:05', plan: found, hidden: 'none-found' as const };
    await change(FENNIMORE, { type: 'note-visit', fields: { asFound } });
    await change(FENNIMORE, { type: 'set-starts', program: 'B', starts: ['07:30'] });
    const left = (await view(FENNIMORE)).plan;
    const switched = [{ what: 'bypass' as const, putBack: false }];
    await change(FENNIMORE, {
      type: 'note-visit',
      fields: { asLeft: { at: '2027-06-01T11:00', plan: found }, switched },
    });
    const refused = await close(FENNIMORE, (await view(FENNIMORE)).version).expect(422);
    const { faults } = refused.body as { faults: { code: string }[] };
    expect(faults.map(({ code }) => code)).toEqual([
      'clock-not-looked',
      'switched',
      'as-left-is-older',
      'not-tested',
    ]);
    // Half a visit, an unknown one and extra fields are refused.
    const { version: now } = await view(FENNIMORE);
    for (const undone of [[{ what: 'not-tested', stations: [1] }], [{ what: 'forgotten' }], 'all'])
      await close(FENNIMORE, now, randomUUID(), undone).expect(422);

    await change(FENNIMORE, {
      type: 'note-visit',
      fields: { asLeft: { at: '2027-06-01T11:10', plan: left }, switched: null },
    });
    const { version } = await view(FENNIMORE);
    const id = randomUUID();
    const undone = [
      { what: 'clock-not-looked' },
      { what: 'not-tested', stations: [1, 2, 3, 4, 5, 6, 7, 8] },
      { what: 'not-keyed', lines: 2 },
    ];
    const first = await close(FENNIMORE, version, id, undone).expect(200);
    const again = await close(FENNIMORE, version, id, undone).expect(200);
    expect(again.body).toEqual(first.body);
    await close(FENNIMORE, version).expect(409);
    const after = await view(FENNIMORE);
    expect(after.survey.visit).toBeUndefined();
    expect(after.plan).toEqual(left);
    // What the logbook relies on cannot be undone.
    expect(after.history).toEqual([]);

    const list = (await server.jory.get(`/api/timers/${FENNIMORE}/visits`).expect(200)).body as {
      by: string;
      visit: object;
    }[];
    expect(list).toMatchObject([
      { by: 'Tamsin Orrowby', visit: { closed: '2027-06-01T11:20', undone } },
    ]);
    await linesOf(server.jory);
    const { visits } = (await server.jory.get('/api/calendar').expect(200)).body as Calendar;
    expect(visits.flatMap(({ reasons }) => reasons).join()).toMatch(
      /not done: 2 settings on the card/,
    );
    expect(list[0]?.visit).not.toHaveProperty('asLeft');
    const whole = await server.jory.get(`/api/visits/${id}`).expect(200);
    expect(whole.body).toMatchObject({
      visit: { asFound: { plan: found }, asLeft: { plan: left } },
    });
    await server.stranger.get(`/api/visits/${id}`).expect(404);
    // Comments do not alter the visit.
    const comments = `/api/visits/${id}/comments`;
    const comment = { id: randomUUID(), text: 'The valve box is behind the shed.' };
    for (let i = 0; i < 2; i++)
      expect((await server.jory.post(comments).send(comment).expect(200)).body).toMatchObject([
        { text: comment.text, by: expect.stringMatching(/^Jory/) },
      ]);
    await server.tamsin.post(comments).send(comment).expect(409);
    await server.tamsin
      .post(comments)
      .send({ ...comment, text: '' })
      .expect(400);
    expect((await server.tamsin.get(comments).expect(200)).body).toHaveLength(1);
    await server.stranger.get(comments).expect(404);
    await server.stranger.post(comments).send(comment).expect(404);
    expect((await server.jory.get(`/api/visits/${id}`).expect(200)).body).toEqual(whole.body);
    await server.stranger.get(`/api/timers/${FENNIMORE}/visits`).expect(404);
    await server.nobody.get(`/api/visits/${id}`).expect(401);
  });

  test('what is due is listed for its company, and can be read by a calendar', async () => {
    const next = [{ date: '2027-09-01', reason: 'percent' as const, note: 'down to 60' }];
    await change(SORREL_ROW, { type: 'note', fields: { next } });
    await linesOf(server.tamsin);
    const { visits } = (
      await server.tamsin.get(`/api/calendar?from=2027-09-01&to=2027-09-01`).expect(200)
    ).body as Calendar;
    expect(visits.map(({ reasons }) => reasons)).toEqual([['change the percent: down to 60']]);
    const text = (await server.tamsin.get('/api/calendar.ics').expect(200)).text;
    const events = new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents('vevent');
    expect(events.length).toBeGreaterThan(1);
    expect(text).toMatch(/DTSTART;VALUE=DATE:20270901/);
    expect((await server.stranger.get('/api/calendar').expect(200)).body).toEqual({
      visits: [],
      orders: [],
    });
  });
});

describe('rules of the place', () => {
  const status = async (timer: string) => (await linesOf(server.tamsin)).get(timer);

  test('a timer that breaks them is not clear, and a change that it will break is due', async () => {
    const site = (await status(HOLLIN_YARD))?.site;
    const { plan } = await view(HOLLIN_YARD);
    const [program] = plan.programs;
    expect((await status(HOLLIN_YARD))?.verdict).toBe('clear');
    const rules = randomUUID();
    const put = async (baseVersion: number, editions: object[]) =>
      server.tamsin
        .post(`/api/library/rules/${rules}/changes`)
        .send({
          id: randomUUID(),
          baseVersion,
          document: { format: 'water-clock-rules', version: 1, name: 'Sorrel', editions },
        })
        .expect(200);
    const today = new Date().toISOString().slice(0, 4);
    await put(0, [
      { from: '2020-01-01', clauses: [] },
      { from: `${Number(today) + 2}-01-01`, clauses: [{ noWatering: true }] },
    ]);
    const fields = (
      (await server.tamsin.get(`/api/timers/${HOLLIN_YARD}`).expect(200)).body as {
        site: Record<string, unknown>;
      }
    ).site;
    const { id: _id, version: _version, ...body } = fields;
    await server.tamsin
      .post(`/api/sites/${site?.id}/changes`)
      .send({ id: randomUUID(), baseVersion: site?.version, site: { ...body, rulesId: rules } })
      .expect(200);
    expect((await status(HOLLIN_YARD))?.verdict).toBe('clear');
    const from = `${Number(today) + 2}-01-01`;
    await linesOf(server.tamsin);
    const { visits } = (
      await server.tamsin.get(`/api/calendar?from=${from}&to=${from}`).expect(200)
    ).body as Calendar;
    expect(visits.filter(({ timerId }) => timerId === HOLLIN_YARD)).toMatchObject([
      {
        kinds: ['rule-change'],
        reasons: [expect.stringMatching(/no watering by timer is allowed here/)],
      },
    ]);
    await put(1, [{ from: '2020-01-01', clauses: [{ weekdays: [], parity: 'even' }] }]);
    expect(await status(HOLLIN_YARD)).toMatchObject({
      verdict: 'breach',
      headline: expect.stringMatching(
        new RegExp(`waters on .*\\(${program?.letter}.*do not allow`),
      ),
    });
  });
});

describe('the homeowner’s page', () => {
  const token = () => randomBytes(32).toString('base64url');
  const make = (body: object): request.Test =>
    server.tamsin.post(`/api/timers/${LARKHOLT}/links`).send(body);
  const open = (secret: string): request.Test =>
    server.nobody.get('/api/page').set('Authorization', `Bearer ${secret}`);

  test('opens with its link alone, until that expires or is withdrawn', async () => {
    const [secret, id] = [token(), randomUUID()];
    const body = { id, token: secret, days: 30 };
    const made = await make(body).expect(200);
    expect((await make(body).expect(200)).body).toEqual(made.body);
    expect(JSON.stringify(made.body)).not.toContain(secret);
    const page = await open(secret).expect(200);
    expect((page.body as { house: string }).house).toMatch(/Larkholt/);
    // Nothing else: not the timer, not its links, not another page.
    expect(JSON.stringify(page.body)).not.toMatch(/[0-9a-f]{8}-[0-9a-f]{4}-/);
    await server.nobody
      .get(`/api/timers/${LARKHOLT}`)
      .set('Authorization', `Bearer ${secret}`)
      .expect(401);
    for (const guess of ['', token(), secret.slice(0, -1), `${secret}A`, id])
      await open(guess).expect(404);

    const withdraw = (agent: request.Agent) =>
      agent.post(`/api/timers/${LARKHOLT}/links/${id}/withdraw`).send({});
    await withdraw(server.stranger).expect(404);
    await open(secret).expect(200);
    await withdraw(server.tamsin).expect(200);
    await withdraw(server.tamsin).expect(200);
    const gone = await open(secret).expect(404);
    expect((await open(token()).expect(404)).body).toEqual(gone.body);

    const [old, oldId] = [token(), randomUUID()];
    await make({ id: oldId, token: old, days: 1 }).expect(200);
    await server.database.query(`update page_links set expires_at = now() where id = $1`, [oldId]);
    await open(old).expect(404);
    await make({ id: oldId, token: token(), days: 1 }).expect(409);
    await make({ id: randomUUID(), token: 'short', days: 0 }).expect(400);
    await server.stranger
      .post(`/api/timers/${LARKHOLT}/links`)
      .send({ id: randomUUID(), token: token(), days: 5 })
      .expect(404);
  });

  test('as a PDF holds every start and every run, read by another program', async () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'water-clock-pdf-'));
    for (const timer of [LARKHOLT, FENNIMORE, SORREL_ROW])
      for (const paper of ['a4', 'letter']) {
        const answer = await bytesOf(
          server.tamsin.get(`/api/timers/${timer}/page.pdf?paper=${paper}`),
        ).expect(200);
        const file = path.join(folder, `${timer}.pdf`);
        writeFileSync(file, answer.body as Buffer);
        const text = execFileSync('pdftotext', ['-raw', file, '-'], {
          encoding: 'utf8',
        }).replaceAll(/\s+/g, ' ');
        const { plan } = await view(timer);
        for (const { starts, runs, days } of plan.programs) {
          if (starts.length === 0 || days === null) continue;
          for (const start of starts) expect(text).toContain(startWords(start, '12'));
          for (const { station, seconds } of runs) {
            if (seconds === 0) continue;
            const name = plan.stations.find(({ number }) => number === station)?.name ?? '';
            expect(text).toContain(`${station} ${name} `);
          }
        }
        const info = execFileSync('pdfinfo', [file], { encoding: 'utf8' });
        expect(info).toMatch(paper === 'a4' ? /Page size: +595/ : /Page size: +612/);
        expect(info).toMatch(/Pages: +1\n/);
        const fonts = execFileSync('pdffonts', [file], { encoding: 'utf8' }).split('\n').slice(2);
        for (const font of fonts.filter(Boolean)) expect(font).toMatch(/Atkinson.* yes +yes/);
      }
  });
});

test('the card for the box is one or two sides of a postcard, with every start and station', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'water-clock-card-'));
  for (const timer of [LARKHOLT, FENNIMORE, SORREL_ROW])
    for (const [paper, size] of [
      ['a6', /Page size: +297.6 x 419.5/],
      ['4x6', /Page size: +288 x 432/],
    ] as const) {
      const answer = await bytesOf(
        server.tamsin.get(`/api/timers/${timer}/card.pdf?paper=${paper}`),
      ).expect(200);
      const file = path.join(folder, `${timer}.pdf`);
      writeFileSync(file, answer.body as Buffer);
      const info = execFileSync('pdfinfo', [file], { encoding: 'utf8' });
      expect(info).toMatch(size);
      expect([timer, /Pages: +(\d)/.exec(info)?.[1]]).toEqual([
        timer,
        expect.stringMatching(/^[12]$/),
      ]);
      const text = (...options: readonly string[]) =>
        execFileSync('pdftotext', ['-raw', ...options, file, '-'], {
          encoding: 'utf8',
        }).replaceAll(/\s+/g, ' ');
      const front = text('-l', '1');
      const { plan } = await view(timer);
      for (const { starts, days, runs } of plan.programs)
        if (days && runs.length > 0)
          for (const start of starts) expect(front).toContain(startWords(start, '12'));
      for (const { number, name = '' } of plan.stations)
        expect(text()).toContain(`${number} ${name}`);
      expect(front).toContain('Tamsin Orrowby');
    }
  await server.stranger.get(`/api/timers/${LARKHOLT}/card.pdf?paper=a6`).expect(404);
  await server.tamsin.get(`/api/timers/${LARKHOLT}/card.pdf?paper=a5`).expect(400);
});

test('a page of 30 stations and a card of 48 in three programs each fit their sheets', async () => {
  const kind = SHIPPED_KINDS.find(({ kind: one }) => one.timer.stationCount === 48)?.kind ?? null;
  const timer = { ...kind?.timer, cycleSoak: 'station' } as Timer;
  const sourcesOf = (count: number): CardSources => {
    const numbers = Array.from({ length: count }, (_, i) => i + 1);
    const plan: Plan = {
      ...emptyPlan(timer),
      settings: { seasonalPercent: 80 },
      stations: numbers.map((number) => ({
        number,
        name: `Border along drive ${number}`,
        cycleSeconds: 300,
        soakSeconds: 1800,
      })),
      programs: ['A', 'B', 'C'].map((letter) => ({
        letter,
        starts: ['01:00'],
        days: { rule: 'daily' },
        runs: numbers.map((station) => ({ station, seconds: 600 })),
      })),
    };
    return {
      ...{ plan, kind, survey: EMPTY_SURVEY, house: 'Long Acre', houseNumber: '7' },
      ...{ company: 'A company', office: NO_OFFICE, allowed: null, today: 20_000 },
      ...{ clock: '24' as const, language: 'en' as const, author: 'Tamsin Orrowby' },
    };
  };
  const page = homeownerPage(sourcesOf(30));
  expect(page.programs.map(({ stations }) => stations.length)).toEqual([30, 30, 30]);
  for (const paper of PAPERS)
    expect([paper, pagesIn(await pagePdf(page, paper))]).toEqual([paper, 1]);
  for (const paper of CARD_PAPERS)
    expect([paper, pagesIn(await cardPdf(doorCard(sourcesOf(48)), paper))]).toEqual([paper, 2]);
});

describe('watering as iCalendar', () => {
  /** Every run that an independent library reads from a calendar, within two years. */
  function expanded(text: string, from: string, days: number): string[] {
    const until = (parseDate(from) ?? 0) + days;
    const found: string[] = [];
    for (const component of new ICAL.Component(ICAL.parse(text) as unknown[]).getAllSubcomponents(
      'vevent',
    )) {
      const event = new ICAL.Event(component);
      const occurrences = event.iterator();
      const station = /station (\d+), program (\w)/.exec(event.summary);
      for (
        let at = occurrences.next() as ICAL.Time | undefined;
        at;
        at = occurrences.next() as ICAL.Time | undefined
      ) {
        if ((parseDate(at.toString().slice(0, 10)) ?? 0) >= until) break;
        const end = at.clone();
        end.addDuration(event.duration);
        found.push(`${at.toString()} ${end.toString()} ${station?.[1]} ${station?.[2]}`);
        if (!event.isRecurring()) break;
      }
    }
    return found.sort();
  }

  test.each([
    ['as it is', {}, true],
    ['a queue in July', { programs: 'queue' }, false],
    ['odd dates past midnight', { days: { rule: 'odd' }, start: '23:30' }, true],
    [
      'every third day, not on Saturday',
      {
        days: { rule: 'interval', everyDays: 3, firstDate: '2027-01-02', blockedWeekdays: ['sat'] },
      },
      true,
    ],
    [
      'weekdays past midnight',
      { days: { rule: 'weekdays', weekdays: ['sun', 'wed'] }, start: '23:45' },
      true,
    ],
  ] as const)('%s: every run of two years is that of simulate', async (_name, how, hasRules) => {
    // Reading back date by date is slow, so the smaller garden is used.
    const { plan: demo } = await view('programs' in how ? FENNIMORE : LARKHOLT);
    const [a, ...rest] = demo.programs;
    if (!a) throw new Error('no program');
    // A few runs show as much as many.
    const few = a.runs.slice(0, 4);
    const alone =
      'days' in how
        ? [{ ...a, runs: few, days: how.days, starts: 'start' in how ? [how.start] : a.starts }]
        : [a, ...rest];
    const plan = {
      ...demo,
      timer: { ...demo.timer, onOverlap: 'queue' },
      programs: 'programs' in how ? alone.map((one) => ({ ...one, starts: ['02:00'] })) : alone,
    } as unknown as Plan;
    const from = '2027-06-01';
    const day = parseDate(from) ?? 0;
    const text = wateringCalendar(plan, 'Larkholt', day, LARKHOLT, '2027-06-01T00:00:00.000Z');
    expect(text.includes('RRULE')).toBe(hasRules);
    const read = expanded(text, from, 730);
    const runs = simulate(plan, day, 731)
      .runs.filter(({ on }) => on < (day + 730) * 86_400)
      .map(
        ({ station, letter, on, off }) =>
          `${formatMoment(on)} ${formatMoment(off)} ${station} ${letter}`,
      )
      .sort();
    expect(read.length).toBeGreaterThan(500);
    expect(read).toEqual(runs);
  });

  test('runs as CSV, and what is wrong with a question', async () => {
    const { text } = await server.tamsin.get(`/api/timers/${LARKHOLT}/runs.csv?days=7`).expect(200);
    const [head, ...lines] = text.trim().split('\r\n');
    expect(head).toBe('date,begins,ends,seconds,station,name,program');
    expect(lines.length).toBeGreaterThan(20);
    await server.tamsin.get(`/api/timers/${LARKHOLT}/runs.csv?days=0`).expect(422);
    await server.stranger.get(`/api/timers/${LARKHOLT}/watering.ics`).expect(404);
  });
});

describe('a site as one ZIP', () => {
  const put = (bytes: Buffer, id = randomUUID(), agent = server.tamsin): request.Test =>
    agent.put(`/api/sites/${id}/archive`).set('Content-Type', 'application/zip').send(bytes);
  const exported = async (id: string, agent = server.tamsin) =>
    (await bytesOf(agent.get(`/api/sites/${id}/archive`)).expect(200)).body as Buffer;

  test('goes out and comes in without loss, for another company too', async () => {
    const bytes = await exported(FENNIMORE_SITE);
    const files = await unzipped(bytes);
    expect([...files.keys()]).toContain('timers/1/visits/1.json');
    await server.stranger.get(`/api/sites/${FENNIMORE_SITE}/archive`).expect(404);
    const id = randomUUID();
    const made = await put(bytes, id, server.stranger).expect(200);
    expect((await put(bytes, id, server.stranger).expect(200)).body).toEqual(made.body);
    const [timer] = (made.body as { timerIds: string[] }).timerIds;
    const brought = await server.stranger.get(`/api/timers/${timer}`).expect(200);
    expect((brought.body as View).plan).toEqual((await view(FENNIMORE)).plan);
    const log = (await server.stranger.get(`/api/timers/${timer}/visits`).expect(200)).body as {
      id: string;
    }[];
    await server.stranger.get(`/api/visits/${log[0]?.id}`).expect(200);
    const back = await unzipped(await exported(id, server.stranger));
    expect([...back.keys()]).toEqual([...files.keys()]);
    // The archive has no library, so the rules must be chosen again.
    const withoutRules = (text: string | undefined) =>
      text?.replace(/"rulesId": "[^"]+"/, '"rulesId": null');
    for (const [name, content] of files)
      expect({ name, text: back.get(name)?.toString() }).toEqual({
        name,
        text: withoutRules(content.toString()),
      });
    await put(
      await zipped(new Map([...files, ['extra.txt', Buffer.from('x')]])),
      id,
      server.stranger,
    ).expect(422);
  });

  test('that is wrong is refused by part and changes nothing', async () => {
    const before = (await server.tamsin.get('/api/sites').expect(200)).body as unknown[];
    const files = await unzipped(await exported(FENNIMORE_SITE));
    const refusal = async (bytes: Buffer) => {
      const answer = await put(bytes).expect(422);
      return (answer.body as { message: string }).message;
    };
    const changed = (change: (all: Map<string, Buffer>) => void) => {
      const all = new Map(files);
      change(all);
      return zipped(all);
    };
    expect(await refusal(Buffer.from('no zip at all'))).toMatch(/not a ZIP file/);
    expect(await refusal(await changed((all) => all.delete('timers/1/survey.json')))).toMatch(
      /timers\/1\/survey\.json: this part is missing/,
    );
    const index = files.get('site.json')?.toString() ?? '';
    const second = index.replace('"version": 1', '"version": 2');
    expect(
      await refusal(await changed((all) => all.set('site.json', Buffer.from(second)))),
    ).toMatch(/version 2 is not supported/);
    const plan = files.get('timers/1/timer.plan.json')?.toString() ?? '';
    const wrong = plan.replace('"stationCount": 8', '"stationCount": 800');
    expect(
      await refusal(
        await changed((all) => all.set('timers/1/timer.plan.json', Buffer.from(wrong))),
      ),
    ).toMatch(/timers\/1\/timer\.plan\.json: timer\.stationCount/);
    // A path that leads out of the archive. The writer cannot make one, so the bytes are changed.
    const outside = await changed((all) => all.set('aa/aa/x.txt', Buffer.from('x')));
    expect(
      await refusal(
        Buffer.from(outside.toString('latin1').replaceAll('aa/aa/x.txt', '../../x.txt'), 'latin1'),
      ),
    ).toMatch(/invalid relative path|\.\.\//);
    // ZIP bombs: twenty billion bytes claimed, or far more inside than claimed.
    const zeros = Buffer.alloc(20_000_000);
    expect(deflateRawSync(zeros).length).toBeLessThan(30_000);
    expect(await refusal(await changed((all) => all.set('photos/bomb', zeros)))).toMatch(
      /more than 3000000 bytes/,
    );
    const liar = await changed((all) => all.set('photos/bomb', zeros));
    const size = Buffer.alloc(4);
    size.writeUInt32LE(zeros.length);
    const small = Buffer.alloc(4);
    small.writeUInt32LE(1000);
    expect(
      await refusal(
        Buffer.from(
          liar.toString('latin1').replaceAll(size.toString('latin1'), small.toString('latin1')),
          'latin1',
        ),
      ),
    ).toMatch(/photos\/bomb/);
    expect(
      await server.tamsin.get('/api/sites').then(({ body }) => (body as unknown[]).length),
    ).toBe(before.length);
  });
});
