import { Button } from 'antd';
import type { BenchAct, GardenFault, LiveBench, Press } from '@water-clock/core';
import { BenchWiring } from './BenchWiring.tsx';
import { SelectField } from '../../shared/fields/SelectField.tsx';
import { say } from '@water-clock/core';

const NONE = 0;

/** What someone may have pressed who "only pressed something". */
function pressedSomething({ plan }: LiveBench, by: number): Press {
  const { stations, timer } = plan;
  const station = stations[by % Math.max(1, stations.length)]?.number ?? 1;
  const all: readonly Press[] = [
    { do: 'manual', station, seconds: 900 },
    ...(timer.seasonal.scope === 'timer'
      ? ([{ do: 'percent', to: timer.seasonal.highestPercent }] as const)
      : []),
    { do: 'rainDelay', hours: 48 },
    { do: 'mode', to: 'off' },
    { do: 'manual', seconds: 120 },
  ];
  return all[by % all.length] ?? { do: 'stop' };
}

/** Conditions as switches: weather, power, people and worn parts. */
export function BenchWorld({
  bench,
  act,
}: {
  readonly bench: LiveBench;
  readonly act: (act: BenchAct) => void;
}) {
  const { rain } = bench.lamps();
  const hasPower = bench.clock !== null;
  const { dead, sticking, shorted, shut } = bench.snapshot();
  const stations = [
    [NONE, 'none'] as const,
    ...bench.plan.stations.map(({ number }) => [number, say`station ${number}`] as const),
  ];
  const faulty = (fault: GardenFault['fault'], now: readonly number[], station: number) => {
    for (const one of now) act({ garden: { fault, station: one, on: false } });
    if (station !== NONE) act({ garden: { fault, station, on: true } });
  };
  return (
    <section className="stack near" aria-labelledby="bench-world">
      <h2 id="bench-world">{say`Conditions`}</h2>
      <div className="row near">
        <Button
          aria-pressed={bench.isWet}
          onClick={() => act({ world: { do: bench.isWet ? 'dry' : 'wet' } })}
        >
          {bench.isWet ? say`Rain stops` : say`Rain starts`}
        </Button>
        <Button
          aria-pressed={!hasPower}
          onClick={() => act({ world: { do: hasPower ? 'powerOff' : 'powerOn' } })}
        >
          {hasPower ? say`Power fails` : say`Power comes back`}
        </Button>
        <Button
          onClick={() => act({ world: pressedSomething(bench, bench.log.length) })}
        >{say`Someone presses a key`}</Button>
      </div>
      {bench.isWet && !rain && <p className="soft">{say`This timer has no rain sensor.`}</p>}
      <div className="tiles fill of-150">
        {(
          [
            ['sticks', say`Valve stays open`, sticking],
            ['shut', say`Valve stays closed`, shut],
            ['dead', say`Open circuit`, dead],
            ['shorts', say`Shorted coil`, shorted],
          ] as const
        ).map(([fault, label, now]) => (
          <SelectField
            key={fault}
            label={label}
            value={now[0] ?? NONE}
            options={stations}
            pick={(station) => faulty(fault, now, station)}
          />
        ))}
      </div>
      <BenchWiring bench={bench} />
    </section>
  );
}
