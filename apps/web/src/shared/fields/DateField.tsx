import { useId, useLayoutEffect, useState } from 'react';
import { DatePicker } from 'antd';
import dayjs from 'dayjs';
import {
  dateEntryHelp,
  formatDate,
  parseDate,
  parseDateEntry,
  parseTimeEntry,
  say,
  timeEntryHelp,
  type ClockStyle,
  type DateOrder,
} from '@water-clock/core';
import { beginWeekOn } from '../../app/platform/week.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';

const DOCUMENT = 'YYYY-MM-DD';
/** As shown, with the month as a word so that day and month cannot be confused. */
const DATES: Readonly<Record<DateOrder, string>> = {
  'day-month': 'D MMM YYYY',
  'month-day': 'MMM D, YYYY',
};
const TIMES: Readonly<Record<ClockStyle, string>> = { 12: 'h:mm a', 24: 'HH:mm' };

interface Props {
  /** Undefined if `aria-label` names it. */
  readonly label?: string;
  readonly 'aria-label'?: string;
  /** `YYYY-MM-DD`, with `withTime` `YYYY-MM-DDTHH:MM`; empty: none. */
  readonly value: string;
  readonly withTime?: boolean;
  /** It must have a value. */
  readonly required?: boolean;
  /** Called with a value in the same form. */
  readonly commit: (value: string) => void;
}

const DATE_THEN_TIME = /^(?<date>.*\S)[\sT]+(?<time>\d\S*(?:\s*[ap]\.?m?\.?)?)$/iu;

/** Typed text as `YYYY-MM-DD` or `YYYY-MM-DDTHH:MM`; null if it cannot be read. */
function readEntry(typed: string, withTime: boolean, order: DateOrder): string | null {
  const today = parseDate(dayjs().format(DOCUMENT)) ?? 0;
  const dateOf = (text: string) => {
    const day = parseDateEntry(text.replace(/,\s*$/u, ''), order, today);
    return day === null ? null : formatDate(day);
  };
  if (!withTime) return dateOf(typed);
  const { date = '', time = '' } = DATE_THEN_TIME.exec(typed)?.groups ?? {};
  const [day, second] = [dateOf(date), parseTimeEntry(time)];
  return day === null || second === null ? null : `${day}T${second}`;
}

/** A date, typed as people write it or picked from a calendar. Text that cannot be read stays, with a message about what is allowed. */
export function DateField(props: Props) {
  const { label, value, withTime = false, required = false, commit } = props;
  const id = useId();
  const { order, clock, weekStart } = usePreferences();
  const [unread, setUnread] = useState<string | null>(null);
  /** Incremented when the value stays but the typed text must go. */
  const [edition, setEdition] = useState(0);
  useLayoutEffect(() => beginWeekOn(weekStart), [weekStart]);
  const shown = withTime ? `${DATES[order]}, ${TIMES[clock]}` : DATES[order];
  const give = (text: string) => {
    setUnread(null);
    if (text === value) setEdition(edition + 1);
    else commit(text);
  };
  const finish = ({ value: typed }: HTMLInputElement) => {
    const text = typed.trim();
    const read = text === '' ? '' : readEntry(text, withTime, order);
    if (read === null) setUnread(text);
    // The picker itself handles text in its own format, and clearing.
    else if (read === '' || dayjs(read).format(shown) === text) setUnread(null);
    else give(read);
  };
  const picker = (
    <DatePicker
      key={edition}
      id={id}
      aria-label={props['aria-label']}
      aria-invalid={unread !== null}
      aria-describedby={unread === null ? undefined : `${id}-said`}
      status={unread === null ? '' : 'error'}
      value={value === '' ? null : dayjs(value)}
      format={shown}
      showTime={withTime && { format: TIMES[clock] }}
      needConfirm={false}
      allowClear={!required}
      preserveInvalidOnBlur
      onBlur={(event) => finish(event.target as HTMLInputElement)}
      onKeyDown={(event) => {
        if (event.key === 'Enter') finish(event.target as HTMLInputElement);
      }}
      onChange={(moment) => {
        if (moment) give(moment.format(withTime ? `${DOCUMENT}THH:mm` : DOCUMENT));
        else if (!required) give('');
      }}
    />
  );
  const said = unread !== null && (
    <span id={`${id}-said`} className="fault" role="alert">
      {say`“${unread}” is not a date. ${dateEntryHelp(order)}`} {withTime && timeEntryHelp()}
    </span>
  );
  if (label === undefined)
    return (
      <>
        {picker}
        {said}
      </>
    );
  return (
    <div className="labelled">
      <label htmlFor={id}>{label}</label>
      {picker}
      {said}
    </div>
  );
}
