import { useState } from 'react';
import { Alert, Button, Progress, Table } from 'antd';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { dateWords, monthName, monthOf, SECONDS_PER_DAY, say } from '@water-clock/core';
import { PageHeading } from '../../app/platform/PageHeading.tsx';
import { useLibrary } from '../../data/api/library.ts';
import { useLines } from '../../data/api/lines.ts';
import { useReplans, useStartReplan, type Replan } from '../../data/api/replans.ts';
import { failureWords } from '../../data/api/request.ts';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { useMayWork } from '../account/useMay.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { useCivilNow } from '../../app/platform/useCivilNow.ts';
import { deviceZone } from '../../app/platform/zone.ts';
import { progressWords, titleOf } from './words.ts';

const MONTHS = Array.from({ length: 12 }, (_, i) => i + 1);

/** How many gardens the rules affect. */
function Touched({ rulesId }: { readonly rulesId: string }) {
  const { clock, order } = usePreferences();
  const lines = useLines({ rules: rulesId, size: 1 }, { clock, order });
  if (!lines.data) return null;
  const { counts, checking } = lines.data;
  return (
    <p>
      {say`They apply to ${counts.all} sites:`}{' '}
      <Link to={`/sites?rules=${rulesId}&show=breach`}>{say`${counts.breach} break them now`}</Link>
      ,{' '}
      <Link to={`/sites?rules=${rulesId}&show=coming`}>
        {say`${counts.coming} will break the announced ones`}
      </Link>
      .{checking > 0 && say` ${checking} are still being checked.`}
    </p>
  );
}

/** Replans of many gardens, for changed rules or a month. */
export default function ReplansPage() {
  const { order } = usePreferences();
  const mayWork = useMayWork();
  const navigate = useNavigate();
  const [search, setSearch] = useSearchParams();
  const rules = useLibrary('rules');
  const replans = useReplans();
  const start = useStartReplan();
  const today = Math.floor(useCivilNow(deviceZone()) / SECONDS_PER_DAY);
  const [month, setMonth] = useState((monthOf(today) % 12) + 1);
  if (replans.isPending) return <Loading what={say`replans`} />;
  if (replans.isError)
    return (
      <Failed what={say`Replans`} error={replans.error} retry={() => void replans.refetch()} />
    );
  const rulesId = search.get('rules') ?? rules.data?.[0]?.id ?? '';
  const begin = (asked: Parameters<typeof start.mutate>[0]) =>
    start.mutate(asked, { onSuccess: (id) => void navigate(`/replans/${id}`) });
  return (
    <div className="page page-wide stack">
      <PageHeading title={say`Replan many sites`} />
      {start.error && (
        <Alert type="error" role="alert" title={failureWords(start.error, say`Not started`)} />
      )}
      <div className="tiles fill of-400 far">
        <section className="stack" aria-labelledby="replan-rules">
          <h2 id="replan-rules">{say`Rules have changed`}</h2>
          {rules.data?.length === 0 ? (
            <p>
              {say`Your library has no watering rules yet.`}{' '}
              <Link to="/library/rules">{say`Add rules`}</Link>.
            </p>
          ) : (
            <>
              <SelectField
                label={say`Rules`}
                value={rulesId}
                options={(rules.data ?? []).map(({ id, document }) => [id, document.name] as const)}
                pick={(id) => setSearch({ rules: id }, { replace: true })}
              />
              {rulesId && <Touched rulesId={rulesId} />}
              <p className="soft">{say`Each site that breaks them gets a plan that keeps them. Nothing changes until you accept it.`}</p>
              {mayWork && (
                <Button
                  type="primary"
                  loading={start.isPending}
                  disabled={!rulesId}
                  onClick={() => begin({ rulesId })}
                >{say`Replan all`}</Button>
              )}
            </>
          )}
        </section>
        <section className="stack" aria-labelledby="replan-percent">
          <h2 id="replan-percent">{say`Percent for a month`}</h2>
          <SelectField
            label={say`Month`}
            value={month}
            options={MONTHS.map((one) => [one, monthName(one)] as const)}
            pick={setMonth}
          />
          <p className="soft">{say`Lists each site that needs a different percent that month, with what to key in and what to say by phone.`}</p>
          {mayWork && (
            <Button type="primary" loading={start.isPending} onClick={() => begin({ month })}>
              {say`List sites for ${monthName(month)}`}
            </Button>
          )}
        </section>
      </div>
      <h2>{say`Earlier replans`}</h2>
      <Table<Replan>
        rowKey="id"
        size="small"
        pagination={false}
        dataSource={[...replans.data]}
        locale={{ emptyText: say`None yet.` }}
        columns={[
          {
            title: say`Replan`,
            render: (_, replan) => <Link to={`/replans/${replan.id}`}>{titleOf(replan)}</Link>,
          },
          {
            title: say`When`,
            render: (_, { at, by }) => {
              const day = Math.floor(Date.parse(at) / 1000 / SECONDS_PER_DAY);
              return `${dateWords(day, today, order)}, ${by}`;
            },
          },
          {
            title: say`Progress`,
            render: (_, replan) => {
              const { all, waiting } = replan.counts;
              return (
                <>
                  {progressWords(replan)}
                  {waiting > 0 && <Progress percent={Math.floor((100 * (all - waiting)) / all)} />}
                </>
              );
            },
          },
        ]}
      />
    </div>
  );
}
