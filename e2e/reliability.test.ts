/** Nothing acknowledged is lost, doubled or misreported, whatever breaks; and everything can be backed up and restored. */
import { execFile, spawn, type ChildProcess } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { afterAll, expect, jest, test } from '@jest/globals';
import { kills, lostCommits, theatre, twoServers } from '../scripts/chaos.mjs';
import { compare, Writers } from '../scripts/chaos-writers.mjs';
import { ensureDatabase, freePort, startCluster } from '../scripts/cluster.mjs';
import { cases, isLong } from '../packages/core/tests/cases.ts';
import { isThere, markOf } from '../scripts/processes.mjs';

jest.setTimeout(900_000);

const ROOT = path.resolve(import.meta.dirname, '..');
/** An even number. */
const KILLS = isLong ? 20 : 2;
const NOTHING = { lost: 0, doubled: 0, gaps: 0, toldWrongly: 0 };
const run = promisify(execFile);

test(`${KILLS} kills of server and database under eight writers`, async () => {
  const told = await kills({ count: KILLS, seed: 7 });
  expect(told).toMatchObject({ ...NOTHING, crashes: 0 });
  expect(told.acknowledged).toBeGreaterThanOrEqual(KILLS);
  expect(told.times.server.kills).toBe(KILLS / 2);
  expect(told.times.database.kills).toBe(KILLS / 2);
});

test('answers of COMMIT that never arrive', async () => {
  const count = cases(10);
  const told = await lostCommits({ count });
  expect(told).toMatchObject({ ...NOTHING, answersLost: count });
});

const [CLIENTS, WRITES] = isLong ? [20, 40] : [8, 12];
test(`one of two servers is killed with ${CLIENTS} people on one timer; the other goes on`, async () => {
  const told = await twoServers({ clients: CLIENTS, writes: WRITES });
  expect(told).toMatchObject(NOTHING);
  expect(told.before).toBeGreaterThanOrEqual(WRITES);
  expect(told.after).toBeGreaterThanOrEqual(WRITES);
});

test('a backup under load holds one moment whole, and a quiet one every row', async () => {
  await theatre(async ({ cluster, folder, start, query }) => {
    const server = await start();
    const writers = new Writers(() => [server.url], 8);
    await writers.acknowledge(20);
    const before = writers.acknowledged.map(({ id }) => id);
    const bin = (name: string, url: string, ...args: string[]) =>
      run(path.join(ROOT, 'bin', name), args, { env: { ...process.env, DATABASE_URL: url } });
    const source = cluster.url('chaos');
    const [loaded, quiet] = ['loaded', 'quiet'].map((name) => path.join(folder, name)) as [
      string,
      string,
    ];
    await bin('backup', source, loaded);
    await writers.stop();
    expect(await compare(writers, query)).toMatchObject(NOTHING);
    // The server still recalculates timer status.
    await server.stop();
    await bin('backup', source, quiet);
    await expect(bin('backup', source, quiet)).rejects.toThrow(/is there already/);

    const empty = await startCluster({ name: `test-${process.pid}-restored`, throwAway: true });
    try {
      const into = async (name: string, file: string) => {
        await ensureDatabase(empty.url('postgres'), name);
        await bin('restore', empty.url(name), file);
        return empty.url(name);
      };
      const half = await into('under_load', loaded);
      const ids = new Set((await query('select id from changes', half)).map(({ id }) => id));
      for (const id of before) expect(ids).toContain(id);
      const gaps = await query(
        `select t.id from timers t left join changes c on c.subject_id = t.id
         group by t.company_id, t.id, t.version having count(c.id) <> t.version - 1`,
        half,
      );
      expect(gaps).toEqual([]);

      const whole = await into('whole', quiet);
      const tables = (
        await query(`select tablename as name from pg_tables where schemaname = 'public'`)
      ).map(({ name }) => String(name));
      expect(tables.length).toBeGreaterThan(12);
      for (const table of tables) {
        const rows = `select t::text as row from ${table} t order by 1`;
        expect([table, await query(rows, whole)]).toEqual([table, await query(rows)]);
      }
      await expect(bin('restore', whole, quiet)).rejects.toThrow(/holds data/);
      const broken = path.join(folder, 'broken');
      fs.writeFileSync(broken, fs.readFileSync(quiet).subarray(0, 3000));
      await expect(bin('restore', half, broken)).rejects.toThrow(/not a backup|holds data/);
    } finally {
      empty.remove();
    }
  });
});

const data = fs.mkdtempSync(path.join(os.tmpdir(), 'water-clock-start-'));
const started: ChildProcess[] = [];
afterAll(() => {
  for (const child of started) child.kill('SIGTERM');
  fs.rmSync(data, { recursive: true, force: true });
});

test('bin/start brings back what ends, is harmed by no second one, ends what a killed one left, and stops it all', async () => {
  const port = await freePort();
  const env = {
    ...process.env,
    WATER_CLOCK_DATA: data,
    PORT: String(port),
    DATABASE_URL: undefined,
  };
  const begin = () => {
    const child = spawn(path.join(ROOT, 'bin/start'), { env, stdio: ['ignore', 'pipe', 'pipe'] });
    started.push(child);
    let said = '';
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (chunk: Buffer) => (said += chunk.toString()));
    const ended = new Promise<number | null>((done) => child.once('exit', (code) => done(code)));
    return { child, ended, said: () => said };
  };
  const until = async <T>(look: () => Promise<T | null | false> | T | null | false): Promise<T> => {
    for (;;) {
      const found = await look();
      if (found) return found;
      await new Promise((later) => setTimeout(later, 100));
    }
  };
  const note = () =>
    JSON.parse(fs.readFileSync(path.join(data, 'running.json'), 'utf8')) as {
      server: { pid: number };
    };
  const isReady = () =>
    fetch(`http://localhost:${port}/api/health/ready`).then(
      ({ ok }) => ok,
      () => false,
    );
  /** The database is the process whose data folder belongs to this start. */
  const databaseOf = (server: number) => {
    const url = fs
      .readFileSync(`/proc/${server}/environ`, 'utf8')
      .split('\0')
      .find((one) => one.startsWith('DATABASE_URL='));
    const wanted = `-p ${new URL(url?.slice('DATABASE_URL='.length) ?? '').port}`;
    const pid = fs
      .readdirSync('/proc')
      .filter((name) => /^\d+$/.test(name))
      .find((name) => {
        try {
          const command = fs.readFileSync(`/proc/${name}/cmdline`, 'utf8').replaceAll('\0', ' ');
          return command.includes('postgres -D') && command.includes(wanted);
        } catch {
          return false;
        }
      });
    return Number(pid);
  };

  const first = begin();
  await until(() => first.said().includes('Ctrl-C stops it'));
  const server = note().server.pid;
  process.kill(server, 'SIGKILL');
  await until(() => first.said().includes('The server runs again'));
  await until(isReady);
  const database = databaseOf(note().server.pid);
  process.kill(database, 'SIGKILL');
  await until(() => first.said().includes('The database runs again'));
  await until(isReady);

  const second = begin();
  expect(await second.ended).toBe(1);
  expect(second.said()).toContain(`running already: http://localhost:${port}`);
  expect(await isReady()).toBe(true);

  const orphan = markOf(note().server.pid);
  first.child.kill('SIGKILL');
  await first.ended;
  expect(isThere(orphan)).toBe(true);
  const third = begin();
  await until(() => third.said().includes('Ctrl-C stops it'));
  expect(isThere(orphan)).toBe(false);
  await until(isReady);
  const last = [note().server.pid, databaseOf(note().server.pid)].map(markOf);
  third.child.kill('SIGTERM');
  expect(await third.ended).toBe(0);
  expect(last.map(isThere)).toEqual([false, false]);
});
