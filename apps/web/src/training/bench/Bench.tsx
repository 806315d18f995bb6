import { useMemo, useState, type ReactNode } from 'react';
import { Button, Checkbox, Segmented, Tabs } from 'antd';
import { CaretRightOutlined, PauseOutlined, StepForwardOutlined } from '@ant-design/icons';
import {
  momentWords,
  SECONDS_PER_DAY,
  type BenchKey,
  type LiveBench,
  type Plan,
  type RainDelayOfKind,
  say,
} from '@water-clock/core';
import { Patterns } from '../../shared/charts/patterns.tsx';
import { useScreen } from '../../app/frame/useScreen.ts';
import { click } from '../../shared/hand/voice.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { BenchCard } from './BenchCard.tsx';
import { BenchGarden } from './BenchGarden.tsx';
import { BenchLog } from './BenchLog.tsx';
import { BenchNight } from './BenchNight.tsx';
import { BenchPanel } from './BenchPanel.tsx';
import { BenchWorld } from './BenchWorld.tsx';
import { SPEEDS, useBench } from './useBench.ts';

interface Props {
  /** Called once. */
  readonly make: () => LiveBench;
  readonly rainDelay: RainDelayOfKind | undefined;
  /** Settings to key in; null: free practice. */
  readonly target: Plan | null;
  readonly hasWorld?: boolean;
  readonly without?: readonly BenchKey[];
  /** Shown above it, with access to the bench. */
  readonly above?: (bench: LiveBench) => ReactNode;
}

/** A timer on the bench with its garden. */
export function Bench({ make, rainDelay, target, hasWorld = true, without = [], above }: Props) {
  const hands = useBench(make);
  const { bench, act } = hands;
  const { clock, order, units } = usePreferences();
  const [isLoud, setLoud] = useState(false);
  const isPhone = useScreen() === 'phone';
  const press = (key: BenchKey, fast: boolean) => {
    if (isLoud) click();
    act(fast ? { key, fast } : { key });
  };
  const { now, plan } = bench;
  const today = Math.floor(now / SECONDS_PER_DAY);
  const ahead = bench.clock === null ? 0 : bench.clock - now;
  const style = useMemo(
    () => ({
      dialect: plan.timer.dialect ?? {},
      ...{ clock, order },
      ...(rainDelay ? { rainDelay } : {}),
    }),
    [plan.timer.dialect, clock, order, rainDelay],
  );
  const happened = <BenchLog bench={bench} clock={clock} order={order} />;
  const beside = target ? (
    <Tabs
      items={[
        {
          key: 'card',
          label: say`Card`,
          children: (
            <BenchCard
              target={target}
              box={plan}
              now={{ style, today, secondOfDay: now % SECONDS_PER_DAY }}
            />
          ),
        },
        { key: 'log', label: say`Log`, children: happened },
      ]}
    />
  ) : (
    <section className="stack near" aria-labelledby="bench-log">
      <h2 id="bench-log">{say`Log`}</h2>
      {happened}
    </section>
  );
  return (
    <>
      {above?.(bench)}
      <div className="tiles fill of-400 far">
        <Patterns />
        <div className="stack">
          <BenchPanel
            isEven={now % 2 === 0}
            display={bench.display()}
            lamps={bench.lamps()}
            plan={plan}
            without={without}
            press={press}
          />
          <p className="soft small">{say`Keyboard, with the focus on the panel: ← → page, ↓ ↑ less and more, P program, H manual, S enter, R off. Hold Shift or the key to go faster.`}</p>
          {/* On a phone the card stands below the keys. */}
          {isPhone && beside}
          {hasWorld && <BenchWorld bench={bench} act={act} />}
          <Checkbox
            checked={isLoud}
            onChange={({ target: { checked } }) => setLoud(checked)}
          >{say`Key sounds`}</Checkbox>
        </div>
        <div className="stack">
          <div className="row near">
            <Segmented
              aria-label={say`Time speed`}
              value={hands.speed}
              options={SPEEDS.map((speed) => ({ value: speed, label: `×${speed}` }))}
              onChange={hands.setSpeed}
            />
            <Button
              icon={
                hands.isPaused ? <CaretRightOutlined aria-hidden /> : <PauseOutlined aria-hidden />
              }
              aria-label={hands.isPaused ? say`Run time` : say`Pause time`}
              onClick={() => hands.setPaused(!hands.isPaused)}
            />
            <Button
              icon={<StepForwardOutlined aria-hidden />}
              onClick={hands.toNextEvent}
            >{say`Next event`}</Button>
            <strong className="push">{momentWords(now, { on: today - 1, clock, order })}</strong>
          </div>
          <BenchGarden beds={bench.garden()} units={units} />
          <BenchNight plan={plan} now={now} ahead={ahead} runs={bench.runsSoFar()} clock={clock} />
          {!isPhone && beside}
        </div>
      </div>
    </>
  );
}
