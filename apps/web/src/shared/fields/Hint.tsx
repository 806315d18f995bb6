import { Tooltip } from 'antd';
import type { ComponentProps } from 'react';

/** A short hint about a control, inside the page's landmark so that screen readers find it there. */
export function Hint(props: Pick<ComponentProps<typeof Tooltip>, 'title' | 'children'>) {
  return (
    <Tooltip getPopupContainer={(trigger) => trigger.parentElement ?? document.body} {...props} />
  );
}
