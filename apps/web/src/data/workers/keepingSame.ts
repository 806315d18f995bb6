import type { Night } from '@water-clock/core';

type Runs = readonly { readonly station: number; readonly on: number; readonly off: number }[];

const alike = (a: Runs, b: Runs) =>
  a.length === b.length &&
  a.every((run, i) => {
    const other = b[i];
    return run.station === other?.station && run.on === other.on && run.off === other.off;
  });

/** Whether two nights of one date look the same. Overlaps follow from the cycles. */
function isSame(a: Night, b: Night): boolean {
  return (
    a.intended.length === b.intended.length &&
    a.served.length === b.served.length &&
    a.condensed === b.condensed &&
    a.intended.every((cycle, i) => {
      const other = b.intended[i];
      return (
        cycle.letter === other?.letter &&
        cycle.start === other.start &&
        cycle.begins === other.begins &&
        cycle.ends === other.ends &&
        alike(cycle.runs, other.runs)
      );
    }) &&
    a.served.every((servedStart, i) => {
      const other = b.served[i];
      return (
        servedStart.letter === other?.letter &&
        servedStart.due === other.due &&
        servedStart.outcome === other.outcome &&
        servedStart.began === other.began &&
        servedStart.ended === other.ended
      );
    }) &&
    alike(a.runs, b.runs)
  );
}

/** Most typing changes few nights. The others stay the same objects, so they are not redrawn. */
export const keepingSame = (before: readonly Night[], after: readonly Night[]): Night[] =>
  after.map((night) => {
    const same = before.find(({ day }) => day === night.day);
    return same && isSame(same, night) ? same : night;
  });
