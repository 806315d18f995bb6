import type { ReactNode } from 'react';
import { Drawer } from 'antd';
import { useScreen } from './useScreen.ts';

/** A drawer from the right with help or checks for the step; on a phone, a sheet from the bottom. */
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
      // Below the bar with undo and the menu, which stay reachable.
      rootStyle={isPhone ? {} : { top: 54 }}
      destroyOnHidden
    >
      {children}
    </Drawer>
  );
}
