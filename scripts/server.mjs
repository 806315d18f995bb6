/** Starts the built server as its own process and waits until it listens. */
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { end, markOf } from './processes.mjs';
import { ROOT } from './setup.mjs';

/** Kills a server that does not stop; every change is a transaction, so nothing is half saved. */
const KILL_AFTER_MS = 15_000;
const WEB = path.join(ROOT, 'apps/web/dist');
const LOG_SIZE = '10M';
const LOG_FILES = 5;
/** Characters of output shown from a server that does not start. */
const LAST_WORDS = 1500;

/** A log in files of limited size, of which the last ones are kept. */
async function rotatedLog(file) {
  const { createStream } = await import('rotating-file-stream');
  const log = createStream(path.basename(file), {
    path: path.dirname(file),
    size: LOG_SIZE,
    maxFiles: LOG_FILES,
  });
  // A log that cannot be written is no reason to stop.
  log.on('error', () => {});
  return log;
}

export const patienceWithServer = KILL_AFTER_MS;

/**
 * @param {{ databaseUrl: string, port?: number, env?: Record<string, string>, nodeArguments?: readonly string[], logFile: string }} options
 */
export async function startServer({
  databaseUrl,
  port = 0,
  env = {},
  nodeArguments = [],
  logFile,
}) {
  const log = await rotatedLog(logFile);
  const main = path.join(ROOT, 'apps/server/dist/main.js');
  const child = spawn(process.execPath, [...nodeArguments, main], {
    env: {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: databaseUrl,
      PORT: String(port),
      // Without it, the API only.
      ...(fs.existsSync(path.join(WEB, 'index.html')) ? { WATER_CLOCK_WEB_ROOT: WEB } : {}),
      ...env,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  const ended = new Promise((resolve) =>
    child.once('exit', (code, signal) => {
      log.end();
      resolve(signal === null ? `with code ${code}` : `by ${signal}`);
    }),
  );
  let complaint = '';
  child.stderr.on('data', (chunk) => {
    log.write(chunk);
    complaint = (complaint + chunk).slice(-LAST_WORDS);
  });
  const url = await new Promise((resolve, reject) => {
    let seen = '';
    child.stdout.on('data', (chunk) => {
      log.write(chunk);
      seen = (seen + chunk).slice(-20_000);
      const match = /^listening (\S+)$/m.exec(seen);
      if (match) resolve(match[1]);
    });
    void ended.then((how) =>
      reject(
        new Error(`the server ended ${how}; see ${path.relative(ROOT, logFile)}\n${complaint}`),
      ),
    );
  });
  return {
    url: url.replace('127.0.0.1', 'localhost'),
    pid: child.pid,
    ended,
    stop: () => end(markOf(child.pid), KILL_AFTER_MS),
  };
}
