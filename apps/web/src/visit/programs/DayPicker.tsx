import { memo } from 'react';
import { Button } from 'antd';
import {
  brokenWeekdays,
  dateWords,
  daysLeft,
  forbiddenWeekdays,
  formatDate,
  intervalDaysLeft,
  listed,
  nameOfWeekday,
  parseDate,
  type Days,
  type EpochDay,
  type Plan,
  type Program,
  type Weekday,
  say,
} from '@water-clock/core';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { NumberField } from '../../shared/fields/NumberField.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { useOpenFindings } from '../checks/checksContext.ts';
import { TenWeeks } from './TenWeeks.tsx';
import { WeekdayButtons } from '../../shared/fields/WeekdayButtons.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { DateField } from '../../shared/fields/DateField.tsx';

type RuleName = Days['rule'];

const RULE_WORDS: Record<RuleName, string> = {
  weekdays: say`weekdays`,
  daily: say`every day`,
  interval: say`every few days`,
  odd: say`odd dates`,
  even: say`even dates`,
  hours: say`every few hours`,
};

interface Props {
  readonly program: Program;
  readonly plan: Plan;
  readonly today: EpochDay;
  /** Core's refusal as a message, or null if the change was made. */
  readonly commit: (days: Days | null) => string | null;
}

/** Initial value of a newly chosen day rule, keeping what it shares with the previous one. */
function ruleOf(name: RuleName, last: Days | null, today: EpochDay, longest: number): Days {
  const blocked = last !== null && 'blockedWeekdays' in last ? last.blockedWeekdays : undefined;
  const kept = blocked ? { blockedWeekdays: blocked } : {};
  switch (name) {
    case 'daily':
      return { rule: name };
    case 'weekdays':
      return { rule: name, weekdays: [] };
    case 'interval':
      return {
        rule: name,
        everyDays: Math.min(3, longest),
        firstDate: formatDate(today + 1),
        ...kept,
      };
    case 'hours':
      return { rule: name, everyHours: 36, first: `${formatDate(today + 1)}T05:00`, ...kept };
    case 'odd':
    case 'even':
      return { rule: name, ...kept };
  }
}

const FIRST_DATES = [
  [say`Today`, 0],
  [say`Tomorrow`, 1],
  [say`Day after tomorrow`, 2],
] as const;

type Interval = Extract<Days, { rule: 'interval' }>;

function IntervalFields({
  days,
  plan,
  today,
  commit,
}: {
  readonly days: Interval;
  readonly plan: Plan;
  readonly today: EpochDay;
  readonly commit: Props['commit'];
}) {
  const { dialect, longestIntervalDays } = plan.timer;
  const first = parseDate(days.firstDate) ?? today;
  const between = dialect?.intervalCounts === 'between';
  const left = daysLeft(days.everyDays, first, today);
  const beginAt = (day: EpochDay) => commit({ ...days, firstDate: formatDate(day) });
  return (
    <div className="row at-foot">
      <NumberField
        label={say`Waters every`}
        unit={say`days`}
        value={days.everyDays}
        least={1}
        most={Math.max(longestIntervalDays, days.everyDays)}
        commit={(everyDays) => commit({ ...days, everyDays: everyDays ?? days.everyDays })}
      />
      <DateField
        label={say`Starting`}
        required
        value={days.firstDate}
        commit={(date) => {
          const day = parseDate(date);
          if (day !== null) beginAt(day);
        }}
      />
      <NumberField
        label={say`Days left today`}
        value={left}
        least={0}
        most={days.everyDays - 1}
        commit={(shown) => beginAt(today + (shown ?? left))}
      />
      <div className="row near" role="group" aria-label={say`Starting`}>
        {FIRST_DATES.map(([words, later]) => (
          <Button
            key={words}
            aria-pressed={first === today + later}
            onClick={() => beginAt(today + later)}
          >
            {words}
          </Button>
        ))}
      </div>
      {between && (
        <p className="soft rule-note">{say`This timer counts the days between. Set it to ${days.everyDays - 1}.`}</p>
      )}
    </div>
  );
}

function HoursFields({
  days,
  commit,
}: {
  readonly days: Extract<Days, { rule: 'hours' }>;
  readonly commit: Props['commit'];
}) {
  return (
    <div className="row at-foot">
      <NumberField
        label={say`Waters every`}
        unit={say`hours`}
        value={days.everyHours}
        least={1}
        most={744}
        commit={(everyHours) => commit({ ...days, everyHours: everyHours ?? days.everyHours })}
      />
      <DateField
        label={say`Count from`}
        required
        withTime
        value={days.first}
        commit={(first) => commit({ ...days, first })}
      />
    </div>
  );
}

/** A program's day rule, and its dates in the coming weeks. */
export const DayPicker = memo(function DayPicker({ program, plan, today, commit }: Props) {
  const { order } = usePreferences();
  const { letter, days } = program;
  const { timer } = plan;
  const names = (Object.keys(RULE_WORDS) as RuleName[]).filter(
    (name) => timer.dayRules.includes(name) || days?.rule === name,
  );
  const rule = days?.rule ?? (names.includes('weekdays') ? 'weekdays' : '');
  const blocked = days !== null && 'blockedWeekdays' in days ? (days.blockedWeekdays ?? []) : [];
  const block = (weekdays: readonly Weekday[]) => {
    if (days === null || days.rule === 'daily' || days.rule === 'weekdays') return;
    const { blockedWeekdays: _before, ...rest } = days;
    commit(weekdays.length > 0 ? { ...rest, blockedWeekdays: weekdays } : rest);
  };
  const left = intervalDaysLeft(program, today);
  const { rules } = useOpenFindings();
  const forbidden = forbiddenWeekdays(plan, program, rules);
  const broken = brokenWeekdays(plan, program, rules);
  return (
    <div className="stack">
      <div className="row">
        <SelectField
          className="day-rule-name"
          aria-label={say`Day rule of ${letter}`}
          value={rule}
          options={[
            ...(rule === '' ? [['', say`choose watering days`] as const] : []),
            ...names.map((name) => [name, RULE_WORDS[name]] as const),
          ]}
          pick={(value) => {
            // Safe cast: the options are the names themselves.
            const name = value as RuleName;
            commit(ruleOf(name, days, today, timer.longestIntervalDays));
          }}
        />
        {rule === 'weekdays' && (
          <WeekdayButtons
            label={say`Watering days of ${letter}`}
            timer={timer}
            forbidden={forbidden}
            pressed={days?.rule === 'weekdays' ? days.weekdays : []}
            commit={(weekdays) =>
              commit(weekdays.length > 0 ? { rule: 'weekdays', weekdays } : null)
            }
          />
        )}
        {rule !== 'weekdays' && rule !== 'daily' && rule !== '' && (
          <div className="row">
            <span>{say`never on`}</span>
            <WeekdayButtons
              label={say`${letter} never waters on`}
              timer={timer}
              pressed={blocked}
              className="day day-never"
              commit={block}
            />
          </div>
        )}
      </div>
      {broken.length > 0 && (
        <p className="fault">{say`The watering rules do not allow ${listed(broken.map(nameOfWeekday), 'or')}.`}</p>
      )}
      {days?.rule === 'interval' && (
        <IntervalFields days={days} plan={plan} today={today} commit={commit} />
      )}
      {days?.rule === 'hours' && <HoursFields days={days} commit={commit} />}
      <Disclosure
        // A rule whose dates the weekdays do not show opens with its dates.
        key={rule}
        className="more"
        openAtFirst={rule !== 'weekdays' && rule !== 'daily' && days !== null}
        summary={
          <>
            {say`Next ten weeks`}
            {left !== null && <span className="soft"> {say`· days left today: ${left}`}</span>}
          </>
        }
      >
        {() => (
          <>
            <TenWeeks
              plan={plan}
              program={program}
              today={today}
              begin={
                days?.rule === 'interval'
                  ? (day) => void commit({ ...days, firstDate: formatDate(day) })
                  : null
              }
            />
            {days?.rule === 'interval' && (
              <p className="soft">{say`Counted from ${dateWords(parseDate(days.firstDate) ?? today, today, order)}. Skipped dates still count.`}</p>
            )}
          </>
        )}
      </Disclosure>
    </div>
  );
});
