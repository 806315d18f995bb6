import { Descriptions, Modal, Typography } from 'antd';

const KEYS: readonly (readonly [where: string, keys: readonly (readonly [string, string])[]])[] = [
  [
    'Everywhere',
    [
      ['Ctrl K', 'go to a site, a step or an act'],
      ['?', 'these keys'],
    ],
  ],
  [
    'In a visit',
    [
      ['[  ]', 'the step before, the step after'],
      ['u, Ctrl Z', 'undo'],
      ['Ctrl Shift Z', 'redo'],
    ],
  ],
  [
    'On the board',
    [
      ['arrows, Home, End', 'go to a cell; with Ctrl to the edge, with Shift choose'],
      ['Enter', 'make it and go down'],
      ['+  −', 'one step more or less'],
      ['Delete', 'empty what is chosen'],
      ['Ctrl C, X, V', 'copy, cut and paste, also from and to a spreadsheet'],
      ['Ctrl D', 'fill down'],
      ['Alt ←, Alt →', 'move to another program'],
      ['F2', 'edit within the cell'],
      ['Escape', 'take back what is typed'],
    ],
  ],
  [
    'On the strip',
    [
      ['← →', 'move the start'],
      ['Enter', 'show it to the second'],
    ],
  ],
];

/** The keys, in one look. */
export default function KeysDialog({ close }: { readonly close: () => void }) {
  return (
    <Modal open title="Keys" footer={null} onCancel={close}>
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
