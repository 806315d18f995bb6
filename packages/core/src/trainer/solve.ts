/** The keys that turn a bench timer into a plan, as an expert would press them. */
import { LiveBench } from '../bench/bench.ts';
import type { BenchKey, BenchStart } from '../bench/state.ts';
import { OPENING, type Page } from '../bench/pages.ts';
import { fastSteps, turned, type Circumstance } from '../bench/turn.ts';
import { sameValue, type PanelValue } from '../panel/value.ts';
import type { Plan } from '../plan/plan.ts';
import { SECONDS_PER_DAY } from '../time/calendar.ts';
import { modulo } from '../time/dayRules.ts';
import type { Pressed } from './task.ts';

const CLOCK_PAGES = ['year', 'date', 'weekday', 'time'];
const MOST_TURNS = 3_000;
const MOST_PAGES = 600;
const HALF_A_DAY = SECONDS_PER_DAY / 2;

/** Number of presses of − or +; Infinity: it does not get there. */
function turnsTo(page: Page, value: PanelValue, by: 1 | -1, circumstance: Circumstance): number {
  let present = page.value;
  for (let count = 0; count < MOST_TURNS; count++) {
    if (sameValue(present, value)) return count;
    present = turned({ ...page, value: present }, by, circumstance);
  }
  return Infinity;
}

class Hands {
  readonly keys: Pressed[] = [];
  readonly bench: LiveBench;

  constructor(bench: LiveBench) {
    this.bench = bench;
  }

  press(key: BenchKey, times = 1, fast = false): void {
    for (let n = 0; n < times; n++) {
      this.bench.act(fast ? { key, fast } : { key });
      this.bench.advance(this.bench.now + 1);
    }
    const last = this.keys.at(-1);
    if (times > 0 && last?.key === key && (last.fast ?? false) === fast)
      this.keys[this.keys.length - 1] = { ...last, times: last.times + times };
    else if (times > 0) this.keys.push({ key, ...(fast ? { fast } : {}), times });
  }

  /** Goes to a page the shorter way. The time comes before the first and after the last. */
  goTo(id: string): void {
    const { pages, page } = this.bench;
    const places = pages.length + 1;
    const to = pages.findIndex((one) => one.id === id) + 1;
    const here = page ? pages.findIndex((one) => one.id === page.id) + 1 : 0;
    const [on, back] = [modulo(to - here, places), modulo(here - to, places)];
    this.press(on <= back ? 'page-on' : 'page-back', Math.min(on, back));
  }

  /**
   * Changes a page's value.
   *
   * @returns whether − and + get there
   */
  turnTo(page: Page, value: PanelValue, circumstance: Circumstance): boolean {
    const [more, less] = [
      turnsTo(page, value, 1, circumstance),
      turnsTo(page, value, -1, circumstance),
    ];
    const turns = Math.min(more, less);
    if (turns === Infinity) return false;
    this.goTo(page.id);
    const key = more <= less ? 'more' : 'less';
    const large = fastSteps(page, circumstance.plan);
    if (large > 1) this.press(key, Math.floor(turns / large), true);
    this.press(key, large > 1 ? turns % large : turns);
    if (this.bench.plan.timer.dialect?.confirms) this.press('store');
    return true;
  }

  /** Sets the clock: the hour first, then the day. */
  setClock(): void {
    const error = () => (this.bench.clock ?? 0) - this.bench.now;
    const inDay = () => modulo(error() + HALF_A_DAY, SECONDS_PER_DAY) - HALF_A_DAY;
    for (let n = 0; n < MOST_TURNS && Math.abs(inDay()) >= 60; n++) {
      if (this.bench.page?.id !== 'time') this.goTo('time');
      this.press(inDay() > 0 ? 'less' : 'more', 1, Math.abs(inDay()) >= 3600);
    }
    const days = () => Math.round(error() / SECONDS_PER_DAY);
    for (let n = 0; n < MOST_TURNS && days() !== 0; n++) {
      if (this.bench.page?.id !== 'date') this.goTo('date');
      this.press(days() > 0 ? 'less' : 'more');
    }
  }
}

/** The pages of a timer that already holds a plan, for one of its programs. */
function pagesOf(plan: Plan, bench: LiveBench, start: BenchStart, letter: string): readonly Page[] {
  const ahead = (bench.clock ?? bench.now) - bench.now;
  const kind = { ...start.kind, hidden: {} };
  const other = new LiveBench({ ...start, kind, plan, now: bench.now, ahead });
  for (let n = 0; n < 26 && other.snapshot().letter !== letter; n++) other.act({ key: 'program' });
  return other.pages;
}

/** On the page of days only the rule counts; each weekday has its own page. */
const isSame = (a: PanelValue, b: PanelValue) =>
  a.kind === 'days' && b.kind === 'days' ? a.rule === b.rule : sameValue(a, b);

/**
 * The presses with which a bench timer holds a plan and has the right time.
 *
 * @param start initial state of the bench. The bench itself is pressed too.
 */
export function keysFor(bench: LiveBench, start: BenchStart, goal: Plan): Pressed[] {
  const hands = new Hands(bench);
  hands.setClock();
  const letters = [...new Set(['A', ...goal.programs.map(({ letter }) => letter)])].sort();
  const shown = bench.pages.find(({ id }) => id === OPENING);
  const above = start.kind?.hidden?.programsAbove ?? 26;
  const rainDelay = start.kind?.rainDelay ?? null;
  const circumstance = (): Circumstance => ({
    ...{ plan: bench.plan, rainDelay },
    today: Math.floor((bench.clock ?? bench.now) / SECONDS_PER_DAY),
  });
  if (shown && letters.length > above)
    hands.turnTo(shown, { kind: 'switch', on: true }, circumstance());
  for (const letter of letters) {
    for (let n = 0; n < 26 && bench.snapshot().letter !== letter; n++) hands.press('program');
    const left = new Set<string>();
    for (let n = 0; n < MOST_PAGES; n++) {
      const wanted = new Map(
        pagesOf(goal, bench, start, letter).map(({ id, value }) => [id, value]),
      );
      const open = bench.pages.find(({ id, address, value }) => {
        const other = wanted.get(id);
        const isSetting = address.of !== 'total' && !CLOCK_PAGES.includes(id) && !left.has(id);
        return isSetting && other !== undefined && !isSame(other, value);
      });
      if (!open) break;
      const value = wanted.get(open.id) ?? open.value;
      const aim = value.kind === 'days' ? { ...value, weekdays: [] } : value;
      if (!hands.turnTo(open, aim, circumstance())) left.add(open.id);
    }
  }
  return hands.keys;
}
