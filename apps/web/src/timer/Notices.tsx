import { memo } from 'react';
import { Alert } from 'antd';
import { newsWords } from './newsWords.ts';
import type { Snapshot, TimerEditor } from '../editor/editor.ts';
import { usePreferences } from '../platform/preferences.tsx';

/** What the server refused, and what somebody else changed. */
export const Notices = memo(function Notices({
  refusal,
  news,
  editor,
}: Pick<Snapshot, 'refusal' | 'news'> & { readonly editor: TimerEditor }) {
  const { clock } = usePreferences();
  const closable = { onClose: () => editor.dismiss(), 'aria-label': 'Understood' };
  return (
    <>
      {refusal && <Alert type="error" showIcon role="alert" title={refusal} closable={closable} />}
      {news && (
        <Alert
          type="info"
          showIcon
          role="alert"
          title={`${news.by ?? 'Somebody'} changed this timer elsewhere.`}
          description={newsWords(news.before, news.after, clock)}
          closable={closable}
        />
      )}
    </>
  );
});
