import { useState } from 'react';
import { Button, Input } from 'antd';
import { Link, useNavigate } from 'react-router';
import { dateWords, parseDate } from '@water-clock/core';
import { newId, RefusedError } from '../api/request.ts';
import { FileButton } from '../fields/FileButton.tsx';
import { usePreferences } from '../platform/preferences.tsx';
import { Failed, Loading } from '../platform/states.tsx';
import { VerdictMark } from '../charts/VerdictMark.tsx';
import { bringSite, useSites, type SiteSummary } from '../api/sites.ts';
import './sites.css';

const VERDICT_NAMES = {
  clear: 'Clear',
  overlap: 'Overlap',
  incomplete: 'Half set',
  empty: 'Empty',
} as const;

/** A date of the coming visits: `Sat 12 December 2026`. */
const visitWords = (date: string) => {
  const day = parseDate(date);
  return day === null ? date : dateWords(day, null);
};

function SiteRow({ site }: { readonly site: SiteSummary }) {
  return (
    <li className="site">
      <div>
        <h2 className="site-name">{site.name}</h2>
        {site.houseNumber && <span className="soft">No. {site.houseNumber}</span>}
      </div>
      {site.timers.map((timer) => (
        <Link
          key={timer.id}
          to={`/timers/${timer.id}`}
          className={`site-timer verdict-${timer.verdict}`}
        >
          <VerdictMark verdict={timer.verdict} />
          <span>
            <strong>{VERDICT_NAMES[timer.verdict]}</strong>
            <span className="site-headline">{timer.headline}</span>
            <span className="site-kind">
              {timer.name}, {timer.stations} {timer.stations === 1 ? 'station' : 'stations'}
              {timer.nextVisit !== null && `; next visit ${visitWords(timer.nextVisit)}`}
            </span>
          </span>
        </Link>
      ))}
    </li>
  );
}

export default function SitesPage() {
  const { clock } = usePreferences();
  const sites = useSites(clock);
  const navigate = useNavigate();
  const [sought, setSought] = useState('');
  const [refusal, setRefusal] = useState<string | null>(null);
  const bring = async (file: File) => {
    try {
      const { timerIds } = await bringSite(newId(), file);
      await sites.refetch();
      setRefusal(null);
      const [timer] = timerIds;
      if (timer) void navigate(`/timers/${timer}/log`);
    } catch (error) {
      setRefusal(
        error instanceof RefusedError
          ? `Not taken: ${error.faults.map(({ path, message }) => `${path}: ${message}`).join('; ')}.`
          : 'Not taken: the server cannot be reached.',
      );
    }
  };
  if (sites.isPending) return <Loading what="your sites" />;
  if (sites.isError)
    return <Failed what="Your sites" error={sites.error} retry={() => void sites.refetch()} />;
  const words = sought.trim().toLowerCase();
  const found = sites.data.filter((site) =>
    `${site.name} ${site.houseNumber ?? ''}`.toLowerCase().includes(words),
  );
  return (
    <div className="page">
      <div className="sites-head">
        <h1>Sites</h1>
        <Input
          type="search"
          aria-label="Find a site"
          placeholder="Find a site"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
        />
        <Button type="primary" onClick={() => void navigate('/sites/new')}>
          New site
        </Button>
        <FileButton
          label="Import a site (.zip)"
          accept=".zip,application/zip"
          take={([file]) => file && void bring(file)}
        />
      </div>
      {refusal && (
        <p className="fault" role="alert">
          {refusal}
        </p>
      )}
      {found.length > 0 && (
        <ul className="sites">
          {found.map((site) => (
            <SiteRow key={site.id} site={site} />
          ))}
        </ul>
      )}
      {found.length === 0 && (
        <p>
          {sites.data.length === 0
            ? 'No sites yet. Add the first house with its timer.'
            : `No site is called "${sought}".`}
        </p>
      )}
    </div>
  );
}
