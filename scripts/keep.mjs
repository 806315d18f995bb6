/** Restarts processes that end by themselves, with a growing delay. */
import { sleep } from './processes.mjs';

const FIRST_DELAY_MS = 1000;
const LONGEST_DELAY_MS = 60_000;
/** A process that ran this long counts as healthy again. */
const SOUND_AFTER_MS = 60_000;

/**
 * @param {{ name: string, running: { ended: Promise<string> }, start: () => Promise<{ ended: Promise<string> }>, isStopping: () => boolean,
 * say: (text: string) => void, firstDelayMs?: number }} options running: the process already started; ended: resolves with the reason
 */
export async function keep({
  name,
  running,
  start,
  isStopping,
  say,
  firstDelayMs = FIRST_DELAY_MS,
}) {
  let delay = firstDelayMs;
  for (let now = running; ;) {
    const began = performance.now();
    const reason = now ? await now.ended : 'it did not start';
    if (isStopping()) return;
    if (performance.now() - began > SOUND_AFTER_MS) delay = firstDelayMs;
    say(`${name} ended (${reason}). Starting it again in ${delay / 1000} s …`);
    await sleep(delay);
    delay = Math.min(2 * delay, LONGEST_DELAY_MS);
    if (isStopping()) return;
    now = await start().then(
      (started) => {
        say(`${name} runs again.`);
        return started;
      },
      () => null,
    );
  }
}
