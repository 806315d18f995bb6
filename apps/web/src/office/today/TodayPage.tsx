import { Button, Empty, Segmented, Tag } from 'antd';
import { RightOutlined } from '@ant-design/icons';
import { scaleLinear } from 'd3-scale';
import { Link, useNavigate } from 'react-router';
import {
  civilOf,
  dateWords,
  formatDate,
  parseDate,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  weekdayName,
  type EpochDay,
  say,
} from '@water-clock/core';
import { PageHeading } from '../../app/platform/PageHeading.tsx';
import { useLines, type Filter, type TimerLine, type TimerLines } from '../../data/api/lines.ts';
import { useCalendar, useOpenVisits, type CalendarVisit } from '../../data/api/calendar.ts';
import { useSession } from '../../data/api/people.ts';
import { DayList } from '../calendar/DayList.tsx';
import { useDeviceSwitch } from '../../shared/hand/useDeviceSwitch.ts';
import { useMayWork } from '../account/useMay.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { useCivilNow } from '../../app/platform/useCivilNow.ts';
import { usePrefetch } from '../../data/offline/usePrefetch.ts';
import { TourOffer } from './TourOffer.tsx';
import { dueHere } from './dueHere.ts';

const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;
const DAYS_OF_A_WEEK = 7;
/** Height of the week's bars in pixels. */
const BAR = { step: 70, width: 58, most: 100 };
/** Later visits are in the calendar. */
const DAYS_AHEAD = 60;

function UnderWay({ lines }: { readonly lines: readonly TimerLine[] }) {
  const navigate = useNavigate();
  return (
    <ul className="list ruled">
      {lines.map(({ id, site, headline }) => (
        <li key={id}>
          <div>
            <Link className="plain heavy" to={`/timers/${id}`}>
              {site.name}
            </Link>{' '}
            <Tag color="purple">{say`under way`}</Tag>
            <div>{headline}</div>
          </div>
          <Button onClick={() => void navigate(`/timers/${id}/leave`)}>{say`Continue`}</Button>
        </li>
      ))}
    </ul>
  );
}

/** What needs attention, for one garden and for several. */
const ATTENTION = {
  overlap: [say`garden overlaps`, say`gardens overlap`],
  breach: [say`garden breaks watering rules`, say`gardens break watering rules`],
  supply: [
    say`garden takes more than its supply gives`,
    say`gardens take more than their supply gives`,
  ],
  coming: [say`garden will break announced rules`, say`gardens will break announced rules`],
  unset: [say`garden is not complete or empty`, say`gardens are not complete or empty`],
} as const satisfies Partial<Record<Filter, readonly [string, string]>>;
type Trouble = keyof typeof ATTENTION;

/** Later visits are in the calendar. */
const MOST_COMING = 4;
/** Others are in the site list. */
const MOST_UNDER_WAY = 20;

/** The others are in the calendar. */
const MOST_OVERDUE = 10;

/** Most site names in one line. */
const MOST_NAMES = 4;

function Gardens({ trouble, count }: { readonly trouble: Trouble; readonly count: number }) {
  const { clock, order } = usePreferences();
  const lines = useLines({ show: trouble, size: MOST_NAMES }, { clock, order });
  const names = [...new Set(lines.data?.lines.map(({ site }) => site.name))];
  const [one, several] = ATTENTION[trouble];
  return (
    <li>
      <Link to={`/sites?show=${trouble}`}>
        <b className="large">{count}</b>
        <span>
          <strong>{count === 1 ? one : several}</strong>
          <br />
          <span className="soft">
            {names.join(', ')}
            {count > names.length && names.length > 0 && say` and ${count - names.length} more`}
          </span>
        </span>
        <RightOutlined aria-hidden />
      </Link>
    </li>
  );
}

function Attention({ counts, checking }: Pick<TimerLines, 'counts' | 'checking'>) {
  // Safe cast: these are the entries of the table.
  const troubles = (Object.keys(ATTENTION) as Trouble[]).filter((one) => counts[one] > 0);
  if (troubles.length === 0)
    return (
      <p className="soft">
        {checking === 0
          ? say`No problems found in any garden.`
          : say`${checking} gardens are being checked.`}
      </p>
    );
  return (
    <ul className="list ruled">
      {troubles.map((one) => (
        <Gardens key={one} trouble={one} count={counts[one]} />
      ))}
    </ul>
  );
}

/** Visits on each of the coming seven days; overdue ones count today. */
function Week({
  now,
  later,
  today,
}: {
  readonly now: number;
  readonly later: readonly CalendarVisit[];
  readonly today: EpochDay;
}) {
  const counts = Array.from({ length: DAYS_OF_A_WEEK }, (_, i) => {
    const day = today + i;
    return {
      day,
      count: i === 0 ? now : later.filter(({ date }) => date === formatDate(day)).length,
    };
  });
  const most = Math.max(1, ...counts.map(({ count }) => count));
  const height = scaleLinear([0, most], [0, BAR.most]);
  const name = (day: EpochDay) => `${weekdayName(weekdayIndexOf(day))} ${civilOf(day).day}`;
  const words = counts.map(({ day, count }) => say`${name(day)}: ${count} due`).join('; ');
  return (
    <svg
      viewBox={`0 0 ${DAYS_OF_A_WEEK * BAR.step} ${BAR.most + 40}`}
      role="img"
      aria-label={words}
    >
      {counts.map(({ day, count }, i) => (
        <g key={day} transform={`translate(${i * BAR.step} ${BAR.most + 20})`} textAnchor="middle">
          <rect y={-height(count)} width={BAR.width} height={height(count)} fill="var(--accent)" />
          <path d={`M0 0h${BAR.width}`} stroke="var(--line-strong)" strokeWidth="2" />
          {count > 0 && (
            <text x={BAR.width / 2} y={-height(count) - 5} fontSize="14">
              {count}
            </text>
          )}
          <text x={BAR.width / 2} y="17" fontSize="13">
            {name(day)}
          </text>
        </g>
      ))}
    </svg>
  );
}

const isFollowUp = ({ kinds }: CalendarVisit) => kinds.includes('follow-up');

/** What to do now: open and due visits in order, first waterings to confirm, gardens that need attention, and the week. */
export default function TodayPage() {
  const mayWork = useMayWork();
  const { clock, order } = usePreferences();
  const navigate = useNavigate();
  const me = useSession().data?.person?.id ?? null;
  const [isMine, setMine] = useDeviceSwitch('today-mine', false);
  const person = isMine ? me : null;
  const today = Math.floor(useCivilNow(HERE) / SECONDS_PER_DAY);
  const date = formatDate(today);
  const style = { clock, order };
  const sites = useLines({ show: 'under-way', size: MOST_UNDER_WAY }, style);
  const worst = useLines({ sort: 'verdict', size: 1 }, style);
  // At the site it may still be yesterday.
  const days = useCalendar(formatDate(today - 1), formatDate(today + DAYS_AHEAD), person, style);
  const open = useOpenVisits(person, style);
  const due = dueHere(days.data?.visits ?? [], open.data?.overdue ?? [], date);
  const shown = due.overdue.slice(0, MOST_OVERDUE);
  const now = [...shown, ...due.now];
  usePrefetch(date, now);
  if (sites.isPending || days.isPending || open.isPending) return <Loading what={say`today`} />;
  if (sites.isError)
    return <Failed what={say`Today`} error={sites.error} retry={() => void sites.refetch()} />;
  if (days.isError)
    return <Failed what={say`Today`} error={days.error} retry={() => void days.refetch()} />;
  if (open.isError)
    return <Failed what={say`Today`} error={open.error} retry={() => void open.refetch()} />;
  const { counts, lines } = sites.data;
  // The one with the most to see.
  const tourTimer = worst.data?.lines[0];
  const visits = now.filter((visit) => !isFollowUp(visit));
  const first = [...now.filter(isFollowUp), ...due.later.filter(isFollowUp)];
  const coming = due.later.filter((visit) => !isFollowUp(visit));
  const dayOrder =
    days.data.orders.find((one) => one.date === date && one.personId === person) ?? null;
  return (
    <div className="page page-wide today">
      <div className="sites-head row">
        <PageHeading title={say`Today`}>{dateWords(today, today, order)}</PageHeading>
        <Segmented<string>
          aria-label={say`Visits of`}
          options={[
            { value: 'all', label: say`Everyone` },
            { value: 'mine', label: say`Mine` },
          ]}
          value={isMine ? 'mine' : 'all'}
          onChange={(value) => setMine(value === 'mine')}
        />
        {mayWork && (
          <Button
            type="primary"
            onClick={() => void navigate('/sites/new')}
          >{say`New site`}</Button>
        )}
      </div>
      {tourTimer && <TourOffer timerId={tourTimer.id} />}
      {counts.all === 0 ? (
        <Empty description={say`No sites yet. Add the first house with its timer.`} />
      ) : (
        <div className="tiles fill of-400 far">
          <div className="stack far">
            <section aria-labelledby="today-visits">
              <h2 id="today-visits">{say`Visits`}</h2>
              {lines.length > 0 && <UnderWay lines={lines} />}
              <DayList
                visits={visits}
                order={dayOrder}
                day={{ date, personId: person }}
                today={date}
                none={lines.length > 0 ? '' : say`No visits in progress or due today.`}
              />
              {due.overdue.length > shown.length && (
                <Link to="/calendar?view=open">{say`More overdue visits`}</Link>
              )}
            </section>
            {coming.length > 0 && (
              <section aria-labelledby="today-coming">
                <h2 id="today-coming">{say`Coming up`}</h2>
                <ul className="list ruled">
                  {coming.slice(0, MOST_COMING).map((visit) => (
                    <li key={`${visit.timerId} ${visit.date}`}>
                      <div>
                        <Link className="plain heavy" to={`/timers/${visit.timerId}`}>
                          {visit.site}
                        </Link>{' '}
                        <span className="soft">
                          {dateWords(parseDate(visit.date ?? '') ?? today, today, order)}
                        </span>
                        <div>{[visit.stop?.note, ...visit.reasons].filter(Boolean).join('; ')}</div>
                      </div>
                    </li>
                  ))}
                </ul>
              </section>
            )}
            <section aria-labelledby="today-first">
              <h2 id="today-first">{say`First waterings to confirm`}</h2>
              <DayList
                visits={first}
                order={null}
                day={null}
                today={date}
                none={say`Nothing to confirm.`}
              />
            </section>
          </div>
          <div className="stack far">
            <section aria-labelledby="today-attention">
              <h2 id="today-attention">{say`Needs attention`}</h2>
              <Attention counts={counts} checking={sites.data.checking} />
            </section>
            <section aria-labelledby="today-week">
              <h2 id="today-week">{say`The week`}</h2>
              <Week now={due.overdue.length + due.now.length} later={due.later} today={today} />
            </section>
          </div>
        </div>
      )}
    </div>
  );
}
