import { useMemo, useState } from 'react';
import { Button, Slider } from 'antd';
import { LeftOutlined, RightOutlined } from '@ant-design/icons';
import {
  benchAfter,
  momentWords,
  SECONDS_PER_DAY,
  type BenchStart,
  type LoggedAct,
  type Task,
  say,
} from '@water-clock/core';
import { Screen } from './BenchPanel.tsx';
import { KEY_WORDS } from './keyWords.ts';

interface Props {
  readonly task: Task;
  /** The presses up to *Done*. */
  readonly log: readonly LoggedAct[];
  /** Index in the log; null: nothing that held was lost. */
  readonly wrong: number | null;
  readonly style: BenchStart['style'];
}

/** Replays the presses step by step and marks the one after which it went wrong. */
export function Replay({ task, log, wrong, style }: Props) {
  const [count, setCount] = useState(wrong === null ? 0 : wrong + 1);
  const bench = useMemo(() => benchAfter(task, log, count, style), [task, log, count, style]);
  const last = log[count - 1];
  const speech = { ...style, on: Math.floor(bench.now / SECONDS_PER_DAY) };
  const isWrong = wrong !== null && count === wrong + 1;
  const words =
    last === undefined
      ? say`Before the first press`
      : 'key' in last
        ? say`The key “${KEY_WORDS[last.key]}”, ${momentWords(last.at, speech)}`
        : say`Rain, power or people, ${momentWords(last.at, speech)}`;
  return (
    <section className="stack near" aria-label={say`Replay`}>
      <Slider
        min={0}
        max={log.length}
        value={count}
        onChange={setCount}
        tooltip={{ open: false }}
        ariaLabelForHandle={say`Replay`}
        {...(wrong === null ? {} : { marks: { [wrong + 1]: '!' } })}
      />
      <div className="row near">
        <Button
          icon={<LeftOutlined aria-hidden />}
          aria-label={say`Previous press`}
          disabled={count === 0}
          onClick={() => setCount(count - 1)}
        />
        <Button
          icon={<RightOutlined aria-hidden />}
          aria-label={say`Next press`}
          disabled={count === log.length}
          onClick={() => setCount(count + 1)}
        />
        <span role="status">
          {say`${count} of ${log.length}: ${words}`}
          {isWrong && (
            <strong className="fault"> {say`After this press it was worse than before.`}</strong>
          )}
        </span>
      </div>
      <div className="column">
        <Screen display={bench.display()} isEven />
      </div>
    </section>
  );
}
