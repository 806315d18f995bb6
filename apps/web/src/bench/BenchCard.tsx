import { useMemo } from 'react';
import { CheckCircleFilled, MinusCircleOutlined } from '@ant-design/icons';
import { keyInLines, panelText, type PanelNow, type Plan } from '@water-clock/core';

/** The key-in card of a plan, each line with whether the box already has it. */
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
    () => keyInLines(target, null, { style, today, secondOfDay: 0 }, true),
    [target, style, today],
  );
  const left = useMemo(
    () =>
      new Set(keyInLines(target, box, { style, today, secondOfDay: 0 }, true).map(({ id }) => id)),
    [target, box, style, today],
  );
  const open = lines.filter(({ id }) => left.has(id)).length;
  return (
    <section className="stack near" aria-labelledby="bench-card">
      <h2 id="bench-card">
        Card to key in: {left.size === 0 ? 'all is in the box' : `${Math.max(open, 1)} lines left`}
      </h2>
      <ul className="list ruled">
        {lines.map((line) => (
          <li key={line.id}>
            {left.has(line.id) ? (
              <MinusCircleOutlined aria-label="not yet" />
            ) : (
              <CheckCircleFilled aria-label="in the box" />
            )}
            <span>{line.name}</span>
            <strong>{panelText(line.value, style)}</strong>
          </li>
        ))}
      </ul>
    </section>
  );
}
