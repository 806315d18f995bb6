/** What a person likes, kept on the device: 12 or 24 hours, daylight or night. */
import { createContext, useContext, useEffect, useState, type ReactNode } from 'react';
import type { ClockStyle, UnitSystem } from '@water-clock/core';

export type Theme = 'day' | 'night';

interface Preferences {
  readonly clock: ClockStyle;
  readonly theme: Theme;
  /** Of the house on the screen; metric elsewhere. */
  readonly units: UnitSystem;
  readonly setClock: (clock: ClockStyle) => void;
  readonly setTheme: (theme: Theme) => void;
}

const Context = createContext<Preferences | null>(null);

function stored<T extends string>(key: string, allowed: readonly T[], fallback: T): T {
  try {
    const value = localStorage.getItem(key);
    return allowed.find((one) => one === value) ?? fallback;
  } catch {
    return fallback;
  }
}

/** Hours as the device's own language writes them. */
function deviceClock(): ClockStyle {
  return new Intl.DateTimeFormat(undefined, { hour: 'numeric' }).resolvedOptions().hour12
    ? '12'
    : '24';
}

export function PreferencesProvider({ children }: { readonly children: ReactNode }) {
  const [clock, setClock] = useState<ClockStyle>(() =>
    stored('clock', ['12', '24'], deviceClock()),
  );
  const [theme, setTheme] = useState(() => stored<Theme>('theme', ['day', 'night'], 'day'));
  useEffect(() => {
    document.documentElement.dataset['theme'] = theme;
    try {
      localStorage.setItem('clock', clock);
      localStorage.setItem('theme', theme);
    } catch {
      // A device without storage still works; it only forgets.
    }
  }, [clock, theme]);
  return (
    <Context value={{ clock, theme, units: 'metric', setClock, setTheme }}>{children}</Context>
  );
}

/** What a house shows instead of what the person likes; null: nothing. */
export function HouseStyle({
  clock,
  units,
  children,
}: {
  readonly clock: ClockStyle | null;
  readonly units: UnitSystem | null;
  readonly children: ReactNode;
}) {
  const own = usePreferences();
  const value = { ...own, clock: clock ?? own.clock, units: units ?? own.units };
  return <Context value={value}>{children}</Context>;
}

export function usePreferences(): Preferences {
  const preferences = useContext(Context);
  if (!preferences) throw new Error('PreferencesProvider is missing');
  return preferences;
}
