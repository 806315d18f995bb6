import { Descriptions, Modal, Typography } from 'antd';
import { say } from '@water-clock/core';

const KEYS: readonly (readonly [where: string, keys: readonly (readonly [string, string])[]])[] = [
  [
    say`Everywhere`,
    [
      [say`Ctrl K`, say`go to a site, step or action`],
      ['?', say`show these shortcuts`],
    ],
  ],
  [
    say`In a visit`,
    [
      ['[  ]', say`previous step, next step`],
      [say`u, Ctrl Z`, say`undo`],
      [say`Ctrl Shift Z`, say`redo`],
    ],
  ],
  [
    say`On the board`,
    [
      [say`arrows, Home, End`, say`move between cells; Ctrl jumps to the edge, Shift selects`],
      [say`Enter`, say`enter and move down`],
      ['+  −', say`one step more or less`],
      [say`Delete`, say`clear the selection`],
      [say`Ctrl C, X, V`, say`copy, cut and paste, also with a spreadsheet`],
      [say`Ctrl D`, say`fill down`],
      [say`Alt ←, Alt →`, say`move to another program`],
      ['F2', say`edit in the cell`],
      [say`Escape`, say`discard what you typed`],
    ],
  ],
  [
    say`On the strip`,
    [
      ['← →', say`move the start time`],
      [say`Enter`, say`show seconds`],
    ],
  ],
];

/** The list of shortcuts. */
export default function KeysDialog({ close }: { readonly close: () => void }) {
  return (
    <Modal open title={say`Keyboard shortcuts`} footer={null} onCancel={close}>
      <div className="stack">
        {KEYS.map(([where, keys]) => (
          <Descriptions
            key={where}
            size="small"
            column={1}
            colon={false}
            title={where}
            items={keys.map(([key, words]) => ({
              key,
              label: <Typography.Text keyboard>{key}</Typography.Text>,
              children: words,
            }))}
          />
        ))}
      </div>
    </Modal>
  );
}
