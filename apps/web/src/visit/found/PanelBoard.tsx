import { Fragment, type ReactNode } from 'react';
import { programLabel, type PanelLine, type PanelNow, say } from '@water-clock/core';
import { ProgramBadge } from '../../shared/charts/patterns.tsx';
import { shortName } from './PanelField.tsx';

interface Props {
  readonly letters: readonly string[];
  readonly now: PanelNow;
  readonly linesOf: (letter: string) => readonly PanelLine[];
  readonly field: (line: PanelLine, letter: string) => ReactNode;
  /** Whether this timer shows a program's total, which serves as a checksum. */
  readonly withTotal: boolean;
  readonly total: (letter: string) => ReactNode;
  /** What to ask about a program with nothing noted; null: show its lines. */
  readonly unused: (letter: string) => ReactNode;
  /** Takes the rest of a program as planned; null: everything was looked at. */
  readonly asPlanned: (letter: string) => ReactNode;
}

/** Lines of two programs that share a row: the same start, station or day setting. */
function rowOf({ address: place }: PanelLine): string {
  if (place.of === 'start') return say`start time ${place.slot}`;
  return place.of === 'run' ? say`run time ${place.station}` : place.of;
}

/**
 * All programs' settings in the display's wording, one column for each program. Enter and Tab go down the columns, in the order of the
 * panel.
 */
export function PanelBoard({
  letters,
  now,
  linesOf,
  field,
  withTotal,
  total,
  unused,
  asPlanned,
}: Props) {
  const { dialect } = now.style;
  const names = new Map<string, string>();
  for (const letter of letters)
    for (const line of linesOf(letter))
      if (!names.has(rowOf(line))) names.set(rowOf(line), shortName(line, now));
  const rows = [...names.keys()];
  const last = rows.length + 2;
  return (
    <div className="scroll">
      <div
        className="tiles near"
        style={{
          gridTemplateColumns: `minmax(150px, 1.2fr) repeat(${letters.length}, minmax(130px, 1fr))`,
        }}
      >
        {rows.map((row, i) => (
          <span key={row} className="bold" style={{ gridRow: i + 2, gridColumn: 1, paddingTop: 6 }}>
            {names.get(row)}
          </span>
        ))}
        {withTotal && (
          <span className="bold" style={{ gridRow: last, gridColumn: 1 }}>{say`Total shown`}</span>
        )}
        {letters.map((letter, at) => {
          const label = programLabel(letter, dialect);
          const column = at + 2;
          return (
            <Fragment key={letter}>
              <h2 className="row near" style={{ gridRow: 1, gridColumn: column }}>
                <ProgramBadge letter={letter} size={26} /> {say`Program ${label}`}
                {label !== letter && <span className="soft"> {say`(${letter} on the strip)`}</span>}
                {asPlanned(letter)}
              </h2>
              {unused(letter) ? (
                <p
                  className="row near"
                  style={{ gridRow: `2 / ${Math.max(3, last)}`, gridColumn: column }}
                >
                  {unused(letter)}
                </p>
              ) : (
                <>
                  {linesOf(letter).map((line) => (
                    <div
                      key={line.id}
                      style={{ gridRow: rows.indexOf(rowOf(line)) + 2, gridColumn: column }}
                    >
                      {field(line, letter)}
                    </div>
                  ))}
                  <div style={{ gridRow: last, gridColumn: column }}>{total(letter)}</div>
                </>
              )}
            </Fragment>
          );
        })}
      </div>
    </div>
  );
}
