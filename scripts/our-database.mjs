/** The database for bin/backup and bin/restore, and PostgreSQL's tools for it. */
import { execFileSync } from 'node:child_process';
import path from 'node:path';
import { ensureDatabase, runningCluster, startCluster } from './cluster.mjs';
import { takeLock } from './lock.mjs';
import { DATA, postgresPrograms, setUp } from './setup.mjs';

export const DATABASE = 'water_clock';

/** An error the caller can fix. */
export class Wrong extends Error {}

/** Sets up what this folder's database needs; for another server's, nothing of ours is touched. */
export function prepare() {
  if (!process.env.DATABASE_URL) setUp({ database: true });
}

/**
 * Runs work on the database in DATABASE_URL, otherwise on this folder's, whether or not bin/start is running it.
 *
 * @param {{ alone: boolean }} how alone: not while bin/start runs
 * @param {(database: { url: string, admin: string | null }) => Promise<void>} work admin: for creating databases; null: another server's
 */
export async function withDatabase({ alone }, work) {
  const own = process.env.DATABASE_URL;
  if (own) {
    await work({ url: own, admin: null });
    return;
  }
  const unlock = await takeLock(DATA);
  if (!unlock && alone)
    throw new Wrong('Water Clock of this folder is running; stop it first (Ctrl-C)');
  const running = unlock ? null : runningCluster('main');
  if (!unlock && !running)
    throw new Wrong('Water Clock of this folder is just starting; try again');
  const cluster = running ?? (await startCluster({ name: 'main' }));
  try {
    await ensureDatabase(cluster.url('postgres'), DATABASE);
    await work({ url: cluster.url(DATABASE), admin: cluster.url('postgres') });
  } finally {
    if (!running) cluster.stop();
    unlock?.();
  }
}

/** @throws Wrong if it is not installed */
function programPath(program) {
  const folder = postgresPrograms(program);
  if (!folder) throw new Wrong(`${program} is missing: install the package postgresql-client`);
  return path.join(folder, program);
}

/** Whether a file is a readable backup. */
export function isReadable(file) {
  const program = programPath('pg_restore');
  try {
    execFileSync(program, ['--list', file], { stdio: 'ignore' });
    return true;
  } catch {
    return false;
  }
}

/** Runs a PostgreSQL program on a database, keeping the password out of the process list. */
export function postgresTool(program, url, args) {
  const { hostname, port, username, password, pathname } = new URL(url);
  const name = decodeURIComponent(pathname.slice(1));
  execFileSync(programPath(program), ['--no-password', ...args, `--dbname=${name}`], {
    stdio: ['ignore', 'ignore', 'pipe'],
    encoding: 'utf8',
    env: {
      ...process.env,
      PGHOST: hostname,
      PGPORT: port || '5432',
      PGUSER: decodeURIComponent(username),
      PGPASSWORD: decodeURIComponent(password),
    },
  });
}

/** Runs a command's work and reports errors, without a stack unless it is our bug. */
export async function command(work) {
  try {
    await work();
  } catch (error) {
    const told = error instanceof Wrong ? error.message : (error.stderr ?? error.stack);
    process.stderr.write(`${String(told).trim()}\n`);
    process.exitCode = 1;
  }
}
