import { lazy, Suspense, useRef, useState } from 'react';
import { Button, type ButtonProps, type MenuProps } from 'antd';

const openMenu = () => import('./OpenMenu.tsx');
const OpenMenu = lazy(openMenu);

type Props = Omit<ButtonProps, 'onClick'> & { readonly items: MenuProps['items'] };

/** A button with a menu, whose code loads just before it is pressed. */
export function MenuButton({ items, ...rest }: Props) {
  const place = useRef<HTMLButtonElement>(null);
  const [wasPressed, setPressed] = useState(false);
  const soon = () => void openMenu().catch(() => undefined);
  const button = (
    <Button
      {...rest}
      ref={place}
      aria-haspopup="menu"
      onPointerEnter={soon}
      onFocus={soon}
      {...(wasPressed ? {} : { onClick: () => setPressed(true) })}
    />
  );
  return wasPressed ? (
    <Suspense fallback={button}>
      <OpenMenu items={items} closed={() => place.current?.focus()}>
        {button}
      </OpenMenu>
    </Suspense>
  ) : (
    button
  );
}
