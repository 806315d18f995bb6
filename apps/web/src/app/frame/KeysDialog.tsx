import { Descriptions, Modal, Typography } from 'antd';
import { say } from '@water-clock/core';

const KEYS: readonly (readonly [where: string, keys: readonly (readonly [string, string])[]])[] = [
  [
    say`Everywhere`,
    [
      [say`Ctrl K`, say`go to a site, a step or an act`],
      ['?', say`these keys`],
    ],
  ],
  [
    say`In a visit`,
    [
      ['[  ]', say`the step before, the step after`],
      [say`u, Ctrl Z`, say`undo`],
      [say`Ctrl Shift Z`, say`redo`],
    ],
  ],
  [
    say`On the board`,
    [
      [say`arrows, Home, End`, say`go to a cell; with Ctrl to the edge, with Shift choose`],
      [say`Enter`, say`make it and go down`],
      ['+  −', say`one step more or less`],
      [say`Delete`, say`empty what is chosen`],
      [say`Ctrl C, X, V`, say`copy, cut and paste, also from and to a spreadsheet`],
      [say`Ctrl D`, say`fill down`],
      [say`Alt ←, Alt →`, say`move to another program`],
      ['F2', say`edit within the cell`],
      [say`Escape`, say`take back what is typed`],
    ],
  ],
  [
    say`On the strip`,
    [
      ['← →', say`move the start`],
      [say`Enter`, say`show it to the second`],
    ],
  ],
];

/** The keys, in one look. */
export default function KeysDialog({ close }: { readonly close: () => void }) {
  return (
    <Modal open title={say`Keys`} footer={null} onCancel={close}>
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
