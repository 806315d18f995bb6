import { useSyncExternalStore } from 'react';
import { Alert } from 'antd';
import { CloudOutlined } from '@ant-design/icons';
import { momentWords, SECONDS_PER_DAY, say } from '@water-clock/core';
import { usePreferences } from '../../app/platform/preferences.tsx';
import { civilSecond, deviceZone } from '../../app/platform/zone.ts';
import { syncStatus } from '../offlineCache/keeping.ts';

/** When the server does not answer: how old the shown data is. */
export function SyncStatus() {
  const { clock, order } = usePreferences();
  const behind = useSyncExternalStore(syncStatus.subscribe, syncStatus.behind);
  if (behind === null) return null;
  const at = Math.floor(civilSecond(new Date(behind), deviceZone()) / 60) * 60;
  const on = Math.floor(civilSecond(new Date(), deviceZone()) / SECONDS_PER_DAY);
  return (
    <Alert
      banner
      role="status"
      type="info"
      icon={<CloudOutlined aria-hidden />}
      title={say`Offline. You see data from ${momentWords(at, { on, clock, order })}. Your changes wait on this device.`}
    />
  );
}
