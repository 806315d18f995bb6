import { useLayoutEffect, useState } from 'react';
import { Button, Calendar, Segmented, Typography } from 'antd';
import dayjs from 'dayjs';
import { Link, useSearchParams } from 'react-router';
import {
  dateWords,
  formatDate,
  parseDate,
  SECONDS_PER_DAY,
  type EpochDay,
  say,
} from '@water-clock/core';
import { PageHeading } from '../../app/platform/PageHeading.tsx';
import {
  useCalendar,
  useCalendarLink,
  useMakeCalendarLink,
  useOpenVisits,
  type CalendarVisit,
} from '../../data/api/calendar.ts';
import { useSession } from '../../data/api/people.ts';
import { failureWords } from '../../data/api/request.ts';
import { usePeople } from '../../data/api/team.ts';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { useScreen } from '../../app/frame/useScreen.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { useCivilNow } from '../../app/platform/useCivilNow.ts';
import { beginWeekOn } from '../../app/platform/week.ts';
import { deviceZone } from '../../app/platform/zone.ts';
import { DayList } from './DayList.tsx';

const DAYS_OF_A_WEEK = 7;
const ALL = 'all';
const VIEWS = [
  { value: 'week', label: say`Week` },
  { value: 'month', label: say`Month` },
  { value: 'open', label: say`Without a date` },
] as const;
type View = (typeof VIEWS)[number]['value'];

/** The address from which a calendar program reads one's visits. */
function PrivateAddress() {
  const link = useCalendarLink();
  const make = useMakeCalendarLink();
  return (
    <section className="stack near" aria-labelledby="private-address">
      <h2 id="private-address">{say`Calendar link`}</h2>
      {make.data ? (
        <>
          <p>{say`Add this link to your calendar app. It is shown only now.`}</p>
          <Typography.Text code copyable>
            {make.data}
          </Typography.Text>
        </>
      ) : (
        <p className="soft">
          {link.data?.madeAt
            ? say`Your visits have a private link. Anyone with it can read them. Creating a new one ends the old one.`
            : say`A private link lets your calendar app show your visits.`}
        </p>
      )}
      <span>
        <Button loading={make.isPending} onClick={() => make.mutate()}>
          {link.data?.madeAt ? say`Create new link` : say`Create link`}
        </Button>
      </span>
      {make.error && <p className="fault">{failureWords(make.error, say`Not created`)}</p>}
    </section>
  );
}

function Week({
  first,
  person,
  today,
}: {
  readonly first: EpochDay;
  readonly person: string | null;
  readonly today: EpochDay;
}) {
  const { clock, order } = usePreferences();
  const last = first + DAYS_OF_A_WEEK - 1;
  const week = useCalendar(formatDate(first), formatDate(last), person, { clock, order });
  if (week.isPending) return <Loading what={say`the week`} />;
  if (week.isError)
    return <Failed what={say`The week`} error={week.error} retry={() => void week.refetch()} />;
  const days = Array.from({ length: DAYS_OF_A_WEEK }, (_, i) => first + i);
  return days.map((day) => {
    const date = formatDate(day);
    const visits = week.data.visits.filter((visit) => visit.date === date);
    const name = (
      <>
        {dateWords(day, today, order)} {day === today && <span className="soft">{say`today`}</span>}
      </>
    );
    if (visits.length === 0)
      return (
        <p key={day} className="soft">
          {name} {say`No visits`}
        </p>
      );
    return (
      <section key={day} className="stack near" aria-labelledby={`day-${date}`}>
        <h2 id={`day-${date}`}>{name}</h2>
        <DayList
          visits={visits}
          order={
            week.data.orders.find((one) => one.date === date && one.personId === person) ?? null
          }
          day={{ date, personId: person }}
          today={formatDate(today)}
          none=""
        />
      </section>
    );
  });
}

interface MonthProps {
  readonly day: EpochDay;
  readonly person: string | null;
  readonly go: (day: EpochDay, view?: View) => void;
}

/** Most names in one day of the month view. */
const MOST_NAMES = 2;

function Month({ day, person, go }: MonthProps) {
  const { clock, order, weekStart } = usePreferences();
  useLayoutEffect(() => beginWeekOn(weekStart), [weekStart]);
  const isPhone = useScreen() === 'phone';
  const shown = dayjs(formatDate(day));
  // The month view includes days of the months before and after.
  const from = shown.startOf('month').subtract(7, 'day').format('YYYY-MM-DD');
  const to = shown.endOf('month').add(14, 'day').format('YYYY-MM-DD');
  const visits = useCalendar(from, to, person, { clock, order });
  const month = (by: number) =>
    go(parseDate(shown.startOf('month').add(by, 'month').format('YYYY-MM-DD')) ?? day);
  const byDate = new Map<string, CalendarVisit[]>();
  for (const visit of visits.data?.visits ?? [])
    if (visit.date) byDate.set(visit.date, [...(byDate.get(visit.date) ?? []), visit]);
  return (
    <Calendar
      value={shown}
      fullscreen={!isPhone}
      mode="month"
      headerRender={() => (
        <div className="row near">
          <h2>{shown.format('MMMM YYYY')}</h2>
          <Button onClick={() => month(-1)}>{say`Previous month`}</Button>
          <Button onClick={() => month(1)}>{say`Next month`}</Button>
        </div>
      )}
      onSelect={(date, { source }) =>
        go(parseDate(date.format('YYYY-MM-DD')) ?? day, source === 'date' ? 'week' : 'month')
      }
      cellRender={(date, { type }) => {
        const own = type === 'date' ? (byDate.get(date.format('YYYY-MM-DD')) ?? []) : [];
        if (own.length === 0) return null;
        if (isPhone) return <b>{own.length}</b>;
        return (
          <div className="small">
            {own.slice(0, MOST_NAMES).map(({ timerId, site }) => (
              <div key={timerId}>{site}</div>
            ))}
            {own.length > MOST_NAMES && <b>{say`and ${own.length - MOST_NAMES} more`}</b>}
          </div>
        );
      }}
    />
  );
}

/** As many as the server sends. */
const MOST_OPEN = 200;
const CUT = say`These are the first ${MOST_OPEN}. There may be more. Choose a person above to see theirs.`;

function WithoutDate({
  person,
  today,
}: {
  readonly person: string | null;
  readonly today: EpochDay;
}) {
  const { clock, order } = usePreferences();
  const open = useOpenVisits(person, { clock, order });
  if (open.isPending) return <Loading what={say`visits without a date`} />;
  if (open.isError)
    return (
      <Failed
        what={say`Visits without a date`}
        error={open.error}
        retry={() => void open.refetch()}
      />
    );
  const common = { order: null, day: null, today: formatDate(today) };
  return (
    <>
      <section className="stack near" aria-labelledby="overdue">
        <h2 id="overdue">{say`Overdue`}</h2>
        <DayList {...common} visits={open.data.overdue} none={say`Nothing is overdue.`} />
        {open.data.overdue.length >= MOST_OPEN && <p>{CUT}</p>}
      </section>
      <section className="stack near" aria-labelledby="some-day">
        <h2 id="some-day">{say`No date yet`}</h2>
        <DayList
          {...common}
          visits={open.data.someDay}
          none={say`No visits are waiting for a date.`}
        />
        {open.data.someDay.length >= MOST_OPEN && <p>{CUT}</p>}
      </section>
    </>
  );
}

/** The company's visits: week, month, and visits without a date; one person's or everyone's. */
export default function CalendarPage() {
  const { weekStart } = usePreferences();
  const people = usePeople();
  const me = useSession().data?.person?.id;
  const [search, setSearch] = useSearchParams();
  const [hasAddress, setHasAddress] = useState(false);
  const today = Math.floor(useCivilNow(deviceZone()) / SECONDS_PER_DAY);
  const view = VIEWS.find(({ value }) => value === search.get('view'))?.value ?? 'week';
  const day = parseDate(search.get('day') ?? '') ?? today;
  const person = search.get('person');
  const set = (values: Readonly<Record<string, string | null>>) =>
    setSearch(
      (before) => {
        const next = new URLSearchParams(before);
        for (const [name, value] of Object.entries(values))
          if (value) next.set(name, value);
          else next.delete(name);
        return next;
      },
      { replace: true },
    );
  const go = (to: EpochDay, as: View = view) => set({ day: formatDate(to), view: as });
  // 1970-01-01 was a Thursday.
  const behind =
    (((day + (weekStart === 'mon' ? 3 : 4)) % DAYS_OF_A_WEEK) + DAYS_OF_A_WEEK) % DAYS_OF_A_WEEK;
  const first = day - behind;
  return (
    <div className="page page-wide stack">
      <div className="sites-head row">
        <PageHeading title={say`Calendar`} />
        <Link to="/replans">{say`Percent for the month`}</Link>
        <Button
          onClick={() => setHasAddress(!hasAddress)}
          aria-expanded={hasAddress}
        >{say`Calendar link`}</Button>
        <Button href="/api/calendar.ics">{say`Export (.ics)`}</Button>
      </div>
      {hasAddress && <PrivateAddress />}
      <div className="row near">
        <Segmented<View>
          options={[...VIEWS]}
          value={view}
          onChange={(value) => set({ view: value === 'week' ? null : value })}
        />
        <SelectField
          aria-label={say`Visits of`}
          value={person ?? ALL}
          options={[
            [ALL, say`everyone`],
            ...(people.data ?? []).map(
              ({ id, name }) => [id, id === me ? say`${name} (you)` : name] as const,
            ),
          ]}
          pick={(value) => set({ person: value === ALL ? null : value })}
        />
        {view === 'week' && (
          <>
            <Button onClick={() => go(day - DAYS_OF_A_WEEK)}>{say`Previous week`}</Button>
            <Button onClick={() => go(today)}>{say`This week`}</Button>
            <Button onClick={() => go(day + DAYS_OF_A_WEEK)}>{say`Next week`}</Button>
          </>
        )}
      </div>
      {view === 'week' && <Week {...{ first, person, today }} />}
      {view === 'month' && <Month {...{ day, person, go }} />}
      {view === 'open' && <WithoutDate {...{ person, today }} />}
    </div>
  );
}
