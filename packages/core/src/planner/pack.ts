/**
 * Shares stations out to programs by how full the nights get, where there is little room: a search downhill from an even start, one station or one set of
 * days at a time, until no night holds more than it can. What comes of it is only a proposal; whether it fits is for the clock to say.
 */
import { EVERY_MONTH_DAY } from '../time/dayRules.ts';
import type { DayPattern } from './patterns.ts';
import type { SlotKind } from './slots.ts';

export interface Packing {
  readonly patterns: readonly DayPattern[];
  /** For each station the place of its program. */
  readonly assignment: readonly number[];
}

/** How much of each of seven nights a pattern waters, 0 to 1. */
function nightsOf({ set, mean }: DayPattern): readonly number[] {
  return Array.from({ length: 7 }, (_, night) =>
    set.every === 1 && set.monthDays === EVERY_MONTH_DAY ? (set.weekdays >> night) & 1 : mean / 7,
  );
}

const MOST_MOVES = 200;
/** Beginnings from which it is tried. */
const BEGINNINGS = 6;
/** Sets of days looked at for one program. */
const MOST_VARIANTS = 24;

export interface Load {
  readonly kinds: readonly SlotKind[];
  /** For each station and program, the seconds of a night that its runs take; Infinity where it cannot be in it. */
  readonly seconds: readonly (readonly number[])[];
  /** For each station the programs that it may be in. */
  readonly options: readonly (readonly number[])[];
  /** Seconds of a night. */
  readonly room: number;
  /** Seconds of a night that a program by itself can take. */
  readonly longest: readonly number[];
  /** 1.3 for 130 percent. */
  readonly headroom: number;
}

/** Null: no way was found by which every night has room. */
export function packed(load: Load): Packing | null {
  for (let from = 0; from < BEGINNINGS; from++) {
    const packing = packedFrom(from, load);
    if (packing) return packing;
  }
  return null;
}

function packedFrom(
  from: number,
  { kinds, seconds, options, room, longest: most, headroom }: Load,
): Packing | null {
  const variants = kinds.map((kind) => kind.variants.slice(0, MOST_VARIANTS));
  const masks = variants.map((list) => list.map(nightsOf));
  const chosen = variants.map((list, j) => (from * (j + 1)) % list.length);
  const assignment = options.map((list, i) => list[(from * (1 + (i % 3))) % list.length] ?? 0);
  const loads = kinds.map(() => 0);
  assignment.forEach((j, i) => (loads[j] = (loads[j] ?? 0) + (seconds[i]?.[j] ?? 0)));
  // All cycles of a night at the headroom, but the last one, that only has to be done in time at 100 percent.
  const excess = (): number => {
    let sum = 0;
    for (let j = 0; j < loads.length; j++) {
      const over = (loads[j] ?? 0) - (most[j] ?? Infinity);
      if (over > 0) sum += over + 1;
    }
    for (let night = 0; night < 7; night++) {
      let load = 0;
      let longest = 0;
      for (let j = 0; j < loads.length; j++) {
        const own = (loads[j] ?? 0) * (masks[j]?.[chosen[j] ?? 0]?.[night] ?? 0);
        load += own * headroom;
        longest = Math.max(longest, own);
      }
      const over = load - (headroom - 1) * longest - room;
      if (over > 0) sum += over + 1;
    }
    return sum;
  };
  let least = excess();
  for (let move = 0; move < MOST_MOVES && least > 0; move++) {
    let better: (() => void) | null = null;
    const consider = (change: () => void, back: () => void) => {
      change();
      const then = excess();
      back();
      if (then < least - 1e-6) {
        least = then;
        better = change;
      }
    };
    const shift = (i: number, to: number) => {
      const from = assignment[i] ?? 0;
      loads[from] = (loads[from] ?? 0) - (seconds[i]?.[from] ?? 0);
      loads[to] = (loads[to] ?? 0) + (seconds[i]?.[to] ?? 0);
      assignment[i] = to;
    };
    for (const [i, list] of options.entries()) {
      const from = assignment[i] ?? 0;
      for (const to of list)
        if (to !== from)
          consider(
            () => shift(i, to),
            () => shift(i, from),
          );
    }
    for (const [j, list] of variants.entries()) {
      const before = chosen[j] ?? 0;
      for (let v = 0; v < list.length; v++)
        if (v !== before)
          consider(
            () => (chosen[j] = v),
            () => (chosen[j] = before),
          );
    }
    // Two at a time, where one does not help: a station and the days of its new program, or two stations.
    if (!better)
      for (const [i, list] of options.entries()) {
        const from = assignment[i] ?? 0;
        for (const to of list) {
          if (to === from) continue;
          const before = chosen[to] ?? 0;
          for (let v = 0; v < (variants[to]?.length ?? 0); v++)
            consider(
              () => {
                shift(i, to);
                chosen[to] = v;
              },
              () => {
                shift(i, from);
                chosen[to] = before;
              },
            );
        }
      }
    if (!better)
      for (let a = 0; a < options.length; a++)
        for (let b = a + 1; b < options.length; b++) {
          const [p, q] = [assignment[a] ?? 0, assignment[b] ?? 0];
          if (p === q || !options[a]?.includes(q) || !options[b]?.includes(p)) continue;
          const swap = () => {
            shift(a, q);
            shift(b, p);
          };
          consider(swap, () => {
            shift(a, p);
            shift(b, q);
          });
        }
    if (!better) return null;
    (better as () => void)();
  }
  if (least > 0 || loads.some((_, j) => !assignment.includes(j))) return null;
  return { patterns: variants.flatMap((list, j) => list[chosen[j] ?? 0] ?? []), assignment };
}
