/**
 * Everything that is set on a timer as the lines of its panel, one setting a line, in the order in which this timer is gone
 * through. The same lines are read when a timer is noted as found, and keyed in when it is left.
 */
import { assertDefined } from '../document/assertDefined.ts';
import { civilOf, WEEKDAYS, weekdayIndexOf } from '../time/calendar.ts';
import type { PanelSetting } from '../plan/kind.ts';
import { DIALECT_ORDER, letterAt, type Plan, type Program } from '../plan/plan.ts';
import { weekdayOf, type PanelValue } from './value.ts';
import { type PanelNow, type PanelLine, named, programName } from './line.ts';
import { startLines, runLines, daysLines } from './programLines.ts';
import { linkLines, percentLines, soakLines, windowLines, switchLines } from './settingLines.ts';
import { say } from '../language/say.ts';

/** The settings in this timer's order of keying in; those that it does not name stand where they usually do. */
export function orderOf({ timer }: Plan): readonly PanelSetting[] {
  const order = timer.dialect?.order;
  if (!order) return DIALECT_ORDER;
  return [...order, ...DIALECT_ORDER.filter((one) => !order.includes(one))];
}

function clockLines(plan: Plan, { style: hand, today, secondOfDay }: PanelNow): PanelLine[] {
  const line = (of: 'year' | 'date' | 'weekday' | 'time', name: string, value: PanelValue) => ({
    id: of,
    setting: 'clock' as const,
    address: { of },
    name,
    value,
  });
  const byDate = (hand.dialect.clock ?? 'date') === 'date';
  const minute = Math.floor(secondOfDay / 60) * 60;
  return [
    ...(byDate
      ? [
          line('year', say`Year`, { kind: 'year', year: civilOf(today).year }),
          line('date', say`Date`, { kind: 'date', day: today }),
        ]
      : []),
    line(
      'weekday',
      `${byDate ? say`It should now say` : say`Day of the week`}${named([assertDefined(WEEKDAYS[weekdayIndexOf(today)], 'WEEKDAYS[weekdayIndexOf(today)]')], hand.dialect)}`,
      weekdayOf(today),
    ),
    line('time', say`Time`, { kind: 'time', second: minute }),
  ];
}

/** Every program that the timer has, those of which the plan says nothing as unused ones. */
const allPrograms = (plan: Plan): Program[] =>
  Array.from({ length: Math.max(plan.timer.programCount, 1) }, (_, i) => {
    const letter = letterAt(i);
    return (
      plan.programs.find((program) => program.letter === letter) ?? {
        letter,
        starts: [],
        runs: [],
        days: null,
      }
    );
  });

const PROGRAM_SETTINGS: readonly PanelSetting[] = ['starts', 'runs', 'days'];

/** Every line of a timer's panel, in its order; the programs one after another, each with its starts, runs and days. */
export function panelLines(plan: Plan, now: PanelNow): PanelLine[] {
  const order = orderOf(plan);
  const { dialect } = now.style;
  const inProgram = order.filter((one) => PROGRAM_SETTINGS.includes(one));
  const whole = { ...plan, programs: allPrograms(plan) };
  const programs = () =>
    whole.programs.flatMap((program) => {
      const label = programName(program.letter, dialect);
      return inProgram.flatMap((setting) =>
        setting === 'starts'
          ? startLines(plan, program, label)
          : setting === 'runs'
            ? runLines(plan, program, label)
            : daysLines(program, label, now),
      );
    });
  return order.flatMap((setting) => {
    switch (setting) {
      case 'clock':
        return clockLines(plan, now);
      case 'percent':
        return percentLines(plan);
      case 'soak':
        return soakLines(plan);
      case 'windows':
        return windowLines(plan);
      case 'pump':
      case 'sensor':
      case 'mode':
      case 'delay':
        return switchLines(plan, setting, now);
      default:
        // All three stand together where the first of them stands.
        return setting === inProgram[0] ? [...linkLines(plan), ...programs()] : [];
    }
  });
}
