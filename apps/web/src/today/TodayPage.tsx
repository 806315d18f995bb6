import type { ReactNode } from 'react';
import { Button, Empty, Tag } from 'antd';
import { RightOutlined } from '@ant-design/icons';
import { Link, useNavigate } from 'react-router';
import {
  civilOf,
  dateWords,
  parseDate,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  weekdayName,
  type EpochDay,
} from '@water-clock/core';
import { useSites, type SiteSummary } from '../api/sites.ts';
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

const underWay = (sites: readonly SiteSummary[]): Line[] =>
  sites.flatMap(({ name, timers }) =>
    timers
      .filter((timer) => timer.underWay)
      .map(({ id, headline }) => ({
        key: `under way ${id}`,
        timerId: id,
        site: name,
        sentence: headline,
        tag: <Tag color="purple">under way</Tag>,
        act: 'Go on',
        step: 'leave',
      })),
  );

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

const ATTENTION = [
  ['overlap', 'overlap', 'overlaps', 'overlap'],
  ['breach', 'break the watering rules', 'breaks the watering rules', 'breach'],
  ['incomplete', 'are half set', 'is half set', 'unset'],
  ['empty', 'have nothing set', 'has nothing set', 'unset'],
] as const;

/** Later visits stand in the calendar. */
const MOST_COMING = 4;

/** Most names in a line of the houses that need attention. */
const MOST_NAMES = 4;

function Attention({ sites }: { readonly sites: readonly SiteSummary[] }) {
  const groups = ATTENTION.map(([verdict, several, one, filter]) => {
    const names = sites
      .filter(({ timers }) => timers.some((timer) => timer.verdict === verdict))
      .map(({ name }) => name);
    return {
      verdict,
      filter,
      names,
      words: names.length === 1 ? `garden ${one}` : `gardens ${several}`,
    };
  }).filter(({ names }) => names.length > 0);
  if (groups.length === 0) return <p className="soft">Every garden is clear.</p>;
  return (
    <ul className="list ruled">
      {groups.map(({ verdict, filter, names, words }) => (
        <li key={verdict}>
          <Link to={`/sites?show=${filter}`}>
            <b className="large">{names.length}</b>
            <span>
              <strong>{words}</strong>
              <br />
              <span className="soft">
                {names.slice(0, MOST_NAMES).join(', ')}
                {names.length > MOST_NAMES && ` and ${names.length - MOST_NAMES} more`}
              </span>
            </span>
            <RightOutlined aria-hidden />
          </Link>
        </li>
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
  const sites = useSites({ clock, order });
  const due = useDue({ clock, order });
  const navigate = useNavigate();
  const today = Math.floor(useCivilNow(HERE) / SECONDS_PER_DAY);
  if (sites.isPending || due.isPending) return <Loading what="today" />;
  if (sites.isError)
    return <Failed what="Today" error={sites.error} retry={() => void sites.refetch()} />;
  if (due.isError)
    return <Failed what="Today" error={due.error} retry={() => void due.refetch()} />;
  const timers = sites.data.flatMap((site) => site.timers);
  // The one with the most to see.
  const tourTimer = timers.find(({ verdict }) => verdict === 'overlap') ?? timers[0];
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
      {sites.data.length === 0 ? (
        <Empty description="No sites yet. Add the first house with its timer." />
      ) : (
        <div className="tiles fill of-400 far">
          <div className="stack far">
            <section aria-labelledby="today-visits">
              <h2 id="today-visits">Visits</h2>
              <Lines
                lines={[...underWay(sites.data), ...visits.map(dueLine)]}
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
              <Attention sites={sites.data} />
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
