import { useState } from 'react';

/** A setting of this device, not the person: sound, voice. */
export function useDeviceSwitch(
  name: string,
  usual: boolean,
): readonly [boolean, (on: boolean) => void] {
  const key = `water-clock:${name}`;
  const [on, setOn] = useState(() => {
    try {
      return (localStorage.getItem(key) ?? String(usual)) === 'true';
    } catch {
      return usual;
    }
  });
  const set = (next: boolean) => {
    setOn(next);
    try {
      localStorage.setItem(key, String(next));
    } catch {
      // Without storage it lasts while the page is open.
    }
  };
  return [on, set];
}
