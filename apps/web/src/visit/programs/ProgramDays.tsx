import { Button } from 'antd';
import {
  daysOnTimer,
  forbiddenWeekdays,
  type Days,
  type Plan,
  type Program,
  say,
} from '@water-clock/core';
import { WeekdayButtons } from '../../shared/fields/WeekdayButtons.tsx';
import { useOpenFindings } from '../checks/checksContext.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';

interface Props {
  readonly program: Program;
  readonly plan: Plan;
  /** Seven buttons if the rule is by weekday; otherwise, or without room, the rule in words. */
  readonly asKeys: boolean;
  readonly commit: (days: Days | null) => void;
  readonly open: () => void;
}

/** A program's watering days, in its header; the words open its settings. */
export function ProgramDays({ program, plan, asKeys, commit, open }: Props) {
  const { timer } = plan;
  const { rules } = useOpenFindings();
  const { letter, days } = program;
  const { clock, order } = usePreferences();
  const words = days === null ? say`Choose watering days` : daysOnTimer(days, timer, clock, order);
  const byWeekday = days === null ? timer.dayRules.includes('weekdays') : days.rule === 'weekdays';
  if (byWeekday && asKeys)
    return (
      <WeekdayButtons
        label={say`Watering days of ${letter}`}
        timer={timer}
        short
        className="day day-key"
        forbidden={forbiddenWeekdays(plan, program, rules)}
        pressed={days?.rule === 'weekdays' ? days.weekdays : []}
        commit={(weekdays) => commit(weekdays.length > 0 ? { rule: 'weekdays', weekdays } : null)}
      />
    );
  return (
    <Button className="program-rule" aria-label={say`${words}: days of ${letter}`} onClick={open}>
      {words}
    </Button>
  );
}
