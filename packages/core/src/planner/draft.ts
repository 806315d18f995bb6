/** Makes programs of kinds and stations, fits them into the day, and cuts runs short where there is no other way. */
import { type Brief, wishOf } from '../brief/brief.ts';
import { SECONDS_PER_DAY } from '../time/calendar.ts';
import { EVERY_MONTH_DAY, bitsOf } from '../time/dayRules.ts';
import { adjustedSeconds } from '../plan/program.ts';
import { splitsByTimer, USUAL_SOAK_SECONDS, type Need } from './needs.ts';
import { leastRun, longerRun, shorterRun, type RunChoice } from '../brief/runChoices.ts';
import { packed, type Packing } from './pack.ts';
import type { DayPattern } from './patterns.ts';
import { place, type Placement } from './place.ts';
import type { Draft, DraftCycle, DraftRules } from './draftCycle.ts';
import { Sharing, sumOf, type Option } from './share.ts';
import type { RunChoices, SlotKind } from './slots.ts';

/** Kinds of program with their starts, that the stations are to be shared out to. */
export interface Candidate {
  readonly kinds: readonly SlotKind[];
  readonly starts: readonly number[];
  /** Thousandths that the runs cannot be less off than. */
  readonly off: number;
}

/** Where in the day watering may be. */
export interface Hours {
  readonly span: { readonly from: number; readonly seconds: number };
  /** All runs as short as they may be, before any is restored. */
  readonly shortest: boolean;
}

export interface Drafted {
  readonly drafts: readonly Draft[];
  readonly placement: Placement;
}

/** How a plan to be was made, so that others near it can be. */
export interface Recipe {
  readonly candidate: Candidate;
  readonly patterns: readonly DayPattern[];
  readonly assignment: readonly number[];
}

/** A program's fixed starts and stations. */
export interface Fixed {
  readonly letter: string;
  readonly starts: readonly number[];
  readonly stations: readonly number[];
}

/** How many nights are tried with a choice of kinds. */
const MOST_NIGHTS = 6;
const MOST_NIGHTS_OF_ONE = 40;
/** Ways to share the stations out that are tried on all but the first of them. */
const MOST_WAYS_ON_OTHER_NIGHTS = 4;

/** Stations with two runs that are equally near of which every choice is tried. */
const MOST_TIES = 4;

export class Drafting {
  private readonly rules: DraftRules;
  private readonly runs: RunChoices;
  private readonly needs: readonly Need[];
  private readonly fixed: readonly Fixed[];
  /** Seconds of the day that no cycle starts in. */
  private readonly avoid: readonly { readonly from: number; readonly to: number }[];
  private starved: ReadonlySet<number> = new Set();
  starvedText = '';
  /** Places of the needs that no program can meet. */
  readonly hopeless = new Set<number>();
  private readonly columns = new Map<number, Float64Array>();
  /** Seconds of a week that what counts cannot be watered in less than. */
  private leastWater: number | null = null;
  private readonly recipes = new WeakMap<Drafted, Recipe>();
  private readonly sharing: Sharing;
  /** Times that programs were placed on the clock. */
  tries = 0;
  private readonly tried: ((tries: number) => void) | undefined;
  /** Whether what was not found does not exist. */
  sure = true;

  constructor(
    workshop: DraftRules,
    runs: RunChoices,
    needs: readonly Need[],
    fixed: readonly Fixed[],
    avoid: readonly { readonly from: number; readonly to: number }[],
    tried?: (tries: number) => void,
  ) {
    this.tried = tried;
    this.rules = workshop;
    this.runs = runs;
    this.sharing = new Sharing(needs, runs);
    this.needs = needs;
    this.fixed = fixed;
    this.avoid = avoid;
  }

  private get brief(): Brief {
    return this.rules.brief;
  }

  /** From now on these stations, by number, may get less than they need. */
  starve(numbers: Iterable<number>): void {
    this.starved = new Set(numbers);
    this.starvedText = [...this.starved].join();
    this.columns.clear();
    this.leastWater = null;
  }

  /** For each need, how far it is off in a program of a kind; Infinity where it cannot be in it. */
  column(kind: SlotKind, starts: number): Float64Array {
    const key = kind.id * 100 + starts;
    let column = this.columns.get(key);
    if (!column)
      this.columns.set(
        key,
        (column = Float64Array.from(this.needs, (need, i) => {
          const run = kind.eligible[i] ? this.runs.at(need, kind.mean, starts) : null;
          const anyhow = this.hopeless.has(i) || this.starved.has(need.number);
          return run && (run.fits || anyhow) ? run.off : Infinity;
        })),
      );
    return column;
  }

  /**
   * Whether a station could be watered if it were the only one, at any hour.
   *
   * @param enough with what it needs; else with its shortest run.
   */
  isPossibleAlone(
    need: Need,
    kinds: readonly SlotKind[],
    mostStarts: number,
    enough: boolean,
  ): boolean {
    const i = this.needs.indexOf(need);
    const { timer } = this.brief;
    const least = need.often?.times ?? 1;
    const day = {
      span: { from: this.rules.span.from, seconds: SECONDS_PER_DAY },
      shortest: true,
    };
    const shortest = { seconds: timer.runStepSeconds, given: 0, off: 1, fits: false };
    return kinds.some((kind) => {
      if (!kind.eligible[i]) return false;
      const most = kind.variants[0]?.isHours ? 1 : enough ? mostStarts : least;
      for (let starts = least; starts <= most; starts++) {
        const run = enough ? this.runs.at(need, kind.mean, starts) : shortest;
        if (!run || (enough && !run.fits)) continue;
        const members = [
          { need, run: (enough && this.shortestOf(need, run, kind.mean * starts)) || run },
        ];
        const placed = kind.variants
          .slice(0, enough ? MOST_NIGHTS : Infinity)
          .some((pattern) =>
            this.placed([{ pattern, starts, members, soak: this.soakOf(members) }], day),
          );
        if (placed) return true;
      }
      return false;
    });
  }

  offOf(i: number, kind: SlotKind, starts: number): number {
    return this.column(kind, starts)[i] ?? Infinity;
  }

  /** The most promising that can be made of a candidate of several programs, by how full the nights get: with all the water, or with the least. */
  *proposals(candidate: Candidate, reach: Hours): Generator<Drafted> {
    if (candidate.kinds.length < 2) return;
    for (const least of [false, true]) {
      const packing = this.packed(candidate, reach, least);
      if (!packing) continue;
      this.tries++;
      const drafted = this.fit(candidate, packing.patterns, packing.assignment, reach);
      if (drafted) yield drafted;
      if (drafted) return;
    }
  }

  /** A plan made again, and plans that differ from it in the program of one station, or of two that change places. */
  *near({ candidate, patterns, assignment }: Recipe, reach: Hours): Generator<Drafted> {
    const options = this.optionsOf(candidate.kinds, candidate.starts).map((list) =>
      list.map(({ j }) => j),
    );
    const ways: (readonly number[])[] = [assignment];
    for (const [i, list] of options.entries())
      for (const to of list)
        if (to !== assignment[i]) ways.push(assignment.map((j, at) => (at === i ? to : j)));
    for (let a = 0; a < options.length; a++)
      for (let b = a + 1; b < options.length; b++) {
        const [p, q] = [assignment[a] ?? 0, assignment[b] ?? 0];
        if (p === q || !options[a]?.includes(q) || !options[b]?.includes(p)) continue;
        ways.push(assignment.map((j, at) => (at === a ? q : at === b ? p : j)));
      }
    for (const way of ways) {
      if (candidate.kinds.some((_, j) => !way.includes(j))) continue;
      this.tries++;
      const drafted = this.fit(candidate, patterns, way, reach);
      if (drafted) yield drafted;
    }
  }

  recipeOf(drafted: Drafted): Recipe | null {
    return this.recipes.get(drafted) ?? null;
  }

  /** What is worth trying with a candidate, each fitted into the day; the caller takes the cheapest. */
  *attempts(candidate: Candidate, reach: Hours, until: number): Generator<Drafted> {
    this.tries++;
    const { kinds, starts } = candidate;
    const assignments = this.sharing.ways(this.optionsOf(kinds, starts), kinds, starts);
    if (assignments.length === 0) return;
    const nights = this.nights(candidate.kinds);
    if (candidate.kinds.length > 1) this.sure = false;
    for (const [n, patterns] of nights.entries())
      for (const assignment of n === 0
        ? assignments
        : assignments.slice(0, MOST_WAYS_ON_OTHER_NIGHTS)) {
        if (this.tries >= until) {
          this.sure = false;
          return;
        }
        this.tries++;
        const drafted = this.fit(candidate, patterns, assignment, reach);
        if (drafted) yield drafted;
      }
  }

  /** Tenths of the wished hours of its nights that the least water takes, where that is half of them or more; else 0. */
  tightness(kinds: readonly SlotKind[], { span }: Hours): number {
    const nights = Math.min(7, sumOf(kinds.map(({ mean }) => mean)));
    const share = (this.leastWater ?? 0) / (nights * span.seconds);
    return share < 0.5 ? 0 : Math.ceil(share * 10);
  }

  /** Whether the least water there is to give has room in the nights there are; exact where it says no. */
  hasRoom(kinds: readonly SlotKind[], starts: readonly number[], { span }: Hours): boolean {
    const { timer, settings } = this.brief;
    const atOnce = Math.min(timer.stationsAtOnce, settings?.stationsAtOnce ?? Infinity);
    const crosses = span.from + span.seconds > SECONDS_PER_DAY;
    let nights = 0;
    for (const [j, kind] of kinds.entries())
      nights += kind.mean * (crosses ? Math.min(starts[j] ?? 1, 2) : 1);
    this.leastWater ??= this.needs.reduce(
      (sum, { counted, number, pinned, wanted }, i) =>
        counted && pinned === null && !this.starved.has(number) && !this.hopeless.has(i)
          ? sum + 0.9 * wanted - 1
          : sum,
      0,
    );
    const least = this.leastWater;
    if (least > atOnce * span.seconds * Math.min(7, nights)) return false;
    const [only] = kinds;
    if (kinds.length > 1 || !only) return true;
    // One program: all cycles of a date are alike, and each is after midnight or begins before it.
    const count = starts[0] ?? 1;
    const morning = Math.max(0, span.from + span.seconds - SECONDS_PER_DAY);
    let longest = span.seconds / count;
    for (let early = 1; early <= count && crosses; early++)
      longest = Math.max(
        longest,
        Math.min(morning / early, early < count ? span.seconds / (count - early) : Infinity),
      );
    return least <= atOnce * longest * only.mean * count;
  }

  /** Stations and nights by how full the nights get; null: no way was found. */
  private packed({ kinds, starts }: Candidate, { span }: Hours, atLeast: boolean): Packing | null {
    const { stationDelaySeconds = 0 } = this.brief.settings ?? {};
    const { timer, settings } = this.brief;
    const atOnce = Math.min(timer.stationsAtOnce, settings?.stationsAtOnce ?? Infinity);
    const all = this.optionsOf(kinds, starts).map((list) => list.map(({ j }) => j));
    // What waters often a day has hours of its own; others stay out of its program where they can.
    const own = new Set(
      all.flatMap((list, i) => (this.needs[i]?.often && list.length === 1 ? list : [])),
    );
    const options = all.map((list) => {
      const rest = list.filter((j) => !own.has(j));
      return rest.length > 0 ? rest : list;
    });
    const seconds = this.needs.map((need) =>
      kinds.map((kind, j) => {
        const runsAWeek = kind.mean * (starts[j] ?? 1);
        const run = this.runs.at(need, kind.mean, starts[j] ?? 1);
        const least = run && atLeast ? this.shortestOf(need, run, runsAWeek) : run;
        return least
          ? (least.given / kind.mean + stationDelaySeconds * (starts[j] ?? 1)) / atOnce
          : Infinity;
      }),
    );
    return packed({
      kinds,
      seconds,
      options,
      room: span.seconds,
      longest: starts.map((count) => count * this.longestCycle(span)),
      headroom: wishOf(this.brief).headroomPercent / 100,
    });
  }

  /** Seconds of the wished hours that one cycle can take: where only some dates are allowed it cannot go on past midnight. */
  private longestCycle({ from, seconds }: Hours['span']): number {
    const { weekdays, parity } = this.brief.rules ?? {};
    const crosses = from + seconds > SECONDS_PER_DAY;
    if (!crosses || (weekdays === undefined && parity === undefined)) return seconds;
    return Math.max(SECONDS_PER_DAY - from, from + seconds - SECONDS_PER_DAY);
  }

  private optionsOf(kinds: readonly SlotKind[], starts: readonly number[]): Option[][] {
    return this.needs.map(({ number }, i) => {
      const slot = this.fixed.findIndex(({ stations }) => stations.includes(number));
      return kinds
        .map((kind, j) => ({ j, off: this.offOf(i, kind, starts[j] ?? 1) }))
        .filter(({ j, off }) => off < Infinity && (slot < 0 || slot === j));
    });
  }

  /** Choices of nights for the kinds: the best liked, and those that share few. */
  private nights(kinds: readonly SlotKind[]): (readonly DayPattern[])[] {
    const [one] = kinds;
    if (kinds.length === 1 && one) {
      const all = this.nightsDiffer() ? one.variants : one.variants.slice(0, 1);
      if (all.length > MOST_NIGHTS_OF_ONE) this.sure = false;
      return all.slice(0, MOST_NIGHTS_OF_ONE).map((pattern) => [pattern]);
    }
    const made: DayPattern[][] = [kinds.flatMap(({ variants }) => variants.slice(0, 1))];
    for (let seed = 0; seed < MOST_NIGHTS - 1; seed++) {
      const chosen: DayPattern[] = [];
      for (const { variants } of kinds) {
        const from = chosen.length === 0 ? variants.slice(seed, seed + 1) : variants;
        let best: DayPattern | null = null;
        let least = Infinity;
        for (const pattern of from) {
          const shared = chosen.reduce((sum, other) => sum + this.sharedNights(pattern, other), 0);
          if (shared < least) {
            least = shared;
            best = pattern;
          }
        }
        if (best) chosen.push(best);
      }
      if (chosen.length === kinds.length) made.push(chosen);
    }
    const seen = new Set<string>();
    return made.filter((patterns) => {
      const key = patterns.map(({ key: one }) => one).join();
      return !seen.has(key) && seen.add(key);
    });
  }

  /** Whether it matters to a program by itself on which nights it waters. */
  private nightsDiffer(): boolean {
    const { rules, mowing } = this.brief;
    return (
      mowing !== undefined ||
      rules?.weekdays !== undefined ||
      rules?.parity !== undefined ||
      rules?.mostDaysPerWeek !== undefined ||
      (rules?.noWaterWindows ?? []).some(({ weekdays }) => weekdays !== undefined)
    );
  }

  private sharedNights({ set: a }: DayPattern, { set: b }: DayPattern): number {
    if (
      a.every === 1 &&
      b.every === 1 &&
      a.monthDays === b.monthDays &&
      a.monthDays === EVERY_MONTH_DAY
    )
      return bitsOf(a.weekdays & b.weekdays);
    return this.rules.patterns.meet(a, b, 0) ? 1 : 0;
  }

  /** Drafts with the runs nearest to the needs, or with runs cut where those have no room. */
  private fit(
    candidate: Candidate,
    patterns: readonly DayPattern[],
    assignment: readonly number[],
    reach: Hours,
  ): Drafted | null {
    const drafted = this.fitted(candidate, patterns, assignment, reach);
    if (drafted) this.recipes.set(drafted, { candidate, patterns, assignment });
    return drafted;
  }

  private fitted(
    { kinds, starts }: Candidate,
    patterns: readonly DayPattern[],
    assignment: readonly number[],
    reach: Hours,
  ): Drafted | null {
    const full = this.needs.map((need, i) => {
      const j = assignment[i] ?? 0;
      return this.runs.at(need, kinds[j]?.mean ?? 1, starts[j] ?? 1);
    });
    if (full.some((run) => run === null)) return null;
    const build = (runs: readonly (RunChoice | null)[]) =>
      this.placed(this.draftsOf(patterns, starts, assignment, runs), reach);
    const runsAWeek = assignment.map((j) => (kinds[j]?.mean ?? 1) * (starts[j] ?? 1));
    const least = this.needs.map((need, i) =>
      this.shortestOf(need, full[i] ?? null, runsAWeek[i] ?? 1),
    );
    const cut = build(least);
    if (!cut || reach.shortest) return cut;
    const whole = build(full);
    if (whole) return this.lengthened(whole, full, runsAWeek, build);
    return this.restored(full, least, runsAWeek, assignment, build) ?? cut;
  }

  /** The same with longer runs that are no further off the need, where that leaves less time to spare. */
  private lengthened(
    whole: Drafted,
    full: readonly (RunChoice | null)[],
    runsAWeek: readonly number[],
    build: (runs: readonly (RunChoice | null)[]) => Drafted | null,
  ): Drafted {
    if (whole.placement.spare === null || whole.placement.spare === 0) return whole;
    const { timer } = this.brief;
    const longer = this.needs.flatMap((need, i) => {
      const run = full[i];
      const other =
        run && need.pinned === null ? longerRun(timer, need.wanted, runsAWeek[i] ?? 1, run) : null;
      const isLong = other && other.given > this.runs.longestOf(need) * (runsAWeek[i] ?? 1) + 1e-9;
      return run && other && !isLong && other.off < run.off + 0.0005 ? [{ i, run: other }] : [];
    });
    let best = whole;
    const sets = longer.length <= MOST_TIES ? 1 << longer.length : longer.length + 1;
    for (let set = 1; set < sets; set++) {
      const runs = [...full];
      for (const [bit, { i, run }] of longer.entries())
        if (longer.length <= MOST_TIES ? set & (1 << bit) : bit < set) runs[i] = run;
      const sum = (list: readonly (RunChoice | null)[]) =>
        Math.round(list.reduce((total, run) => total + (run?.off ?? 0), 0) * 1000 - 1e-9);
      if (sum(runs) > sum(full)) continue;
      const tried = build(runs);
      if (tried && (tried.placement.spare ?? Infinity) < (best.placement.spare ?? Infinity))
        best = tried;
    }
    return best;
  }

  private shortestOf(need: Need, full: RunChoice | null, runsAWeek: number): RunChoice | null {
    const { timer } = this.brief;
    if (!full || need.pinned !== null) return full;
    if (this.starved.has(need.number)) {
      let run = full;
      // One step that is not nothing.
      const seconds = timer.runStepSeconds;
      const given = adjustedSeconds(seconds, 100, timer.seasonal) * runsAWeek;
      run = { seconds, given, off: Math.abs(given - need.wanted) / need.wanted, fits: false };
      return run.seconds < full.seconds ? run : full;
    }
    const run = full.fits ? leastRun(timer, need.wanted, runsAWeek) : null;
    return run && run.seconds < full.seconds ? run : full;
  }

  /** With as little cut from the runs as still has room: those first that lose least by it. */
  private restored(
    full: readonly (RunChoice | null)[],
    least: readonly (RunChoice | null)[],
    runsAWeek: readonly number[],
    assignment: readonly number[],
    build: (runs: readonly (RunChoice | null)[]) => Drafted | null,
  ): Drafted | null {
    const { timer } = this.brief;
    const cuts: { readonly i: number; readonly run: RunChoice; readonly price: number }[] = [];
    for (const [i, need] of this.needs.entries()) {
      let run = full[i] ?? null;
      const end = least[i];
      while (run && end && run.seconds > end.seconds && cuts.length < 20_000) {
        const next = shorterRun(timer, need.wanted, runsAWeek[i] ?? 1, run);
        if (!next || next.seconds < end.seconds) break;
        const price = ((next.off - run.off) * (runsAWeek[i] ?? 1)) / (run.given - next.given);
        cuts.push({ i, run: next, price });
        run = next;
      }
    }
    // Each station's own cuts stay in order: what it loses by them never falls.
    const price = ({ price: one }: { readonly price: number }) => Math.round(one * 1e12);
    cuts.sort((a, b) => price(a) - price(b));
    let best: Drafted | null = null;
    /** The fewest of the first cuts, beside others, with which all has room; null: even all are too few. */
    const fewest = (own: typeof cuts, others: typeof cuts, known: number): number | null => {
      let low = 0;
      let high = known;
      let found: number | null = null;
      while (low <= high) {
        const middle = (low + high) >> 1;
        const runs = [...full];
        for (const { i, run } of [...others, ...own.slice(0, middle)])
          if (run.seconds < (runs[i]?.seconds ?? 0)) runs[i] = run;
        const tried = build(runs);
        if (tried) {
          best = tried;
          found = middle;
          high = middle - 1;
        } else low = middle + 1;
      }
      return found;
    };
    const count = fewest(cuts, [], cuts.length);
    if (count === null) return null;
    // What has to be cut in one program need not be cut in another.
    let kept = cuts.slice(0, count);
    const programs = new Set(assignment);
    if (programs.size > 1)
      for (const j of programs) {
        const own = kept.filter(({ i }) => assignment[i] === j);
        const others = kept.filter(({ i }) => assignment[i] !== j);
        const enough = own.length > 0 ? fewest(own, others, own.length - 1) : null;
        if (enough !== null) kept = [...others, ...own.slice(0, enough)];
      }
    return best;
  }

  private draftsOf(
    patterns: readonly DayPattern[],
    starts: readonly number[],
    assignment: readonly number[],
    runs: readonly (RunChoice | null)[],
  ): Draft[] {
    return patterns.map((pattern, j) => {
      const members = this.needs.flatMap((need, i) => {
        const run = runs[i];
        return assignment[i] === j && run ? [{ need, run }] : [];
      });
      return { pattern, starts: starts[j] ?? 1, members, soak: this.soakOf(members) };
    });
  }

  /** The program's own cycle-and-soak, where one of its stations needs it. */
  private soakOf(members: Draft['members']): Draft['soak'] {
    const { timer } = this.brief;
    if (timer.cycleSoak !== 'program' || wishOf(this.brief).starts === 'repeated') return null;
    const cycled = members.filter(({ need }) => splitsByTimer(this.brief, need));
    const isLong = cycled.some(
      ({ need, run }) =>
        adjustedSeconds(run.seconds, 100, timer.seasonal) > (need.cycle ?? Infinity),
    );
    if (!isLong) return null;
    return {
      cycleSeconds: Math.min(...cycled.map(({ need }) => need.cycle ?? Infinity)),
      soakSeconds: Math.max(...cycled.map(({ need }) => need.soak ?? USUAL_SOAK_SECONDS)),
    };
  }

  private placed(drafts: readonly Draft[], reach: Hours): Drafted | null {
    this.tries++;
    this.tried?.(this.tries);
    const { rules: workshop } = this;
    const { from, seconds } = reach.span;
    const placeables = [];
    for (const [j, draft] of drafts.entries()) {
      if (draft.members.length === 0) return null;
      const shape = workshop.draftCycleOf(draft);
      const own = this.secondsOf(shape, reach);
      if (own.length === 0) return null;
      const pinned = this.fixed[j]?.starts ?? [];
      if (!pinned.every((second) => own.includes(second))) return null;
      placeables.push({ shape, seconds: own, pinned });
    }
    const placement = place(placeables, workshop.patterns, (from + seconds) % SECONDS_PER_DAY);
    if (placement && !placement.complete) this.sure = false;
    return placement && { drafts, placement };
  }

  /** Seconds of the day at which a program may start, ascending. */
  private secondsOf(shape: DraftCycle, { span }: Hours): number[] {
    const { rules: workshop } = this;
    const step = this.brief.timer.startStepMinutes * 60;
    const seconds: number[] = [];
    for (let second = 0; second < SECONDS_PER_DAY; second += step) {
      if (!workshop.isInside(shape, second, span)) continue;
      if (this.avoid.some(({ from, to }) => second >= from && second < to)) continue;
      if (workshop.mayStart(shape, second)) seconds.push(second);
    }
    return seconds;
  }
}
