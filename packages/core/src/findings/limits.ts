/** What in a plan exceeds the timer's limits: one table for settings, one for programs. */
import { assertDefined } from '../document/assertDefined.ts';
import { type Path, pathText } from '../document/fault.ts';
import type { Plan, Program, Settings, Station, Timer } from '../plan/plan.ts';
import { percentSteps } from '../plan/program.ts';
import { parseTime } from '../time/calendar.ts';
import type { Finding, TimerLimit, Where } from './finding.ts';

/** A field beyond a limit. */
interface Beyond {
  /** Path from the part the table is for. */
  readonly at: Path;
  readonly limit: TimerLimit;
  readonly where?: Where;
}

/** Each limit says where a part of the plan exceeds it. */
type Limits<Part> = readonly ((part: Part, timer: Timer) => readonly Beyond[])[];

const beyond = (is: boolean, at: Path, limit: TimerLimit, where: Where = {}): readonly Beyond[] =>
  is ? [{ at, limit, where }] : [];

/** @param scope where a timer must keep the percent for this one to be kept at all */
function percentBeyond(
  at: Path,
  given: number | undefined,
  scope: Timer['seasonal']['scope'],
  timer: Timer,
): readonly Beyond[] {
  if (given === undefined) return [];
  if (timer.seasonal.scope !== scope)
    return beyond(given !== 100, at, { what: 'no-percent-here', given });
  const steps = percentSteps(timer);
  return beyond(!steps.includes(given), at, { what: 'percent', given, steps });
}

const SETTING_LIMITS: Limits<Settings> = [
  ({ seasonalPercent }, timer) =>
    percentBeyond(['seasonalPercent'], seasonalPercent, 'timer', timer),
  ({ monthlyPercent = [] }, timer) =>
    timer.seasonal.scope === 'timer' && timer.seasonal.byMonth
      ? monthlyPercent.flatMap((given, i) =>
          percentBeyond(['monthlyPercent', i], given, 'timer', timer),
        )
      : beyond(monthlyPercent.length > 0, ['monthlyPercent'], { what: 'no-months' }),
  ({ stationDelaySeconds: given = 0 }, { longestStationDelaySeconds: mostSeconds }) =>
    beyond(given > mostSeconds, ['stationDelaySeconds'], { what: 'delay', given, mostSeconds }),
  windowsBeyond,
  atOnceBeyond,
];

const PROGRAM_LIMITS: Limits<Program> = [
  ({ starts }, { startsPerProgram: most }) => {
    const given = starts.length;
    return beyond(given > most, ['starts'], { what: 'start-count', given, most });
  },
  ({ starts }, { startStepMinutes: stepMinutes }) =>
    starts.flatMap((given, i) => {
      const isOff = assertDefined(parseTime(given), 'parseTime(given)') % (stepMinutes * 60) !== 0;
      const limit = { what: 'start-step', given, stepMinutes } as const;
      return beyond(isOff, ['starts', i], limit, { start: given });
    }),
  ({ runs }, { longestRunSeconds: mostSeconds, runStepSeconds: stepSeconds }) =>
    runs.flatMap(({ station, seconds: given }, i) => {
      const at = ['runs', i, 'seconds'];
      return given > mostSeconds
        ? beyond(true, at, { what: 'run-longest', given, mostSeconds }, { station })
        : beyond(
            given % stepSeconds !== 0,
            at,
            { what: 'run-step', given, stepSeconds },
            { station },
          );
    }),
  ({ days }, { dayRules: allowed }) =>
    days && !allowed.includes(days.rule)
      ? beyond(true, ['days', 'rule'], { what: 'day-rule', given: days.rule, allowed })
      : [],
  ({ seasonalPercent }, timer) =>
    percentBeyond(['seasonalPercent'], seasonalPercent, 'program', timer),
  ({ cycleSeconds }, { cycleSoak }) =>
    beyond(cycleSeconds !== undefined && cycleSoak !== 'program', ['cycleSeconds'], {
      what: 'no-soak',
      where: 'program',
    }),
  atOnceBeyond,
  ({ days }, { longestIntervalDays: mostDays }) =>
    days?.rule === 'interval' && days.everyDays > mostDays
      ? beyond(true, ['days', 'everyDays'], { what: 'interval', given: days.everyDays, mostDays })
      : [],
  windowsBeyond,
];

function windowsBeyond(
  { noWaterWindows = [] }: Pick<Settings, 'noWaterWindows'>,
  { inWindow }: Timer,
): readonly Beyond[] {
  const isBeyond = inWindow === 'ignore' && noWaterWindows.length > 0;
  return beyond(isBeyond, ['noWaterWindows'], { what: 'no-windows' });
}

function atOnceBeyond(
  { stationsAtOnce: given = 1 }: Pick<Settings, 'stationsAtOnce'>,
  { stationsAtOnce: most }: Timer,
): readonly Beyond[] {
  return beyond(given > most, ['stationsAtOnce'], { what: 'at-once', given, most });
}

const STATION_LIMITS: Limits<Station> = [
  ({ number, linkedTo }, { linksStations = false }) =>
    beyond(
      linkedTo !== undefined && !linksStations,
      ['linkedTo'],
      { what: 'no-links' },
      { station: number },
    ),
];

/** Everything in a plan beyond the timer's limits, in document order. */
export function notOnTimer({ timer, settings, stations, programs }: Plan): Finding[] {
  const found = <Part>(limits: Limits<Part>, part: Part, path: Path, where: Where): Finding[] =>
    limits
      .flatMap((limit) => limit(part, timer))
      .map((beyond) => ({
        code: 'not-on-timer',
        severity: 'error',
        limit: beyond.limit,
        where: { ...where, ...beyond.where, field: pathText([...path, ...beyond.at]) },
      }));
  return [
    ...found(SETTING_LIMITS, settings, ['settings'], {}),
    ...stations.flatMap((station, i) => found(STATION_LIMITS, station, ['stations', i], {})),
    ...programs.flatMap((program, i) =>
      found(PROGRAM_LIMITS, program, ['programs', i], { program: program.letter }),
    ),
  ];
}

/** Settings of a plan that another timer cannot hold, in document order (planning.md section 2, not-on-timer). */
export const notFitting = (plan: Plan, timer: Timer): Finding[] => notOnTimer({ ...plan, timer });
