import { useMemo } from 'react';
import {
  dateWords,
  dryStretches,
  houseRulesOn,
  nightOf,
  ruledOut,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  weekdayName,
  type BriefRules,
  type ClockChange,
  type EpochDay,
  type Plan,
  type Rules,
} from '@water-clock/core';
import { NightStrip } from '../charts/NightStrip.tsx';
import { sunOf } from '../charts/sun.ts';
import type { MoveOutcome } from '../charts/useMoves.ts';
import { usePreferences } from '../platform/preferences.tsx';
import type { Site } from '../api/sites.ts';
import { nightAt, type Blocked, type TimerAnswer, type WhatIf } from '../workers/timerQuestion.ts';
import { ClockChangeNote } from '../device/ClockChangeNote.tsx';
import { WhatIfBar } from '../device/WhatIfBar.tsx';

/** Whether a change of the clocks comes in the night that begins on the afternoon of a day. */
const isWithin = (change: ClockChange, day: EpochDay) =>
  nightOf(change.day * SECONDS_PER_DAY + change.from) === day;

interface Props {
  readonly plan: Plan;
  readonly site: Site;
  readonly answer: TimerAnswer | null;
  /** Rules noted for this house by hand, and those of its place. */
  readonly ownRules: BriefRules | undefined;
  readonly rules: Rules | null;
  readonly letters: readonly string[];
  readonly day: EpochDay;
  readonly tonight: EpochDay;
  readonly today: EpochDay;
  readonly now: number;
  readonly changes: readonly ClockChange[];
  readonly blocked: Blocked | null;
  readonly moves: MoveOutcome;
  readonly whatIf: WhatIf;
  readonly setWhatIf: (whatIf: WhatIf) => void;
}

/** The strip of one night, with the percent and the clock to suppose. */
export function TimerNight(props: Props) {
  const { plan, site, answer, letters, day, tonight, today, now, changes } = props;
  const { whatIf } = props;
  const { clock } = usePreferences();
  const night = answer ? nightAt(answer, day) : undefined;
  const sun = useMemo(() => sunOf({ day }, site), [day, site]);
  const change = changes.find((clockChange) => isWithin(clockChange, day)) ?? null;
  const { from, to } = night ?? { from: 0, to: 0 };
  const dry = useMemo(
    () =>
      dryStretches(plan, from + whatIf.ahead, to + whatIf.ahead).map((stretch) => ({
        ...stretch,
        from: stretch.from - whatIf.ahead,
        to: stretch.to - whatIf.ahead,
      })),
    [plan, from, to, whatIf.ahead],
  );
  const { ownRules, rules } = props;
  const notAllowed = useMemo(
    () => ruledOut((date) => houseRulesOn(ownRules, rules, site, date), from, to),
    [ownRules, rules, site, from, to],
  );
  return (
    <div className="timer-night">
      <div className="night-head">
        <h2>
          {day === tonight ? 'Tonight, ' : ''}
          {dateWords(day, today)} into {weekdayName(weekdayIndexOf(day + 1))}
        </h2>
        <WhatIfBar
          plan={plan}
          whatIf={whatIf}
          headroom={answer?.check.headroomPercent ?? null}
          set={props.setWhatIf}
        />
      </div>
      {night && (
        <NightStrip
          night={night}
          letters={letters}
          sun={sun}
          clock={clock}
          stepMinutes={plan.timer.startStepMinutes}
          now={now}
          blocked={props.blocked}
          dry={dry}
          ruledOut={notAllowed}
          change={change}
          mowing={site.mowing}
          {...props.moves}
        />
      )}
      {change && <ClockChangeNote plan={plan} change={change} today={today} clock={clock} />}
    </div>
  );
}
