import { useState } from 'react';
import { Button } from 'antd';
import {
  attempt,
  clockAhead,
  formatDate,
  formatTime,
  formatMoment,
  momentWords,
  nightsFrom,
  parseDate,
  parseMoment,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  weekdayName,
  yearsAhead,
  parseTime,
  type ClockChange,
  type ClockSecond,
  type ClockStyle,
  type Plan,
  say,
} from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { aheadWords } from './aheadWords.ts';
import { ClockChangeNote } from './ClockChangeNote.tsx';
import { weekOrderOf } from '../../shared/fields/WeekdayButtons.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { TimeField } from '../../shared/fields/TimeField.tsx';
import { DateField } from '../../shared/fields/DateField.tsx';
import './clock.css';

interface Props {
  readonly plan: Plan;
  readonly now: ClockSecond;
  /** Clock changes of the site, next first. */
  readonly changes: readonly ClockChange[];
  readonly clock: ClockStyle;
  /** Seconds by which the what-if clock is ahead. */
  readonly ahead: number;
  readonly setAhead: (ahead: number) => void;
  /** The clock as found and noted, if it was. */
  readonly asFound: { readonly shown: string; readonly really: string } | null;
  /** Notes both, as `YYYY-MM-DDTHH:MM`. */
  readonly keep: (shown: string, really: string) => void;
}

const DAY = SECONDS_PER_DAY;
const NIGHTS_LOOKED_AT = 14;

/** A weekday or date with a time, as read from a display. */
function Reading({
  label,
  plan,
  withDate,
  moment,
  take,
}: {
  readonly label: string;
  readonly plan: Plan;
  readonly withDate: boolean;
  readonly moment: ClockSecond;
  /** An epoch day, or a weekday index if the display has no date. */
  readonly take: (day: number, secondOfDay: number) => void;
}) {
  const [fault, setFault] = useState<string | null>(null);
  const day = Math.floor(moment / DAY);
  const second = moment - day * DAY;
  const dayValue = withDate ? day : weekdayIndexOf(day);
  return (
    <fieldset className="reading row">
      <legend>{label}</legend>
      {withDate ? (
        <DateField
          aria-label={say`${label} Date`}
          required
          value={formatDate(day)}
          commit={(date) => {
            const chosen = parseDate(date);
            if (chosen !== null) take(chosen, second);
          }}
        />
      ) : (
        <SelectField
          value={dayValue}
          options={weekOrderOf(plan.timer).map((index) => [index, weekdayName(index)] as const)}
          pick={(value) => take(Number(value), second)}
          aria-label={say`${label} Weekday`}
        />
      )}
      <TimeField
        label={say`${label} Time`}
        value={formatTime(Math.floor(second / 60) * 60)}
        stepMinutes={1}
        commit={(time) => take(dayValue, parseTime(time) ?? 0)}
        tell={setFault}
      />
      {fault && <span className="fault">{fault}</span>}
    </fieldset>
  );
}

/** Effect of a wrong clock on the next watering. */
function Consequence({ plan, now, ahead, clock }: Pick<Props, 'plan' | 'now' | 'ahead' | 'clock'>) {
  const { order } = usePreferences();
  const today = Math.floor(now / DAY);
  const worked = attempt(() => nightsFrom(plan, today, NIGHTS_LOOKED_AT));
  const next = worked.ok
    ? worked.value
        .flatMap(({ intended }) => intended)
        .sort((a, b) => a.begins - b.begins)
        .find(({ begins }) => begins - ahead > now)
    : undefined;
  const said = (moment: ClockSecond) => momentWords(moment, { on: today, clock, order });
  return (
    <p className="soft">
      {next &&
        say`So program ${next.letter}, set for ${said(next.begins)}, actually waters at ${said(next.begins - ahead)}. `}
      {say`The strip shows the actual hours it waters now.`}
    </p>
  );
}

/** The timer's own clock: what it shows, how wrong it is, and the consequences. */
export default function ClockPanel(props: Props) {
  const { plan, now, changes, clock, ahead, setAhead, asFound, keep } = props;
  const withDate = plan.timer.dialect?.clock !== 'weekday';
  // Null: now.
  const [really, setReally] = useState<ClockSecond | null>(null);
  const truth = really ?? Math.floor(now / 60) * 60;
  const { order } = usePreferences();
  const said = (text: string) =>
    momentWords(parseMoment(text) ?? 0, { on: Math.floor(now / DAY), clock, order });
  const whatIfs = [
    [say`Right`, 0],
    [say`12 h fast`, 12 * 3600],
    [say`12 h slow`, -12 * 3600],
    [say`1 h fast`, 3600],
    [say`1 h slow`, -3600],
    [say`1 day fast`, DAY],
    [say`1 day slow`, -DAY],
    [say`1 year fast`, yearsAhead(now, 1)],
    [say`1 year slow`, yearsAhead(now, -1)],
  ] as const;
  return (
    <div className="clock-panel">
      <section className="stack near">
        <h2 className="hidden-but-read">{say`The timer’s clock`}</h2>
        <div className="row far at-foot">
          <Reading
            label={say`Timer shows`}
            plan={plan}
            withDate={withDate}
            moment={truth + ahead}
            take={(day, secondOfDay) =>
              setAhead(
                clockAhead(withDate ? { day, secondOfDay } : { weekday: day, secondOfDay }, truth),
              )
            }
          />
          <Reading
            label={say`Actual time`}
            plan={plan}
            withDate
            moment={truth}
            take={(day, secondOfDay) => {
              const next = day * DAY + secondOfDay;
              // The noted display reading stays.
              setAhead(truth + ahead - next);
              setReally(next);
            }}
          />
          {really !== null && <Button onClick={() => setReally(null)}>{say`Now`}</Button>}
        </div>
        <p className="clock-answer large heavy" role="status">
          {ahead === 0 ? say`The clock is right.` : say`The clock is ${aheadWords(ahead)}.`}
        </p>
        {ahead !== 0 && <Consequence plan={plan} now={truth} ahead={ahead} clock={clock} />}
        <p className="row near">
          <Button
            type="primary"
            size="large"
            onClick={() =>
              keep(formatMoment(truth + ahead).slice(0, 16), formatMoment(truth).slice(0, 16))
            }
          >{say`Record the clock`}</Button>{' '}
          {asFound && (
            <span className="soft">{say`As found: it showed ${said(asFound.shown)}; the actual time was ${said(asFound.really)}.`}</span>
          )}
        </p>
      </section>
      <section className="stack near">
        <h2>{say`What if it were`}</h2>
        <div className="row at-foot">
          {whatIfs.map(([words, seconds]) => (
            <Button key={words} aria-pressed={ahead === seconds} onClick={() => setAhead(seconds)}>
              {words}
            </Button>
          ))}
        </div>
      </section>
      <section className="stack near">
        <h2>{say`When clocks change`}</h2>
        {changes.length === 0 && <p>{say`Clocks do not change in the coming year.`}</p>}
        {changes.map((change) => (
          <ClockChangeNote
            key={change.day}
            plan={plan}
            change={change}
            today={Math.floor(now / DAY)}
            clock={clock}
          />
        ))}
      </section>
    </div>
  );
}
