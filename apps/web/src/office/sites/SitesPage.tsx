import { lazy, Suspense, useRef, useState } from 'react';
import { Alert, Button, Checkbox, Empty, Input, Popover, Progress, Table, Tag } from 'antd';
import { ControlOutlined, MoreOutlined } from '@ant-design/icons';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { PageHeading } from '../../app/platform/PageHeading.tsx';
import {
  filterOf,
  FILTERS,
  linesPath,
  useLines,
  type Filter,
  type TimerLine,
  type VersionedId,
  type WhichTimers,
} from '../../data/api/lines.ts';
import { useLibrary } from '../../data/api/library.ts';
import { usePeople } from '../../data/api/team.ts';
import { FileButton } from '../../shared/fields/FileButton.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { useScreen } from '../../app/frame/useScreen.ts';
import { useMayWork } from '../account/useMay.ts';
import { dateIn } from '../../app/platform/dateIn.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import {
  COLUMN_NAMES,
  COLUMNS,
  columnsOf,
  Name,
  USUAL,
  VerdictOf,
  type ColumnName,
} from './columns.tsx';
import { ManyBar } from './ManyBar.tsx';
import { useImportSite } from './useImportSite.ts';
import { START_VISIT } from '../../visit/shared/startVisit.ts';
import { say } from '@water-clock/core';

const SiteImport = lazy(() => import('./SiteImport.tsx'));

const PAGE = 20;
const ALL = 'all';

/** What changed recently is recalculated; until then the list says as of when. */
function Checking({ left, of }: { readonly left: number; readonly of: number }) {
  const most = Math.max(of, left);
  return (
    <Alert
      type="info"
      title={say`${left} timers are being rechecked. Until then the list shows their earlier status.`}
      description={<Progress percent={Math.floor((100 * (most - left)) / most)} />}
    />
  );
}

const PAUSE_MS = 200;

/** Typed text stays here until typing pauses; then the address and the request follow. */
function Finder({
  sought,
  seek,
}: {
  readonly sought: string;
  readonly seek: (text: string) => void;
}) {
  const [typed, setTyped] = useState<string | null>(null);
  const pause = useRef<ReturnType<typeof setTimeout>>(undefined);
  return (
    <Input
      type="search"
      aria-label={say`Find a site`}
      placeholder={say`Name, number, street, town, person, phone`}
      value={typed ?? sought}
      onChange={({ target: { value } }) => {
        setTyped(value);
        clearTimeout(pause.current);
        pause.current = setTimeout(() => seek(value), PAUSE_MS);
      }}
      onBlur={() => {
        clearTimeout(pause.current);
        if (typed !== null && typed !== sought) seek(typed);
        setTyped(null);
      }}
    />
  );
}

interface NarrowProps {
  readonly search: URLSearchParams;
  readonly seek: (values: Readonly<Record<string, string | null>>) => void;
  readonly columns: readonly ColumnName[] | null;
}

/** Rarely used options: person, rules, archived sites, and columns. */
function Narrow({ search, seek, columns }: NarrowProps) {
  const { like } = usePreferences();
  const people = usePeople();
  const rules = useLibrary('rules');
  const choices = [
    ['person', say`Technician`, 'anybody', people.data?.map(({ id, name }) => [id, name])],
    [
      'rules',
      say`Watering rules`,
      'any',
      rules.data?.map(({ id, document }) => [id, document.name]),
    ],
    ['state', say`Where`, say`active`, [['archived', say`archived`]]],
  ] as const;
  const tags = choices.flatMap(([name, , , options]) => {
    const value = search.get(name);
    const words = options?.find(([one]) => one === value)?.[1];
    return value === null ? [] : [{ name, words: words ?? 'chosen' }];
  });
  return (
    <>
      <Popover
        trigger="click"
        placement="bottomRight"
        getPopupContainer={({ parentElement }) => parentElement ?? document.body}
        content={
          <div className="stack" style={{ width: 340 }}>
            {choices.map(([name, label, usual, options = []]) => (
              <SelectField
                key={name}
                label={label}
                value={search.get(name) ?? ALL}
                options={[
                  [ALL, usual],
                  ...options.map(([value = '', words = '']) => [value, words] as const),
                ]}
                pick={(value) => seek({ [name]: value === ALL ? null : value })}
              />
            ))}
            {columns && (
              <div>
                <strong className="below">{say`Columns`}</strong>
                <Checkbox.Group
                  className="tiles of-150"
                  value={[...columns]}
                  options={COLUMNS.map((value) => ({ value, label: COLUMN_NAMES[value] }))}
                  onChange={(siteColumns: string[]) => like({ siteColumns })}
                />
              </div>
            )}
          </div>
        }
      >
        <Button shape="round" icon={<ControlOutlined />}>
          {columns ? say`More filters and columns` : say`More filters`}
        </Button>
      </Popover>
      {tags.map(({ name, words }) => (
        <Tag key={name} closable onClose={() => seek({ [name]: null })}>
          {words}
        </Tag>
      ))}
    </>
  );
}

/** All sites of the company; search, filters, sorting and page are part of the address. */
export default function SitesPage() {
  const { clock, order, liked } = usePreferences();
  const navigate = useNavigate();
  const mayWork = useMayWork();
  const [importing, setImporting] = useState(false);
  const [chosen, choose] = useState<readonly VersionedId[]>([]);
  const isPhone = useScreen() === 'phone';
  const { refusal, take } = useImportSite();
  const [search, setSearch] = useSearchParams();
  const sought = search.get('find') ?? '';
  const filter = filterOf(search.get('show'));
  const sort = search.get('sort') ?? '';
  const page = Number(search.get('page') ?? 1) || 1;
  const person = search.get('person');
  const ruled = search.get('rules');
  const isArchived = search.get('state') === 'archived';
  const which: WhichTimers = {
    find: sought,
    show: filter,
    ...(person ? { person } : {}),
    ...(ruled ? { rules: ruled } : {}),
    ...(isArchived ? { state: 'archived' } : {}),
  };
  const asked = { ...which, page, size: PAGE, ...(sort ? { sort } : {}) };
  const lines = useLines(asked, { clock, order });
  if (lines.isPending) return <Loading what={say`your sites`} />;
  if (lines.isError)
    return <Failed what={say`Your sites`} error={lines.error} retry={() => void lines.refetch()} />;
  const { counts, total, checking } = lines.data;

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
  /** The search changed since sites were selected. */
  const seek = (values: Readonly<Record<string, string | null>>) => {
    choose([]);
    set({ ...values, page: null });
  };
  // Safe cast: these are the entries of the table. A phone has no room for filters that would show nothing.
  const filters = (Object.keys(FILTERS) as Filter[]).filter(
    (one) => !isPhone || one === filter || one === 'all' || counts[one] > 0,
  );
  const columns = COLUMNS.filter((name) => (liked.siteColumns ?? USUAL).includes(name));
  const next = ({ id, site, underWay, nextVisit }: TimerLine) =>
    underWay ? (
      <Tag color="purple">{say`under way`}</Tag>
    ) : (
      <>
        {nextVisit !== null && <Tag>{dateIn(nextVisit, order)}</Tag>}
        <Button
          size={isPhone ? 'middle' : 'small'}
          aria-label={say`Start visit: ${site.name}`}
          onClick={() => void navigate(`/timers/${id}/found`, { state: START_VISIT })}
        >{say`Start visit`}</Button>
      </>
    );
  const finder = <Finder sought={sought} seek={(find) => seek({ find })} />;
  const files = (
    <div className="row near">
      {mayWork && (
        <>
          <Button onClick={() => setImporting(true)}>{say`Sites from a spreadsheet`}</Button>
          <FileButton
            label={say`Import site (.zip)`}
            accept=".zip,application/zip"
            take={([file]) => file && take(file)}
          />
        </>
      )}
      <Button
        href={linesPath('/api/timers.csv', asked)}
        disabled={total === 0}
      >{say`Export (.csv)`}</Button>
    </div>
  );
  return (
    <div className="page page-wide">
      <div className="sites-head row">
        <PageHeading title={say`Sites`}>
          {say`Sites`} <span className="soft">{counts.all}</span>
        </PageHeading>
        {!isPhone && finder}
        {mayWork && (
          <Button
            type="primary"
            onClick={() => void navigate('/sites/new')}
          >{say`New site`}</Button>
        )}
        {isPhone ? (
          <Popover trigger="click" placement="bottomRight" content={files}>
            <Button icon={<MoreOutlined />} aria-label={say`Files`} />
          </Popover>
        ) : (
          files
        )}
      </div>
      {isPhone && finder}
      {refusal && <Alert type="error" showIcon role="alert" title={refusal} />}
      {checking > 0 && <Checking left={checking} of={counts.all} />}
      {importing && (
        <Suspense>
          <SiteImport close={() => setImporting(false)} />
        </Suspense>
      )}
      <div className="row near" role="group" aria-label={say`Filter sites`}>
        {filters.map((one) => (
          <Button
            key={one}
            shape="round"
            type={one === filter ? 'primary' : 'default'}
            aria-pressed={one === filter}
            onClick={() => seek({ show: one === 'all' ? null : one })}
          >
            {FILTERS[one]} <b>{counts[one]}</b>
          </Button>
        ))}
        <Narrow search={search} seek={seek} columns={isPhone ? null : columns} />
      </div>
      {mayWork && (filter === 'breach' || filter === 'coming') && total > 0 && (
        <p>
          <Link to={`/replans${ruled ? `?rules=${ruled}` : ''}`}>{say`Replan all`}</Link>{' '}
          {say`Each site gets a plan that keeps the rules. You accept or decline it.`}
        </p>
      )}
      {chosen.length > 0 && <ManyBar {...{ chosen, choose, which, total }} />}
      <Table<TimerLine>
        className="sites"
        size="small"
        rowKey="id"
        dataSource={[...lines.data.lines]}
        showHeader={!isPhone}
        style={{ overflowX: 'auto' }}
        {...(mayWork && !isPhone
          ? {
              rowSelection: {
                selectedRowKeys: lines.data.lines
                  .filter(({ site }) => chosen.some(({ id }) => id === site.id))
                  .map(({ id }) => id),
                // A site with several timers is selected once, with all of them.
                onChange: (_: unknown, rows: readonly TimerLine[]) => {
                  const here = new Set(lines.data.lines.map(({ site }) => site.id));
                  const now = new Map(rows.map(({ site }) => [site.id, site]));
                  choose([...chosen.filter(({ id }) => !here.has(id)), ...now.values()]);
                },
              },
            }
          : {})}
        pagination={{
          pageSize: PAGE,
          hideOnSinglePage: true,
          current: page,
          total,
          showSizeChanger: false,
        }}
        onChange={({ current = 1 }, _filters, sorter, { action }) => {
          const { columnKey, order: way } = Array.isArray(sorter) ? {} : sorter;
          set({
            page: action === 'paginate' && current > 1 ? String(current) : null,
            sort: way ? `${way === 'descend' ? '-' : ''}${String(columnKey)}` : null,
          });
        }}
        locale={{
          emptyText: (
            <Empty
              image={Empty.PRESENTED_IMAGE_SIMPLE}
              description={
                counts.all === 0 && sought === '' && !person && !ruled && !isArchived
                  ? say`No sites yet. Add the first house with its timer.`
                  : say`No matching sites.`
              }
            />
          ),
        }}
        columns={
          isPhone
            ? [
                {
                  key: 'site',
                  render: (_, line) => (
                    <div className="stack near">
                      <div className="row near">
                        <span className="push-others">
                          <Name line={line} />
                        </span>
                        {next(line)}
                      </div>
                      <VerdictOf line={line} />
                    </div>
                  ),
                },
              ]
            : columnsOf(columns, sort, order, next)
        }
      />
    </div>
  );
}
