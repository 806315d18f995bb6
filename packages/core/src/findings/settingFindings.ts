/** Findings from programs, stations and settings that need no cycle, or only its length (planning.md section 2). */
import { assertDefined } from '../document/assertDefined.ts';
import { monthOf, parseTime, type EpochDay } from '../time/calendar.ts';
import { type Brief, wishOf } from '../brief/brief.ts';
import type { Plan, Program, Station } from '../plan/plan.ts';
import { adjustedSeconds, effectivePercent, enabledStations } from '../plan/program.ts';
import { runsWithLinked, splitBy } from '../plan/linked.ts';
import type { Finding } from './finding.ts';
import type { WetStarts } from '../engine/wetStarts.ts';

const AFTERNOON = { from: 11 * 3600, to: 18 * 3600 };

/** Programs with water, and the enabled stations they give it to. */
interface Complete {
  readonly program: Program;
  readonly stations: readonly Station[];
}

export function settingFindings(
  plan: Plan,
  complete: readonly Program[],
  wets: WetStarts,
  on: EpochDay,
  brief: Brief | null,
): Finding[] {
  const enabled = enabledStations(plan);
  const programs = complete.map((program): Complete => ({
    program,
    stations: plan.stations.filter(({ number }) =>
      runsWithLinked(plan, program).some(
        ({ station, seconds }) => station === number && seconds > 0 && enabled.has(number),
      ),
    ),
  }));
  return [
    ...programs.flatMap((complete) => startFindings(plan, complete, wets, brief)),
    ...leftoverPrograms(programs),
    ...(programs.length > 0 ? withoutProgram(plan, programs) : []),
    ...oddFindings(plan, complete),
    ...stationFindings(plan),
    ...percentFindings(plan, complete, on),
    ...(plan.settings.sensor === 'bypass'
      ? [
          {
            code: 'sensor-bypassed',
            severity: 'warning',
            where: { field: 'settings.sensor' },
          } as const,
        ]
      : []),
  ];
}

const oftenOf = (brief: Brief | null, station: number) =>
  brief?.stations.find(({ number }) => number === station)?.oftenADay;

function startFindings(
  plan: Plan,
  { program, stations }: Complete,
  wets: WetStarts,
  brief: Brief | null,
): Finding[] {
  const { letter } = program;
  const findings: Finding[] = [];
  const starts = assertDefined(wets.starts.get(letter), 'wets.starts.get(letter)');
  const often = stations.some(({ number }) => oftenOf(brief, number));
  const overhead = stations.some((station) => station.overhead !== false);
  if (overhead && !often)
    for (const { start, secondOfDay } of starts)
      if (secondOfDay >= AFTERNOON.from && secondOfDay < AFTERNOON.to)
        findings.push({
          code: 'afternoon-start',
          severity: 'warning',
          where: { program: letter, start },
        });

  const nested = nestedStarts(program, wets);
  if (nested.length > 0 && (program.starts.length >= 3 || stations.length === 2))
    findings.push({
      code: 'starts-taken-for-stations',
      severity: 'warning',
      starts: program.starts,
      stations: stations.length,
      where: { program: letter },
    });

  const times = Math.max(0, ...timesOnADate(wets, letter));
  if (times >= 2 && !often && (!brief || wishOf(brief).starts !== 'repeated'))
    if (stations.every((station) => !needsToBeSplit(plan, program, station, times)))
      findings.push({
        code: 'leftover-start',
        severity: brief && wishOf(brief).starts === 'one' ? 'warning' : 'note',
        times,
        where: { program: letter },
      });
  return findings;
}

/** Starts of a date, for equal day rules. */
function timesOnADate(wets: WetStarts, letter: string): number[] {
  const starts = assertDefined(wets.starts.get(letter), 'wets.starts.get(letter)');
  return starts.map(({ days }) =>
    starts
      .filter(({ days: other }) => other.every === days.every && other.phase === days.phase)
      .reduce((sum, { times }) => sum + times, 0),
  );
}

/** The later starts of a program, if each is inside the cycle before it; otherwise none. */
function nestedStarts({ letter, starts }: Program, wets: WetStarts): number[] {
  const seconds = [
    ...new Set(starts.map((start) => assertDefined(parseTime(start), 'parseTime(start)'))),
  ].sort((a, b) => a - b);
  if (seconds.length < 2) return [];
  const later = seconds.slice(1);
  const all = later.every((second, i) =>
    wets.all.some(
      ({ program, start, runs }) =>
        program.letter === letter &&
        start.secondOfDay === seconds[i] &&
        (runs.at(-1)?.off ?? 0) > second,
    ),
  );
  return all ? later : [];
}

/** Whether one run with all the water of a date would exceed what the station takes without a break. */
function needsToBeSplit(plan: Plan, program: Program, station: Station, times: number): boolean {
  const { cycleSeconds } = splitBy(plan, station);
  if (cycleSeconds === undefined) return false;
  const run = assertDefined(
    runsWithLinked(plan, program).find((run) => run.station === station.number),
    'find',
  ).seconds;
  // The percent of its highest month.
  const percent = Math.max(
    ...Array.from({ length: 12 }, (_, i) => effectivePercent(plan, program, i + 1)),
  );
  return adjustedSeconds(run, percent, plan.timer.seasonal) * times > cycleSeconds;
}

function leftoverPrograms(programs: readonly Complete[]): Finding[] {
  return programs.flatMap(({ program, stations }) => {
    const others = programs.filter((complete) => complete.program !== program);
    const inAnother = stations.every((station) =>
      others.some((other) => other.stations.includes(station)),
    );
    return inAnother && stations.length > 0
      ? [
          {
            code: 'leftover-program',
            severity: 'warning',
            where: { program: program.letter },
          } as const,
        ]
      : [];
  });
}

function withoutProgram(plan: Plan, programs: readonly Complete[]): Finding[] {
  return [...plan.stations]
    .sort((a, b) => a.number - b.number)
    .filter(
      (station) =>
        station.enabled !== false && !programs.some(({ stations }) => stations.includes(station)),
    )
    .map(({ number }) => ({
      code: 'station-in-none',
      severity: 'warning',
      where: { station: number },
    }));
}

function oddFindings({ timer }: Plan, complete: readonly Program[]): Finding[] {
  if (timer.oddDaysSkip31) return [];
  return complete
    .filter(({ days }) => days?.rule === 'odd')
    .map(({ letter }) => ({
      code: 'odd-then-odd',
      severity: 'warning',
      where: { program: letter },
    }));
}

function stationFindings(plan: Plan): Finding[] {
  const { stations, settings, programs } = plan;
  const { sensor = 'active' } = settings;
  const findings: Finding[] = [];
  for (const station of [...stations].sort((a, b) => a.number - b.number)) {
    const { number, needsPump, pump, underCover, obeysRainSensor = true, enabled } = station;
    const where = { station: number };
    if (needsPump && pump === false)
      findings.push({ code: 'pump-off', severity: 'warning', where });
    if (sensor !== 'none' && underCover && obeysRainSensor)
      findings.push({ code: 'under-cover-obeys-sensor', severity: 'warning', where });
    if (sensor !== 'none' && underCover !== true && !obeysRainSensor)
      findings.push({ code: 'open-ignores-sensor', severity: 'note', where });
    const runs = programs.filter((program) =>
      runsWithLinked(plan, program).some((run) => run.station === number && run.seconds > 0),
    );
    if (enabled === false && runs.length > 0)
      findings.push({
        code: 'disabled-station',
        severity: 'note',
        programs: runs.map(({ letter }) => letter),
        where,
      });
  }
  return findings;
}

/** A percent other than 100 that a person set, in force in the month of the check. */
function percentFindings(plan: Plan, complete: readonly Program[], on: EpochDay): Finding[] {
  const { timer, settings } = plan;
  if ((settings.percentDrivenBy ?? 'person') !== 'person') return [];
  const month = monthOf(on);
  if (timer.seasonal.scope === 'program')
    return complete
      .filter((program) => effectivePercent(plan, program, month) !== 100)
      .map((program) => ({
        code: 'percent-not-100',
        severity: 'note',
        percent: effectivePercent(plan, program, month),
        where: { program: program.letter },
      }));
  const [program] = complete;
  const percent = program ? effectivePercent(plan, program, month) : 100;
  if (percent === 100) return [];
  const byMonth = timer.seasonal.byMonth && settings.monthlyPercent !== undefined;
  return [
    {
      code: 'percent-not-100',
      severity: 'note',
      percent,
      where: {
        field: byMonth ? `settings.monthlyPercent[${month - 1}]` : 'settings.seasonalPercent',
      },
    },
  ];
}
