import { Button, Modal } from 'antd';
import { recordDifferences, timeWords, type ClockStyle } from '@water-clock/core';
import type { Conflict } from './editor.ts';

interface Row {
  readonly what: string;
  readonly saved: string;
  readonly yours: string;
  readonly both: boolean;
}

/** Each setting that either side changed, with both values. */
function rowsOf({ base, mine, theirs }: Conflict, clock: ClockStyle): Row[] {
  const their = recordDifferences(base, theirs, clock);
  const own = recordDifferences(base, mine, clock);
  const names = new Set([...their, ...own].map(({ what }) => what));
  return [...names].map((what) => {
    const a = their.find((difference) => difference.what === what);
    const b = own.find((difference) => difference.what === what);
    return {
      what,
      saved: a?.after ?? b?.before ?? '',
      yours: b?.after ?? a?.before ?? '',
      both: a !== undefined && b !== undefined,
    };
  });
}

interface Props {
  readonly conflict: Conflict;
  readonly clock: ClockStyle;
  readonly resolve: (choice: 'theirs' | 'mine') => void;
}

/** When it was saved, on this device's clock. */
function whenWords(at: string | null, clock: ClockStyle): string {
  if (at === null) return '';
  const date = new Date(at);
  return ` at ${timeWords(date.getHours() * 3600 + date.getMinutes() * 60, clock)}`;
}

/** Two tabs or two people changed the same timer: both sides, and the choice between them. */
export default function ConflictDialog({ conflict, clock, resolve }: Props) {
  const rows = rowsOf(conflict, clock);
  const who = conflict.theirs.by ?? 'Somebody';
  return (
    <Modal
      open
      width={720}
      closable={false}
      keyboard={false}
      mask={{ closable: false }}
      title={`${who} changed this timer elsewhere${whenWords(conflict.theirs.at, clock)}, while you were changing it here`}
      footer={[
        <Button key="theirs" size="large" onClick={() => resolve('theirs')}>
          Keep what is saved
        </Button>,
        <Button key="mine" size="large" type="primary" onClick={() => resolve('mine')}>
          Put mine on top
        </Button>,
      ]}
    >
      <p>Nothing was overwritten: your change is not saved yet.</p>
      <table className="conflict-table data">
        <thead>
          <tr>
            <th>Setting</th>
            <th>Saved</th>
            <th>Yours</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ what, saved, yours, both }) => (
            <tr key={what} className={both ? 'heavy' : undefined}>
              <td>
                {what}
                {both && ' (both changed it)'}
              </td>
              <td>{saved}</td>
              <td>{yours}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="soft">
        “Put mine on top” saves your change after the other one; where only the other side changed a
        setting, theirs stays.
      </p>
    </Modal>
  );
}
