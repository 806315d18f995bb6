/** Shared parts of the measurements: figures, table rows, screens, demo timers, and a probe on its own thread. */
import { once } from 'node:events';
import { isMainThread, parentPort, Worker, workerData } from 'node:worker_threads';
import { sleep } from '../processes.mjs';

export const LARKHOLT = '/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c01';
export const FENNIMORE = '/timers/6f0c1a52-0d0a-4c5e-9c1d-0f3d1f6b1c02';

export const DESK = { width: 1280, height: 800 };
export const PHONE = { width: 390, height: 844, isMobile: true, hasTouch: true };

/** A percentile: the smallest number that a share of all do not exceed; 0 for none. */
export const quantile = (numbers, share) =>
  [...numbers].sort((a, b) => a - b)[
    Math.min(numbers.length - 1, Math.floor(numbers.length * share))
  ] ?? 0;
export const median = (numbers) => quantile(numbers, 0.5);

/** Prints a table row. */
export const row = (...cells) => process.stdout.write(`| ${cells.join(' | ')} |\n`);
export const ms = (value) => `${value.toFixed(0)} ms`;
export const seconds = (milliseconds) => `${(milliseconds / 1000).toFixed(1)} s`;

/** In a timer's page: verdict, strip and board are shown. */
export const whole = () =>
  document.querySelector('.verdict[data-of="known"]') &&
  document.querySelector('.strip-cycle') &&
  document.querySelector('.board-cell, .phone-row');

/** @returns {Promise<{ cookie: string }>} headers of a signed-in person */
export async function signIn(url, email, password) {
  const answer = await fetch(`${url}/api/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email, password }),
  });
  return { cookie: answer.headers.getSetCookie()[0].split(';')[0] };
}

/**
 * Polls an address from its own thread, undisturbed by what is received here.
 *
 * @returns `waits`: milliseconds of each answer since the last call
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
  // The first one opens the connection.
  await fetch(workerData.url);
  for (;;) {
    const began = performance.now();
    await (await fetch(workerData.url)).arrayBuffer();
    waits.push(performance.now() - began);
    await sleep(PROBE_EVERY_MS);
  }
}
