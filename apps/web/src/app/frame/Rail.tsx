import type { ReactNode } from 'react';
import { Button, Layout } from 'antd';
import { Link } from 'react-router';
import { PersonMenu } from './PersonMenu.tsx';
import { useScreen } from './useScreen.ts';
import { say } from '@water-clock/core';

/** The rail on the left: home, the given links, and the person at the bottom. Icons only on a tablet. */
export function Rail({ children }: { readonly children: ReactNode }) {
  const words = useScreen() === 'desktop';
  return (
    <Layout.Sider
      className="rail"
      theme="light"
      width={216}
      collapsedWidth={64}
      collapsed={!words}
      trigger={null}
    >
      <Button
        className="rail-skip"
        onClick={() => document.querySelector('main')?.focus()}
      >{say`Skip to the content`}</Button>
      <Link to="/" className="rail-home row plain heavy" aria-label={say`Water Clock: Today`}>
        <img src="/icon.svg" alt="" width="28" height="28" />
        {words && <span>{say`Water Clock`}</span>}
      </Link>
      <div className="rail-content">{children}</div>
      <PersonMenu words={words} />
    </Layout.Sider>
  );
}
