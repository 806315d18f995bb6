import { lazy, memo, Suspense, useMemo, useState } from 'react';
import { Button, Segmented } from 'antd';
import { LeftOutlined, QuestionOutlined, RightOutlined, TableOutlined } from '@ant-design/icons';
import {
  dateWords,
  dryStretches,
  houseRulesOn,
  listed,
  nightOf,
  ruledOut,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  weekdayName,
  type ClockChange,
  type EpochDay,
  say,
} from '@water-clock/core';
import { NightStrip } from '../../shared/charts/NightStrip.tsx';
import { marksOf } from '../../shared/charts/marksOf.ts';
import { NightTable } from '../../shared/charts/NightTable.tsx';
import { stripHeight } from '../../shared/charts/stripGeometry.ts';
import { sunOf } from '../../shared/charts/sun.ts';
import type { MoveOutcome } from '../../shared/charts/useMoves.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import type { Site } from '../../data/api/sites.ts';
import { nightAt, pressesOf } from '../../data/workers/timerQuestion.ts';
import { ClockChangeNote } from '../timerKind/ClockChangeNote.tsx';
import type { Distance } from './distance.ts';
import { Hint } from '../../shared/fields/Hint.tsx';
import { useScreen } from '../../app/frame/useScreen.ts';
import type { Snapshot } from '../../data/editor/editing.ts';
import type { StripView } from './useStripView.ts';
import type { Dates, TimerFacts } from './useTimerFacts.ts';
import { useSupposed } from './useSupposed.ts';

const FurtherOff = lazy(() => import('./FurtherOff.tsx'));
const WhatIfBar = lazy(() => import('../timerKind/WhatIfBar.tsx'));
const WhatIfActs = lazy(() => import('./WhatIfActs.tsx'));

/** Height reserved for the bar, so that the strip does not move. */
const WHAT_IF_ROOM = { width: 330, minHeight: 40 };

/** Whether the clocks change in the night that begins on the afternoon of a day. */
const isWithin = (change: ClockChange, day: EpochDay) =>
  nightOf(change.day * SECONDS_PER_DAY + change.from) === day;

interface Props {
  readonly snapshot: Snapshot;
  readonly site: Site;
  readonly dates: Dates;
  readonly view: StripView;
  readonly facts: TimerFacts;
  readonly moves: MoveOutcome;
  /** On a phone the percent takes space only in steps about it. */
  readonly withPercent: boolean;
}

const DISTANCES = [
  { value: 'night', label: say`Night` },
  { value: 'fortnight', label: say`14 nights` },
  { value: 'year', label: say`Year` },
] as const;

type HeadProps = Pick<StripView, 'day' | 'distance' | 'setDistance' | 'choose'> &
  Pick<Dates, 'tonight' | 'today'> & {
    readonly asTable: boolean;
    readonly setAsTable: (asTable: boolean) => void;
    readonly isAsking: boolean;
    readonly setAsking: (isAsking: boolean) => void;
  };

/** How far to look, and which night. */
const NightHead = memo(function NightHead(props: HeadProps) {
  const { day, tonight, today, asTable, setAsTable, isAsking, setAsking } = props;
  const { order } = usePreferences();
  const isPhone = useScreen() === 'phone';
  const [evening, morning] = [dateWords(day, today, order), weekdayName(weekdayIndexOf(day + 1))];
  const isTonight = day === tonight;
  const words = isPhone
    ? isTonight
      ? say`Tonight`
      : evening
    : isTonight
      ? say`Tonight, ${evening} into ${morning}`
      : say`${evening} into ${morning}`;
  return (
    <>
      <Segmented<Distance>
        aria-label={say`Time range`}
        options={[...DISTANCES]}
        value={props.distance}
        onChange={props.setDistance}
      />
      {props.distance === 'night' && (
        <span className="row near in-line">
          <Button
            icon={<LeftOutlined />}
            aria-label={say`Previous night`}
            onClick={() => props.choose(day - 1)}
          />
          <h2>{words}</h2>
          <Button
            icon={<RightOutlined />}
            aria-label={say`Next night`}
            onClick={() => props.choose(day + 1)}
          />
          <Hint title={say`Show as table`}>
            <Button
              icon={<TableOutlined />}
              aria-label={say`Night as a table`}
              aria-pressed={asTable}
              onClick={() => setAsTable(!asTable)}
            />
          </Hint>
          <Hint title={say`What if the power fails, it rains or someone presses a key?`}>
            <Button
              icon={<QuestionOutlined />}
              aria-label={say`What if`}
              aria-pressed={isAsking}
              onClick={() => setAsking(!isAsking)}
            />
          </Hint>
        </span>
      )}
    </>
  );
});

/** The strip in its panel: a night, a fortnight or a year, with the what-if percent and clock. */
export function TimerNight({ snapshot, site, dates, view, facts, moves, withPercent }: Props) {
  const { plan, survey } = snapshot;
  const { now, today, tonight } = dates;
  const { day, distance, whatIf, setWhatIf } = view;
  const { answer, letters, changes, anyPhase, clockUnknown, blocked, visit } = facts;
  const { clock } = usePreferences();
  const isPhone = useScreen() === 'phone';
  const [asTable, setAsTable] = useState(false);
  const [isAsking, setAsking] = useState(false);
  const { night, isTooMuch } = useSupposed(
    answer ? nightAt(answer, day) : undefined,
    answer?.plan ?? plan,
    whatIf,
  );
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
  const marks = useMemo(() => marksOf(pressesOf(whatIf), plan, from, to), [whatIf, plan, from, to]);
  const { rules: ownRules } = survey;
  const { rules } = visit;
  const notAllowed = useMemo(
    () => ruledOut((date) => houseRulesOn(ownRules, rules, site, date), from, to),
    [ownRules, rules, site, from, to],
  );
  return (
    <div className="timer-night">
      <div className="night-head row">
        <NightHead
          day={day}
          tonight={tonight}
          today={today}
          distance={distance}
          setDistance={view.setDistance}
          choose={view.choose}
          asTable={asTable}
          setAsTable={setAsTable}
          isAsking={isAsking}
          setAsking={setAsking}
        />
        {(!isPhone || withPercent || whatIf.percent !== null || whatIf.ahead !== 0) && (
          <Suspense fallback={<div className="push" style={WHAT_IF_ROOM} />}>
            <WhatIfBar
              timer={plan.timer}
              monthlyPercent={plan.settings.monthlyPercent}
              whatIf={whatIf}
              headroom={answer?.check.headroomPercent ?? null}
              set={setWhatIf}
            />
          </Suspense>
        )}
      </div>
      {(isAsking || whatIf.acts.length > 0) && (
        <Suspense>
          <WhatIfActs plan={plan} day={day} today={today} whatIf={whatIf} set={setWhatIf} />
        </Suspense>
      )}
      {isTooMuch && (
        <p className="aside">{say`These days are too busy to show “what if”. The strip shows the current settings.`}</p>
      )}
      {anyPhase.length > 0 && (
        <p className="aside">{say`The interval of ${listed(anyPhase)} could not be read. Every night it may water is shown.`}</p>
      )}
      {clockUnknown && (
        <p className="aside">{say`Clock not checked. The overlap verdict still holds; allowed days and hours may be off.`}</p>
      )}
      {distance !== 'night' && (
        <Suspense>
          <FurtherOff
            answer={answer}
            letters={letters}
            possible={anyPhase}
            place={site}
            today={today}
            tonight={tonight}
            day={day}
            distance={distance}
            mark={view.choose}
            choose={view.showNight}
          />
        </Suspense>
      )}
      {distance === 'night' && !night && (
        <div style={{ height: stripHeight(letters.length, innerWidth) }} />
      )}
      {distance === 'night' && night && (
        <NightStrip
          night={night}
          letters={letters}
          sun={sun}
          clock={clock}
          stepMinutes={plan.timer.startStepMinutes}
          now={now}
          blocked={blocked}
          dry={dry}
          ruledOut={notAllowed}
          change={change}
          marks={marks}
          mowing={site.mowing}
          {...moves}
        />
      )}
      {distance === 'night' && change && (
        <ClockChangeNote plan={plan} change={change} today={today} clock={clock} />
      )}
      {distance === 'night' && asTable && answer && night && (
        <NightTable night={night} plan={answer.plan} clock={clock} />
      )}
    </div>
  );
}
