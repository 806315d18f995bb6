/**
 * A fixed piece of work like the engine's (maps and arithmetic), timed beside each measurement: the machines
 * that these are made on change their speed from minute to minute, so a time says little without it.
 *
 * @returns milliseconds; about 170 on a core of 2.5 GHz that nobody else is using.
 */
export function yardstick() {
  const began = performance.now();
  const counts = new Map();
  let sum = 0;
  for (let i = 0; i < 3_000_000; i++) {
    const key = (i * 7919) % 50_021;
    counts.set(key, (counts.get(key) ?? 0) + i);
    sum += counts.size;
  }
  if (sum === 0) throw new Error('nothing was done');
  return performance.now() - began;
}
