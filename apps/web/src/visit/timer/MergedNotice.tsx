import { Alert } from 'antd';
import { listed, momentWords, say, SECONDS_PER_DAY } from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { civilSecond, deviceZone } from '../../app/platform/zone.ts';
import type { Snapshot } from '../../data/editor/editing.ts';

/** Settings that two people changed separately and that overlap together. */
export default function MergedNotice({
  merging,
}: {
  readonly merging: NonNullable<Snapshot['merging']>;
}) {
  const { clock, order } = usePreferences();
  const on = Math.floor(civilSecond(new Date(), deviceZone()) / SECONDS_PER_DAY);
  const at = Math.floor(civilSecond(new Date(merging.at), deviceZone()) / 60) * 60;
  return (
    <Alert
      type="warning"
      showIcon
      role="alert"
      title={say`${listed([merging.by, ...merging.over])} changed these settings separately. Together, they overlap.`}
      description={say`Merged ${momentWords(at, { on, clock, order })}. Everyone involved sees this until the settings change.`}
    />
  );
}
