import { useEffect, useRef } from 'react';
import { Button } from 'antd';
import {
  lengthWords,
  startWords,
  timeWords,
  SECONDS_PER_DAY,
  type ClockStyle,
  type Night,
  type Plan,
  say,
} from '@water-clock/core';
import { RunsTable } from '../../shared/charts/RunsTable.tsx';
import { Scroll } from '../../app/platform/Scroll.tsx';

interface Props {
  readonly cycle: Night['intended'][number];
  readonly plan: Plan;
  readonly clock: ClockStyle;
  readonly close: () => void;
}

/** One block of the strip to the second: when each valve opens and closes. */
export default function CycleDetails({ cycle, plan, clock, close }: Props) {
  const { letter, start, begins, ends, runs } = cycle;
  const section = useRef<HTMLElement>(null);
  useEffect(() => {
    section.current?.scrollIntoView({ block: 'nearest' });
  }, [letter, start]);
  const time = (moment: number) => timeWords(moment % SECONDS_PER_DAY, clock);
  return (
    <section
      ref={section}
      className="cycle-details notice stack"
      aria-label={say`Cycle of ${letter} in seconds`}
    >
      <div className="row spread">
        <h2>
          {say`${letter}, start time ${startWords(start, clock)}: ${time(begins)} to ${time(ends)}, ${lengthWords(ends - begins)}`}
        </h2>
        <Button onClick={close}>{say`Close`}</Button>
      </div>
      {runs.length === 0 && (
        <p className="soft">{say`These nights are too busy to show single valves.`}</p>
      )}
      <Scroll label={say`Runs`} className="night-table">
        <RunsTable
          caption={say`As it would run alone`}
          runs={runs.map((run) => ({ letter, ...run }))}
          plan={plan}
          clock={clock}
        />
      </Scroll>
    </section>
  );
}
