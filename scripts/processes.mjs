/** Other processes: whether they exist, and how they end. */
import fs from 'node:fs';

export const sleep = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** Start time of a process, in ticks since boot: with its id it identifies a process for good. Null: gone, or a zombie. */
export function beginningOf(pid) {
  try {
    // After the name in brackets, which may contain anything: state is the first field, the start time the twentieth.
    const fields = fs.readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ').pop().split(' ');
    return fields[0] === 'Z' ? null : fields[19];
  } catch {
    return null;
  }
}

/** A process that can be found again. */
export const markOf = (pid) => ({ pid, began: beginningOf(pid) });
export const isThere = ({ pid, began }) => began !== null && beginningOf(pid) === began;

const LOOK_EVERY_MS = 100;

/** Resolves when a process is gone. */
export async function gone(mark, everyMs = LOOK_EVERY_MS) {
  while (isThere(mark)) await sleep(everyMs);
}

/** Asks a process to end, and kills it if it does not. */
export async function end(mark, patienceMs) {
  if (!isThere(mark)) return;
  process.kill(mark.pid, 'SIGTERM');
  const last = setTimeout(() => isThere(mark) && process.kill(mark.pid, 'SIGKILL'), patienceMs);
  await gone(mark);
  clearTimeout(last);
}
