import { useMemo } from 'react';
import { CheckCircleFilled, MinusCircleOutlined } from '@ant-design/icons';
import {
  keyInLines,
  panelText,
  type KeyLine,
  type PanelNow,
  type Plan,
  say,
} from '@water-clock/core';

/** The key-in card of a plan, with a tick on each line the timer already has. */
export function BenchCard({
  target,
  box,
  now,
}: {
  readonly target: Plan;
  readonly box: Plan;
  readonly now: PanelNow;
}) {
  const { today } = now;
  const { style } = now;
  const lines = useMemo(
    () =>
      // The bench clock is right unless someone set it wrong.
      keyInLines(target, null, { style, today, secondOfDay: 0 }, true).filter(
        ({ setting }) => setting !== 'clock',
      ),
    [target, style, today],
  );
  const left = useMemo(
    () =>
      new Set(
        keyInLines(target, box, { style, today, secondOfDay: 0 }, true).flatMap(
          ({ ticks }) => ticks,
        ),
      ),
    [target, box, style, today],
  );
  // A line that stands for several is open while one of them is.
  const isLeft = ({ ticks }: KeyLine) => ticks.some((tick) => left.has(tick));
  const open = lines.filter(isLeft).length;
  return (
    <div className="stack near">
      <p>
        <strong>
          {left.size === 0
            ? say`Everything is keyed in.`
            : open === 1
              ? say`1 line is left.`
              : say`${open} lines are left.`}
        </strong>
      </p>
      <ul className="list ruled">
        {lines.map((line) => (
          <li key={line.id}>
            {isLeft(line) ? (
              <MinusCircleOutlined aria-label={say`not yet`} />
            ) : (
              <CheckCircleFilled aria-label={say`keyed in`} />
            )}
            <span>{line.name}</span>
            <strong>{panelText(line.value, style)}</strong>
          </li>
        ))}
      </ul>
    </div>
  );
}
