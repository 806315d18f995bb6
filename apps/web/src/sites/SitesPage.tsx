import { lazy, Suspense, useState } from 'react';
import { Alert, Button, Empty, Input, Table, Tag, type TableColumnType } from 'antd';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { dateWords, parseDate, SECONDS_PER_DAY } from '@water-clock/core';
import { useTowns } from '../api/weather.ts';
import { useSites } from '../api/sites.ts';
import { VerdictMark } from '../charts/VerdictMark.tsx';
import { FileButton } from '../fields/FileButton.tsx';
import { useScreen } from '../frame/useScreen.ts';
import { useMayWork } from '../people/useMay.ts';
import { usePreferences } from '../platform/preferences.tsx';
import { Failed, Loading } from '../platform/states.tsx';
import { useCivilNow } from '../platform/useCivilNow.ts';
import {
  filterOf,
  FILTERS,
  found,
  rowsOf,
  SORTS,
  type Filter,
  type SiteRow,
  type Sort,
} from './sitesList.ts';
import { useImportSite } from './useImportSite.ts';
import { WeekMini } from './WeekMini.tsx';
import { START_VISIT } from '../visit/startVisit.ts';

const SiteImport = lazy(() => import('./SiteImport.tsx'));

const VERDICT_NAMES = {
  clear: 'Clear',
  overlap: 'Overlap',
  breach: 'Not allowed',
  incomplete: 'Half set',
  empty: 'Empty',
} as const;

const PAGE = 20;

type SortOrder = NonNullable<TableColumnType['sortOrder']> | null;

const HERE = Intl.DateTimeFormat().resolvedOptions().timeZone;

function Name({ row: { site, timer } }: { readonly row: SiteRow }) {
  return (
    <>
      <Link className="plain heavy" to={`/timers/${timer.id}`}>
        {site.name}
      </Link>
      {site.houseNumber && <span className="soft"> No. {site.houseNumber}</span>}
      <div className="soft">
        {site.timers.length > 1 && `${timer.name}, `}
        <Link to={`/sites/${site.id}`}>the house</Link>
      </div>
    </>
  );
}

function VerdictOf({ row: { timer } }: { readonly row: SiteRow }) {
  return (
    <span className={`row in-line near said verdict-${timer.verdict}`} title={timer.headline}>
      <VerdictMark verdict={timer.verdict} size={22} />
      <span>
        <strong>{VERDICT_NAMES[timer.verdict]}</strong>
        <span className="soft small below">{timer.headline}</span>
      </span>
    </span>
  );
}

/** All sites of the company: what is sought, filtered, sorted and paged stands in the address. */
export default function SitesPage() {
  const { clock, order } = usePreferences();
  const sites = useSites({ clock, order });
  const towns = useTowns();
  const navigate = useNavigate();
  const mayWork = useMayWork();
  const [importing, setImporting] = useState(false);
  const isPhone = useScreen() === 'phone';
  const { refusal, take } = useImportSite();
  const [search, setSearch] = useSearchParams();
  const today = Math.floor(useCivilNow(HERE) / SECONDS_PER_DAY);
  if (sites.isPending) return <Loading what="your sites" />;
  if (sites.isError)
    return <Failed what="Your sites" error={sites.error} retry={() => void sites.refetch()} />;

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
  const sought = search.get('find') ?? '';
  const filter = filterOf(search.get('show'));
  const sort = search.get('sort') ?? '';
  const sortOrderOf = (name: Sort): SortOrder =>
    sort === name ? 'ascend' : sort === `-${name}` ? 'descend' : null;
  const all = rowsOf(sites.data, new Map(towns.data?.map(({ id, name }) => [id, name])));
  const rows = found(all, sought);
  const shown = rows.filter((row) => FILTERS[filter].has(row, today));
  const dateIn = (date: string | null) => {
    const day = date === null ? null : parseDate(date);
    // Without its weekday, which says little of a date far off.
    return day === null ? '' : dateWords(day, null, order).slice(4);
  };
  const next = ({ timer, site }: SiteRow) =>
    timer.underWay ? (
      <Tag color="purple">under way</Tag>
    ) : (
      <>
        {timer.nextVisit !== null && <Tag>{dateIn(timer.nextVisit)}</Tag>}
        <Button
          size={isPhone ? 'middle' : 'small'}
          aria-label={`Start visit: ${site.name}`}
          onClick={() => void navigate(`/timers/${timer.id}/found`, { state: START_VISIT })}
        >
          Start visit
        </Button>
      </>
    );
  const sorted = (name: Sort) => ({
    key: name,
    sorter: SORTS[name],
    sortOrder: sortOrderOf(name),
  });
  return (
    <div className="page page-wide">
      <div className="sites-head row">
        <h1>
          Sites <span className="soft">{all.length}</span>
        </h1>
        <Input
          type="search"
          aria-label="Find a site"
          placeholder="Name, number, town, person"
          value={sought}
          onChange={({ target }) => set({ find: target.value, page: null })}
        />
        {mayWork && (
          <>
            <Button type="primary" onClick={() => void navigate('/sites/new')}>
              New site
            </Button>
            <Button onClick={() => setImporting(true)}>Sites from a spreadsheet</Button>
            <FileButton
              label="Import a site (.zip)"
              accept=".zip,application/zip"
              take={([file]) => file && take(file)}
            />
          </>
        )}
      </div>
      {refusal && <Alert type="error" showIcon role="alert" title={refusal} />}
      {importing && (
        <Suspense>
          <SiteImport close={() => setImporting(false)} />
        </Suspense>
      )}
      <div className="row near" role="group" aria-label="Which sites">
        {(Object.keys(FILTERS) as Filter[]).map((one) => (
          <Button
            key={one}
            shape="round"
            type={one === filter ? 'primary' : 'default'}
            aria-pressed={one === filter}
            onClick={() => set({ show: one === 'all' ? null : one, page: null })}
          >
            {FILTERS[one].name} <b>{rows.filter((row) => FILTERS[one].has(row, today)).length}</b>
          </Button>
        ))}
      </div>
      <Table<SiteRow>
        className="sites"
        size="small"
        dataSource={shown}
        showHeader={!isPhone}
        scroll={isPhone ? {} : { x: 900 }}
        pagination={{
          pageSize: PAGE,
          hideOnSinglePage: true,
          current: Number(search.get('page') ?? 1) || 1,
          showSizeChanger: false,
        }}
        onChange={({ current = 1 }, _filters, sorter) => {
          const { columnKey, order: way } = Array.isArray(sorter) ? {} : sorter;
          set({
            page: current > 1 ? String(current) : null,
            sort: way ? `${way === 'descend' ? '-' : ''}${String(columnKey)}` : null,
          });
        }}
        locale={{
          emptyText: (
            <Empty
              image={Empty.PRESENTED_IMAGE_SIMPLE}
              description={
                all.length === 0
                  ? 'No sites yet. Add the first house with its timer.'
                  : 'No site is like that.'
              }
            />
          ),
        }}
        columns={
          isPhone
            ? [
                {
                  key: 'site',
                  render: (_, row) => (
                    <div className="stack near">
                      <div className="row near">
                        <span className="push-others">
                          <Name row={row} />
                        </span>
                        {next(row)}
                      </div>
                      <VerdictOf row={row} />
                    </div>
                  ),
                },
              ]
            : [
                { title: 'Site', ...sorted('site'), render: (_, row) => <Name row={row} /> },
                { title: 'Town', ...sorted('town'), dataIndex: 'town' },
                {
                  title: 'Verdict',
                  ...sorted('verdict'),
                  render: (_, row) => <VerdictOf row={row} />,
                },
                {
                  title: 'Week',
                  key: 'week',
                  width: 165,
                  render: (_, { timer }) => <WeekMini week={timer.week} />,
                },
                {
                  title: 'Stations',
                  ...sorted('stations'),
                  align: 'right',
                  render: (_, { timer }) => timer.stations,
                },
                {
                  title: 'Last visit',
                  ...sorted('last'),
                  render: (_, { timer }) => dateIn(timer.lastVisit),
                },
                { title: 'Next', ...sorted('next'), render: (_, row) => next(row) },
              ]
        }
      />
    </div>
  );
}
