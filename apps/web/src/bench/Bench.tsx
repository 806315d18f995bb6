import { useMemo, useState } from 'react';
import { Button, Checkbox, Segmented, Tabs } from 'antd';
import { CaretRightOutlined, PauseOutlined, StepForwardOutlined } from '@ant-design/icons';
import {
  momentWords,
  SECONDS_PER_DAY,
  type BenchKey,
  type BenchStart,
  type Plan,
} from '@water-clock/core';
import { Patterns } from '../charts/patterns.tsx';
import { click } from '../hand/voice.ts';
import { usePreferences } from '../platform/preferences.tsx';
import { BenchCard } from './BenchCard.tsx';
import { BenchGarden } from './BenchGarden.tsx';
import { BenchLog } from './BenchLog.tsx';
import { BenchNight } from './BenchNight.tsx';
import { BenchPanel } from './BenchPanel.tsx';
import { BenchWorld } from './BenchWorld.tsx';
import { SPEEDS, useBench } from './useBench.ts';

interface Props {
  readonly start: BenchStart;
  /** What is to be keyed in; null: nothing is asked for. */
  readonly target: Plan | null;
}

/** A timer on the bench, with the garden that hangs on it. */
export function Bench({ start, target }: Props) {
  const hands = useBench(start);
  const { bench, act } = hands;
  const { clock, order, units } = usePreferences();
  const [isLoud, setLoud] = useState(false);
  const press = (key: BenchKey) => {
    if (isLoud) click();
    act({ key });
  };
  const { now, plan } = bench;
  const today = Math.floor(now / SECONDS_PER_DAY);
  const ahead = bench.clock === null ? 0 : bench.clock - now;
  const { kind } = start;
  const style = useMemo(
    () => ({
      dialect: plan.timer.dialect ?? {},
      ...{ clock, order },
      ...(kind?.rainDelay ? { rainDelay: kind.rainDelay } : {}),
    }),
    [plan.timer.dialect, clock, order, kind],
  );
  const happened = <BenchLog bench={bench} clock={clock} order={order} />;
  return (
    <div className="bench">
      <Patterns />
      <div className="stack">
        <BenchPanel display={bench.display()} lamps={bench.lamps()} plan={plan} press={press} />
        <p className="soft small">
          By the keyboard, with the focus in the panel: ← → page, ↓ ↑ less and more, P program, H by
          hand, S store, R rest.
        </p>
        <BenchWorld bench={bench} act={act} />
        <Checkbox checked={isLoud} onChange={({ target: { checked } }) => setLoud(checked)}>
          Keys make a sound
        </Checkbox>
      </div>
      <div className="stack">
        <div className="row near">
          <Segmented
            aria-label="How fast time goes by"
            value={hands.speed}
            options={SPEEDS.map((speed) => ({ value: speed, label: `×${speed}` }))}
            onChange={hands.setSpeed}
          />
          <Button
            icon={
              hands.isPaused ? <CaretRightOutlined aria-hidden /> : <PauseOutlined aria-hidden />
            }
            aria-label={hands.isPaused ? 'Let the time go on' : 'Stop the time'}
            onClick={() => hands.setPaused(!hands.isPaused)}
          />
          <Button icon={<StepForwardOutlined aria-hidden />} onClick={hands.toNextEvent}>
            Next event
          </Button>
          <strong className="push">{momentWords(now, { on: today - 1, clock, order })}</strong>
        </div>
        <BenchGarden beds={bench.garden()} units={units} />
        <BenchNight plan={plan} now={now} ahead={ahead} runs={bench.runsSoFar()} clock={clock} />
        {target ? (
          <Tabs
            items={[
              {
                key: 'card',
                label: 'Card',
                children: (
                  <BenchCard
                    target={target}
                    box={plan}
                    now={{ style, today, secondOfDay: now % SECONDS_PER_DAY }}
                  />
                ),
              },
              { key: 'log', label: 'What happened', children: happened },
            ]}
          />
        ) : (
          <section className="stack near" aria-labelledby="bench-log">
            <h2 id="bench-log">What happened</h2>
            {happened}
          </section>
        )}
      </div>
    </div>
  );
}
