/** Lines of one program: days, starts, run times. */
import { assertDefined } from '../document/assertDefined.ts';
import type { Program, Plan } from '../plan/plan.ts';
import { WEEKDAYS, parseDate, parseMoment, SECONDS_PER_DAY, parseTime } from '../time/calendar.ts';
import { type Days, daysLeft } from '../time/dayRules.ts';
import { type PanelNow, type PanelLine, named, idOf, stationName } from './line.ts';
import type { PanelValue } from './value.ts';
import { say } from '../language/say.ts';

const blockedOf = (days: Days) => ('blockedWeekdays' in days ? (days.blockedWeekdays ?? []) : []);
export function daysLines(
  program: Program,
  label: string,
  { style: hand, today }: PanelNow,
): PanelLine[] {
  const { letter, days } = program;
  const line = (of: 'days' | 'count' | 'phase', name: string, value: PanelValue): PanelLine => ({
    id: `${of}.${letter}`,
    setting: 'days',
    address: { of, program: letter },
    name,
    value,
  });
  if (!days)
    return [line('days', say`${label} days`, { kind: 'days', rule: 'none', weekdays: [] })];
  const weekdays = days.rule === 'weekdays' ? days.weekdays : blockedOf(days);
  const inOrder = WEEKDAYS.filter((one) => weekdays.includes(one));
  const all = days.rule === 'weekdays' && inOrder.length === 7;
  const lines = [
    line(
      'days',
      say`${label} days${all ? '' : named(inOrder, hand.dialect)}`,
      all
        ? { kind: 'days', rule: 'daily', weekdays: [] }
        : { kind: 'days', rule: days.rule, weekdays: inOrder },
    ),
  ];
  if (days.rule === 'interval') {
    const every = days.everyDays;
    const between = hand.dialect.intervalCounts === 'between';
    lines.push(
      line('count', `${label} ${between ? say`days between` : say`every … days`}`, {
        kind: 'count',
        every,
      }),
    );
    const left = daysLeft(
      every,
      assertDefined(parseDate(days.firstDate), 'parseDate(days.firstDate)'),
      today,
    );
    const shown = hand.dialect.intervalPhase ?? 'daysLeft';
    if (shown === 'daysLeft')
      lines.push(line('phase', say`${label} days left`, { kind: 'days-left', days: left }));
    if (shown === 'firstDate')
      lines.push(line('phase', say`${label} first date`, { kind: 'date', day: today + left }));
  }
  if (days.rule === 'hours')
    lines.push(
      line('count', say`${label} every … hours`, { kind: 'count', every: days.everyHours }),
      line('phase', say`${label} first start time`, {
        kind: 'time',
        second: assertDefined(parseMoment(days.first), 'parseMoment(days.first)') % SECONDS_PER_DAY,
      }),
    );
  return lines;
}

export function startLines(plan: Plan, program: Program, label: string): PanelLine[] {
  if (program.days?.rule === 'hours') return [];
  const count = Math.max(plan.timer.startsPerProgram, program.starts.length);
  return Array.from({ length: count }, (_, i): PanelLine => {
    const address = { of: 'start', program: program.letter, slot: i + 1 } as const;
    const start = program.starts[i];
    const second = start === undefined ? null : parseTime(start);
    return {
      id: idOf(address),
      setting: 'starts',
      address: address,
      name: say`${label} start time ${i + 1}`,
      value: { kind: 'time', second },
    };
  });
}

export function runLines(plan: Plan, program: Program, label: string): PanelLine[] {
  const own = plan.stations.filter(({ linkedTo }) => linkedTo === undefined);
  return own.map((station): PanelLine => {
    const address = { of: 'run', program: program.letter, station: station.number } as const;
    const run = program.runs.find((run) => run.station === station.number);
    return {
      id: idOf(address),
      setting: 'runs',
      address: address,
      name: say`${label} station ${stationName(station)}`,
      value: { kind: 'run', seconds: run?.seconds ?? 0 },
    };
  });
}
