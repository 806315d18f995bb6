import { useState } from 'react';
import { Button, Modal } from 'antd';
import {
  MOST_STATION_ROWS,
  readStationTable,
  stationTableChange,
  type Plan,
  type StationTable,
  type Survey,
  say,
} from '@water-clock/core';
import { rowsOf } from '../../app/platform/csv.ts';
import { commitWords } from '../../data/editor/commitWords.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { CellFaults, CellTable } from '../../shared/fields/CellTable.tsx';
import { FileButton } from '../../shared/fields/FileButton.tsx';

interface Props {
  readonly plan: Plan;
  readonly survey: Survey;
  readonly editor: TimerEditor;
  readonly close: () => void;
}

/** Imports stations from a spreadsheet: first a preview with each bad cell marked, then the import. */
export default function StationImport({ plan, survey, editor, close }: Props) {
  const [rows, setRows] = useState<readonly string[][] | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const table: StationTable | null = rows && readStationTable(rows, plan);
  const read = async (file: File) => {
    setFault(null);
    try {
      setRows(await rowsOf(file, MOST_STATION_ROWS));
    } catch (error) {
      setFault(say`${file.name} cannot be read: ${error instanceof Error ? error.message : ''}`);
    }
  };
  const take = () => {
    if (!table) return;
    const refused = commitWords(editor, stationTableChange({ plan, survey }, table));
    setFault(refused);
    if (refused === null) close();
  };
  const isTooLong = rows !== null && rows.length > MOST_STATION_ROWS + 1;
  return (
    <Modal
      open
      width={1000}
      title={say`Stations from a spreadsheet`}
      onCancel={close}
      footer={[
        <Button key="leave" size="large" onClick={close}>{say`Cancel`}</Button>,
        <Button
          key="take"
          size="large"
          type="primary"
          disabled={!table || table.entries.length === 0}
          onClick={take}
        >
          {table ? say`Import ${table.entries.length} stations` : say`Import`}
        </Button>,
      ]}
    >
      <p>{say`A CSV file with a column “number”. Export the stations to see the other columns. Empty cells change nothing. Marked cells are skipped.`}</p>
      <FileButton
        label={say`Choose a CSV file`}
        accept=".csv,text/csv"
        take={([file]) => file && void read(file)}
      />
      {fault && (
        <p role="alert" className="fault">
          {fault}
        </p>
      )}
      {table && <CellFaults faults={table.faults} />}
      {rows && !isTooLong && <CellTable rows={rows} faults={table?.faults ?? []} />}
    </Modal>
  );
}
