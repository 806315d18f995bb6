import { Button } from 'antd';
import { Link } from 'react-router';
import { usePreferences } from '../platform/preferences.tsx';
import { Failed, Loading } from '../platform/states.tsx';
import { useDue } from '../api/visits.ts';

/** Everything that is due at all houses, the earliest first. */
export default function DuePage() {
  const { clock, order } = usePreferences();
  const due = useDue({ clock, order });
  if (due.isPending) return <Loading what="what is due" />;
  if (due.isError)
    return <Failed what="What is due" error={due.error} retry={() => void due.refetch()} />;
  return (
    <div className="page">
      <div className="sites-head row">
        <h1>Calendar</h1>
        <Link to="/replans">The percent of the month</Link>
        <Button href="/api/due.ics" disabled={due.data.length === 0}>
          Export (.ics)
        </Button>
      </div>
      {due.data.length === 0 ? (
        <p>
          Nothing is due. When you leave a house, note who comes back and why; it stands here then.
        </p>
      ) : (
        <ul className="due list ruled">
          {due.data.map(({ timerId, site, date, kind, overdue, sentence }, i) => (
            <li
              key={`${timerId}${date}${kind}${i}`}
              className={overdue ? 'aside alarm' : undefined}
            >
              <Link to={`/timers/${timerId}/${kind === 'follow-up' ? 'leave' : 'log'}`}>
                <span>
                  <strong className="below">{site}</strong>
                  {sentence}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
