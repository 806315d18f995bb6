import { lazy, Suspense, useState } from 'react';
import { useMutation } from '@tanstack/react-query';
import { Alert, Button, Empty, Popconfirm, Progress, Table, Tag } from 'antd';
import { PhoneOutlined } from '@ant-design/icons';
import { Link, useParams, useSearchParams } from 'react-router';
import { dateWords, parseDate, plural, SECONDS_PER_DAY, say } from '@water-clock/core';
import { PageHeading } from '../../app/platform/PageHeading.tsx';
import { useSomeDay } from '../../data/api/calendar.ts';
import {
  SHOWN,
  timersToVisit,
  useAcceptance,
  useReplan,
  type Replan,
  type ReplanLine,
  type Shown,
} from '../../data/api/replans.ts';
import { failureWords } from '../../data/api/request.ts';
import { useScreen } from '../../app/frame/useScreen.ts';
import { useMayWork } from '../account/useMay.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { useCivilNow } from '../../app/platform/useCivilNow.ts';
import { deviceZone } from '../../app/platform/zone.ts';
import { progressWords, titleOf } from './words.ts';

const HouseDrawer = lazy(() => import('./HouseDrawer.tsx'));

const PAGE = 50;
/** Most timers in one request. */
const VISITS_AT_ONCE = 1_000;

const STATE_WORDS = {
  waiting: say`waiting`,
  fits: say`already complies`,
  none: say`no plan found`,
  proposed: say`needs your decision`,
} as const;
const ANSWERS = {
  accepted: say`accepted`,
  refused: say`declined`,
  withdrawn: say`replaced`,
} as const;

function State({ line }: { readonly line: ReplanLine }) {
  const { state, proposal } = line;
  if (proposal && proposal.state in ANSWERS)
    // Safe cast: one of the keys.
    return <Tag>{ANSWERS[proposal.state as keyof typeof ANSWERS]}</Tag>;
  return (
    <Tag color={state === 'none' ? 'red' : state === 'proposed' ? 'purple' : 'default'}>
      {STATE_WORDS[state]}
    </Tag>
  );
}

/** "Accept all" is a server job: it continues without the page, and can be stopped. */
function AcceptAll({ replan, count }: { readonly replan: Replan; readonly count: number }) {
  const { id, counts } = replan;
  const accept = useAcceptance(id, 'start');
  const stop = useAcceptance(id, 'stop');
  if (counts.accepting > 0)
    return (
      <span className="row near" role="status">
        {plural(counts.accepting, '1 plan left to accept', '# plans left to accept')}
        <Button loading={stop.isPending} onClick={() => stop.mutate()}>{say`Stop`}</Button>
      </span>
    );
  return (
    <>
      <Popconfirm
        title={plural(count, 'Accept 1 plan?', 'Accept # plans?')}
        description={say`The records change now. Each timer still has to be keyed in, by phone or on a visit. You can leave this page.`}
        okText={say`Accept all`}
        cancelText={say`Not now`}
        onConfirm={() => accept.mutate()}
      >
        <Button type="primary" disabled={count === 0} loading={accept.isPending}>
          {say`Accept all ${count}`}
        </Button>
      </Popconfirm>
      {counts.troubled > 0 && (
        <Alert
          type="warning"
          title={plural(
            counts.troubled,
            '1 plan could not be accepted. See below.',
            '# plans could not be accepted. See below.',
          )}
        />
      )}
      {(accept.error ?? stop.error) && (
        <Alert
          type="error"
          title={failureWords(accept.error ?? stop.error, say`Could not start accepting`)}
        />
      )}
    </>
  );
}

/** Adds the visits to the calendar, to be given a day and a person there. */
function PlanVisits({ replan, count }: { readonly replan: Replan; readonly count: number }) {
  const someDay = useSomeDay();
  const plan = useMutation({
    mutationFn: async () => {
      const timerIds = await timersToVisit(replan.id);
      let planned = 0;
      for (let at = 0; at < timerIds.length; at += VISITS_AT_ONCE) {
        const part = timerIds.slice(at, at + VISITS_AT_ONCE);
        ({ planned } = await someDay
          .mutateAsync({ timerIds: part, note: titleOf(replan) })
          .then((made) => ({ planned: planned + made.planned })));
      }
      return { planned };
    },
  });
  if (plan.data)
    return (
      <span role="status">
        {plural(plan.data.planned, '# visit planned.', '# visits planned.')}{' '}
        <Link to="/calendar?view=open">{say`Choose days`}</Link>
      </span>
    );
  return (
    <>
      <Button
        disabled={count === 0}
        loading={plan.isPending}
        onClick={() => plan.mutate()}
      >{say`Add ${count} visits to the calendar`}</Button>
      {plan.error && <Alert type="error" title={failureWords(plan.error, say`Not planned`)} />}
    </>
  );
}

/** The timers of a replan by town and street: to call, to visit, without a plan, decided. */
export default function ReplanPage() {
  const { replanId = '' } = useParams();
  const { clock, order } = usePreferences();
  const mayWork = useMayWork();
  const isPhone = useScreen() === 'phone';
  const [search, setSearch] = useSearchParams();
  const [looked, setLooked] = useState<ReplanLine | null>(null);
  const today = Math.floor(useCivilNow(deviceZone()) / SECONDS_PER_DAY);
  const asked = search.get('show');
  const show = (Object.keys(SHOWN) as Shown[]).find((one) => one === asked) ?? 'all';
  const page = Number(search.get('page') ?? 1) || 1;
  const replan = useReplan(replanId, show, page, { clock, order });
  if (replan.isPending) return <Loading what={say`the replan`} />;
  if (replan.isError)
    return <Failed what={say`Replan`} error={replan.error} retry={() => void replan.refetch()} />;
  const { counts, lines, total } = replan.data;
  const waits = counts.phone + counts.visit;
  const shown = (Object.keys(SHOWN) as Shown[]).filter(
    (one) => one !== 'troubled' || counts.troubled > 0 || show === one,
  );
  const linesWords = (line: ReplanLine, lines: number) => {
    const settings = plural(lines, '# setting', '# settings');
    const day = line.from === null ? null : parseDate(line.from);
    if (day === null) return settings;
    return day <= today
      ? say`${settings}, needed now`
      : say`${settings}, needed from ${dateWords(day, today, order)}`;
  };
  const place = ({ houseNumber, street, town }: ReplanLine) =>
    [
      street
        ? [street, houseNumber].filter(Boolean).join(' ')
        : houseNumber && `No. ${houseNumber}`,
      town,
    ]
      .filter(Boolean)
      .join(', ');
  const whatOf = (line: ReplanLine) => (
    <>
      <State line={line} />{' '}
      {line.lines !== null && <span className="soft">{linesWords(line, line.lines)}</span>}
      {line.reason && line.state !== 'fits' && <div>{line.reason}</div>}
      <div className="soft">{line.why}</div>
      {line.trouble && line.proposal?.state === 'sent' && (
        <div className="fault">{say`Not accepted: ${line.trouble}`}</div>
      )}
    </>
  );
  const act = (line: ReplanLine) =>
    line.proposal?.state === 'sent' ? (
      <Button
        onClick={() => setLooked(line)}
        aria-label={say`Review ${line.site}`}
      >{say`Review`}</Button>
    ) : line.state === 'none' ? (
      <Link to={`/timers/${line.timerId}/plan`}>{say`Plan it manually`}</Link>
    ) : null;
  const houseOf = (line: ReplanLine) => (
    <>
      <Link className="plain heavy" to={`/timers/${line.timerId}`}>
        {line.site}
      </Link>
      <div className="soft">{place(line)}</div>
    </>
  );
  const callOf = ({ person, phone }: ReplanLine) =>
    phone && (
      <a href={`tel:${phone}`} className="plain">
        <PhoneOutlined aria-hidden /> {person} <span className="soft">{phone}</span>
      </a>
    );
  return (
    <div className="page page-wide stack">
      <div className="sites-head row">
        <PageHeading title={titleOf(replan.data)} />
        {mayWork && counts.waiting === 0 && (
          <PlanVisits replan={replan.data} count={counts.visit} />
        )}
        {mayWork && counts.waiting === 0 && <AcceptAll replan={replan.data} count={waits} />}
      </div>
      <p role="status">
        {progressWords(replan.data)}.{' '}
        {counts.waiting > 0 && say`You can leave this page. Planning continues on the server.`}
      </p>
      {counts.waiting > 0 && (
        <Progress
          percent={Math.floor((100 * (counts.all - counts.waiting)) / Math.max(1, counts.all))}
        />
      )}
      <div className="row near" role="group" aria-label={say`Sites`}>
        {shown.map((one) => (
          <Button
            key={one}
            shape="round"
            type={one === show ? 'primary' : 'default'}
            aria-pressed={one === show}
            onClick={() => setSearch(one === 'all' ? {} : { show: one }, { replace: true })}
          >
            {SHOWN[one]} <b>{counts[one]}</b>
          </Button>
        ))}
      </div>
      <Table<ReplanLine>
        rowKey="id"
        size="small"
        className="replan"
        showHeader={!isPhone}
        dataSource={[...lines]}
        pagination={{
          pageSize: PAGE,
          current: page,
          total,
          hideOnSinglePage: true,
          showSizeChanger: false,
        }}
        onChange={({ current = 1 }) =>
          setSearch(
            {
              ...(show === 'all' ? {} : { show }),
              ...(current > 1 ? { page: String(current) } : {}),
            },
            { replace: true },
          )
        }
        locale={{
          emptyText: (
            <Empty image={Empty.PRESENTED_IMAGE_SIMPLE} description={say`No sites here.`} />
          ),
        }}
        columns={
          isPhone
            ? [
                {
                  key: 'all',
                  render: (_, line) => (
                    <div className="stack near">
                      {houseOf(line)}
                      <div>{whatOf(line)}</div>
                      {callOf(line)}
                      {act(line)}
                    </div>
                  ),
                },
              ]
            : [
                { title: say`Garden`, key: 'site', width: 230, render: (_, line) => houseOf(line) },
                { title: say`Change`, key: 'what', render: (_, line) => whatOf(line) },
                { title: say`Call`, key: 'call', render: (_, line) => callOf(line) },
                {
                  title: <span className="hidden-but-read">{say`Actions`}</span>,
                  key: 'act',
                  render: (_, line) => act(line),
                },
              ]
        }
      />
      {looked && (
        <Suspense>
          <HouseDrawer replan={replan.data} line={looked} close={() => setLooked(null)} />
        </Suspense>
      )}
    </div>
  );
}
