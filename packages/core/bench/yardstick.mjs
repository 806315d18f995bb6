/**
 * A fixed workload like the engine's (maps and arithmetic), timed next to each measurement, since machine speed varies from minute to
 * minute.
 *
 * @returns milliseconds; about 170 on an idle 2.5 GHz core
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
