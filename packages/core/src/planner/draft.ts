/** Builds programs from kinds and stations, fits them into the day, and shortens runs if nothing else helps. */
import { assertDefined } from '../document/assertDefined.ts';
import { type Brief, wishOf } from '../brief/brief.ts';
import { highPercent } from '../brief/wanted.ts';
import { SECONDS_PER_DAY } from '../time/calendar.ts';
import { adjustedSeconds } from '../plan/program.ts';
import type { Need } from './needs.ts';
import { leastRun, type RunChoice } from '../brief/runChoices.ts';
import { lengthened, restored } from './fitRuns.ts';
import { MOST_NIGHTS, nightChoices } from './nights.ts';
import type { Candidate, Drafted, Fixed, Hours, Recipe } from './drafted.ts';
import { packed, type Packing } from './pack.ts';
import type { DayPattern } from './patterns.ts';
import { place } from './place.ts';
import { soakOf } from './soak.ts';
import type { Draft, DraftCycle, DraftRules } from './draftCycle.ts';
import { Sharing, sumOf, type Option } from './share.ts';
import type { RunChoices, SlotKind } from './slots.ts';

/** Ways to divide the stations tried on all nights but the first. */
const MOST_WAYS_ON_OTHER_NIGHTS = 4;

export class Drafting {
  private readonly rules: DraftRules;
  private readonly runs: RunChoices;
  private readonly needs: readonly Need[];
  private readonly fixed: readonly Fixed[];
  /** Seconds of the day at which no cycle starts. */
  private readonly avoid: readonly { readonly from: number; readonly to: number }[];
  private starved: ReadonlySet<number> = new Set();
  starvedText = '';
  /** Indexes of needs that no program can meet. */
  readonly hopeless = new Set<number>();
  private readonly columns = new Map<number, Float64Array>();
  /** Minimum seconds a week of the counted stations. */
  private leastWater: number | null = null;
  private readonly recipes = new WeakMap<Drafted, Recipe>();
  private readonly sharing: Sharing;
  /** Placements tried. */
  tries = 0;
  private readonly tried: ((tries: number) => void) | undefined;
  /** Whether failing to find a plan proves that there is none. */
  sure = true;

  constructor(
    rules: DraftRules,
    runs: RunChoices,
    needs: readonly Need[],
    fixed: readonly Fixed[],
    avoid: readonly { readonly from: number; readonly to: number }[],
    tried?: (tries: number) => void,
  ) {
    this.tried = tried;
    this.rules = rules;
    this.runs = runs;
    this.sharing = new Sharing(needs, runs);
    this.needs = needs;
    this.fixed = fixed;
    this.avoid = avoid;
  }

  private get brief(): Brief {
    return this.rules.brief;
  }

  /** Allows these stations, by number, less than they need. */
  starve(numbers: Iterable<number>): void {
    this.starved = new Set(numbers);
    this.starvedText = [...this.starved].join();
    this.columns.clear();
    this.leastWater = null;
  }

  /** For each need, how far off it is in a program of a kind; Infinity if it cannot be in it. */
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
   * Whether a station alone could be watered, at any hour.
   *
   * @param enough with its need; otherwise with its shortest run
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
            this.placed([{ pattern, starts, members, soak: soakOf(this.brief, members) }], day),
          );
        if (placed) return true;
      }
      return false;
    });
  }

  offOf(i: number, kind: SlotKind, starts: number): number {
    return assertDefined(this.column(kind, starts)[i], 'column(kind, starts)[i]');
  }

  /** The most promising draft of a candidate with several programs, by how full the nights get: with all the water, or the least. */
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

  /** A plan rebuilt, and variants that move one station or swap two. */
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
        const [p, q] = [
          assertDefined(assignment[a], 'assignment[a]'),
          assertDefined(assignment[b], 'assignment[b]'),
        ];
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
    const { choices, complete } = nightChoices(kinds, this.brief, this.rules.patterns);
    if (!complete) this.sure = false;
    for (const [n, patterns] of choices.entries())
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

  /** Tenths of the wished hours of its nights that the least water fills, if at least half; otherwise 0. */
  tightness(kinds: readonly SlotKind[], { span }: Hours): number {
    const nights = Math.min(7, sumOf(kinds.map(({ mean }) => mean)));
    const share = (this.leastWater ?? 0) / (nights * span.seconds);
    return share < 0.5 ? 0 : Math.ceil(share * 10);
  }

  /** Whether the least possible water fits into its nights; a "no" is exact. */
  hasRoom(kinds: readonly SlotKind[], starts: readonly number[], { span }: Hours): boolean {
    const { timer, settings } = this.brief;
    const atOnce = Math.min(timer.stationsAtOnce, settings?.stationsAtOnce ?? Infinity);
    const crosses = span.from + span.seconds > SECONDS_PER_DAY;
    let nights = 0;
    for (const [j, kind] of kinds.entries())
      nights += kind.mean * (crosses ? Math.min(assertDefined(starts[j], 'starts[j]'), 2) : 1);
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
    const count = assertDefined(starts[0], 'starts[0]');
    const morning = Math.max(0, span.from + span.seconds - SECONDS_PER_DAY);
    let longest = span.seconds / count;
    for (let early = 1; early <= count && crosses; early++)
      longest = Math.max(
        longest,
        Math.min(morning / early, early < count ? span.seconds / (count - early) : Infinity),
      );
    return least <= atOnce * longest * only.mean * count;
  }

  /** Stations and nights, by how full the nights get; null: no way was found. */
  private packed({ kinds, starts }: Candidate, { span }: Hours, atLeast: boolean): Packing | null {
    const { stationDelaySeconds = 0 } = this.brief.settings ?? {};
    const { timer, settings } = this.brief;
    const atOnce = Math.min(timer.stationsAtOnce, settings?.stationsAtOnce ?? Infinity);
    const all = this.optionsOf(kinds, starts).map((list) => list.map(({ j }) => j));
    // A station with several waterings a day has its own hours; others stay out of its program if possible.
    const own = new Set(
      all.flatMap((list, i) => (this.needs[i]?.often && list.length === 1 ? list : [])),
    );
    const options = all.map((list) => {
      const rest = list.filter((j) => !own.has(j));
      return rest.length > 0 ? rest : list;
    });
    const seconds = this.needs.map((need) =>
      kinds.map((kind, j) => {
        const runsAWeek = kind.mean * assertDefined(starts[j], 'starts[j]');
        const run = this.runs.at(need, kind.mean, assertDefined(starts[j], 'starts[j]'));
        const least = run && atLeast ? this.shortestOf(need, run, runsAWeek) : run;
        return least
          ? (least.given / kind.mean +
              stationDelaySeconds * assertDefined(starts[j], 'starts[j]')) /
              atOnce
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
      last: highPercent(this.brief) / 100,
    });
  }

  /** Seconds of the wished hours that one cycle can use: if only some dates are allowed it cannot run past midnight. */
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
        .map((kind, j) => ({ j, off: this.offOf(i, kind, assertDefined(starts[j], 'starts[j]')) }))
        .filter(({ j, off }) => off < Infinity && (slot < 0 || slot === j));
    });
  }

  /** Drafts with runs closest to the needs, or with shortened runs if those do not fit. */
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
      const j = assertDefined(assignment[i], 'assignment[i]');
      return this.runs.at(
        need,
        assertDefined(kinds[j], 'kinds[j]').mean,
        assertDefined(starts[j], 'starts[j]'),
      );
    });
    if (full.some((run) => run === null)) return null;
    const build = (runs: readonly (RunChoice | null)[]) =>
      this.placed(this.draftsOf(patterns, starts, assignment, runs), reach);
    const runsAWeek = assignment.map(
      (j) => assertDefined(kinds[j], 'kinds[j]').mean * assertDefined(starts[j], 'starts[j]'),
    );
    const least = this.needs.map((need, i) =>
      this.shortestOf(need, full[i], assertDefined(runsAWeek[i], 'runsAWeek[i]')),
    );
    const cut = build(least);
    if (!cut || reach.shortest) return cut;
    const whole = build(full);
    const { timer } = this.brief;
    const fitting = { timer, needs: this.needs, full, runsAWeek, assignment, build };
    if (whole) return lengthened(whole, fitting, (need) => this.runs.longestOf(need));
    return restored(fitting, least) ?? cut;
  }

  private shortestOf(
    need: Need,
    full: RunChoice | null | undefined,
    runsAWeek: number,
  ): RunChoice | null {
    const { timer } = this.brief;
    if (!full || need.pinned !== null) return full ?? null;
    if (this.starved.has(need.number)) {
      // One step above zero.
      const seconds = timer.runStepSeconds;
      const given = adjustedSeconds(seconds, 100, timer.seasonal) * runsAWeek;
      const run = { seconds, given, off: Math.abs(given - need.wanted) / need.wanted, fits: false };
      return run.seconds < full.seconds ? run : full;
    }
    const run = full.fits ? leastRun(timer, need.wanted, runsAWeek) : null;
    return run && run.seconds < full.seconds ? run : full;
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
      return {
        pattern,
        starts: assertDefined(starts[j], 'starts[j]'),
        members,
        soak: soakOf(this.brief, members),
      };
    });
  }

  private placed(drafts: readonly Draft[], reach: Hours): Drafted | null {
    this.tries++;
    this.tried?.(this.tries);
    const { from, seconds } = reach.span;
    const placeables = [];
    for (const [j, draft] of drafts.entries()) {
      if (draft.members.length === 0) return null;
      const shape = this.rules.draftCycleOf(draft);
      const own = this.secondsOf(shape, reach);
      if (own.length === 0) return null;
      const pinned = this.fixed[j]?.starts ?? [];
      if (!pinned.every((second) => own.includes(second))) return null;
      placeables.push({ shape, seconds: own, pinned });
    }
    const placement = place(placeables, this.rules.patterns, (from + seconds) % SECONDS_PER_DAY);
    if (placement && !placement.complete) this.sure = false;
    return placement && { drafts, placement };
  }

  /** Seconds of the day at which a program may start, ascending. */
  private secondsOf(shape: DraftCycle, { span }: Hours): number[] {
    const step = this.brief.timer.startStepMinutes * 60;
    const seconds: number[] = [];
    for (let second = 0; second < SECONDS_PER_DAY; second += step) {
      if (!this.rules.isInside(shape, second, span)) continue;
      if (this.avoid.some(({ from, to }) => second >= from && second < to)) continue;
      if (this.rules.mayStart(shape, second)) seconds.push(second);
    }
    return seconds;
  }
}
