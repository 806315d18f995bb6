import { useId, useLayoutEffect } from 'react';
import { DatePicker } from 'antd';
import dayjs from 'dayjs';
import type { ClockStyle, DateOrder } from '@water-clock/core';
import { beginWeekOn } from '../../app/platform/week.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';

const DOCUMENT = 'YYYY-MM-DD';
/** As shown, with the month as a word so that no order of day and month is mistaken; and what can be typed besides. */
const DATES: Readonly<Record<DateOrder, string[]>> = {
  'day-month': ['D MMM YYYY', DOCUMENT, 'D/M/YYYY', 'D.M.YYYY'],
  'month-day': ['MMM D, YYYY', DOCUMENT, 'M/D/YYYY'],
};
const TIMES: Readonly<Record<ClockStyle, string>> = { 12: 'h:mm a', 24: 'HH:mm' };

interface Props {
  /** Absent where `aria-label` names it. */
  readonly label?: string;
  readonly 'aria-label'?: string;
  /** `YYYY-MM-DD`, with `withTime` `YYYY-MM-DDTHH:MM`; empty: none. */
  readonly value: string;
  readonly withTime?: boolean;
  /** It cannot be emptied. */
  readonly required?: boolean;
  /** Called with text of the same form. */
  readonly commit: (value: string) => void;
}

/** A date, typed or picked from a calendar. */
export function DateField(props: Props) {
  const { label, value, withTime = false, required = false, commit } = props;
  const id = useId();
  const { order, clock, weekStart } = usePreferences();
  useLayoutEffect(() => beginWeekOn(weekStart), [weekStart]);
  const dates = DATES[order];
  const moments = [...dates.map((date) => `${date}, ${TIMES[clock]}`), 'YYYY-MM-DDTHH:mm'];
  const picker = (
    <DatePicker
      id={id}
      aria-label={props['aria-label']}
      value={value === '' ? null : dayjs(value)}
      format={withTime ? moments : dates}
      showTime={withTime && { format: TIMES[clock] }}
      needConfirm={false}
      allowClear={!required}
      onChange={(moment) => {
        if (moment) commit(moment.format(withTime ? `${DOCUMENT}THH:mm` : DOCUMENT));
        else if (!required) commit('');
      }}
    />
  );
  if (label === undefined) return picker;
  return (
    <div className="labelled">
      <label htmlFor={id}>{label}</label>
      {picker}
    </div>
  );
}
