/** The key-in card: what to key in to bring a timer from one state to another, line by line in its own order. */
import { assertDefined } from '../document/assertDefined.ts';
import type { PanelSetting, TimerKind } from '../plan/kind.ts';
import type { Plan } from '../plan/plan.ts';
import { totalOnDisplay } from '../engine/total.ts';
import { rangesWords } from '../words/words.ts';
import { orderOf, panelLines } from './lines.ts';
import { programName, type PanelLine, type PanelNow, type SettingAddress } from './line.ts';
import { sameValue, type PanelValue } from './value.ts';
import { say } from '../language/say.ts';

/** A setting to key in. */
export interface KeyLine extends PanelLine {
  /** The previous value; null: not known or not asked for. */
  readonly was: PanelValue | null;
  /** The lines it represents; several if neighbours are equal. */
  readonly stands: readonly SettingAddress[];
  /** The tick of each of them: a group is done when all of them are. */
  readonly ticks: readonly string[];
}

/** Id of a tick: another value is another line. The clock and the rest of a rain delay keep changing, so they are left out. */
function tickOf({ id, setting, value }: PanelLine): string {
  if (setting === 'clock') return id;
  return `${id}=${JSON.stringify(value.kind === 'rain-delay' ? value.unit : value)}`;
}

export const isTicked = ({ ticks }: KeyLine, ticked: ReadonlySet<string>): boolean =>
  ticks.every((tick) => ticked.has(tick));

/** Whether a line says that something is off: an unused start, a station without a run. */
export const isOff = ({ value }: PanelLine): boolean =>
  (value.kind === 'time' && value.second === null) || (value.kind === 'run' && value.seconds === 0);

/** Whether two lines are unused starts, or stations without a run, of one program. */
function areOff(a: KeyLine, b: KeyLine): boolean {
  const [x, y] = [a.address, b.address];
  return (
    isOff(a) &&
    isOff(b) &&
    x.of === y.of &&
    (x.of === 'start' || x.of === 'run') &&
    'program' in y &&
    x.program === y.program
  );
}

/** Whether two lines are the same run time of one program, and were the same before. */
function areEqualRuns(a: KeyLine, b: KeyLine): boolean {
  const [x, y] = [a.address, b.address];
  const sameBefore = a.was === b.was || (a.was && b.was && sameValue(a.was, b.was));
  return (
    x.of === 'run' &&
    y.of === 'run' &&
    x.program === y.program &&
    sameValue(a.value, b.value) &&
    Boolean(sameBefore)
  );
}

/** The line of two neighbours. */
function together(a: KeyLine, b: KeyLine, { style }: PanelNow): KeyLine {
  const stands = [...a.stands, ...b.stands];
  const { address } = b;
  const label = programName('program' in address ? (address.program ?? '') : '', style.dialect);
  const numbers = rangesWords(
    stands.map((place) =>
      place.of === 'start' ? place.slot : place.of === 'run' ? place.station : 0,
    ),
  );
  return {
    ...a,
    name:
      address.of === 'start'
        ? say`${label} start times ${numbers}`
        : say`${label} stations ${numbers}`,
    was: a.was && b.was && sameValue(a.was, b.was) ? a.was : null,
    stands,
    ticks: [...a.ticks, ...b.ticks],
  };
}

function joined(
  lines: readonly KeyLine[],
  now: PanelNow,
  belong: (a: KeyLine, b: KeyLine) => boolean,
): KeyLine[] {
  const result: KeyLine[] = [];
  for (const line of lines) {
    const last = result.at(-1);
    if (last && belong(last, line)) result[result.length - 1] = together(last, line, now);
    else result.push(line);
  }
  return result;
}

/** Lines with equal run times of neighbouring stations as one, for someone who keys them in without reading each back. */
export const withEqualRuns = (lines: readonly KeyLine[], now: PanelNow): KeyLine[] =>
  joined(lines, now, areEqualRuns);

/** A line by itself. */
const lineOf = (line: PanelLine, was: PanelValue | null = null): KeyLine => ({
  ...line,
  was,
  stands: [line.address],
  ticks: [tickOf(line)],
});

/** Run times are keyed in at 100 percent, so that the pages show the entered values. */
function hundredLines(percents: readonly KeyLine[]): KeyLine[] {
  const seen = new Set<string>();
  return percents.flatMap((line) => {
    if (line.address.of !== 'percent') return [];
    const { program } = line.address;
    const place: SettingAddress = {
      of: 'percent',
      ...(program === undefined ? {} : { program }),
      hundred: true,
    };
    const id = `percent.${program ?? 'timer'}.100`;
    if (seen.has(id)) return [];
    seen.add(id);
    const name = say`${line.address.month === undefined ? line.name : say`Seasonal percent`}, while keying in run times`;
    return [
      lineOf({ ...line, id, address: place, name, value: { kind: 'percent', percent: 100 } }),
    ];
  });
}

const isHundred = (value: PanelValue | null) => value?.kind === 'percent' && value.percent === 100;

/** The display's total of each program with lines on the card: a checksum of what was keyed in. */
function totalLine(plan: Plan, letter: string, now: PanelNow): KeyLine[] {
  const program = plan.programs.find((program) => program.letter === letter);
  const seconds = program ? totalOnDisplay(plan, program, 100) : null;
  if (seconds === null) return [];
  const place: SettingAddress = { of: 'total', program: letter };
  return [
    lineOf({
      id: `total.${letter}`,
      setting: 'runs',
      address: place,
      name: say`${programName(letter, now.style.dialect)} total should say`,
      value: { kind: 'run', seconds },
    }),
  ];
}

/** The program whose start times, run times or days a line is about; null: anything else, such as a percent or a total. */
export const programOf = ({ address: place }: PanelLine): string | null =>
  place.of === 'start' ||
  place.of === 'run' ||
  place.of === 'days' ||
  place.of === 'count' ||
  place.of === 'phase'
    ? place.program
    : null;

/**
 * The lines to key in, in this timer's order: the clock, then settings by kind, the percent at 100 before any run time and restored
 * afterwards, watering switched on last.
 *
 * @param target the plan to key in
 * @param base the current settings; null: key in everything
 * @param clockIsRight leaves out the clock
 * @param notLooked ids of base lines that no one has looked at, so their values are not known
 * @throws TooMuchWork if a total takes too much work
 */
export function keyInLines(
  target: Plan,
  base: Plan | null,
  now: PanelNow,
  clockIsRight: boolean,
  notLooked: readonly string[] = [],
): KeyLine[] {
  const unknown = new Set(notLooked);
  const inBox = (base ? panelLines(base, now) : []).filter(({ id }) => !unknown.has(id));
  const all = comparedLines(panelLines(target, now), inBox);
  const differs = (line: KeyLine) =>
    line.setting === 'clock' ? !clockIsRight || base === null : isChanged(line);
  const wanted = all.filter(
    (line) =>
      differs(line) &&
      !isOfUnusedProgram(line, target) &&
      !isNoSensor(line, target) &&
      !(base === null && goesWithoutSaying(line)),
  );
  const percents = percentSteps(all, wanted, differs);
  const lines = inOrder([...wanted, ...takenOut(all, inBox)], percents, target, now);
  return joined(lines, now, areOff);
}

/** Lines that differ between current and wanted settings, in panel order, without the clock. */
export function settingsToChange(target: Plan, base: Plan, now: PanelNow): KeyLine[] {
  const inBox = panelLines(base, now);
  const all = comparedLines(panelLines(target, now), inBox);
  return [
    ...all.filter(
      (line) => line.setting !== 'clock' && isChanged(line) && !isOfUnusedProgram(line, target),
    ),
    ...takenOut(all, inBox),
  ];
}

/** Lines to key in, each with the timer's current value; null: not known. */
function comparedLines(lines: readonly PanelLine[], inBox: readonly PanelLine[]): KeyLine[] {
  const before = new Map(inBox.map((line) => [line.id, line.value]));
  return lines.map((line) => lineOf(line, before.get(line.id) ?? null));
}

const isChanged = ({ was, value }: KeyLine) => was === null || !sameValue(was, value);

/** No-water hours and dates that are no longer wanted must be removed on the panel too. */
function takenOut(all: readonly KeyLine[], inBox: readonly PanelLine[]): KeyLine[] {
  const isWanted = (id: string) => all.some((line) => line.id === id);
  return inBox
    .filter(
      ({ id, address: { of } }) =>
        (of === 'windows' || of === 'off-days' || of === 'linked') && !isWanted(id),
    )
    .map((line) => lineOf({ ...line, value: { kind: 'switch', on: false } }, line.value));
}

/** An unused program has no start and no run; its days do not matter, and many panels always show some. */
function isOfUnusedProgram(line: KeyLine, target: Plan): boolean {
  const letter = programOf(line);
  const { of } = line.address;
  if (letter === null || of === 'start' || of === 'run') return false;
  return !target.programs.some((program) => program.letter === letter);
}

/** A rain sensor that is not fitted, or that no one has decided about, is no setting to key in. */
const isNoSensor = ({ value, was }: KeyLine, { settings }: Plan): boolean =>
  value.kind === 'sensor' &&
  (value.state === 'none' || (was === null && settings.sensor === undefined));

/** What a timer without its memory has anyway, so no one keys it in. */
function goesWithoutSaying({ value, address: { of } }: KeyLine): boolean {
  if (value.kind === 'switch' && of !== 'mode') return value.on;
  if (value.kind === 'rain-delay') return value.unit === 'off';
  return value.kind === 'length' && value.seconds === 0;
}

interface PercentSteps {
  /** Before run times: many panels show them at the current percent. */
  readonly toHundred: readonly KeyLine[];
  /** The final percents. */
  readonly last: readonly KeyLine[];
}

function percentSteps(
  all: readonly KeyLine[],
  wanted: readonly KeyLine[],
  differs: (line: KeyLine) => boolean,
): PercentSteps {
  const percents = all.filter(({ address }) => address.of === 'percent');
  const hasRuns = wanted.some(({ address }) => address.of === 'run');
  const toHundred =
    hasRuns && percents.some(({ was }) => !isHundred(was)) ? hundredLines(percents) : [];
  const last = percents.filter((line) => {
    // A month at 100 is one more setting: the timer may hold another percent for it.
    if (isHundred(line.value) && line.address.of === 'percent' && line.address.month === undefined)
      return toHundred.length === 0 && differs(line);
    return (toHundred.length > 0 && !isHundred(line.value)) || differs(line);
  });
  return { toHundred, last };
}

const PROGRAM_SETTINGS = ['starts', 'runs', 'days'] as const;

/** Lines in this timer's order: programs one after another, percents around them. */
function inOrder(
  lines: readonly KeyLine[],
  { toHundred, last }: PercentSteps,
  target: Plan,
  now: PanelNow,
): KeyLine[] {
  const order = orderOf(target);
  const isOfProgram = (setting: PanelSetting) => PROGRAM_SETTINGS.some((own) => own === setting);
  const firstOfPrograms = order.find(isOfProgram);
  const percentIsLate =
    order.indexOf('percent') > Math.max(...PROGRAM_SETTINGS.map((own) => order.indexOf(own)));
  return order.flatMap((setting): readonly KeyLine[] => {
    if (setting === firstOfPrograms) {
      const programs = [
        ...lines.filter(({ address: { of } }) => of === 'linked'),
        ...programsInOrder(lines, target, now),
      ];
      return percentIsLate ? [...toHundred, ...programs] : [...programs, ...last];
    }
    if (isOfProgram(setting)) return [];
    if (setting === 'percent') return percentIsLate ? last : toHundred;
    return lines.filter((line) => line.setting === setting);
  });
}

/** Each program's lines, with its total after the last run time for comparison with the panel. */
function programsInOrder(lines: readonly KeyLine[], target: Plan, now: PanelNow): KeyLine[] {
  const ofPrograms = lines.filter((line) => programOf(line) !== null);
  const letters = new Set(
    ofPrograms.map((line) => assertDefined(programOf(line), 'programOf(line)')),
  );
  return [...letters].flatMap((letter) => {
    const own = ofPrograms.filter((line) => programOf(line) === letter);
    const lastRun = own.findLastIndex(({ address }) => address.of === 'run');
    if (lastRun < 0) return own;
    return [
      ...own.slice(0, lastRun + 1),
      ...totalLine(target, letter, now),
      ...own.slice(lastRun + 1),
    ];
  });
}

/** The plan of a timer that has lost its memory: its kind's factory settings; null: not known. */
export function factoryPlan(plan: Plan, kind: Pick<TimerKind, 'preset'> | null): Plan | null {
  const preset = kind?.preset;
  if (!preset) return null;
  return {
    ...plan,
    settings: preset.settings,
    // What a station waters, and whether it sprays, is not a setting.
    stations: plan.stations.map(({ number, name, overhead, needsPump, underCover }) => ({
      number,
      ...(name === undefined ? {} : { name }),
      ...(overhead === undefined ? {} : { overhead }),
      ...(needsPump === undefined ? {} : { needsPump }),
      ...(underCover === undefined ? {} : { underCover }),
    })),
    programs: preset.programs.map(({ letter, starts, days, runSeconds }) => ({
      letter,
      starts,
      days,
      runs:
        runSeconds === 0
          ? []
          : plan.stations.map(({ number }) => ({ station: number, seconds: runSeconds })),
    })),
  };
}
