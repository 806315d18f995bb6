import { Alert, type AlertProps } from 'antd';
import { say } from '@water-clock/core';
import type { Snapshot } from '../../data/editor/editing.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { newsWords } from './newsWords.ts';

interface Props {
  readonly news: NonNullable<Snapshot['news']>;
  readonly closable: NonNullable<AlertProps['closable']>;
}

/** What someone else changed. */
export default function NewsNotice({ news, closable }: Props) {
  const { clock } = usePreferences();
  return (
    <Alert
      type="info"
      showIcon
      role="alert"
      title={say`${news.by ?? say`Someone`} changed this timer on another device.`}
      description={newsWords(news.before, news.after, clock)}
      closable={closable}
    />
  );
}
