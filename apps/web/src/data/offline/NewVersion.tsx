import { useEffect, useState } from 'react';
import { Alert, Button } from 'antd';
import { registerSW } from 'virtual:pwa-register';
import { say } from '@water-clock/core';

/** Registers the service worker and offers new versions. An update is never applied by itself, because a visit may be under way. */
export default function NewVersion() {
  const [take, setTake] = useState<(() => Promise<void>) | null>(null);
  useEffect(() => {
    const update = registerSW({ onNeedRefresh: () => setTake(() => () => update(true)) });
  }, []);
  if (!take) return null;
  return (
    <Alert
      banner
      role="status"
      type="info"
      title={say`A new version of Water Clock is ready. Updating reloads the page.`}
      action={<Button onClick={() => void take()}>{say`Update now`}</Button>}
    />
  );
}
