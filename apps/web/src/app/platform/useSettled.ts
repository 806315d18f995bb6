import { useEffect, useState } from 'react';

const PAUSE_MS = 200;

/** A typed value, once typing pauses. */
export function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const end = setTimeout(() => setSettled(value), PAUSE_MS);
    return () => clearTimeout(end);
  }, [value]);
  return settled;
}
