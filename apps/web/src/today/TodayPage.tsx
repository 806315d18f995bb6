import type { ReactNode } from 'react';
import { Button, Empty, Tag } from 'antd';
import { RightOutlined } from '@ant-design/icons';
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
} from '@water-clock/core';
import { useLines, type Filter, type TimerLine, type TimerLines } from '../api/lines.ts';
import { useDue, type DueEntry } from '../api/visits.ts';
import { useMayWork } from '../people/useMay.ts';
import { usePreferences } from '../platform/preferences.tsx';
import { Failed, Loading } from '../platform/states.tsx';
import { useCivilNow } from '../platform/useCivilNow.ts';
import { TourOffer } from './TourOffer.tsx';
import { START_VISIT } from '../visit/startVisit.ts';
import './today.css';

const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;
const DAYS_OF_A_WEEK = 7;
/** What is due later stands in the calendar. */
const DAYS_AHEAD = 60;

interface Line {
  readonly key: string;
  readonly timerId: string;
  readonly site: string;
  readonly sentence: ReactNode;
  readonly tag: ReactNode;
  readonly act: string;
  /** The step at which it goes on. */
  readonly step: string;
}

const START = 'Start visit';

const underWay = (lines: readonly TimerLine[]): Line[] =>
  lines.map(({ id, site, headline }) => ({
    key: `under way ${id}`,
    timerId: id,
    site: site.name,
    sentence: headline,
    tag: <Tag color="purple">under way</Tag>,
    act: 'Go on',
    step: 'leave',
  }));

const dueLine = ({ timerId, site, kind, date, overdue, sentence }: DueEntry, i: number): Line => ({
  key: `${timerId} ${kind} ${date} ${i}`,
  timerId,
  site,
  sentence,
  tag: overdue ? <Tag color="red">overdue</Tag> : <Tag>due</Tag>,
  act: kind === 'follow-up' ? 'Confirm' : START,
  step: kind === 'follow-up' ? 'leave' : 'found',
});

function Lines({ lines, none }: { readonly lines: readonly Line[]; readonly none: string }) {
  const navigate = useNavigate();
  if (lines.length === 0) return <p className="soft">{none}</p>;
  return (
    <ul className="list ruled">
      {lines.map(({ key, timerId, site, sentence, tag, act, step }) => (
        <li key={key}>
          <div>
            <Link className="plain heavy" to={`/timers/${timerId}`}>
              {site}
            </Link>{' '}
            {tag}
            <div>{sentence}</div>
          </div>
          <Button
            onClick={() =>
              void navigate(`/timers/${timerId}/${step}`, {
                state: act === START ? START_VISIT : null,
              })
            }
          >
            {act}
          </Button>
        </li>
      ))}
    </ul>
  );
}

/** What needs attention, for one garden and for several. */
const ATTENTION = {
  overlap: ['garden overlaps', 'gardens overlap'],
  breach: ['garden breaks the watering rules', 'gardens break the watering rules'],
  coming: ['garden will break rules to come', 'gardens will break rules to come'],
  unset: ['garden is half set or empty', 'gardens are half set or empty'],
} as const satisfies Partial<Record<Filter, readonly [string, string]>>;
type Trouble = keyof typeof ATTENTION;

/** Later visits stand in the calendar. */
const MOST_COMING = 4;
/** Later ones stand in the list of sites. */
const MOST_UNDER_WAY = 20;

/** Most names in a line of the houses that need attention. */
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
            {count > names.length && names.length > 0 && ` and ${count - names.length} more`}
          </span>
        </span>
        <RightOutlined aria-hidden />
      </Link>
    </li>
  );
}

function Attention({ counts, checking }: Pick<TimerLines, 'counts' | 'checking'>) {
  // The cast holds: they are the entries of the table.
  const troubles = (Object.keys(ATTENTION) as Trouble[]).filter((one) => counts[one] > 0);
  if (troubles.length === 0)
    return (
      <p className="soft">
        {checking === 0 ? 'Every garden is clear.' : `${checking} gardens are being checked.`}
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

/** How many visits are due on each of the coming seven days; those overdue count for today. */
function Week({ due, today }: { readonly due: readonly DueEntry[]; readonly today: EpochDay }) {
  const counts = Array.from({ length: DAYS_OF_A_WEEK }, (_, i) => {
    const day = today + i;
    const count = due.filter(({ date }) => {
      const on = parseDate(date);
      return on !== null && (i === 0 ? on <= day : on === day);
    }).length;
    return { day, count };
  });
  return (
    <ol className="today-week list small">
      {counts.map(({ day, count }) => (
        <li key={day}>
          <span className="today-bars" aria-hidden>
            {Array.from({ length: Math.min(count, 8) }, (_, i) => (
              <i key={i} />
            ))}
          </span>
          <span>
            {weekdayName(weekdayIndexOf(day))} {civilOf(day).day}
          </span>
          <span className="hidden-but-read">: {count} due</span>
        </li>
      ))}
    </ol>
  );
}

/** What to do now: visits under way and due, first waterings to be confirmed, houses that need attention, the week. */
export default function TodayPage() {
  const mayWork = useMayWork();
  const { clock, order } = usePreferences();
  const today = Math.floor(useCivilNow(HERE) / SECONDS_PER_DAY);
  const sites = useLines({ show: 'under-way', size: MOST_UNDER_WAY }, { clock, order });
  const worst = useLines({ sort: 'verdict', size: 1 }, { clock, order });
  const due = useDue({ clock, order }, null, formatDate(today + DAYS_AHEAD));
  const navigate = useNavigate();
  if (sites.isPending || due.isPending) return <Loading what="today" />;
  if (sites.isError)
    return <Failed what="Today" error={sites.error} retry={() => void sites.refetch()} />;
  if (due.isError)
    return <Failed what="Today" error={due.error} retry={() => void due.refetch()} />;
  const { counts, lines } = sites.data;
  // The one with the most to see.
  const tourTimer = worst.data?.lines[0];
  const isNow = ({ date }: DueEntry) => (parseDate(date) ?? today) <= today;
  const visits = due.data.filter((entry) => entry.kind !== 'follow-up' && isNow(entry));
  const first = due.data.filter(({ kind }) => kind === 'follow-up');
  const coming = due.data.filter((entry) => entry.kind !== 'follow-up' && !isNow(entry));
  return (
    <div className="page page-wide today">
      <div className="sites-head row">
        <h1>{dateWords(today, today, order)}</h1>
        {mayWork && (
          <Button type="primary" onClick={() => void navigate('/sites/new')}>
            New site
          </Button>
        )}
      </div>
      {tourTimer && <TourOffer timerId={tourTimer.id} />}
      {counts.all === 0 ? (
        <Empty description="No sites yet. Add the first house with its timer." />
      ) : (
        <div className="tiles fill of-400 far">
          <div className="stack far">
            <section aria-labelledby="today-visits">
              <h2 id="today-visits">Visits</h2>
              <Lines
                lines={[...underWay(lines), ...visits.map(dueLine)]}
                none="No visit is under way or due today."
              />
            </section>
            {coming.length > 0 && (
              <section aria-labelledby="today-coming">
                <h2 id="today-coming">Coming up</h2>
                <Lines
                  none=""
                  lines={coming.slice(0, MOST_COMING).map((entry, i) => ({
                    ...dueLine(entry, i),
                    tag: null,
                  }))}
                />
              </section>
            )}
            <section aria-labelledby="today-first">
              <h2 id="today-first">First watering to be confirmed</h2>
              <Lines lines={first.map(dueLine)} none="Nothing waits to be confirmed." />
            </section>
          </div>
          <div className="stack far">
            <section aria-labelledby="today-attention">
              <h2 id="today-attention">Needs attention</h2>
              <Attention counts={counts} checking={sites.data.checking} />
            </section>
            <section aria-labelledby="today-week">
              <h2 id="today-week">The week</h2>
              <Week due={due.data} today={today} />
            </section>
          </div>
        </div>
      )}
    </div>
  );
}
