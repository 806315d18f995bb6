/**
 * `npm run chaos`: what happens to people's work when things break. Prints the rows of docs/reliability.md. Each part is a function, which
 * the tests call with small numbers.
 *
 *   npm run chaos -- --kills 1000 --commits 100 --seed 1
 */
import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { compare, Writers } from './chaos-writers.mjs';
import { ensureDatabase, freePort, startCluster } from './cluster.mjs';
import { gone, markOf, sleep } from './processes.mjs';
import { startServer } from './server.mjs';
import { setUp } from './setup.mjs';

const WRITERS = 8;
/** Most writes acknowledged between two kills. */
const WRITES_BETWEEN = 12;

/** Seeded pseudo-random numbers from 0 to 1 (mulberry32). */
function randomFrom(seed) {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** A durable cluster, and a server on it. */
export async function theatre(work) {
  setUp({ database: true });
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'water-clock-chaos-'));
  const name = `test-${process.pid}`;
  const stage = { folder, name, servers: [] };
  const pg = (await import('pg')).default;
  stage.cluster = await startCluster({ name });
  await ensureDatabase(stage.cluster.url('postgres'), 'chaos');
  stage.start = async ({ databaseUrl, port, ...more } = {}) => {
    const server = await startServer({
      databaseUrl: databaseUrl ?? stage.cluster.url('chaos'),
      port: port ?? (await freePort()),
      env: {
        WATER_CLOCK_DEMO: '1',
        WATER_CLOCK_SIGN_IN_TRIES: '100000',
        LOG_LEVEL: 'error',
        ...more.env,
      },
      nodeArguments: more.nodeArguments ?? [],
      logFile: path.join(folder, 'server.log'),
    });
    stage.servers.push(server);
    return server;
  };
  stage.query = async (sql, url = stage.cluster.url('chaos')) => {
    const client = new pg.Client({ connectionString: url });
    client.on('error', () => {});
    await client.connect();
    try {
      return (await client.query(sql)).rows;
    } finally {
      await client.end();
    }
  };
  try {
    return await work(stage);
  } finally {
    for (const server of stage.servers) await server.stop();
    stage.cluster.remove();
    fs.rmSync(folder, { recursive: true, force: true });
  }
}

const portOf = ({ url }) => Number(new URL(url).port);

async function ready({ url }, isOver = () => false) {
  while (!isOver()) {
    const ok = await fetch(`${url}/api/health/ready`).then(
      (answer) => answer.ok,
      () => false,
    );
    if (ok) return;
    await sleep(10);
  }
}

/** The database restarts as soon as the killed one's remains are gone. */
async function databaseAgain(stage) {
  for (;;) {
    try {
      stage.cluster = await startCluster({ name: stage.name, port: stage.cluster.port });
      return;
    } catch {
      await sleep(100);
    }
  }
}

const sorted = (numbers) => [...numbers].sort((a, b) => a - b);
const atShare = (numbers, share) =>
  sorted(numbers)[Math.min(numbers.length - 1, Math.floor(numbers.length * share))] ?? 0;

/** Kills the server or the database under load, some writes after the last kill, and restarts it at once. */
export const kills = ({ count, seed, say = () => {} }) =>
  theatre(async (stage) => {
    const random = randomFrom(seed);
    let crashes = 0;
    let isGone = false;
    let server;
    let port;
    const begin = async () => {
      stage.servers.length = 0;
      server = await stage.start({ port });
      isGone = false;
      port = portOf(server);
      const begun = server;
      // That of a killed one may come later.
      void server.ended.then(() => (isGone ||= begun === server));
    };
    await begin();
    const writers = new Writers(() => [server.url], WRITERS);
    const back = { server: [], database: [] };
    let first = true;
    for (let n = 0; n < count; n++) {
      await writers.acknowledge(1 + Math.floor(random() * WRITES_BETWEEN));
      // Not on the answer itself, but while the next writes are under way.
      await sleep(random() * 20);
      // One of each in every two, in either order.
      first = n % 2 === 0 ? random() < 0.5 : !first;
      const what = first ? 'server' : 'database';
      const mark = markOf(what === 'server' ? server.pid : stage.cluster.pid);
      const began = performance.now();
      process.kill(mark.pid, 'SIGKILL');
      await gone(mark, 5);
      if (what === 'server') await begin();
      else await databaseAgain(stage);
      await ready(server, () => isGone);
      // It ended by itself, not by a kill, which is a bug of ours.
      while (isGone) {
        crashes++;
        await begin();
        await ready(server, () => isGone);
      }
      back[what].push(performance.now() - began);
      if ((n + 1) % 50 === 0) say(`${n + 1} kills, ${writers.acknowledged.length} acknowledged`);
    }
    await writers.stop();
    const times = Object.fromEntries(
      Object.entries(back).map(([what, all]) => [
        what,
        {
          kills: all.length,
          medianMs: Math.round(atShare(all, 0.5)),
          p99Ms: Math.round(atShare(all, 0.99)),
        },
      ]),
    );
    return { crashes, ...(await compare(writers, stage.query)), times };
  });

/** A proxy to the database that, once armed, lets the next COMMIT through and drops the answer. */
function losingProxy(to) {
  let armed = false;
  let lost = 0;
  const proxy = net.createServer((client) => {
    const database = net.connect(to, '127.0.0.1');
    let losing = false;
    client.on('data', (bytes) => {
      if (armed && bytes.includes('COMMIT\0')) {
        armed = false;
        losing = true;
        // Counted here: the answer may take time and come in parts.
        lost++;
      }
      database.write(bytes);
    });
    database.on('data', (bytes) => {
      if (losing) {
        client.destroy();
        database.destroy();
      } else client.write(bytes);
    });
    for (const [one, other] of [
      [client, database],
      [database, client],
    ]) {
      one.on('error', () => other.destroy());
      one.on('close', () => other.destroy());
    }
  });
  return new Promise((resolve) =>
    proxy.listen(0, '127.0.0.1', () =>
      resolve({
        port: proxy.address().port,
        arm: () => (armed = true),
        isArmed: () => armed,
        lost: () => lost,
        close: () => proxy.close(),
      }),
    ),
  );
}

/** COMMIT answers that never arrive: the data is saved, and no one knows. */
export const lostCommits = ({ count }) =>
  theatre(async (stage) => {
    const proxy = await losingProxy(stage.cluster.port);
    const through = new URL(stage.cluster.url('chaos'));
    through.port = String(proxy.port);
    const server = await stage.start({ databaseUrl: through.href });
    const writers = new Writers(() => [server.url], WRITERS);
    while (proxy.lost() < count) {
      proxy.arm();
      while (proxy.isArmed()) await sleep(5);
      await sleep(20);
    }
    await writers.stop();
    const result = { answersLost: proxy.lost(), ...(await compare(writers, stage.query)) };
    proxy.close();
    return result;
  });

/** Two servers on one database; one is killed under load and stays down. */
export const twoServers = ({ clients, writes }) =>
  theatre(async (stage) => {
    const servers = [await stage.start(), await stage.start()];
    const writers = new Writers(() => servers.map(({ url }) => url), clients, { timers: 1 });
    await writers.acknowledge(writes);
    const before = writers.acknowledged.length;
    process.kill(servers[0].pid, 'SIGKILL');
    await writers.acknowledge(writes);
    await writers.stop();
    const after = writers.acknowledged.length - before;
    return { before, after, ...(await compare(writers, stage.query)) };
  });

/** A server stopped while writes are under way. */
export const stopped = ({ clients, rounds }) =>
  theatre(async (stage) => {
    let server = await stage.start();
    const port = portOf(server);
    const writers = new Writers(() => [server.url], clients);
    const took = [];
    for (let n = 0; n < rounds; n++) {
      await writers.acknowledge(WRITERS);
      const began = performance.now();
      await server.stop();
      took.push(performance.now() - began);
      server = await stage.start({ port });
    }
    await writers.stop();
    return { longestMs: Math.round(Math.max(...took)), ...(await compare(writers, stage.query)) };
  });

/** The database's disk fills up under load, and is cleared again. Needs permission to mount a small disk; null without. */
export const fullDisk = () =>
  theatre(async (stage) => {
    const disk = path.join(stage.folder, 'disk');
    fs.mkdirSync(disk);
    fs.chmodSync(stage.folder, 0o755);
    try {
      execFileSync('mount', ['-t', 'tmpfs', '-o', 'size=48m', 'none', disk], { stdio: 'ignore' });
    } catch {
      return null;
    }
    try {
      execFileSync('chown', ['postgres', disk]);
      const admin = stage.cluster.url('postgres');
      await stage.query(`create tablespace small location '${disk}'`, admin);
      await stage.query('create database full_disk tablespace small', admin);
      const url = stage.cluster.url('full_disk');
      const server = await stage.start({ databaseUrl: url });
      const query = (sql) => stage.query(sql, url);
      const writers = new Writers(() => [server.url], WRITERS);
      await sleep(1000);
      await query('create table filler (x text)');
      await query('alter table filler alter x set storage plain');
      let isFull = false;
      for (const size of [100, 1]) {
        isFull = false;
        while (!isFull)
          await query(
            `insert into filler select repeat('x', 8000) from generate_series(1, ${size})`,
          ).catch(() => (isFull = true));
      }
      await sleep(3000);
      const before = writers.acknowledged.length;
      await sleep(2000);
      const whileFull = writers.acknowledged.length - before;
      await query('drop table filler');
      await sleep(2000);
      await writers.stop();
      const result = { whileFull, ...(await compare(writers, query)) };
      await server.stop();
      await stage.query('drop database full_disk with (force)', admin);
      await stage.query('drop tablespace small', admin);
      return result;
    } finally {
      execFileSync('umount', ['-l', disk]);
    }
  });

/** The server's clock jumps while people write. */
export const clockJumps = ({ count, seed }) =>
  theatre(async (stage) => {
    const random = randomFrom(seed);
    const file = path.join(stage.folder, 'clock');
    fs.writeFileSync(file, '0');
    const preload = new URL('./chaos-clock.mjs', import.meta.url).href;
    const server = await stage.start({
      env: { CHAOS_CLOCK: file },
      nodeArguments: ['--import', preload],
    });
    const writers = new Writers(() => [server.url], WRITERS);
    for (let n = 0; n < count; n++) {
      await writers.acknowledge(WRITERS);
      // Up to two days either way.
      fs.writeFileSync(file, String(Math.round((random() * 4 - 2) * 86_400_000)));
    }
    await writers.stop();
    return { jumps: count, ...(await compare(writers, stage.query)) };
  });

async function main() {
  const { values } = parseArgs({
    options: {
      kills: { type: 'string', default: '1000' },
      commits: { type: 'string', default: '100' },
      seed: { type: 'string', default: '1' },
    },
  });
  const seed = Number(values.seed);
  const say = (text) => process.stderr.write(`${text}\n`);
  const tell = (name, result) => process.stdout.write(`${name}: ${JSON.stringify(result)}\n`);
  tell('lost COMMIT items', await lostCommits({ count: Number(values.commits) }));
  tell('two servers, one killed', await twoServers({ clients: 20, writes: 500 }));
  tell('told to stop', await stopped({ clients: WRITERS, rounds: 20 }));
  tell('full disk', await fullDisk());
  tell('clock jumps', await clockJumps({ count: 100, seed }));
  tell('kills', await kills({ count: Number(values.kills), seed, say }));
}

if (process.argv[1] === import.meta.filename) await main();
