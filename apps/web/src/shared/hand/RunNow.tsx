import { useEffect, useRef } from 'react';
import { Button } from 'antd';
import { MutedOutlined, SoundOutlined } from '@ant-design/icons';
import { useDeviceSwitch } from './useDeviceSwitch.ts';
import { chime } from './voice.ts';
import { clockWords, type Countdown } from './useCountdown.ts';
import { say } from '@water-clock/core';

/** Countdown of a station running for a look. */
export function RunNow({
  number,
  countdown,
  seconds,
  setSeconds,
}: {
  readonly number: number;
  readonly countdown: Countdown;
  readonly seconds: number;
  readonly setSeconds: (seconds: number) => void;
}) {
  const left = countdown.left(number);
  const [isLoud, setLoud] = useDeviceSwitch('sound', true);
  const before = useRef(left);
  useEffect(() => {
    // Not when the page is opened after the time has ended.
    if (left === 0 && before.current && isLoud) chime();
    before.current = left;
  }, [left, isLoud]);
  return (
    <div className="run-now">
      {left === null ? (
        <Button
          type="dashed"
          className="watch huge"
          style={{ height: 'auto' }}
          aria-label={say`${clockWords(seconds)}, change to ${seconds === 60 ? '2:00' : '1:00'}`}
          onClick={() => setSeconds(seconds === 60 ? 120 : 60)}
        >
          {clockWords(seconds)}
        </Button>
      ) : (
        <p className="watch huge" role="timer" aria-label={say`Time left`}>
          {left === 0 ? say`Time` : clockWords(left)}
        </p>
      )}
      {left === null || left === 0 ? (
        <Button size="large" onClick={() => countdown.start(number, seconds)}>
          {left === 0 ? say`Again` : say`Start the clock`}
        </Button>
      ) : (
        <Button size="large" onClick={countdown.stop}>{say`Stop the clock`}</Button>
      )}
      <Button
        size="large"
        type="text"
        icon={isLoud ? <SoundOutlined /> : <MutedOutlined />}
        aria-label={isLoud ? say`Sound at the end: on` : say`Sound at the end: off`}
        onClick={() => setLoud(!isLoud)}
      />
    </div>
  );
}
