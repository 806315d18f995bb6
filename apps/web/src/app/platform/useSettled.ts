import { useEffect, useState } from 'react';

const PAUSE_MS = 200;

/** A value that somebody types, once there is a pause in it. */
export function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const end = setTimeout(() => setSettled(value), PAUSE_MS);
    return () => clearTimeout(end);
  }, [value]);
  return settled;
}
