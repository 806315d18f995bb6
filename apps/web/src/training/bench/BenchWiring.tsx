import { useState } from 'react';
import { Button } from 'antd';
import type { LiveBench, StationTest } from '@water-clock/core';
import { WiringTable } from '../../visit/seen/WiringTable.tsx';
import { say } from '@water-clock/core';

/** A meter at the terminals: each station is powered for a moment, one after another. */
export function BenchWiring({ bench }: { readonly bench: LiveBench }) {
  const [tests, setTests] = useState<readonly StationTest[] | null>(null);
  return (
    <div className="stack near">
      <div>
        <Button
          disabled={bench.clock === null}
          onClick={() => setTests(bench.wiringTest())}
        >{say`Wiring test`}</Button>
      </div>
      {tests && <WiringTable tests={tests} stations={bench.plan.stations} />}
    </div>
  );
}
