import { useState, type ReactElement } from 'react';
import { Dropdown, type MenuProps } from 'antd';

interface Props {
  readonly items: MenuProps['items'];
  readonly children: ReactElement;
}

/** The menu of a button, open as it comes. */
export default function OpenMenu({ items, children }: Props) {
  const [isOpen, setOpen] = useState(true);
  return (
    <Dropdown
      trigger={['click']}
      autoFocus
      open={isOpen}
      onOpenChange={setOpen}
      menu={{ ...(items ? { items } : {}) }}
    >
      {children}
    </Dropdown>
  );
}
