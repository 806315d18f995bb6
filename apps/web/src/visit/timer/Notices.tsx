import { lazy, memo, Suspense } from 'react';
import { Alert } from 'antd';
import { say } from '@water-clock/core';
import type { Snapshot } from '../../data/editor/editing.ts';
import type { TimerEditor } from '../../data/editor/editor.ts';

const NewsNotice = lazy(() => import('./NewsNotice.tsx'));
const MergedNotice = lazy(() => import('./MergedNotice.tsx'));

/** Refused changes, others' changes, and merged settings that overlap. */
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
  const closable = { onClose: () => editor.dismiss(), 'aria-label': say`OK` };
  return (
    <>
      {refusal && <Alert type="error" showIcon role="alert" title={refusal} closable={closable} />}
      <Suspense>
        {merging && overlaps && <MergedNotice merging={merging} />}
        {news && <NewsNotice news={news} closable={closable} />}
      </Suspense>
    </>
  );
});
