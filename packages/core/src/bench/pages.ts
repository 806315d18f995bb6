/** The pages of a bench timer's panel: one setting a page, in the order and wording of its kind. */
import { assertDefined } from '../document/assertDefined.ts';
import { totalOnDisplay } from '../engine/total.ts';
import { panelLines } from '../panel/lines.ts';
import type { PanelLine, PanelNow, SettingAddress } from '../panel/line.ts';
import { weekdayText, type PanelValue } from '../panel/value.ts';
import type { HiddenOnPanel } from '../plan/kind.ts';
import { letterAt, type Dialect, type Plan } from '../plan/plan.ts';
import { programLabel } from '../plan/planWords.ts';
import { WEEKDAYS, type Weekday } from '../time/calendar.ts';
import { monthName } from '../words/words.ts';
import { say, wordsOf } from '../language/say.ts';

/** One setting of the panel, or one weekday of it. */
export interface Page {
  readonly id: string;
  readonly address: SettingAddress;
  /** Set if the page is about one weekday. */
  readonly weekday?: Weekday;
  readonly value: PanelValue;
}

/** The page that unlocks hidden programs. */
export const OPENING = 'opening';

/** Letters of the programs that the panel shows. */
export function shownLetters(
  { timer }: Plan,
  { programsAbove }: HiddenOnPanel,
  isOpened: boolean,
): string[] {
  const count = isOpened ? timer.programCount : Math.min(timer.programCount, programsAbove ?? 26);
  return Array.from({ length: count }, (_, i) => letterAt(i));
}

const programOf = (address: SettingAddress): string | null =>
  'program' in address ? (address.program ?? null) : null;

function weekdayPages({ id, address, value }: PanelLine, { weekOrder }: Dialect): Page[] {
  if (value.kind !== 'days' || value.rule === 'none' || value.rule === 'daily') return [];
  const first = weekOrder === 'sun' ? 6 : 0;
  return Array.from({ length: 7 }, (_, i) =>
    assertDefined(WEEKDAYS[(i + first) % 7], 'WEEKDAYS[(i + first) % 7]'),
  ).map((weekday) => ({
    id: `${id}.${weekday}`,
    address,
    weekday,
    value: { kind: 'switch', on: value.weekdays.includes(weekday) },
  }));
}

/** A start page after the first unset start is hidden until that start is set. */
function isShown(
  { address }: PanelLine,
  plan: Plan,
  { laterStarts = false }: HiddenOnPanel,
): boolean {
  if (!laterStarts || address.of !== 'start') return true;
  const program = plan.programs.find(({ letter }) => letter === address.program);
  return address.slot <= (program?.starts.length ?? 0) + 1;
}

/**
 * The pages of a panel that shows one program.
 *
 * @param letter that program
 */
export function benchPages(
  plan: Plan,
  now: PanelNow,
  letter: string,
  hidden: HiddenOnPanel,
  isOpened: boolean,
): Page[] {
  const pages = panelLines(plan, now)
    .filter(({ address }) => (programOf(address) ?? letter) === letter)
    .filter((line) => isShown(line, plan, hidden))
    .flatMap((line): Page[] => [line, ...weekdayPages(line, now.style.dialect)]);
  const program = plan.programs.find((one) => one.letter === letter);
  const total = program ? totalOnDisplay(plan, program, 100) : null;
  const lastRun = pages.findLastIndex(({ address }) => address.of === 'run');
  if (total !== null && lastRun >= 0)
    pages.splice(lastRun + 1, 0, {
      id: `total.${letter}`,
      address: { of: 'total', program: letter },
      value: { kind: 'run', seconds: total },
    });
  if (hidden.programsAbove !== undefined && hidden.programsAbove < plan.timer.programCount)
    pages.push({
      id: OPENING,
      address: { of: 'mode' },
      value: { kind: 'switch', on: isOpened },
    });
  return pages;
}

const SETTING_WORDS: Partial<Record<SettingAddress['of'], string>> = wordsOf({
  year: 'year',
  date: 'date',
  weekday: 'day of the week',
  time: 'clock',
  days: 'days',
  total: 'total',
  delay: 'delay',
  windows: 'no-water hours',
  'off-days': 'no-water dates',
  'at-once': 'stations at once',
  sensor: 'rain sensor',
  mode: 'watering',
  'rain-delay': 'rain delay',
  'longest-piece': 'longest cycle',
  soak: 'soak',
  pump: 'pump or master valve',
  'obeys-sensor': 'uses rain sensor',
  enabled: 'enabled',
  linked: 'linked to',
});

const startsOf = (plan: Plan, letter: string) =>
  Math.max(
    plan.timer.startsPerProgram,
    plan.programs.find((program) => program.letter === letter)?.starts.length ?? 0,
  );

function settingWords({ id, address, weekday, value }: Page, plan: Plan, dialect: Dialect): string {
  if (id === OPENING) return say`more programs`;
  if (weekday) {
    const waters =
      value.kind === 'switch' &&
      plan.programs.some(
        ({ letter, days }) => letter === programOf(address) && days?.rule === 'weekdays',
      );
    const day = weekdayText(weekday, dialect);
    return waters ? say`waters ${day}` : say`skips ${day}`;
  }
  switch (address.of) {
    case 'start':
      return say`start time ${address.slot} of ${startsOf(plan, address.program)}`;
    case 'run':
      return say`station ${address.station}`;
    case 'count':
      return value.kind === 'count' && isByHours(plan, address.program)
        ? say`hours`
        : dialect.intervalCounts === 'between'
          ? say`days between`
          : say`every … days`;
    case 'phase':
      return value.kind === 'days-left'
        ? say`days left`
        : value.kind === 'date'
          ? say`first date`
          : say`first start time`;
    case 'percent':
      return address.month === undefined ? say`percent` : say`percent ${monthName(address.month)}`;
    default:
      return SETTING_WORDS[address.of] ?? address.of;
  }
}

const isByHours = (plan: Plan, letter: string) =>
  plan.programs.some((program) => program.letter === letter && program.days?.rule === 'hours');

/** The two headings of a page: what it belongs to, and what it is. */
export function headingsOf(
  page: Page,
  plan: Plan,
  dialect: Dialect,
): { left: string; right: string } {
  const letter = page.id === OPENING ? null : programOf(page.address);
  const { address } = page;
  const ofStation = 'station' in address && address.of !== 'run' ? address.station : undefined;
  const left =
    letter !== null
      ? say`program ${programLabel(letter, dialect)}`
      : ofStation !== undefined
        ? say`station ${ofStation}`
        : '';
  return { left, right: settingWords(page, plan, dialect) };
}
