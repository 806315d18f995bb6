/**
 * Program kinds the planner chooses from: day patterns that differ only in which nights they use, with the stations that may be in such a
 * program; and choices of several that give every station a program.
 */
import { assertDefined } from '../document/assertDefined.ts';
import { type Brief, wishOf } from '../brief/brief.ts';
import { splitsByTimer, type Need } from './needs.ts';
import { nearestRun, runChoice, type RunChoice } from '../brief/runChoices.ts';
import { mostDaysBetween } from '../time/dateCount.ts';
import type { DayPattern, Patterns } from './patterns.ts';

/** Programs with equally many dates a week for the same stations. */
export interface SlotKind {
  readonly id: number;
  readonly mean: number;
  /** For each need in order, 1 if it may be in such a program. */
  readonly eligible: Uint8Array;
  /** Most popular first. */
  readonly variants: readonly DayPattern[];
}

/** Most groups told apart; with more, the rest are treated as one. */
const MOST_PALETTES = 32;

/** For groups to keep apart: every maximal set of groups that may share, as its complement. */
function palettesOf(apart: readonly (readonly [string, string])[]): ReadonlySet<string>[] {
  let left: Set<string>[] = [new Set()];
  for (const [a, b] of apart) {
    const next: Set<string>[] = [];
    for (const out of left)
      if (out.has(a) || out.has(b)) next.push(out);
      else if (a === b) next.push(new Set([...out, a]));
      else next.push(new Set([...out, a]), new Set([...out, b]));
    // A set that leaves out everything another does, and more, is not needed.
    left = next
      .filter(
        (one, i) =>
          !next.some(
            (other, j) => i !== j && isWithin(other, one) && (j < i || !isWithin(one, other)),
          ),
      )
      .slice(0, MOST_PALETTES);
  }
  return left;
}

const isWithin = (a: ReadonlySet<string>, b: ReadonlySet<string>) =>
  [...a].every((one) => b.has(one));

/** Stations with several waterings a day are kept apart from those that the program itself would split. */
const OFTEN = ' often';
const SELDOM = ' seldom';

function groupsOf(need: Need): string[] {
  return [...(need.group === null ? [] : [need.group]), need.often ? OFTEN : SELDOM];
}

/** Whether a station may be watered on a pattern's days, ignoring times of day. */
export function mayBeOn(
  brief: Brief,
  patterns: Patterns,
  need: Need,
  { set, mean, gap }: DayPattern,
): boolean {
  if (mean < need.least - 1e-9 || mean > need.most + 1e-9) return false;
  if (need.least > 0 && gap > mostDaysBetween(need.least)) return false;
  if (!patterns.keepsTo(set, 0, need.allowed, need.parity)) return false;
  const most = brief.rules?.mostDaysPerWeek;
  return !need.bound || most === undefined || patterns.mostInWeek(set, 1) <= most;
}

/** All program kinds of a brief; those for many stations first, then the more popular. */
export function slotKinds(
  brief: Brief,
  needs: readonly Need[],
  patterns: Patterns,
  among: readonly DayPattern[] = patterns.all,
): SlotKind[] {
  const apart = [...wishOf(brief).apart];
  if (brief.timer.cycleSoak === 'program' && needs.some(({ often }) => often))
    apart.push([OFTEN, SELDOM]);
  const palettes = palettesOf(apart);
  const kinds = new Map<string, { mean: number; eligible: Uint8Array; variants: DayPattern[] }>();
  for (const pattern of among) {
    const asked = new Map<string, boolean>();
    const may = needs.map((need) => {
      const key = `${need.allowed}|${need.parity}|${need.bound}|${need.least}|${need.most}`;
      let known = asked.get(key);
      if (known === undefined) asked.set(key, (known = mayBeOn(brief, patterns, need, pattern)));
      return known;
    });
    for (const out of palettes) {
      const eligible = Uint8Array.from(needs, (need, i) =>
        may[i] && !groupsOf(need).some((group) => out.has(group)) ? 1 : 0,
      );
      if (!eligible.includes(1)) continue;
      const key = `${pattern.mean.toFixed(9)}|${pattern.isHours}|${eligible.join('')}`;
      const kind = kinds.get(key);
      if (!kind) kinds.set(key, { mean: pattern.mean, eligible, variants: [pattern] });
      else if (!kind.variants.includes(pattern)) kind.variants.push(pattern);
    }
  }
  const count = (eligible: Uint8Array) => eligible.reduce((sum, one) => sum + one, 0);
  return [...kinds.values()]
    .map((kind) => ({ ...kind, variants: kind.variants.sort((a, b) => a.rank - b.rank) }))
    .sort(
      (a, b) =>
        count(b.eligible) - count(a.eligible) ||
        assertDefined(a.variants[0], 'a.variants[0]').rank -
          assertDefined(b.variants[0], 'b.variants[0]').rank,
    )
    .map((kind, id) => ({ ...kind, id }));
}

/** A fixed slot for a program: a pinned letter with its possible kinds. */
export interface FixedSlot {
  readonly letter: string;
  readonly kinds: readonly SlotKind[];
  /** Indexes of the needs it must contain. */
  readonly members: readonly number[];
}

export interface SlotChoices {
  readonly choices: readonly (readonly SlotKind[])[];
  /** False: there are more, not listed. */
  readonly complete: boolean;
}

/** Most choices of kinds listed. */
const MOST_CHOICES = 3000;

/**
 * Choices of a number of kinds, fixed ones first, that give every need a program. Kinds beyond those that cover all needs are first taken
 * equal to others: two programs of one kind share the water of one.
 */
export function choicesOf(
  count: number,
  kinds: readonly SlotKind[],
  fixed: readonly FixedSlot[],
  needCount: number,
): SlotChoices {
  const most = Math.round((MOST_CHOICES * 24) / Math.max(24, needCount));
  const all = new Choosing(count, kinds, kinds, fixed, needCount, most).run();
  if (all.complete) return all;
  // Too many: take only some of each sort that no station asks for, and equally many for each first kind.
  const { choices } = new Choosing(count, kinds, someOf(kinds), fixed, needCount, most).run();
  return { choices, complete: false };
}

/** Kinds for the same stations told apart when not all are tried. */
const MOST_ALIKE = 6;

/** The more popular kinds for the same stations, with different numbers of dates. */
function someOf(kinds: readonly SlotKind[]): SlotKind[] {
  const bySet = new Map<string, SlotKind[]>();
  for (const kind of kinds) {
    const key = kind.eligible.join('');
    const list = bySet.get(key) ?? [];
    if (list.every(({ mean }) => Math.abs(mean - kind.mean) > 0.9)) list.push(kind);
    bySet.set(key, list);
  }
  return [...bySet.values()].flatMap((list) => list.slice(0, MOST_ALIKE));
}

class Choosing {
  private readonly choices: SlotKind[][] = [];
  private readonly seen = new Set<string>();
  private readonly pinned: ReadonlyMap<number, number>;
  private readonly count: number;
  private readonly kinds: readonly SlotKind[];
  private readonly extras: readonly SlotKind[];
  private readonly fixed: readonly FixedSlot[];
  private readonly needCount: number;
  private readonly most: number;
  private complete = true;
  private looked = 0;

  /** @param extras kinds for programs that no station asks for */
  constructor(
    count: number,
    kinds: readonly SlotKind[],
    extras: readonly SlotKind[],
    fixed: readonly FixedSlot[],
    needCount: number,
    most: number,
  ) {
    this.count = count;
    this.kinds = kinds;
    this.extras = extras;
    this.fixed = fixed;
    this.needCount = needCount;
    this.most = most;
    this.pinned = new Map(fixed.flatMap(({ members }, slot) => members.map((i) => [i, slot])));
  }

  run(): SlotChoices {
    if (this.fixed.length <= this.count) this.go([], this.most);
    return { choices: this.choices, complete: this.complete };
  }

  private isCovered(chosen: readonly SlotKind[], i: number): boolean {
    const slot = this.pinned.get(i);
    return slot === undefined
      ? chosen.some(({ eligible }) => eligible[i])
      : slot >= chosen.length || chosen[slot]?.eligible[i] === 1;
  }

  /** What the next program may be; null: the choice is complete. */
  private next(chosen: readonly SlotKind[]): readonly SlotKind[] | null {
    const place = this.fixed[chosen.length];
    if (place) return place.kinds.filter((kind) => place.members.every((i) => kind.eligible[i]));
    let without = -1;
    for (let i = 0; i < this.needCount && without < 0; i++)
      if (!this.isCovered(chosen, i)) without = i;
    if (chosen.length === this.count) return without < 0 ? null : [];
    if (without < 0) return [...new Set([...chosen, ...this.extras])];
    if (this.pinned.has(without)) return [];
    return this.kinds.filter((kind) => kind.eligible[without]);
  }

  /** @param limit number of choices at which this branch ends */
  private go(chosen: readonly SlotKind[], limit: number): void {
    if (this.choices.length >= limit || this.looked > 8 * this.most) {
      this.complete = false;
      return;
    }
    this.looked++;
    const fixed = this.fixed.length;
    const free = chosen.slice(fixed).map(({ id }) => id);
    const key = [
      ...chosen.slice(0, fixed).map(({ id }) => id),
      '/',
      ...free.sort((a, b) => a - b),
    ].join();
    if (this.seen.has(key)) return;
    this.seen.add(key);
    const next = this.next(chosen);
    if (next === null) {
      this.choices.push([...chosen]);
      return;
    }
    next.forEach((kind, i) => {
      const share = (limit - this.choices.length) / (next.length - i);
      this.go(
        [...chosen, kind],
        Math.min(limit, this.choices.length + Math.max(1, Math.ceil(share))),
      );
    });
  }
}

/** The possible runs of a station in a program of a kind, cached. */
export class RunChoices {
  private readonly known = new Map<string, RunChoice | null>();
  private readonly brief: Brief;

  constructor(brief: Brief) {
    this.brief = brief;
  }

  /** The run closest to the need with a number of starts; null: none is short enough without a break. */
  at(need: Need, mean: number, starts: number): RunChoice | null {
    if (need.often && starts < need.often.times) return null;
    const key = `${need.index}|${mean}|${starts}`;
    let known = this.known.get(key);
    if (known === undefined) this.known.set(key, (known = this.work(need, mean * starts)));
    return known;
  }

  private work(need: Need, runsAWeek: number): RunChoice | null {
    const { timer } = this.brief;
    const longest = this.longestOf(need);
    if (need.pinned === null) return nearestRun(timer, need.wanted, runsAWeek, longest);
    const run = runChoice(timer, need.wanted, need.pinned, runsAWeek);
    return run.given <= longest * runsAWeek + 1e-9 ? run : null;
  }

  /** Longest run in seconds at 100 percent: Infinity if the timer splits it. */
  longestOf(need: Need): number {
    return need.cycle === null || splitsByTimer(this.brief, need) ? Infinity : need.cycle;
  }
}
