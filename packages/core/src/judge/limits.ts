import { type Path, pathText } from '../document/fault.ts';
import type { Plan, Timer } from '../plan/plan.ts';
import { percentSteps } from '../plan/program.ts';
import { parseTime } from '../time/calendar.ts';
import type { Finding, TimerLimit, Where } from './finding.ts';

/** What of a plan another timer could not be set to, in the order of the document (planning.md section 2, not-on-timer). */
export const notFitting = (plan: Plan, timer: Timer): Finding[] => notOnTimer({ ...plan, timer });
/** Every limit of the timer that a plan goes beyond, in the order of the document. */
export function notOnTimer(plan: Plan): Finding[] {
  const { timer, settings } = plan;
  const findings: Finding[] = [];
  const add = (path: Path, limit: TimerLimit, where: Where = {}) =>
    findings.push({
      code: 'not-on-timer',
      severity: 'error',
      limit,
      where: { ...where, field: pathText(path) },
    });
  const percent = (path: Path, given: number, scope: Timer['seasonal']['scope'], where?: Where) => {
    const steps = percentSteps(timer);
    if (timer.seasonal.scope !== scope) {
      if (given !== 100) add(path, { what: 'no-percent-here', given }, where);
    } else if (!steps.includes(given)) add(path, { what: 'percent', given, steps }, where);
  };

  if (settings.seasonalPercent !== undefined)
    percent(['settings', 'seasonalPercent'], settings.seasonalPercent, 'timer');
  if (settings.monthlyPercent !== undefined) {
    if (timer.seasonal.scope !== 'timer' || !timer.seasonal.byMonth)
      add(['settings', 'monthlyPercent'], { what: 'no-months' });
    else
      settings.monthlyPercent.forEach((given, i) =>
        percent(['settings', 'monthlyPercent', i], given, 'timer'),
      );
  }
  const delay = settings.stationDelaySeconds ?? 0;
  if (delay > timer.longestStationDelaySeconds)
    add(['settings', 'stationDelaySeconds'], {
      what: 'delay',
      given: delay,
      mostSeconds: timer.longestStationDelaySeconds,
    });
  if (timer.inWindow === 'ignore' && (settings.noWaterWindows?.length ?? 0) > 0)
    add(['settings', 'noWaterWindows'], { what: 'no-windows' });
  if ((settings.stationsAtOnce ?? 1) > timer.stationsAtOnce)
    add(['settings', 'stationsAtOnce'], {
      what: 'at-once',
      given: settings.stationsAtOnce ?? 1,
      most: timer.stationsAtOnce,
    });

  plan.programs.forEach((program, i) => {
    const path: Path = ['programs', i];
    const where = { program: program.letter };
    if (program.starts.length > timer.startsPerProgram)
      add(
        [...path, 'starts'],
        { what: 'start-count', given: program.starts.length, most: timer.startsPerProgram },
        where,
      );
    program.starts.forEach((start, k) => {
      if ((parseTime(start) ?? 0) % (timer.startStepMinutes * 60) !== 0)
        add(
          [...path, 'starts', k],
          { what: 'start-step', given: start, stepMinutes: timer.startStepMinutes },
          { ...where, start },
        );
    });
    program.runs.forEach(({ station, seconds }, k) => {
      const at: Path = [...path, 'runs', k, 'seconds'];
      if (seconds > timer.longestRunSeconds)
        add(
          at,
          { what: 'run-longest', given: seconds, mostSeconds: timer.longestRunSeconds },
          { ...where, station },
        );
      else if (seconds % timer.runStepSeconds !== 0)
        add(
          at,
          { what: 'run-step', given: seconds, stepSeconds: timer.runStepSeconds },
          { ...where, station },
        );
    });
    if (program.days && !timer.dayRules.includes(program.days.rule))
      add(
        [...path, 'days', 'rule'],
        { what: 'day-rule', given: program.days.rule, allowed: timer.dayRules },
        where,
      );
    if (program.seasonalPercent !== undefined)
      percent([...path, 'seasonalPercent'], program.seasonalPercent, 'program', where);
    if (program.cycleSeconds !== undefined && timer.cycleSoak !== 'program')
      add([...path, 'cycleSeconds'], { what: 'no-soak', where: 'program' }, where);
    if ((program.stationsAtOnce ?? 1) > timer.stationsAtOnce)
      add(
        [...path, 'stationsAtOnce'],
        { what: 'at-once', given: program.stationsAtOnce ?? 1, most: timer.stationsAtOnce },
        where,
      );
    if (program.days?.rule === 'interval' && program.days.everyDays > timer.longestIntervalDays)
      add(
        [...path, 'days', 'everyDays'],
        { what: 'interval', given: program.days.everyDays, mostDays: timer.longestIntervalDays },
        where,
      );
    if (timer.inWindow === 'ignore' && (program.noWaterWindows?.length ?? 0) > 0)
      add([...path, 'noWaterWindows'], { what: 'no-windows' }, where);
  });
  return findings;
}
