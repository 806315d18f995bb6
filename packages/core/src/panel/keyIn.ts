/** The key-in card: what has to be keyed into a timer to bring it from one state to another, line by line in its own order. */
import { assertDefined } from '../document/assertDefined.ts';
import type { PanelSetting, TimerKind } from '../plan/kind.ts';
import type { Plan } from '../plan/plan.ts';
import { totalOnDisplay } from '../engine/total.ts';
import { rangesWords } from '../words/words.ts';
import { orderOf, panelLines } from './lines.ts';
import { programName, type PanelLine, type PanelNow, type SettingAddress } from './line.ts';
import { sameValue, type PanelValue } from './value.ts';
import { say } from '../language/say.ts';

export interface KeyLine extends PanelLine {
  /** What stood there before; null if not known or not asked for. */
  readonly was: PanelValue | null;
  /** The lines that it stands for, more than one where neighbours are alike and empty. */
  readonly stands: readonly SettingAddress[];
}

/** The id of a tick: another value is another line. The clock and what is left of a delay move on, so they are not part of it. */
export function tickOf({ id, setting, value }: KeyLine): string {
  if (setting === 'clock') return id;
  return `${id}=${JSON.stringify(value.kind === 'rain-delay' ? value.unit : value)}`;
}

const isEmpty = ({ value }: PanelLine) =>
  (value.kind === 'time' && value.second === null) || (value.kind === 'run' && value.seconds === 0);

/** Whether two neighbouring lines are said as one: unused starts, and stations without a run, of one program. */
function belongTogether(a: KeyLine, b: KeyLine): boolean {
  const [x, y] = [a.address, b.address];
  return (
    isEmpty(a) &&
    isEmpty(b) &&
    x.of === y.of &&
    (x.of === 'start' || x.of === 'run') &&
    'program' in y &&
    x.program === y.program
  );
}

function merged(lines: readonly KeyLine[], { style: hand }: PanelNow): KeyLine[] {
  const result: KeyLine[] = [];
  for (const line of lines) {
    const last = result.at(-1);
    if (!last || !belongTogether(last, line)) {
      result.push(line);
      continue;
    }
    const stands = [...last.stands, ...line.stands];
    const label = programName(
      'program' in line.address ? (line.address.program ?? '') : '',
      hand.dialect,
    );
    const numbers = stands.map((place) =>
      place.of === 'start' ? place.slot : place.of === 'run' ? place.station : 0,
    );
    result[result.length - 1] = {
      ...last,
      id: `${last.id}+${numbers.slice(1).join('+')}`,
      name:
        line.address.of === 'start'
          ? say`${label} start times ${rangesWords(numbers)}`
          : say`${label} stations ${rangesWords(numbers)}`,
      was: null,
      stands,
    };
  }
  return result;
}

/** Run times are keyed in at 100 percent, so that the pages show what is meant. */
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
      { ...line, id, place, stands: [place], name, value: { kind: 'percent', percent: 100 } },
    ];
  });
}

const isHundred = (value: PanelValue | null) => value?.kind === 'percent' && value.percent === 100;

/** The display's own total of each program that has lines on the card: the checksum of what was keyed in. */
function totalLine(plan: Plan, letter: string, now: PanelNow): KeyLine[] {
  const program = plan.programs.find((program) => program.letter === letter);
  const seconds = program ? totalOnDisplay(plan, program, 100) : null;
  if (seconds === null) return [];
  const place: SettingAddress = { of: 'total', program: letter };
  return [
    {
      id: `total.${letter}`,
      setting: 'runs',
      address: place,
      stands: [place],
      name: say`${programName(letter, now.style.dialect)} total should say`,
      value: { kind: 'run', seconds },
      was: null,
    },
  ];
}

const programOf = ({ address: place }: PanelLine) =>
  place.of === 'start' ||
  place.of === 'run' ||
  place.of === 'days' ||
  place.of === 'count' ||
  place.of === 'phase'
    ? place.program
    : null;

/**
 * The lines to key in, in this timer's order: the clock, then as its kind wants them, the percent at 100 before any run and where it
 * belongs afterwards, watering switched on last.
 *
 * @param target the plan that is to stand in the timer.
 * @param base what stands in it now; null: everything is keyed in.
 * @param clockIsRight leaves out the clock.
 * @param notLooked ids of lines of the base that nobody has looked at: what stands there is not known.
 * @throws TooMuchWork where a total cannot be worked out.
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
      !(base === null && goesWithoutSaying(line)),
  );
  const percents = percentSteps(all, wanted, differs);
  return merged(inOrder([...wanted, ...takenOut(all, inBox)], percents, target, now), now);
}

/** Lines that differ between what stands in the timer and what is wanted, in the panel's order, the clock left out. */
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

/** Lines to key in, each with what the box holds there; null: not known. */
function comparedLines(lines: readonly PanelLine[], inBox: readonly PanelLine[]): KeyLine[] {
  const before = new Map(inBox.map((line) => [line.id, line.value]));
  return lines.map((line) => ({
    ...line,
    stands: [line.address],
    was: before.get(line.id) ?? null,
  }));
}

const isChanged = ({ was, value }: KeyLine) => was === null || !sameValue(was, value);

/** Hours and dates without water that are no longer wanted must be taken out on the panel, too. */
function takenOut(all: readonly KeyLine[], inBox: readonly PanelLine[]): KeyLine[] {
  const isWanted = (id: string) => all.some((line) => line.id === id);
  return inBox
    .filter(
      ({ id, address: { of } }) =>
        (of === 'windows' || of === 'off-days' || of === 'linked') && !isWanted(id),
    )
    .map((line) => ({
      ...line,
      stands: [line.address],
      was: line.value,
      value: { kind: 'switch', on: false },
    }));
}

/** A program that is not used has no start and no run; its days then matter to nobody, and many panels always hold some. */
function isOfUnusedProgram(line: KeyLine, target: Plan): boolean {
  const letter = programOf(line);
  const { of } = line.address;
  if (letter === null || of === 'start' || of === 'run') return false;
  return !target.programs.some((program) => program.letter === letter);
}

/** What a timer without its memory has anyway, so nobody keys it in. */
function goesWithoutSaying({ value, address: { of } }: KeyLine): boolean {
  if (value.kind === 'switch' && of !== 'mode') return value.on;
  if (value.kind === 'rain-delay') return value.unit === 'off';
  return value.kind === 'length' && value.seconds === 0;
}

interface PercentSteps {
  /** Before runs are keyed in: many panels show them at the percent in force. */
  readonly toHundred: readonly KeyLine[];
  /** What the percents are to be in the end. */
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
  const last = percents.filter((line) =>
    toHundred.length > 0 ? !isHundred(line.value) : differs(line),
  );
  return { toHundred, last };
}

const PROGRAM_SETTINGS = ['starts', 'runs', 'days'] as const;

/** Lines in the order in which this timer is gone through; the programs one after another, the percents around them. */
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

/** Each program's lines with the total of its run times after the last of them, to be compared with what the panel shows. */
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

/** The plan of a timer that has lost its memory: what its kind is set to when new; null where nobody has noted that. */
export function factoryPlan(plan: Plan, kind: Pick<TimerKind, 'preset'> | null): Plan | null {
  const preset = kind?.preset;
  if (!preset) return null;
  return {
    ...plan,
    settings: preset.settings,
    // What a station waters, and whether it sprays, is not a setting of the timer.
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
