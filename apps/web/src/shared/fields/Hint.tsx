import { Tooltip } from 'antd';
import type { ComponentProps } from 'react';

/** A few words about a control. They stand inside the page's landmark, so that a screen reader finds them there. */
export function Hint(props: Pick<ComponentProps<typeof Tooltip>, 'title' | 'children'>) {
  return (
    <Tooltip getPopupContainer={(trigger) => trigger.parentElement ?? document.body} {...props} />
  );
}
