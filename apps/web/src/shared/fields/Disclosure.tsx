import { useState, type ReactNode } from 'react';
import { Collapse } from 'antd';

interface Props {
  readonly summary: ReactNode;
  readonly className?: string;
  readonly openAtFirst?: boolean;
  /** Something inside must be seen, so it is open regardless. */
  readonly mustBeOpen?: boolean;
  readonly children: () => ReactNode;
}

/** Content rendered only once opened, so that hidden content costs nothing while a key is handled. */
export function Disclosure(props: Props) {
  const { summary, className = '', openAtFirst = false, mustBeOpen = false, children } = props;
  const [pressed, setPressed] = useState(openAtFirst);
  const open = pressed || mustBeOpen;
  return (
    <Collapse
      ghost
      className={className}
      activeKey={open ? ['content'] : []}
      onChange={(keys) => setPressed(keys.length > 0)}
      items={[{ key: 'content', label: summary, children: open && children() }]}
    />
  );
}
