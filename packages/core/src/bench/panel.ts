/** A bench timer's panel: keys, current page, and a value not yet entered. */
import { assertDefined } from '../document/assertDefined.ts';
import { say } from '../language/say.ts';
import { entryChange } from '../panel/entries.ts';
import type { PanelNow } from '../panel/line.ts';
import { panelText, type PanelStyle, type PanelValue } from '../panel/value.ts';
import { applyChange } from '../plan/change.ts';
import type { HiddenOnPanel } from '../plan/kind.ts';
import type { Plan } from '../plan/plan.ts';
import type { Press } from '../simulatedTimer/events.ts';
import type { SimulatedTimer } from '../simulatedTimer/simulatedTimer.ts';
import { formatMoment, SECONDS_PER_DAY, type ClockSecond } from '../time/calendar.ts';
import {
  byHandShown,
  chosenByHand,
  handChoices,
  pageShown,
  timeShown,
  type HandChoice,
} from './display.ts';
import { benchPages, OPENING, shownLetters, type Page } from './pages.ts';
import type { BenchKey, BenchStart, ByHand, Display, PanelState } from './state.ts';
import { fastSteps, inYear, turned } from './turn.ts';

/** Seconds without a key press until a panel shows the time. */
const AWAKE = 120;
const LONGEST_BY_HAND = 60;

export class BenchPanel {
  private state: PanelState;
  private readonly timer: SimulatedTimer;
  private readonly start: BenchStart;
  private pagesOnce: { readonly key: readonly unknown[]; readonly pages: Page[] } | null = null;

  /** @param state to continue from; without it the panel shows the time */
  constructor(timer: SimulatedTimer, start: BenchStart, state?: PanelState) {
    this.timer = timer;
    this.start = start;
    const nothing = { page: null, draft: null, byHand: null, isOpened: false, flashes: false };
    this.state = state
      ? {
          ...{ page: state.page, letter: state.letter, isOpened: state.isOpened },
          ...{ draft: state.draft, byHand: state.byHand, lastKey: state.lastKey },
          flashes: state.flashes,
        }
      : { letter: 'A', lastKey: start.now, ...nothing };
  }

  snapshot(): PanelState {
    return this.state;
  }

  /**
   * Effect of power and of a set clock on the panel.
   *
   * @param wasOut whether it had no power before
   */
  afterWorld(press: Press, wasOut: boolean): void {
    if (press.do === 'clock') this.set({ flashes: false });
    const { powerLoss } = this.plan.timer;
    if (press.do === 'powerOn' && wasOut && (powerLoss?.clock ?? 'kept') !== 'kept')
      this.set({ flashes: true });
    if (press.do === 'powerOff') this.set({ page: null, draft: null, byHand: null });
    if (press.do === 'powerOn' && powerLoss?.settings === 'factory')
      this.set({ letter: 'A', isOpened: false });
  }

  private get plan(): Plan {
    return this.timer.plan;
  }

  private get now(): ClockSecond {
    return this.timer.now;
  }

  private get clock(): ClockSecond | null {
    return this.timer.clock;
  }

  private set(some: Partial<PanelState>): void {
    this.state = { ...this.state, ...some };
  }

  private get hidden(): HiddenOnPanel {
    return this.start.kind?.hidden ?? {};
  }

  private get style(): PanelStyle {
    const { start } = this;
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

  /** The panel's pages, without a value not yet entered. */
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

  /** The current page with the displayed value; null: the time. */
  get page(): Page | null {
    const { page, draft, byHand } = this.state;
    if (page === null || byHand || !this.isAwake) return null;
    const found = this.pages.find(({ id }) => id === page);
    return found ? { ...found, value: draft ?? found.value } : null;
  }

  display(): Display {
    const { flashes, byHand, draft } = this.state;
    const { clock, style, panelNow, page } = this;
    const { secondOfDay, today } = panelNow;
    const common = {
      isLit: clock !== null,
      clock: clock === null ? '' : panelText({ kind: 'time', second: secondOfDay }, style),
      flashes,
      isResting: this.plan.settings.mode === 'off',
      isDraft: false,
      place: '',
    };
    if (clock === null) return { ...common, left: '', right: '', big: '', unit: '' };
    if (byHand && this.isAwake) return { ...common, ...byHandShown(this.handChoices, byHand) };
    if (!page) return { ...common, ...timeShown(this.timer, style, panelNow) };
    const { pages } = this;
    const place = pages.findIndex(({ id }) => id === page.id);
    return {
      ...common,
      ...pageShown(page, this.plan, style, today),
      place: say`${place + 1} of ${pages.length}`,
      isDraft: draft !== null,
    };
  }

  private get letters(): readonly string[] {
    return shownLetters(this.plan, this.hidden, this.state.isOpened);
  }

  private get handChoices(): readonly HandChoice[] {
    return handChoices(this.plan, this.style, this.letters);
  }

  key(key: BenchKey, fast: boolean): void {
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
        this.timer.press({
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
    // The time comes before the first page and after the last.
    const next = place < 0 ? (by > 0 ? 0 : pages.length - 1) : place + by;
    this.set({ page: pages[next]?.id ?? null, draft: null });
  }

  private nextProgram(): void {
    const { letters } = this;
    const place = letters.indexOf(this.state.letter);
    const letter = assertDefined(
      letters[(place + 1) % letters.length],
      'a program that the panel shows',
    );
    const before = this.page;
    this.set({ letter, draft: null, byHand: null });
    // The same setting of the next program, if it has one.
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
    const rainDelay = this.start.kind?.rainDelay ?? null;
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
      this.timer.press(chosenByHand(this.handChoices, byHand).press(byHand.minutes * 60));
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
      if (value.kind === 'switch') this.timer.press({ do: 'mode', to: value.on ? 'run' : 'off' });
      return;
    }
    if (this.setClock(page, value)) return;
    const noted = weekday ? this.withWeekday(page, value) : value;
    const change = noted && entryChange(this.plan, address, noted, this.panelNow);
    const applied = change ? applyChange(this.plan, change) : null;
    if (!applied?.ok) return;
    this.timer.set(applied.value.plan);
    if (address.of === 'rain-delay' && value.kind === 'rain-delay' && value.unit !== 'off')
      this.timer.press({ do: 'stop' });
    // A changed start moves to its place in order.
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

  /** The page's days with one weekday toggled. */
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

  /**
   * Sets the timer's clock if the page is about it.
   *
   * @returns whether it is
   */
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
    if (at !== clock) this.timer.press({ do: 'clock', to: formatMoment(at) });
    this.set({ flashes: false });
    return true;
  }

  /** The nearest day with that weekday. */
  private onWeekday(weekday: number): number {
    const { today } = this.panelNow;
    const ahead = (((weekday - ((today + 3) % 7)) % 7) + 7) % 7;
    return today + (ahead > 3 ? ahead - 7 : ahead);
  }
}

function turnedHand(byHand: ByHand, count: number, by: 1 | -1): ByHand {
  if (byHand.page === 'what') return { ...byHand, what: (byHand.what + by + count) % count };
  const minutes = byHand.minutes + by;
  return {
    ...byHand,
    minutes: minutes < 1 ? LONGEST_BY_HAND : minutes > LONGEST_BY_HAND ? 1 : minutes,
  };
}
