import { lazy, Suspense, useMemo, useState } from 'react';
import { Button, Segmented } from 'antd';
import { Link, useSearchParams } from 'react-router';
import {
  emptyPlan,
  LiveBench,
  type BenchStart,
  type Plan,
  type TimerKind,
  say,
} from '@water-clock/core';
import { PageHeading } from '../../app/platform/PageHeading.tsx';
import { useLibrary } from '../../data/api/library.ts';
import { useTimer } from '../../data/api/timers.ts';
import { Disclosure } from '../../shared/fields/Disclosure.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { Failed, Loading } from '../../app/platform/states.tsx';
import { civilSecond, deviceZone } from '../../app/platform/zone.ts';
import { Bench } from './Bench.tsx';
import './bench.css';

const MakeTask = lazy(() => import('./MakeTask.tsx'));
const PracticeLine = lazy(() => import('./PracticeLine.tsx'));

type From = 'as-set' | 'empty';

/** Another timer or start means another bench. */
function OnBench({
  plan,
  kind,
  from,
}: {
  readonly plan: Plan | null;
  readonly kind: TimerKind | null;
  readonly from: From;
}) {
  const { clock, order } = usePreferences();
  const [now] = useState(() => civilSecond(new Date(), deviceZone()));
  const timer = plan?.timer ?? kind?.timer;
  const start = useMemo((): BenchStart | null => {
    if (!timer) return null;
    const empty = { ...emptyPlan(timer), ...(plan ? { stations: plan.stations } : {}) };
    return {
      plan: plan && from === 'as-set' ? plan : empty,
      ...{ now, ahead: 0, kind },
      style: { clock, order },
    };
  }, [timer, plan, kind, from, now, clock, order]);
  return (
    start && (
      <>
        <Bench make={() => new LiveBench(start)} rainDelay={kind?.rainDelay} target={plan} />
        {kind?.twoWire && (
          <Disclosure className="two-wires" summary={say`Two-wire line and decoders`}>
            {() => (
              <Suspense>
                <PracticeLine plan={start.plan} seed={start.plan.timer.name} now={now} />
              </Suspense>
            )}
          </Disclosure>
        )}
      </>
    )
  );
}

/** The bench: a timer of any kind, also the company's own, to practise on. */
export default function BenchPage() {
  const [search, setSearch] = useSearchParams();
  const timerId = search.get('timer') || null;
  const from: From = search.get('from') === 'empty' ? 'empty' : 'as-set';
  const [isMaking, setMaking] = useState(false);
  const kinds = useLibrary('kinds');
  const timer = useTimer(timerId ?? '', timerId !== null);
  const plan = timerId === null ? null : (timer.data?.plan ?? null);
  const names = kinds.data?.map(({ document }) => document.timer.name) ?? [];
  const name = plan?.timer.name ?? search.get('kind') ?? names[0] ?? '';
  const kind = kinds.data?.find(({ document }) => document.timer.name === name)?.document ?? null;
  if (kinds.isError)
    return <Failed what={say`The kinds`} error={kinds.error} retry={() => void kinds.refetch()} />;
  if (timer.isError)
    return <Failed what={say`The timer`} error={timer.error} retry={() => void timer.refetch()} />;
  if (!kinds.data || (timerId !== null && !plan)) return <Loading what={say`the bench`} />;
  return (
    <div className="page stack">
      <div className="row">
        <PageHeading title={say`Bench`} />
        <Link to="/bench/tasks">{say`Practice tasks`}</Link>
        {timerId === null ? (
          <SelectField
            aria-label={say`Kind of timer`}
            value={name}
            options={names.map((one) => [one, one] as const)}
            pick={(one) => setSearch({ kind: one })}
          />
        ) : (
          <>
            <span className="grow">
              {timer.data?.site.name}, {plan?.timer.name}
            </span>
            <Segmented<From>
              aria-label={say`Settings at the start`}
              value={from}
              options={[
                { value: 'as-set', label: say`As it is set` },
                { value: 'empty', label: say`Empty timer` },
              ]}
              onChange={(one) => setSearch({ timer: timerId, from: one })}
            />
            <Button onClick={() => setMaking(true)}>{say`Make a task from this`}</Button>
          </>
        )}
      </div>
      {isMaking && plan && (
        <Suspense>
          <MakeTask plan={plan} kind={kind} close={() => setMaking(false)} />
        </Suspense>
      )}
      <OnBench key={`${timerId ?? name}.${from}`} plan={plan} kind={kind} from={from} />
    </div>
  );
}
