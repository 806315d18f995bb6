/** A company from its creation on: who joins, in which role, and who leaves. */
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import type { NestExpressApplication } from '@nestjs/platform-express';
import { generateSync } from 'otplib';
import { SMTPServer } from 'smtp-server';
import request from 'supertest';
import { DataSource } from 'typeorm';
import { makeTestDatabase } from '../../../scripts/test-database.mjs';
import { applicationOn } from './testServer.ts';

const CODE = 'WELL-RIVER-42';
const PASSWORD = 'rain before seven';
const BRAMBLE = {
  ...{ id: randomUUID(), personId: randomUUID(), company: 'Bramble & Daughters' },
  ...{ name: 'Ottilie Bramble', email: 'ottilie@bramble.example', password: PASSWORD },
};
const newLink = () => ({
  id: randomUUID(),
  token: randomUUID().replaceAll('-', 'x').padEnd(43, 'y'),
});

let app: NestExpressApplication;
let database: DataSource;
let owner: request.Agent;
beforeAll(async () => {
  app = await applicationOn(await makeTestDatabase({ empty: true }), {
    demo: false,
    foundingCode: CODE,
  });
  database = app.get(DataSource);
  owner = agent();
});
afterAll(() => app.close());

const agent = () => request.agent(app.getHttpServer());
const codeIn = ({ body }: request.Response) => (body as { code: string }).code;
const signIn = (who: request.Agent, email: string, password = PASSWORD, code?: string) =>
  who.post('/api/session').send({ email, password, code });
const stateOf = async () =>
  ((await agent().get('/api/companies').expect(200)).body as { founding: string }).founding;

interface Member {
  readonly id: string;
  readonly name: string;
  readonly version: number;
  readonly takenOutAt: string | null;
}
const memberOf = async (name: string): Promise<Member> => {
  const people = (await owner.get('/api/people').expect(200)).body as Member[];
  const found = people.find((one) => one.name === name);
  if (!found) throw new Error(`nobody is called ${name}`);
  return found;
};
const writeTo = ({ version }: Member) => ({ id: randomUUID(), baseVersion: version });

/** Invites someone and lets them choose a password. */
async function invited(name: string, role: string): Promise<request.Agent> {
  const link = newLink();
  const email = `${name.toLowerCase()}@bramble.example`;
  await owner
    .post('/api/invitations')
    .send({ ...link, name, email, role })
    .expect(200);
  const who = agent();
  await join(who, link.token).expect(200);
  await signIn(who, email).expect(204);
  return who;
}
const join = (who: request.Agent, token: string, personId = randomUUID(), password = PASSWORD) =>
  who.post('/api/join').set('Authorization', `Bearer ${token}`).send({ personId, password });

describe('founding', () => {
  test('takes the code that was printed, once; what comes at the same time comes too late', async () => {
    expect(await stateOf()).toBe('code');
    const found = (company: object) => agent().post('/api/companies').send(company);
    const wrong = await found({ ...BRAMBLE, code: 'WELL-RIVER-43' }).expect(403);
    expect(wrong.body).toMatchObject({ code: 'founding-closed', faults: [{ path: 'code' }] });
    const other = { ...BRAMBLE, id: randomUUID(), personId: randomUUID(), email: 'b@b.example' };
    // As a person types it: lower case, without hyphens.
    const typed = 'well river 42';
    const answers = await Promise.all([
      ...Array.from({ length: 3 }, () => found({ ...BRAMBLE, code: typed })),
      found({ ...other, code: typed }),
    ]);
    const statuses = answers.map(({ status }) => status);
    const companies: unknown[] = await database.query('select name from companies');
    expect(companies).toHaveLength(1);
    // The same code again gets the first answer; another one is refused.
    expect(statuses.filter((status) => status === 403).length).toBe(statuses[3] === 201 ? 3 : 1);
    if (statuses[3] === 201) Object.assign(BRAMBLE, other);
    expect(await stateOf()).toBe('closed');
    await found({ ...other, id: randomUUID(), email: 'late@b.example', code: CODE }).expect(403);
    await signIn(owner, BRAMBLE.email).expect(204);
    const session = await owner.get('/api/session').expect(200);
    expect(session.body).toMatchObject({ person: { role: 'owner', company: BRAMBLE.company } });
    expect((await owner.get('/api/sites').expect(200)).body).toEqual([]);
  });

  test('says by field what is wrong', async () => {
    const bad = { ...BRAMBLE, company: ' ', email: 'nobody', password: 'short' };
    const answer = await agent().post('/api/companies').send(bad).expect(400);
    const { faults } = answer.body as { faults: { path: string }[] };
    expect(faults.map(({ path }) => path)).toEqual(['company', 'email', 'password']);
  });

  test('is open to further companies where the server says so', async () => {
    const open = await applicationOn(await makeTestDatabase({ empty: true }), {
      demo: false,
      signUp: 'open',
    });
    try {
      const found = (email: string) =>
        request(open.getHttpServer())
          .post('/api/companies')
          .send({ ...BRAMBLE, id: randomUUID(), personId: randomUUID(), email });
      await found('a@company.example').expect(201);
      await found('b@company.example').expect(201);
      expect(codeIn(await found(' A@company.example ').expect(409))).toBe('address-taken');
    } finally {
      await open.close();
    }
  });
});

describe('an invitation', () => {
  test('works once, for 48 hours, until it is withdrawn', async () => {
    const link = newLink();
    const body = { ...link, name: 'Perrin', email: 'perrin@bramble.example', role: 'technician' };
    for (let i = 0; i < 2; i++) await owner.post('/api/invitations').send(body).expect(200);
    const look = (token = link.token) =>
      agent().get('/api/join').set('Authorization', `Bearer ${token}`);
    expect((await look().expect(200)).body).toMatchObject({
      company: BRAMBLE.company,
      name: 'Perrin',
      role: 'technician',
    });
    const stored = JSON.stringify(await database.query('select * from person_links'));
    expect(stored).not.toContain(link.token);

    const age = (hours: number) =>
      database.query(`update person_links set expires_at = at + make_interval(hours => $1)`, [
        hours,
      ]);
    await age(0);
    expect(codeIn(await look().expect(410))).toBe('link-expired');
    await age(48);
    await look().expect(200);

    const personId = randomUUID();
    await join(agent(), link.token, personId).expect(200);
    // The answer was lost and the request is sent again.
    await join(agent(), link.token, personId).expect(200);
    expect(codeIn(await join(agent(), link.token, randomUUID(), 'another one!').expect(410))).toBe(
      'link-used',
    );
    const perrin = agent();
    await signIn(perrin, ' Perrin@bramble.example').expect(204);
    expect((await perrin.get('/api/session')).body).toMatchObject({ person: { id: personId } });

    const gone = newLink();
    const next = { ...body, ...gone, email: 'next@bramble.example' };
    await owner.post('/api/invitations').send(next).expect(200);
    await owner.post(`/api/invitations/${gone.id}/withdraw`).expect(204);
    expect(codeIn(await look(gone.token).expect(410))).toBe('link-expired');
    await join(agent(), gone.token).expect(410);
    expect((await owner.get('/api/invitations')).body).toEqual([]);
    await look('nothing').expect(404);
  });

  test('of an address that has an account is refused: in the company at once, else to who opens it', async () => {
    const taken = { ...newLink(), name: 'X', email: BRAMBLE.email, role: 'office' };
    expect(codeIn(await owner.post('/api/invitations').send(taken).expect(409))).toBe(
      'address-taken',
    );
    const company = randomUUID();
    await database.query(`insert into companies (id, name) values ($1, 'Elsewhere')`, [company]);
    await database.query(
      `insert into people (company_id, id, name, email, role, password_hash)
       values ($1, $2, 'Else', 'else@elsewhere.example', 'owner', 'x')`,
      [company, randomUUID()],
    );
    const link = newLink();
    const other = { ...link, name: 'Else', email: 'else@elsewhere.example', role: 'office' };
    await owner.post('/api/invitations').send(other).expect(200);
    expect(codeIn(await join(agent(), link.token).expect(409))).toBe('address-taken');
    await owner.post(`/api/invitations/${link.id}/withdraw`).expect(204);
  });
});

describe('people', () => {
  test('by role: an apprentice sees, a technician works, and only owners look after people', async () => {
    const apprentice = await invited('Linnet', 'apprentice');
    await apprentice.get('/api/sites').expect(200);
    const site = await apprentice.post('/api/sites').send({}).expect(403);
    expect(site.body).toMatchObject({ code: 'not-allowed', message: /owners.*technicians/ });
    const linnet = await memberOf('Linnet');
    await apprentice
      .post(`/api/people/${linnet.id}/role`)
      .send({ ...writeTo(linnet), role: 'owner' })
      .expect(403);
    const write = { ...writeTo(linnet), role: 'technician' };
    const change = () => owner.post(`/api/people/${linnet.id}/role`).send(write);
    for (let i = 0; i < 2; i++)
      expect((await change().expect(200)).body).toMatchObject({ version: 2 });
    await apprentice.post('/api/sites').send({}).expect(400);
    const stale = { ...writeTo(linnet), role: 'office' };
    const told = await owner.post(`/api/people/${linnet.id}/role`).send(stale).expect(409);
    expect(told.body).toMatchObject({ code: 'stale-version', current: { version: 2 } });
  });

  test('who is taken out is out at once, and the address is free for another', async () => {
    const wyn = await invited('Wyn', 'technician');
    const before = await memberOf('Wyn');
    await owner.post(`/api/people/${before.id}/removal`).send(writeTo(before)).expect(200);
    await wyn.get('/api/sites').expect(401);
    await signIn(agent(), 'wyn@bramble.example').expect(401);
    expect((await memberOf('Wyn')).takenOutAt).not.toBeNull();
    await owner.post(`/api/people/${before.id}/removal`).send(writeTo(before)).expect(404);
    await invited('Wyn', 'office');
  });

  test('a company keeps an owner: of two who take each other out at once one stays', async () => {
    const first = await memberOf(BRAMBLE.name);
    const alone = await owner.post(`/api/people/${first.id}/removal`).send(writeTo(first));
    expect([alone.status, codeIn(alone)]).toEqual([409, 'last-owner']);
    const demoted = { ...writeTo(first), role: 'office' };
    await owner.post(`/api/people/${first.id}/role`).send(demoted).expect(409);
    expect((await memberOf(BRAMBLE.name)).version).toBe(first.version);

    const second = await invited('Sorrel', 'owner');
    const sorrel = await memberOf('Sorrel');
    const statuses = await Promise.all([
      owner.post(`/api/people/${sorrel.id}/role`).send({ ...writeTo(sorrel), role: 'office' }),
      second.post(`/api/people/${first.id}/role`).send({ ...writeTo(first), role: 'office' }),
    ]);
    const [done, refused] = statuses.map(({ status }) => status).sort();
    // By then the second is the last owner, or no owner any more.
    expect([done, refused === 409 || refused === 403]).toEqual([200, true]);
    const [{ owners } = { owners: '' }]: { owners: string }[] = await database.query(
      `select count(*) as owners from people where role = 'owner' and company_id = $1`,
      [BRAMBLE.id],
    );
    expect(owners).toBe('1');
    // The remaining owner continues in this file.
    if (statuses[0]?.status !== 200) owner = second;
  });
});

describe('one’s own account', () => {
  test('another password ends the other sessions; the present one must be known', async () => {
    const [here, there] = [await invited('Teal', 'technician'), agent()];
    await signIn(there, 'teal@bramble.example').expect(204);
    const change = (password: string) =>
      here.post('/api/account/password').send({ password, newPassword: 'snow on Monday' });
    const told = await change('not it').expect(422);
    expect(told.body).toMatchObject({ faults: [{ code: 'wrong-password', path: 'password' }] });
    await there.get('/api/sites').expect(200);
    // The second time, its answer was lost.
    for (let i = 0; i < 2; i++) await change(PASSWORD).expect(204);
    await there.get('/api/sites').expect(401);
    await here.get('/api/sites').expect(200);
    await signIn(there, 'teal@bramble.example').expect(401);
    await signIn(there, 'teal@bramble.example', 'snow on Monday').expect(204);
  });

  test('sessions are listed with their device, and end one by one or all but this', async () => {
    const [here, ...others] = [await invited('Merle', 'office'), agent(), agent(), agent()];
    for (const one of others)
      await signIn(one.set('User-Agent', 'Telephone 7'), 'merle@bramble.example').expect(204);
    const list = async () =>
      (await here.get('/api/account/sessions').expect(200)).body as {
        id: string;
        device: string;
        isThis: boolean;
      }[];
    const sessions = await list();
    expect(sessions.filter(({ isThis }) => isThis)).toHaveLength(1);
    expect(sessions.filter(({ device }) => device === 'Telephone 7')).toHaveLength(3);
    const one = sessions.find(({ isThis }) => !isThis);
    await here.delete(`/api/account/sessions/${one?.id}`).expect(204);
    const served = async () =>
      (await Promise.all(others.map((other) => other.get('/api/sites')))).filter(
        ({ status }) => status === 200,
      ).length;
    expect(await served()).toBe(2);
    // Other people's sessions cannot be ended.
    const own = (await list()).find(({ isThis }) => isThis)?.id ?? '';
    await owner.delete(`/api/account/sessions/${own}`).expect(204);
    await here.delete('/api/account/sessions').expect(204);
    expect([await served(), (await list()).length]).toEqual([0, 1]);
  });

  test('a second factor is asked for from then on; each code counts once', async () => {
    const here = await invited('Fern', 'technician');
    const { secret, address } = (await here.get('/api/account/second-factor/new').expect(200))
      .body as { secret: string; address: string };
    expect(address).toContain(secret);
    const codeAt = (seconds: number) =>
      generateSync({ secret, epoch: Math.floor(Date.now() / 1000) + seconds });
    const set = (code: string, password = PASSWORD) =>
      here.post('/api/account/second-factor').send({ password, secret, code });
    await set('000000').expect(422);
    await set(codeAt(0), 'not it').expect(422);
    const email = 'fern@bramble.example';
    await signIn(agent(), email).expect(204);
    const used = codeAt(-30);
    await set(used).expect(204);

    expect(codeIn(await signIn(agent(), email).expect(401))).toBe('code-needed');
    expect(codeIn(await signIn(agent(), email, 'guess', codeAt(0)).expect(401))).toBe(
      'wrong-sign-in',
    );
    expect(codeIn(await signIn(agent(), email, PASSWORD, '123').expect(401))).toBe('wrong-code');
    expect(codeIn(await signIn(agent(), email, PASSWORD, used).expect(401))).toBe('wrong-code');
    const code = codeAt(0);
    const both = await Promise.all([1, 2].map(() => signIn(agent(), email, PASSWORD, code)));
    expect(both.map(({ status }) => status).sort()).toEqual([204, 401]);

    const fern = await memberOf('Fern');
    await owner.post(`/api/people/${fern.id}/second-factor/off`).send(writeTo(fern)).expect(200);
    await signIn(agent(), email).expect(204);
  });
});

describe('a token', () => {
  const make = (who: request.Agent, token: string, more: object = {}) =>
    who.post('/api/account/tokens').send({
      ...{ id: randomUUID(), token, name: 'Office program', days: 30 },
      ...{ scopes: ['read', 'write', 'calendar'], password: PASSWORD, ...more },
    });
  const by = (token: string) => ({
    get: (path: string) => agent().get(path).set('Authorization', `Bearer wct_${token}`),
    post: (path: string) => agent().post(path).set('Authorization', `Bearer wct_${token}`),
  });

  test('does for a program what the person may, until it is withdrawn, is too old, or they are taken out', async () => {
    const robin = await invited('Robin', 'technician');
    const { token, id } = newLink();
    const body = { id, name: 'Office program' };
    for (let i = 0; i < 2; i++) await make(robin, token, body).expect(200);
    expect(codeIn(await make(robin, newLink().token, body).expect(409))).toBe('id-reused');
    expect(JSON.stringify(await database.query('select * from api_tokens'))).not.toContain(token);

    await by(token).get('/api/sites').expect(200);
    await by(token).post('/api/sites').send({}).expect(400);
    // Neither owners' actions nor the person's own account.
    await by(token).post('/api/invitations').send({}).expect(403);
    await by(token).get('/api/account/sessions').expect(403);
    await by(token)
      .post('/api/account/password')
      .send({ password: PASSWORD, newPassword: 'taken over!' })
      .expect(403);
    // A session does not make up for a wrong token.
    await robin.get('/api/sites').set('Authorization', `Bearer wct_${token}x`).expect(401);
    await by('nothing').get('/api/sites').expect(401);
    const listed = (await robin.get('/api/account/tokens').expect(200)).body as object[];
    expect(listed).toMatchObject([{ name: 'Office program' }]);

    await database.query(`update api_tokens set expires_at = now() - interval '1 second'`);
    await by(token).get('/api/sites').expect(401);
    await database.query(`update api_tokens set expires_at = now() + interval '1 day'`);
    await by(token).get('/api/sites').expect(200);

    const other = newLink();
    await make(robin, other.token, { id: other.id }).expect(200);
    await owner.delete(`/api/account/tokens/${other.id}`).expect(204);
    await by(other.token).get('/api/sites').expect(200);
    await robin.delete(`/api/account/tokens/${other.id}`).expect(204);
    await by(other.token).get('/api/sites').expect(401);

    const member = await memberOf('Robin');
    await owner.post(`/api/people/${member.id}/removal`).send(writeTo(member)).expect(200);
    await by(token).get('/api/sites').expect(401);
  });

  test('names what is wrong with it', async () => {
    const answer = await make(owner, 'short', { days: 400, name: '' }).expect(400);
    const { faults } = answer.body as { faults: { path: string }[] };
    expect(faults.map(({ path }) => path).sort()).toEqual(['days', 'name', 'token']);
    for (const scopes of [[], ['all'], ['read', 'read']])
      await make(owner, newLink().token, { scopes }).expect(400);
  });

  test('of an owner, stolen, reaches neither the company nor the account', async () => {
    const { token } = newLink();
    await make(owner, token).expect(200);
    const stolen = by(token);
    for (const path of [
      '/api/mails',
      '/api/audit',
      '/api/company',
      '/api/invitations',
      '/api/people',
    ])
      expect([path, (await stolen.get(path)).status]).toEqual([path, 403]);
    const [member] = (await owner.get('/api/people').expect(200)).body as { id: string }[];
    for (const path of [
      `/api/people/${member?.id}/password-link`,
      `/api/people/${member?.id}/second-factor/off`,
      `/api/people/${member?.id}/role`,
      `/api/people/${member?.id}/removal`,
      '/api/invitations',
      '/api/account/password',
      '/api/account/second-factor/off',
      '/api/account/tokens',
    ])
      expect([path, (await stolen.post(path).send({})).status]).toEqual([path, 403]);
    await stolen.get('/api/company/archive').expect(403);
  });

  test('does what its scopes say, takes the password to create, and lasts 90 days unless it is said', async () => {
    const refused = await make(owner, newLink().token, { password: 'not it' }).expect(422);
    expect(refused.body).toMatchObject({ faults: [{ code: 'wrong-password', path: 'password' }] });
    const of = async (...scopes: string[]) => {
      const { token } = newLink();
      const made = await make(owner, token, { scopes, days: undefined }).expect(200);
      const { madeAt, expiresAt } = made.body as { madeAt: string; expiresAt: string };
      expect(Math.round((Date.parse(expiresAt) - Date.parse(madeAt)) / 86_400_000)).toBe(90);
      const days = '/api/calendar?from=2027-03-01&to=2027-03-02';
      return [
        (await by(token).get('/api/sites')).status,
        (await by(token).post('/api/sites').send({})).status,
        (await by(token).get(days)).status,
        (await by(token).post('/api/calendar/some-day').send({})).status,
      ];
    };
    expect(await of('read')).toEqual([200, 403, 200, 403]);
    expect(await of('write')).toEqual([403, 400, 403, 400]);
    expect(await of('calendar')).toEqual([403, 403, 200, 400]);
  });
});

describe('a browser that was left open', () => {
  test('is asked for the password again before it reaches people, mail, the company or a deletion', async () => {
    const before = await owner.get('/api/session/confirm');
    expect(before.status).toBe(204);
    await database.query(`update sessions set confirmed_at = now() - interval '11 minutes'`);
    const robin = (await owner.get('/api/people').expect(200)).body as { id: string }[];
    const path = `/api/people/${robin[0]?.id}`;
    for (const asked of [
      owner.post(`${path}/password-link`).send({}),
      owner.post('/api/invitations').send({}),
      owner.post('/api/company/changes').send({}),
      owner.get('/api/mails'),
      owner.get('/api/company/archive'),
      owner.delete('/api/account/sessions'),
      owner.get('/api/session/confirm'),
    ]) {
      const answer = await asked;
      expect([answer.status, codeIn(answer)]).toEqual([403, 'confirm-needed']);
    }
    // Everything else goes on.
    await owner.get('/api/sites').expect(200);
    await owner.post('/api/sites').send({}).expect(400);
    const confirm = (password: string) => owner.post('/api/session/confirm').send({ password });
    expect((await confirm('not it').expect(422)).body).toMatchObject({
      faults: [{ code: 'wrong-password', path: 'password' }],
    });
    await owner.get('/api/mails').expect(403);
    await confirm(PASSWORD).expect(204);
    await owner.get('/api/mails').expect(200);
    await owner.post('/api/invitations').send({}).expect(400);
  });
});

describe('who cannot sign in', () => {
  const mails = async () =>
    (await owner.get('/api/mails').expect(200)).body as {
      recipient: string;
      text: string;
      state: string;
    }[];
  const tokenIn = (text = '') => /\/join#([\w-]{43})/.exec(text)?.[1] ?? '';

  test('gets a link that sets a new password once; without a mail server owners read it', async () => {
    const perrin = agent();
    await signIn(perrin, 'perrin@bramble.example').expect(204);
    const ask = (email: string) =>
      agent().post('/api/session/forgotten').set('Host', 'evil.example').send({ email });
    const before = (await mails()).length;
    const [known, unknown] = [
      await ask('Perrin@bramble.example').expect(204),
      await ask('nobody@bramble.example').expect(204),
    ];
    expect(known.body).toEqual(unknown.body);
    const after = await mails();
    expect(after.length).toBe(before + 1);
    const [mail] = after;
    expect(mail).toMatchObject({ recipient: 'perrin@bramble.example', state: 'kept' });
    expect(mail?.text).not.toContain('evil');
    await join(agent(), tokenIn(mail?.text), randomUUID(), 'a new one, please').expect(200);
    await perrin.get('/api/sites').expect(401);
    await signIn(agent(), 'perrin@bramble.example').expect(401);
    await signIn(agent(), 'perrin@bramble.example', 'a new one, please').expect(204);
    expect(codeIn(await join(agent(), tokenIn(mail?.text)).expect(410))).toBe('link-used');
    await signIn(perrin, 'perrin@bramble.example', 'a new one, please').expect(204);
    await perrin.get('/api/mails').expect(403);
  });

  test('can ask only so often for one account', async () => {
    const statuses: number[] = [];
    for (let i = 0; i < 4; i++)
      statuses.push(
        (await agent().post('/api/session/forgotten').send({ email: 'who@bramble.example' }))
          .status,
      );
    expect(statuses).toEqual([204, 204, 204, 429]);
  });

  test('gets it by mail where a mail server is set; what it did not take is sent later', async () => {
    let refusing = true;
    const taken: string[] = [];
    const smtp = new SMTPServer({
      authOptional: true,
      disabledCommands: ['STARTTLS'],
      onData(stream, _session, done) {
        let text = '';
        stream.on('data', (chunk: Buffer) => (text += chunk.toString()));
        stream.on('end', () => {
          if (!refusing) taken.push(text.replaceAll('=\r\n', '').replaceAll('=3D', '='));
          done(refusing ? new Error('not now') : null);
        });
      },
    });
    const port = await new Promise<number>((resolve) => {
      const listening = smtp.listen(0, '127.0.0.1', () => {
        const at = listening.address();
        resolve(typeof at === 'object' && at ? at.port : 0);
      });
    });
    const posting = await applicationOn(await makeTestDatabase({ empty: true }), {
      ...{ demo: false, signUp: 'open', publicUrl: 'https://water.bramble.example/' },
      ...{ smtpUrl: `smtp://127.0.0.1:${port}`, mailFrom: 'Water Clock <clock@bramble.example>' },
    });
    try {
      const who = request.agent(posting.getHttpServer());
      await who.post('/api/companies').send(BRAMBLE).expect(201);
      await signIn(who, BRAMBLE.email).expect(204);
      const until = async (is: (state: string | undefined) => boolean) => {
        let state: string | undefined;
        while (!is(state)) {
          const list = (await who.get('/api/mails').expect(200)).body as { state: string }[];
          state = list[0]?.state;
        }
      };
      const tries = async () =>
        (await posting.get(DataSource).query<{ tries: number }[]>('select tries from mails'))[0]
          ?.tries;
      const ask = () =>
        who.post('/api/session/forgotten').send({ email: BRAMBLE.email }).expect(204);
      await ask();
      while ((await tries()) !== 1);
      await until((state) => state === 'waiting');
      expect(taken).toEqual([]);
      refusing = false;
      await posting.get(DataSource).query('update mails set next_at = now()');
      await ask();
      await until((state) => state === 'sent');
      while (taken.length < 2) await new Promise((done) => setTimeout(done, 20));
      expect(taken[0]).toMatch(/To: ottilie@bramble\.example/);
      expect(taken[0]).toMatch(/https:\/\/water\.bramble\.example\/join#[\w-]{43}/);
      // Sent mail is not kept, because it would open an account.
      const kept = JSON.stringify((await who.get('/api/mails')).body);
      expect(kept).not.toContain('/join#');
    } finally {
      await posting.close();
      await new Promise<void>((done) => {
        smtp.close(done);
      });
    }
  });
});
