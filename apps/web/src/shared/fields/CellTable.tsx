import { faultSentence, type CellFault, say } from '@water-clock/core';

const MOST_TOLD = 12;
/** Most rows shown; all are read. */
const MOST_SHOWN = 200;

/** Faults of a table, by cell. */
export function CellFaults({ faults }: { readonly faults: readonly CellFault[] }) {
  if (faults.length === 0) return null;
  return (
    <div className="cell-faults" role="alert">
      <ul className="points">
        {faults.slice(0, MOST_TOLD).map((fault, i) => (
          <li key={i} className="fault">
            {say`Line ${fault.line}, ${fault.column}: ${faultSentence(fault.fault)}`}
          </li>
        ))}
        {faults.length > MOST_TOLD && <li>{say`… and ${faults.length - MOST_TOLD} more.`}</li>}
      </ul>
    </div>
  );
}

interface Props {
  /** Header first. */
  readonly rows: readonly (readonly string[])[];
  readonly faults: readonly CellFault[];
}

/** A spreadsheet as read, with each bad cell marked. */
export function CellTable({ rows: [headings = [], ...lines], faults }: Props) {
  const byCell = new Map(faults.map((fault) => [`${fault.line} ${fault.column}`, fault]));
  const faultAt = (line: number, heading: string) =>
    byCell.get(`${line} ${heading.trim().toLowerCase()}`);
  return (
    <div className="scroll">
      <table className="data">
        <thead>
          <tr>
            <th>{say`Line`}</th>
            {headings.map((heading, i) => (
              <th key={i} className={faultAt(1, heading) ? 'cell-bad fault' : undefined}>
                {heading}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {lines.slice(0, MOST_SHOWN).map((row, i) => (
            <tr key={i}>
              <td className="soft">{i + 2}</td>
              {headings.map((heading, k) => {
                const bad = faultAt(i + 2, heading);
                return (
                  <td
                    key={k}
                    className={bad ? 'cell-bad fault' : undefined}
                    title={bad ? faultSentence(bad.fault) : undefined}
                  >
                    {row[k]}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      {lines.length > MOST_SHOWN && (
        <p className="soft">{say`and ${lines.length - MOST_SHOWN} more lines`}</p>
      )}
    </div>
  );
}
