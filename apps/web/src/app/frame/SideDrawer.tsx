import type { ReactNode } from 'react';
import { Drawer } from 'antd';
import { useScreen } from './useScreen.ts';

/** What explains or judges the step: from the right, beside it; on a phone a sheet from below. */
export function SideDrawer({
  title,
  open,
  close,
  children,
}: {
  readonly title: ReactNode;
  readonly open: boolean;
  readonly close: () => void;
  readonly children: ReactNode;
}) {
  const isPhone = useScreen() === 'phone';
  return (
    <Drawer
      title={title}
      placement={isPhone ? 'bottom' : 'right'}
      size={isPhone ? '80vh' : 460}
      open={open}
      onClose={close}
      mask={isPhone}
      // Below the line with undo and the menu, which stay at hand.
      rootStyle={isPhone ? {} : { top: 54 }}
      destroyOnHidden
    >
      {children}
    </Drawer>
  );
}
