import type { Difference } from '@water-clock/core';
import { Scroll } from '../../app/platform/Scroll.tsx';
import { say } from '@water-clock/core';

interface Props {
  readonly rows: readonly Difference[];
  readonly none: string;
  readonly before: string;
  readonly after: string;
}

/** Differences between two states, setting by setting. */
export function Differences({ rows, none, before, after }: Props) {
  if (rows.length === 0) return <p className="soft">{none}</p>;
  return (
    <Scroll label={say`Differences`}>
      <table className="conflict-table data">
        <thead>
          <tr>
            <th>{say`Setting`}</th>
            <th>{before}</th>
            <th>{after}</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.what}>
              <td>{row.what}</td>
              <td>{row.before}</td>
              <td>{row.after}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Scroll>
  );
}
