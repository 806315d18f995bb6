import { useId } from 'react';
import { DatePicker } from 'antd';
import dayjs from 'dayjs';

const DOCUMENT = 'YYYY-MM-DD';
/** As shown, with the month as a word so that no order of day and month is mistaken; and what can be typed besides. */
const DATE = ['D MMM YYYY', DOCUMENT, 'D.M.YYYY'];
const MOMENT = ['D MMM YYYY, HH:mm', 'YYYY-MM-DD HH:mm', 'YYYY-MM-DDTHH:mm'];

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
  const picker = (
    <DatePicker
      id={id}
      aria-label={props['aria-label']}
      value={value === '' ? null : dayjs(value)}
      format={withTime ? MOMENT : DATE}
      showTime={withTime && { format: 'HH:mm' }}
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
