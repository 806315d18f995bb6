import { lazy, Suspense, useState } from 'react';
import { Button, type ButtonProps, type MenuProps } from 'antd';

const openMenu = () => import('./OpenMenu.tsx');
const OpenMenu = lazy(openMenu);

type Props = Omit<ButtonProps, 'onClick'> & { readonly items: MenuProps['items'] };

/** A button with a menu, whose code comes as somebody is about to press it. */
export function MenuButton({ items, ...rest }: Props) {
  const [wasPressed, setPressed] = useState(false);
  const soon = () => void openMenu().catch(() => undefined);
  const button = (
    <Button
      {...rest}
      aria-haspopup="menu"
      onPointerEnter={soon}
      onFocus={soon}
      {...(wasPressed ? {} : { onClick: () => setPressed(true) })}
    />
  );
  return wasPressed ? (
    <Suspense fallback={button}>
      <OpenMenu items={items}>{button}</OpenMenu>
    </Suspense>
  ) : (
    button
  );
}
