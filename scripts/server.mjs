/** Starts the built server as a process of its own and waits until it listens. */
import { spawn } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { ROOT } from './setup.mjs';

/** Ends a server that does not end by itself; every change is a transaction, so nothing is half saved. */
const KILL_AFTER_MS = 8000;

/**
 * @param {{ databaseUrl: string, port?: number, env?: Record<string, string>, logFile: string }} options
 * @returns {Promise<{ url: string, exited: Promise<number | null>, stop: () => Promise<void> }>}
 */
export async function startServer({ databaseUrl, port = 0, env = {}, logFile }) {
  const log = fs.createWriteStream(logFile, { flags: 'a' });
  const child = spawn(process.execPath, [path.join(ROOT, 'apps/server/dist/main.js')], {
    env: {
      ...process.env,
      NODE_ENV: 'production',
      DATABASE_URL: databaseUrl,
      PORT: String(port),
      WATER_CLOCK_WEB_ROOT: path.join(ROOT, 'apps/web/dist'),
      ...env,
    },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  const exited = new Promise((resolve) => child.once('exit', (code) => resolve(code)));
  child.stderr.pipe(log);
  const url = await new Promise((resolve, reject) => {
    let seen = '';
    child.stdout.on('data', (chunk) => {
      log.write(chunk);
      seen = (seen + chunk).slice(-20_000);
      const match = /^listening (\S+)$/m.exec(seen);
      if (match) resolve(match[1]);
    });
    void exited.then((code) =>
      reject(new Error(`the server ended with code ${code}; see ${path.relative(ROOT, logFile)}`)),
    );
  });
  return {
    url: url.replace('127.0.0.1', 'localhost'),
    exited,
    stop: async () => {
      child.kill('SIGTERM');
      const last = setTimeout(() => child.kill('SIGKILL'), KILL_AFTER_MS);
      await exited;
      clearTimeout(last);
    },
  };
}
