import { lazy, memo, Suspense } from 'react';
import { Alert } from 'antd';
import { listed, momentWords, SECONDS_PER_DAY, say } from '@water-clock/core';
import { civilSecond, deviceZone } from '../../app/platform/zone.ts';
import type { Snapshot } from '../../data/editor/editing.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';
import { usePreferences } from '../../app/platform/preferences.tsx';

const NewsNotice = lazy(() => import('./NewsNotice.tsx'));

/** What the server refused, what somebody else changed, and settings that were put together and overlap. */
export const Notices = memo(function Notices({
  refusal,
  news,
  merging,
  overlaps,
  editor,
}: Pick<Snapshot, 'refusal' | 'news' | 'merging'> & {
  readonly overlaps: boolean;
  readonly editor: TimerEditor;
}) {
  const { clock, order } = usePreferences();
  const on = Math.floor(civilSecond(new Date(), deviceZone()) / SECONDS_PER_DAY);
  const closable = { onClose: () => editor.dismiss(), 'aria-label': say`OK` };
  return (
    <>
      {refusal && <Alert type="error" showIcon role="alert" title={refusal} closable={closable} />}
      {merging && overlaps && (
        <Alert
          type="warning"
          showIcon
          role="alert"
          title={say`${listed([merging.by, ...merging.over])} changed these settings separately. Together, they overlap.`}
          description={say`Merged ${momentWords(Math.floor(civilSecond(new Date(merging.at), deviceZone()) / 60) * 60, { on, clock, order })}. Everyone involved sees this until someone changes the settings.`}
        />
      )}
      {news && (
        <Suspense>
          <NewsNotice news={news} closable={closable} />
        </Suspense>
      )}
    </>
  );
});
