/** What the measurements share: figures, rows of tables, screens, the demo timers, and a probe on a thread of its own. */
import { once } from 'node:events';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { sleep } from '../processes.mjs';

export const LARKHOLT = '/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c01';
export const FENNIMORE = '/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c02';

export const DESK = { width: 1280, height: 800 };
export const PHONE = { width: 390, height: 844, isMobile: true, hasTouch: true };

/** The smallest number that a share of all do not exceed; 0 of none. */
export const quantile = (numbers, share) =>
  [...numbers].sort((a, b) => a - b)[
    Math.min(numbers.length - 1, Math.floor(numbers.length * share))
  ] ?? 0;
export const median = (numbers) => quantile(numbers, 0.5);

/** Prints a row of a table. */
export const row = (...cells) => process.stdout.write(`| ${cells.join(' | ')} |\n`);
export const ms = (value) => `${value.toFixed(0)} ms`;
export const seconds = (milliseconds) => `${(milliseconds / 1000).toFixed(1)} s`;

/** In the page of a timer: verdict, strip and board stand. */
export const whole = () =>
  document.querySelector('.verdict[data-of="known"]') &&
  document.querySelector('.strip-cycle') &&
  document.querySelector('.board-cell, .phone-row');

/** @returns {Promise<{ cookie: string }>} headers of somebody who is signed in */
export async function signIn(url, email, password) {
  const answer = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password }),
  });
  return { cookie: answer.headers.getSetCookie()[0].split(';')[0] };
}

/**
 * Asks an address again and again from a thread of its own, which what is received here does not hold up.
 *
 * @returns `waits`: milliseconds of each answer since it was last called
 */
export function probe(url) {
  const worker = new Worker(new URL(import.meta.url), { workerData: { url } });
  return {
    waits: async () => {
      worker.postMessage('waits');
      const [waits] = await once(worker, 'message');
      return waits;
    },
    end: () => worker.terminate(),
  };
}

const PROBE_EVERY_MS = 20;

if (!isMainThread && workerData?.url) {
  let waits = [];
  parentPort.on('message', () => {
    parentPort.postMessage(waits);
    waits = [];
  });
  // The first one makes the connection.
  await fetch(workerData.url);
  for (;;) {
    const began = performance.now();
    await (await fetch(workerData.url)).arrayBuffer();
    waits.push(performance.now() - began);
    await sleep(PROBE_EVERY_MS);
  }
}
