import { useState } from 'react';
import { Button, Modal } from 'antd';
import {
  faultSentence,
  MOST_STATION_ROWS,
  readStationTable,
  stationTableChange,
  type Plan,
  type StationTable,
  type Survey,
} from '@water-clock/core';
import { rowsOf } from '../platform/csv.ts';
import { commitWords } from '../editor/commitWords.ts';
import type { TimerEditor } from '../editor/editor.ts';
import { FileButton } from '../fields/FileButton.tsx';

interface Props {
  readonly plan: Plan;
  readonly survey: Survey;
  readonly editor: TimerEditor;
  readonly close: () => void;
}

/** Stations from a spreadsheet: first shows what would be taken, with each bad cell marked, then takes it. */
export default function StationImport({ plan, survey, editor, close }: Props) {
  const [rows, setRows] = useState<readonly string[][] | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const table: StationTable | null = rows && readStationTable(rows, plan);
  const faultAt = (line: number, heading: string) =>
    table?.faults.find(
      (fault) => fault.line === line && fault.column === heading.trim().toLowerCase(),
    );
  const read = async (file: File) => {
    setFault(null);
    try {
      setRows(await rowsOf(file, MOST_STATION_ROWS));
    } catch (error) {
      setFault(`${file.name} cannot be read: ${error instanceof Error ? error.message : ''}`);
    }
  };
  const take = () => {
    if (!table) return;
    const refused = commitWords(editor, stationTableChange({ plan, survey }, table));
    setFault(refused);
    if (refused === null) close();
  };
  const [headings = [], ...lines] = rows ?? [];
  const isTooLong = lines.length > MOST_STATION_ROWS;
  return (
    <Modal
      open
      width={1000}
      title="Stations from a spreadsheet"
      onCancel={close}
      footer={[
        <Button key="leave" size="large" onClick={close}>
          Cancel
        </Button>,
        <Button
          key="take"
          size="large"
          type="primary"
          disabled={!table || table.entries.length === 0}
          onClick={take}
        >
          {table ? `Import ${table.entries.length} stations` : 'Import'}
        </Button>,
      ]}
    >
      <p>
        A CSV file with a column “number”. Export the stations to see the others. Empty cells leave
        what is there; marked cells are left out, and nothing else is.
      </p>
      <FileButton
        label="Choose a CSV file"
        accept=".csv,text/csv"
        take={([file]) => file && void read(file)}
      />
      {fault && (
        <p role="alert" className="fault">
          {fault}
        </p>
      )}
      {table && table.faults.length > 0 && (
        <ul className="cell-faults points" role="alert">
          {table.faults.slice(0, 12).map((fault, i) => (
            <li key={i} className="fault">
              Line {fault.line}, {fault.column}: {faultSentence(fault.fault)}
            </li>
          ))}
          {table.faults.length > 12 && <li>… and {table.faults.length - 12} more.</li>}
        </ul>
      )}
      {rows && !isTooLong && (
        <div className="scroll">
          <table className="data">
            <thead>
              <tr>
                <th>Line</th>
                {headings.map((heading, i) => (
                  <th key={i} className={faultAt(1, heading) ? 'cell-bad fault' : undefined}>
                    {heading}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {lines.map((row, i) => (
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
        </div>
      )}
    </Modal>
  );
}
