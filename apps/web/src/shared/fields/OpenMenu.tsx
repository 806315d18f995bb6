import { useState, type ReactElement } from 'react';
import { Dropdown, type MenuProps } from 'antd';

interface Props {
  readonly items: MenuProps['items'];
  /** After closing. */
  readonly closed: () => void;
  readonly children: ReactElement;
}

/** The menu of a button, open from the start. */
export default function OpenMenu({ items, closed, children }: Props) {
  const [isOpen, setOpen] = useState(true);
  return (
    <Dropdown
      trigger={['click']}
      autoFocus
      open={isOpen}
      onOpenChange={(next) => {
        setOpen(next);
        if (!next) closed();
      }}
      menu={{ ...(items ? { items } : {}) }}
    >
      {children}
    </Dropdown>
  );
}
