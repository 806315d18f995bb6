import { useState } from 'react';
import { Button, Table } from 'antd';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { StarFilled, StarOutlined } from '@ant-design/icons';
import { Link } from 'react-router';
import { listed, momentWords, plural, SECONDS_PER_DAY, say } from '@water-clock/core';
import { PageHeading } from '../../app/platform/PageHeading.tsx';
import { ownerName } from '../../data/api/whose.ts';
import { unsentHere, unsentWords } from './device.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Loading } from '../../app/platform/states.tsx';
import { civilSecond, deviceZone } from '../../app/platform/zone.ts';
import {
  forget,
  keptAnswer,
  keptPaths,
  keptTimers,
  MOST_KEPT_BYTES,
  MOST_KEPT_DAYS,
  type KeptAnswer,
} from '../../data/offlineCache/kept.ts';
import { star, starred } from '../../data/offline/starred.ts';
import { prefetch } from '../../data/offline/prefetch.ts';

interface KeptTimer {
  readonly id: string;
  readonly name: string;
  readonly at: number;
  readonly isStarred: boolean;
}

const PHOTO = /^\/api\/photos\//u;
const OTHER = /^\/api\/(?!photos\/|timers\/[0-9a-f-]{36}$)/u;

/** Name of a timer's site, from its stored answer. */
function nameIn(answer: KeptAnswer | null): string {
  // The cast only reads; missing parts are skipped.
  const body = answer?.body as
    { site?: { name?: string }; plan?: { timer?: { name?: string } } } | undefined;
  return [body?.site?.name, body?.plan?.timer?.name].filter(Boolean).join(', ') || say`a timer`;
}

async function keptHere() {
  const owner = ownerName();
  const all = await keptPaths(owner);
  const timers: KeptTimer[] = [];
  for (const { id, path, at } of await keptTimers(owner)) {
    const name = nameIn(await keptAnswer(owner, path));
    timers.push({ id, at, name, isStarred: starred().includes(id) });
  }
  return {
    timers,
    photos: all.filter(({ path }) => PHOTO.test(path)).length,
    others: all.filter(({ path }) => OTHER.test(path)).length,
    bytes: all.reduce((sum, { bytes }) => sum + bytes, 0),
    unsent: unsentWords(await unsentHere()),
  };
}

const KEPT_KEY = [say`kept on this device`];
const sizeWords = (bytes: number) =>
  bytes < 1e6 ? `${Math.ceil(bytes / 1e3)} kB` : `${Math.round(bytes / 1e6)} MB`;

/** What is stored on this device, how old it is, and what has not been sent. */
export default function KeptPage() {
  const { clock, order } = usePreferences();
  const client = useQueryClient();
  const kept = useQuery({ queryKey: KEPT_KEY, queryFn: keptHere, staleTime: 0 });
  const [said, setSaid] = useState<string | null>(null);
  const again = () => client.invalidateQueries({ queryKey: KEPT_KEY });
  const moment = (at: number) =>
    momentWords(Math.floor(civilSecond(new Date(at), deviceZone()) / 60) * 60, {
      on: Math.floor(civilSecond(new Date(), deviceZone()) / SECONDS_PER_DAY),
      ...{ clock, order },
    });
  if (!kept.data) return <Loading what={say`offline data`} />;
  const { timers, photos, others, bytes, unsent } = kept.data;
  const fetchAnew = async () => {
    setSaid(say`Loading …`);
    const missing = await prefetch(timers.map(({ id }) => id));
    setSaid(
      missing === 0
        ? say`Everything is synced.`
        : plural(
            missing,
            'One item could not be loaded. The earlier copy is still here.',
            '# items could not be loaded. The earlier copies are still here.',
          ),
    );
    await again();
  };
  return (
    <div className="page stack">
      <PageHeading title={say`On this device`} />
      <p className="column">{say`Today’s visits and everything you opened in the last ${MOST_KEPT_DAYS} days are available offline. Starred timers stay. All of it is deleted when you sign out.`}</p>
      <p>
        <strong>{say`${sizeWords(bytes)} of ${sizeWords(MOST_KEPT_BYTES)} used.`}</strong>{' '}
        {say`Stored: ${listed([
          plural(timers.length, '# timer', '# timers'),
          plural(photos, '# small photo', '# small photos'),
          plural(others, '# other item', '# other items'),
        ])}, such as the library.`}
      </p>
      <p role="status">
        {unsent === null
          ? say`Nothing is waiting to be sent.`
          : say`Waiting to be sent: ${unsent}. It is sent as soon as you are online.`}
      </p>
      <div className="row">
        <Button type="primary" onClick={() => void fetchAnew()}>{say`Refresh`}</Button>
        <Button
          danger
          onClick={() => void forget(ownerName()).then(again)}
        >{say`Delete offline data`}</Button>
        {said !== null && <span role="status">{said}</span>}
      </div>
      <Table<KeptTimer>
        size="small"
        rowKey="id"
        pagination={false}
        dataSource={timers}
        locale={{ emptyText: say`No timers are kept offline yet.` }}
        columns={[
          {
            title: say`Timer`,
            dataIndex: 'name',
            render: (name: string, { id }) => <Link to={`/timers/${id}`}>{name}</Link>,
          },
          { title: say`Synced`, dataIndex: 'at', render: moment },
          {
            title: say`Keep offline`,
            dataIndex: 'id',
            render: (id: string, { isStarred, name }) => (
              <Button
                type="text"
                aria-pressed={isStarred}
                aria-label={say`Keep ${name} offline`}
                icon={isStarred ? <StarFilled /> : <StarOutlined />}
                onClick={() => {
                  star([id], !isStarred);
                  void again();
                }}
              />
            ),
          },
        ]}
      />
    </div>
  );
}
