/**
 * A timer on the bench: a live device behind a panel of our own making, and the garden that hangs on it. Keys are pressed, weather and power do what
 * they do, time goes by; everything stands in a log from which the same can be had again.
 */
import { assertDefined } from '../document/assertDefined.ts';
import { SimulatedTimer } from '../simulatedTimer/simulatedTimer.ts';
import type {
  Called,
  TimerCycle,
  TimerRun,
  SimulatedTimerState,
} from '../simulatedTimer/timerState.ts';
import type { Press } from '../simulatedTimer/events.ts';
import type { StationTest } from '../visit/visit.ts';
import type { PanelNow } from '../panel/line.ts';
import { entryChange } from '../panel/entries.ts';
import { factoryPlan } from '../panel/keyIn.ts';
import { panelText, type PanelStyle, type PanelValue } from '../panel/value.ts';
import { applyChange } from '../plan/change.ts';
import type { HiddenOnPanel, TimerKind } from '../plan/kind.ts';
import { adjustedSeconds, effectivePercent } from '../plan/program.ts';
import { programsByLetter, type Plan } from '../plan/plan.ts';
import { programLabel } from '../plan/planWords.ts';
import { formatMoment, monthOf, SECONDS_PER_DAY, type ClockSecond } from '../time/calendar.ts';
import { Garden, type Bed, type GardenFault, type GardenState } from './garden.ts';
import { benchPages, headingsOf, OPENING, shownLetters, type Page } from './pages.ts';
import { fastSteps, inYear, turned } from './turn.ts';
import { say } from '../language/say.ts';

export const BENCH_KEYS = [
  'page-back',
  'less',
  'more',
  'page-on',
  'program',
  'by-hand',
  'store',
  'rest',
] as const;
export type BenchKey = (typeof BENCH_KEYS)[number];

export type BenchAct =
  /** `fast`: it has been held for a while, and a value goes by larger steps. */
  | { readonly key: BenchKey; readonly fast?: boolean }
  | { readonly world: Press }
  | { readonly garden: GardenFault };

/** An act with its moment in true time. */
export type LoggedAct = BenchAct & { readonly at: ClockSecond };

/** What stands on the bench. */
export interface BenchStart {
  readonly plan: Plan;
  /** True time. */
  readonly now: ClockSecond;
  readonly ahead: number;
  readonly kind: Pick<TimerKind, 'hidden' | 'rainDelay' | 'preset'> | null;
  readonly style: Pick<PanelStyle, 'clock' | 'order'>;
}

interface ByHand {
  /** Index into what can be run by hand. */
  readonly what: number;
  readonly minutes: number;
  readonly page: 'what' | 'minutes';
}

export interface BenchState extends GardenState {
  readonly start: BenchStart;
  readonly device: SimulatedTimerState;
  /** Null: the panel shows the time. */
  readonly page: string | null;
  readonly letter: string;
  readonly isOpened: boolean;
  /** A value that is not stored yet, on a panel that wants that. */
  readonly draft: PanelValue | null;
  readonly byHand: ByHand | null;
  readonly lastKey: ClockSecond;
  /** Nobody has set the clock since it lost the time. */
  readonly flashes: boolean;
}

/** What the panel shows. */
export interface Display {
  /** Blank without power. */
  readonly isLit: boolean;
  readonly left: string;
  readonly right: string;
  readonly big: string;
  /** `pm`, `%` and the like, after the big text. */
  readonly unit: string;
  /** `7 of 31`; empty where it shows the time. */
  readonly place: string;
  readonly clock: string;
  readonly flashes: boolean;
  readonly isResting: boolean;
  /** The value is not stored yet. */
  readonly isDraft: boolean;
}

export interface Lamps {
  readonly stations: readonly number[];
  readonly pump: boolean;
  readonly main: boolean;
  readonly rain: boolean;
  readonly power: boolean;
  /** It gives current to a station that shorts it. */
  readonly short: boolean;
}

/** Seconds without a key after which a panel shows the time again. */
const AWAKE = 120;
const LONGEST_BY_HAND = 60;
const MOST_KEPT = 4_000;

export class LiveBench {
  private state: Omit<BenchState, 'device' | keyof GardenState>;
  private readonly plot: Garden;
  private readonly device: SimulatedTimer;
  private pagesOnce: { readonly key: readonly unknown[]; readonly pages: Page[] } | null = null;
  readonly log: LoggedAct[] = [];
  readonly cycles: TimerCycle[] = [];
  readonly runs: TimerRun[] = [];

  constructor(start: BenchStart, state?: BenchState) {
    const listener = {
      cycle: (cycle: TimerCycle) => this.keep(this.cycles, cycle),
      run: (run: TimerRun) => this.ended(run),
    };
    const factory = factoryPlan(start.plan, start.kind);
    this.device = state
      ? SimulatedTimer.from(state.device, listener)
      : SimulatedTimer.idle(start.plan, start.now, start.ahead, listener, undefined, factory);
    const nothing = { page: null, draft: null, byHand: null, isOpened: false, flashes: false };
    this.plot = new Garden(state);
    this.state = state ?? { start, letter: 'A', lastKey: start.now, ...nothing };
  }

  /** Does again what a log says, and goes on to a moment. */
  static replay(start: BenchStart, log: readonly LoggedAct[], until: ClockSecond): LiveBench {
    const bench = new LiveBench(start);
    for (const { at, ...act } of log) {
      bench.advance(at);
      bench.act(act);
    }
    bench.advance(until);
    return bench;
  }

  snapshot(): BenchState {
    return { ...this.state, ...this.plot.snapshot(), device: this.device.snapshot() };
  }

  get plan(): Plan {
    return this.device.plan;
  }

  get now(): ClockSecond {
    return this.device.now;
  }

  get clock(): ClockSecond | null {
    return this.device.clock;
  }

  advance(to: ClockSecond): void {
    this.device.advance(to);
  }

  /** The next moment at which something happens by itself, up to `to`. */
  nextMoment(to: ClockSecond): ClockSecond {
    return this.device.nextMoment(to);
  }

  private keep<T>(list: T[], one: T): void {
    list.push(one);
    if (list.length > MOST_KEPT) list.splice(0, list.length - MOST_KEPT);
  }

  private ended(run: TimerRun): void {
    this.keep(this.runs, run);
    this.plot.ended(run);
  }

  private set(some: Partial<Omit<BenchState, keyof GardenState>>): void {
    this.state = { ...this.state, ...some };
  }

  /** Whether the rain sensor is wet, be it fitted or not. */
  get isWet(): boolean {
    return this.device.isWet;
  }

  /** Cycles under way, and since when. */
  get underWay(): readonly (Called & { readonly began: ClockSecond })[] {
    return this.device.underWay;
  }

  /** Every run so far, and what runs now up to now. */
  runsSoFar(): TimerRun[] {
    const { now } = this;
    const open = this.device.openValves.map(({ station, letter, on }) => ({
      ...{ station, letter, on },
      off: now,
    }));
    return [...this.runs, ...open];
  }

  act(act: BenchAct): void {
    this.log.push({ ...act, at: this.now });
    if ('key' in act) this.key(act.key, act.fast ?? false);
    else if ('world' in act) this.world(act.world);
    else this.plot.change(act.garden, this.now);
  }

  private world(press: Press): void {
    const wasOut = this.clock === null;
    this.device.press(press);
    if (press.do === 'clock') this.set({ flashes: false });
    const { powerLoss } = this.plan.timer;
    if (press.do === 'powerOn' && wasOut && (powerLoss?.clock ?? 'kept') !== 'kept')
      this.set({ flashes: true });
    if (press.do === 'powerOff') this.set({ page: null, draft: null, byHand: null });
    if (press.do === 'powerOn' && powerLoss?.settings === 'factory')
      this.set({ letter: 'A', isOpened: false });
  }

  // What the panel shows.

  private get hidden(): HiddenOnPanel {
    return this.state.start.kind?.hidden ?? {};
  }

  private get style(): PanelStyle {
    const { start } = this.state;
    const rainDelay = start.kind?.rainDelay;
    return {
      dialect: this.plan.timer.dialect ?? {},
      ...start.style,
      ...(rainDelay ? { rainDelay } : {}),
    };
  }

  private get panelNow(): PanelNow {
    const clock = this.clock ?? 0;
    const today = Math.floor(clock / SECONDS_PER_DAY);
    return { style: this.style, today, secondOfDay: clock - today * SECONDS_PER_DAY };
  }

  /** The pages as they stand now, without a value that is not stored. */
  get pages(): readonly Page[] {
    const { letter, isOpened } = this.state;
    const { plan, now } = this;
    const key = [plan, now, this.clock, letter, isOpened] as const;
    if (!this.pagesOnce || key.some((part, i) => part !== this.pagesOnce?.key[i])) {
      const pages = benchPages(plan, this.panelNow, letter, this.hidden, isOpened);
      this.pagesOnce = { key, pages };
    }
    return this.pagesOnce.pages;
  }

  private get isAwake(): boolean {
    return this.clock !== null && this.now - this.state.lastKey < AWAKE;
  }

  /** The page that it shows, with the value on the display; null: the time. */
  get page(): Page | null {
    const { page, draft, byHand } = this.state;
    if (page === null || byHand || !this.isAwake) return null;
    const found = this.pages.find(({ id }) => id === page);
    return found ? { ...found, value: draft ?? found.value } : null;
  }

  display(): Display {
    const { flashes, byHand, draft } = this.state;
    const clock = this.clock;
    const time = clock === null ? '' : this.text({ kind: 'time', second: this.secondOfDay });
    const common = {
      isLit: clock !== null,
      clock: time,
      flashes,
      isResting: this.plan.settings.mode === 'off',
      isDraft: false,
      place: '',
    };
    if (clock === null) return { ...common, left: '', right: '', big: '', unit: '' };
    if (byHand && this.isAwake) return { ...common, ...this.byHandShown(byHand) };
    const { page } = this;
    if (!page) return { ...common, ...this.timeShown() };
    const { pages } = this;
    const place = pages.findIndex(({ id }) => id === page.id);
    return {
      ...common,
      ...headingsOf(page, this.plan, this.style.dialect),
      ...apart(this.text(this.shownOf(page))),
      place: say`${place + 1} of ${pages.length}`,
      isDraft: draft !== null,
    };
  }

  private text(value: PanelValue): string {
    return panelText(value, this.style);
  }

  private get secondOfDay(): number {
    return this.panelNow.secondOfDay;
  }

  /** A run page of some kinds shows the run at the percent in force. */
  private shownOf({ address, value }: Page): PanelValue {
    if (value.kind !== 'run' || address.of !== 'run') return value;
    if (this.style.dialect.runPage !== 'adjusted') return value;
    const program = this.plan.programs.find(({ letter }) => letter === address.program);
    const percent = program
      ? effectivePercent(this.plan, program, monthOf(this.panelNow.today))
      : 100;
    return {
      kind: 'run',
      seconds: adjustedSeconds(value.seconds, percent, this.plan.timer.seasonal),
    };
  }

  private timeShown(): Pick<Display, 'left' | 'right' | 'big' | 'unit'> {
    const { today, secondOfDay } = this.panelNow;
    const [open] = this.device.openValves;
    const byDate = (this.style.dialect.clock ?? 'date') === 'date';
    const day = this.text({ kind: 'weekday', weekday: (((today + 3) % 7) + 7) % 7 });
    const isDelayed = this.isRainDelayed;
    const right =
      open === undefined
        ? this.plan.settings.mode === 'off'
          ? 'resting'
          : isDelayed
            ? say`rain delay`
            : ''
        : say`station ${open.station}, ${clockLength(open.left)} left`;
    return {
      left: byDate ? `${day} ${this.text({ kind: 'date', day: today })}` : day,
      right,
      ...apart(this.text({ kind: 'time', second: Math.floor(secondOfDay / 60) * 60 })),
    };
  }

  private get isRainDelayed(): boolean {
    const { resumes } = this.device.snapshot();
    return resumes !== null && this.clock !== null && this.clock < resumes;
  }

  private get handChoices(): readonly {
    readonly words: string;
    readonly press: (seconds: number) => Press;
  }[] {
    const { dialect } = this.style;
    const letters = shownLetters(this.plan, this.hidden, this.state.isOpened);
    return [
      ...this.plan.stations.map(({ number }) => ({
        words: say`station ${number}`,
        press: (seconds: number): Press => ({ do: 'manual', station: number, seconds }),
      })),
      {
        words: say`all stations`,
        press: (seconds: number): Press => ({ do: 'manual', seconds }),
      },
      ...programsByLetter(this.plan)
        .filter(({ letter }) => letters.includes(letter))
        .map(({ letter }) => ({
          words: say`program ${programLabel(letter, dialect)}`,
          press: (): Press => ({ do: 'manual', program: letter }),
        })),
    ];
  }

  private byHandShown({ what, minutes, page }: ByHand) {
    const choice = assertDefined(
      this.handChoices[what % this.handChoices.length],
      'handChoices[what % handChoices.length]',
    );
    const isProgram = choice.press(0).do === 'manual' && 'program' in choice.press(0);
    return page === 'what' || isProgram
      ? { left: say`by hand`, right: say`which`, big: choice.words, unit: '' }
      : {
          left: say`by hand`,
          right: choice.words,
          big: `0:${String(minutes).padStart(2, '0')}`,
          unit: '',
        };
  }

  lamps(): Lamps {
    const open = this.device.openValves.map(({ station }) => station);
    const pumps = this.plan.stations.filter(
      ({ number, pump }) => open.includes(number) && pump !== false,
    );
    const { sensor = 'active' } = this.plan.settings;
    return {
      stations: open,
      pump: pumps.length > 0,
      main: open.length > 0,
      rain: this.device.isWet && sensor !== 'none',
      power: this.clock !== null,
      short: open.some((station) => this.plot.isShorted(station)),
    };
  }

  /** What a meter at the terminals shows while each station has current, one after another. */
  wiringTest(): StationTest[] {
    return this.plot.wiringTest(this.plan);
  }

  garden(): Bed[] {
    return this.plot.beds(this.plan, this.device.openValves, this.now);
  }

  // The keys.

  private key(key: BenchKey, fast: boolean): void {
    if (this.clock === null) return;
    const wasAwake = this.isAwake;
    if (!wasAwake) this.set({ page: null, draft: null, byHand: null });
    this.set({ lastKey: this.now });
    switch (key) {
      case 'page-on':
      case 'page-back':
        this.turnPage(key === 'page-on' ? 1 : -1);
        return;
      case 'more':
      case 'less':
        this.turnValue(key === 'more' ? 1 : -1, fast);
        return;
      case 'program':
        this.nextProgram();
        return;
      case 'by-hand':
        this.set({
          draft: null,
          byHand: this.state.byHand ? null : { what: 0, minutes: 10, page: 'what' },
        });
        return;
      case 'store':
        this.store();
        return;
      case 'rest':
        this.set({ draft: null, byHand: null });
        this.device.press({
          do: 'mode',
          to: this.plan.settings.mode === 'off' ? 'run' : 'off',
        });
        return;
    }
  }

  private turnPage(by: 1 | -1): void {
    const { byHand, page } = this.state;
    if (byHand) {
      this.set({ byHand: { ...byHand, page: byHand.page === 'what' ? 'minutes' : 'what' } });
      return;
    }
    const { pages } = this;
    const place = pages.findIndex(({ id }) => id === page);
    // The time stands before the first page and after the last.
    const next = place < 0 ? (by > 0 ? 0 : pages.length - 1) : place + by;
    this.set({ page: pages[next]?.id ?? null, draft: null });
  }

  private nextProgram(): void {
    const letters = shownLetters(this.plan, this.hidden, this.state.isOpened);
    const place = letters.indexOf(this.state.letter);
    const letter = assertDefined(
      letters[(place + 1) % letters.length],
      'letters[(place + 1) % letters.length]',
    );
    const before = this.page;
    this.set({ letter, draft: null, byHand: null });
    // The same setting of the next program, where it has it.
    const same =
      before && 'program' in before.address
        ? before.id.replace(/^(\w[\w-]*)\.[A-Z](?=\.|$)/u, `$1.${letter}`)
        : null;
    const first = this.pages.find(({ address }) => 'program' in address);
    this.set({ page: this.pages.find(({ id }) => id === same)?.id ?? first?.id ?? null });
  }

  private turnValue(by: 1 | -1, fast: boolean): void {
    const { byHand } = this.state;
    if (byHand) {
      this.set({ byHand: turnedHand(byHand, this.handChoices.length, by) });
      return;
    }
    const { page } = this;
    if (!page) return;
    const { today } = this.panelNow;
    const rainDelay = this.state.start.kind?.rainDelay ?? null;
    const circumstance = { plan: this.plan, today, rainDelay };
    let { value } = page;
    for (let n = fast ? fastSteps(page, this.plan) : 1; n > 0; n--)
      value = turned({ ...page, value }, by, circumstance);
    if (this.style.dialect.confirms) this.set({ draft: value });
    else this.enter(page, value);
  }

  private store(): void {
    const { byHand, draft } = this.state;
    if (byHand) {
      const choice = assertDefined(
        this.handChoices[byHand.what % this.handChoices.length],
        'handChoices',
      );
      this.device.press(choice.press(byHand.minutes * 60));
      this.set({ byHand: null, page: null });
      return;
    }
    const { page } = this;
    if (page && draft) this.enter(page, draft);
    this.set({ draft: null });
  }

  /** A value takes effect. */
  private enter(page: Page, value: PanelValue): void {
    const { address, weekday } = page;
    if (page.id === OPENING) {
      if (value.kind === 'switch') this.open(value.on);
      return;
    }
    if (address.of === 'mode') {
      if (value.kind === 'switch') this.device.press({ do: 'mode', to: value.on ? 'run' : 'off' });
      return;
    }
    if (this.setClock(page, value)) return;
    const noted = weekday ? this.withWeekday(page, value) : value;
    const change = noted && entryChange(this.plan, address, noted, this.panelNow);
    const applied = change ? applyChange(this.plan, change) : null;
    if (!applied?.ok) return;
    this.device.set(applied.value.plan);
    if (address.of === 'rain-delay' && value.kind === 'rain-delay' && value.unit !== 'off')
      this.device.press({ do: 'stop' });
    // A start that is set moves to its place among the others.
    if (address.of === 'start' && value.kind === 'time' && value.second === null)
      this.followStart(address.program);
  }

  private followStart(letter: string): void {
    const starts = this.pages.filter(
      ({ address }) => address.of === 'start' && address.program === letter,
    );
    if (!starts.some(({ id }) => id === this.state.page))
      this.set({ page: starts.at(-1)?.id ?? null });
  }

  private open(isOpened: boolean): void {
    const letters = shownLetters(this.plan, this.hidden, isOpened);
    const letter = letters.includes(this.state.letter) ? this.state.letter : 'A';
    this.set({ isOpened, letter });
  }

  /** The days of the page with one weekday more or less. */
  private withWeekday({ address, weekday }: Page, value: PanelValue): PanelValue | null {
    const days =
      this.pages.find((one) => one.weekday === undefined && one.address === address)?.value ??
      this.daysOf(address);
    if (days?.kind !== 'days' || value.kind !== 'switch' || !weekday) return null;
    const others = days.weekdays.filter((one) => one !== weekday);
    return { ...days, weekdays: value.on ? [...others, weekday] : others };
  }

  private daysOf(address: Page['address']): PanelValue | undefined {
    return this.pages.find(
      (one) =>
        one.weekday === undefined &&
        one.address.of === 'days' &&
        address.of === 'days' &&
        one.address.program === address.program,
    )?.value;
  }

  /** Sets the timer's clock where the page is about it. @returns whether it is */
  private setClock({ address: { of } }: Page, value: PanelValue): boolean {
    const clock = this.clock ?? 0;
    const { today, secondOfDay } = this.panelNow;
    const at =
      of === 'year' && value.kind === 'year'
        ? inYear(today, value.year) * SECONDS_PER_DAY + secondOfDay
        : of === 'date' && value.kind === 'date'
          ? value.day * SECONDS_PER_DAY + secondOfDay
          : of === 'weekday' && value.kind === 'weekday'
            ? this.onWeekday(value.weekday) * SECONDS_PER_DAY + secondOfDay
            : of === 'time' && value.kind === 'time'
              ? today * SECONDS_PER_DAY + (value.second ?? 0)
              : null;
    if (at === null) return false;
    if (at !== clock) this.device.press({ do: 'clock', to: formatMoment(at) });
    this.set({ flashes: false });
    return true;
  }

  /** The day next to today that is a weekday. */
  private onWeekday(weekday: number): number {
    const { today } = this.panelNow;
    const ahead = (((weekday - ((today + 3) % 7)) % 7) + 7) % 7;
    return today + (ahead > 3 ? ahead - 7 : ahead);
  }
}

const clockLength = (seconds: number) =>
  `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, '0')}`;

/** `3:10 PM` as `3:10` and `pm`, `100 %` as `100` and `%`. */
function apart(text: string): { big: string; unit: string } {
  const [, big, unit] = /^(\d\S*) ([AP]M|%|H|DAYS?)$/.exec(text) ?? [];
  return big === undefined ? { big: text, unit: '' } : { big, unit: (unit ?? '').toLowerCase() };
}

function turnedHand(byHand: ByHand, count: number, by: 1 | -1): ByHand {
  if (byHand.page === 'what') return { ...byHand, what: (byHand.what + by + count) % count };
  const minutes = byHand.minutes + by;
  return {
    ...byHand,
    minutes: minutes < 1 ? LONGEST_BY_HAND : minutes > LONGEST_BY_HAND ? 1 : minutes,
  };
}
