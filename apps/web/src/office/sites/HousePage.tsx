import { useState } from 'react';
import { PageHeading } from '../../app/platform/PageHeading.tsx';
import { star, starred } from '../../data/offline/starred.ts';
import { prefetch } from '../../data/offline/prefetch.ts';
import { Alert, Button, Dropdown, Modal, Table, Tag } from 'antd';
import { MoreOutlined, StarFilled } from '@ant-design/icons';
import { Link, useNavigate, useParams } from 'react-router';
import { quantityWords, SECONDS_PER_DAY, tonightOf, say } from '@water-clock/core';
import {
  nameOf,
  useDeletePersonalData,
  useHouse,
  usePlace,
  useSiteState,
  type House,
  type HouseTimer,
} from '../../data/api/houses.ts';
import { useSomeDay } from '../../data/api/calendar.ts';
import { useSession } from '../../data/api/people.ts';
import { failureWords } from '../../data/api/request.ts';
import { useLines, type TimerLine } from '../../data/api/lines.ts';
import { exportPath } from '../../data/api/timers.ts';
import { VerdictMark } from '../../shared/charts/VerdictMark.tsx';
import { useScreen } from '../../app/frame/useScreen.ts';
import { useMayWork } from '../account/useMay.ts';
import { HouseStyle, usePreferences } from '../../app/platform/preferences.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { useCivilNow } from '../../app/platform/useCivilNow.ts';
import { AddTimer } from './AddTimer.tsx';
import { DeletionDialog } from './DeletionDialog.tsx';
import { HouseWater } from './HouseWater.tsx';
import { PlaceDialog } from './PlaceDialog.tsx';
import './house.css';

const archivePath = (id: string) => `/api/sites/${id}/archive`;

type Open =
  | { readonly what: 'add' | 'personal' | 'delete-house' }
  | { readonly what: 'place' | 'delete'; readonly timer: HouseTimer };

function HouseHead({ house, open }: { readonly house: House; readonly open: (o: Open) => void }) {
  const { units } = usePreferences();
  const mayWork = useMayWork();
  const isOwner = useSession().data?.person?.role === 'owner';
  const state = useSiteState();
  const [first] = house.timers;
  const { houseNumber, street, locality } = house;
  const inStreet =
    street === null
      ? houseNumber && `No. ${houseNumber}`
      : [houseNumber, street].filter(Boolean).join(' ');
  const address = [inStreet, locality].filter(Boolean).join(', ');
  const facts = [
    address,
    house.supplyFlow === null
      ? say`supply not measured`
      : say`supply ${quantityWords(units, 'flow', house.supplyFlow)}`,
  ].filter(Boolean);
  const timerIds = house.timers.map(({ id }) => id);
  const [isStarred, setIsStarred] = useState(() => timerIds.some((id) => starred().includes(id)));
  return (
    <>
      <div className="row">
        <PageHeading title={house.name}>
          {house.name} {isStarred && <StarFilled aria-label={say`kept offline`} />}{' '}
          {house.isArchived && <Tag>{say`archived`}</Tag>}
        </PageHeading>
        {mayWork && (
          <Button type="primary" onClick={() => open({ what: 'add' })}>{say`Add a timer`}</Button>
        )}
        {first && <Link to={`/timers/${first.id}/house`}>{say`Address, rules and supply`}</Link>}
        <Dropdown
          trigger={['click']}
          menu={{
            items: [
              {
                key: 'star',
                label: isStarred ? say`Stop keeping offline` : say`Keep offline`,
                onClick: () => {
                  star(timerIds, !isStarred);
                  setIsStarred(!isStarred);
                  if (!isStarred) void prefetch(timerIds);
                },
              },
              {
                key: 'file',
                label: <a href={archivePath(house.id)}>{say`Export (.zip)`}</a>,
              },
              ...(mayWork
                ? [
                    {
                      key: 'away',
                      label: house.isArchived ? say`Restore` : say`Archive`,
                      onClick: () => state.mutate({ house, isArchived: !house.isArchived }),
                    },
                  ]
                : []),
              ...(isOwner
                ? [
                    {
                      key: 'personal',
                      label: say`Delete customer details …`,
                      onClick: () => open({ what: 'personal' }),
                    },
                    {
                      key: 'delete',
                      danger: true,
                      label: say`Delete permanently …`,
                      onClick: () => open({ what: 'delete-house' }),
                    },
                  ]
                : []),
            ],
          }}
        >
          <Button icon={<MoreOutlined />} aria-label={say`Site actions`} />
        </Dropdown>
      </div>
      <p className="soft">{facts.join('; ')}</p>
      {state.error && <Alert type="error" title={failureWords(state.error, say`Not done`)} />}
    </>
  );
}

function StatusLine({ status }: { readonly status: TimerLine | undefined }) {
  if (!status) return null;
  return (
    <span className="row in-line near">
      {status.verdict !== null && <VerdictMark verdict={status.verdict} size={22} />}
      {status.headline}
    </span>
  );
}

function TimerTable({ house, open }: { readonly house: House; readonly open: (o: Open) => void }) {
  const { clock, order } = usePreferences();
  const mayWork = useMayWork();
  const isOwner = useSession().data?.person?.role === 'owner';
  const lines = useLines({ site: house.id }, { clock, order });
  const place = usePlace();
  const someDay = useSomeDay();
  const navigate = useNavigate();
  const isPhone = useScreen() === 'phone';
  const statuses = new Map(lines.data?.lines.map((line) => [line.id, line]));
  const menuOf = (timer: HouseTimer) => [
    ...(mayWork
      ? [
          {
            key: 'place',
            label: say`Rename or move …`,
            onClick: () => open({ what: 'place', timer }),
          },
          {
            key: 'visit',
            label: say`Plan a visit`,
            onClick: () =>
              someDay.mutate(
                { timerIds: [timer.id], note: '' },
                { onSuccess: () => void navigate('/calendar?view=open') },
              ),
          },
          {
            key: 'away',
            label: timer.isArchived ? say`Restore` : say`Archive`,
            onClick: () => place.mutate({ timer, to: { isArchived: !timer.isArchived } }),
          },
        ]
      : []),
    ...(isOwner
      ? [
          {
            key: 'delete',
            danger: true,
            label: say`Delete permanently …`,
            onClick: () => open({ what: 'delete', timer }),
          },
        ]
      : []),
  ];
  return (
    <>
      <Table<HouseTimer>
        rowKey="id"
        pagination={false}
        dataSource={[...house.timers]}
        locale={{ emptyText: say`No timers yet.` }}
        columns={[
          {
            title: say`Timer`,
            render: (_, timer) => (
              <>
                <Link className="plain heavy" to={`/timers/${timer.id}`}>
                  {nameOf(timer)}
                </Link>{' '}
                {timer.isArchived && <Tag>{say`archived`}</Tag>}
                {timer.name !== '' && <div className="soft">{timer.plan.timer.name}</div>}
                {isPhone && <StatusLine status={statuses.get(timer.id)} />}
              </>
            ),
          },
          ...(isPhone
            ? []
            : [
                {
                  title: say`Status`,
                  render: (_: unknown, { id }: HouseTimer) => (
                    <StatusLine status={statuses.get(id)} />
                  ),
                },
              ]),
          {
            title: <span className="hidden-but-read">{say`Actions`}</span>,
            width: 56,
            render: (_, timer) => (
              <Dropdown trigger={['click']} menu={{ items: menuOf(timer) }}>
                <Button
                  type="text"
                  icon={<MoreOutlined />}
                  aria-label={say`Actions for ${nameOf(timer)}`}
                />
              </Dropdown>
            ),
          },
        ]}
      />
      {place.error && <Alert type="error" title={failureWords(place.error, say`Not done`)} />}
    </>
  );
}

function PersonalDialog({ house, close }: { readonly house: House; readonly close: () => void }) {
  const deletion = useDeletePersonalData();
  return (
    <Modal
      open
      title={say`Delete customer details?`}
      okText={say`Delete`}
      okButtonProps={{ danger: true, loading: deletion.isPending }}
      cancelText={say`Keep it`}
      onCancel={close}
      onOk={() => deletion.mutate(house, { onSuccess: close })}
    >
      <p>{say`This deletes names, phone numbers, the site name, street address and notes. Timers, programs and logbooks stay. You cannot undo this.`}</p>
      {deletion.error && (
        <Alert type="error" title={failureWords(deletion.error, say`Not deleted`)} />
      )}
    </Modal>
  );
}

/** A site: its timers, and how they share one supply. */
export default function HousePage() {
  const { siteId = '' } = useParams();
  const navigate = useNavigate();
  const house = useHouse(siteId);
  const now = useCivilNow(house.data?.timeZone ?? 'UTC');
  const [open, setOpen] = useState<Open | null>(null);
  const close = () => setOpen(null);
  if (house.isPending) return <Loading what={say`the house`} />;
  if (house.isError)
    return <Failed what={say`The house`} error={house.error} retry={() => void house.refetch()} />;
  const { data } = house;
  return (
    <HouseStyle clock={data.clockStyle} units={data.units}>
      <div className="page stack">
        <HouseHead house={data} open={setOpen} />
        <TimerTable house={data} open={setOpen} />
        <HouseWater
          house={data}
          today={Math.floor(now / SECONDS_PER_DAY)}
          tonight={tonightOf(now)}
        />
        {open?.what === 'add' && <AddTimer house={data} close={close} />}
        {open?.what === 'personal' && <PersonalDialog house={data} close={close} />}
        {open?.what === 'place' && <PlaceDialog timer={open.timer} close={close} />}
        {open?.what === 'delete' && (
          <DeletionDialog
            of="timers"
            id={open.timer.id}
            name={nameOf(open.timer)}
            file={exportPath(open.timer.id)}
            close={close}
            done={close}
          />
        )}
        {open?.what === 'delete-house' && (
          <DeletionDialog
            of="sites"
            id={data.id}
            name={data.name}
            file={archivePath(data.id)}
            close={close}
            done={() => void navigate('/sites', { replace: true })}
          />
        )}
      </div>
    </HouseStyle>
  );
}
