import { useState } from 'react';

/** A switch that belongs to this device and not to the person: its sound, its voice. */
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
      // Without storage it holds for as long as the page is open.
    }
  };
  return [on, set];
}
