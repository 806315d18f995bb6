/**
 * All settings of a timer as panel lines, one setting a line, in the timer's order. The same lines are used to note settings as found and
 * to key them in.
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

/** Settings in this timer's key-in order; those it does not list come in their usual place. */
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

/** Every program the timer has, with those not in the plan as unused. */
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

/** Every line of a timer's panel in order; each program with its starts, runs and days. */
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
        return now.power === 'battery' ? [] : switchLines(plan, setting, now);
      case 'sensor':
      case 'mode':
      case 'delay':
        return switchLines(plan, setting, now);
      default:
        // All three come where the first of them is.
        return setting === inProgram[0] ? [...linkLines(plan), ...programs()] : [];
    }
  });
}
