/** What a person likes. It goes with the person; a copy on the device is for the time before anybody is signed in. */
import {
  createContext,
  useCallback,
  useContext,
  useEffect,
  useLayoutEffect,
  useMemo,
  useState,
  type ReactNode,
} from 'react';
import { useQuery } from '@tanstack/react-query';
import type { ClockStyle, DateOrder, UnitSystem } from '@water-clock/core';
import { useLike } from '../../data/api/preferences.ts';
import type { UserPreferences } from '../../data/api/userPreferences.ts';
import { sessionQuery } from '../../data/api/people.ts';
import { isSpoken } from './language.ts';
import { applyTheme, type Look } from './theme.ts';

interface Preferences extends Look {
  readonly clock: ClockStyle;
  readonly order: DateOrder;
  readonly weekStart: 'mon' | 'sun';
  /** Of the house on the screen; of the person elsewhere. */
  readonly units: UnitSystem;
  /** As the person chose, without what the device adds. */
  readonly liked: UserPreferences;
  readonly like: (change: UserPreferences) => void;
  /** The last change is not on the server, and holds on this device until it is. */
  readonly isUnsaved: boolean;
}

const Context = createContext<Preferences | null>(null);

const STORE = 'preferences';

export function storedPreferences(): UserPreferences {
  try {
    // The cast trusts our own copy; a value that is none of the words falls back below.
    return JSON.parse(localStorage.getItem(STORE) ?? '{}') as UserPreferences;
  } catch {
    return {};
  }
}

/** Hours and dates as the device's own language writes them. */
function ofDevice() {
  const { hour12 } = new Intl.DateTimeFormat(undefined, { hour: 'numeric' }).resolvedOptions();
  const parts = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'numeric' });
  const [first] = parts.formatToParts(0).filter(({ type }) => type !== 'literal');
  return {
    clock: hour12 ? '12' : '24',
    order: first?.type === 'month' ? 'month-day' : 'day-month',
  } as const;
}

const TEXT = { least: 100, most: 200 };

export function PreferencesProvider({ children }: { readonly children: ReactNode }) {
  // Whoever asks for the session fills this; nobody is asked for it here, since the homeowner's page has none.
  const session = useQuery({ ...sessionQuery, enabled: false });
  const kept = session.data?.preferences?.preferences;
  const [device] = useState(ofDevice);
  const [first] = useState(storedPreferences);
  /** What was changed and is not known to be saved. */
  const [pending, setPending] = useState<UserPreferences>({});
  const { mutate, isError } = useLike();
  const liked = useMemo(
    (): UserPreferences => ({ ...(kept ?? first), ...pending }),
    [kept, first, pending],
  );
  const like = useCallback(
    (change: UserPreferences) => {
      setPending((last) => ({ ...last, ...change }));
      mutate(change, {
        onSuccess: (saved) => {
          if (saved) setPending({});
        },
      });
    },
    [mutate],
  );
  const size = liked.textSize ?? TEXT.least;
  const look = useMemo(
    (): Look => ({
      theme: liked.theme === 'night' ? 'night' : 'day',
      contrast: liked.contrast === 'high' ? 'high' : 'usual',
      textSize: size >= TEXT.least && size <= TEXT.most ? size : TEXT.least,
    }),
    [liked.theme, liked.contrast, size],
  );
  useLayoutEffect(() => applyTheme(look), [look]);
  const weekStart = liked.weekStart ?? 'mon';
  useEffect(() => {
    try {
      localStorage.setItem(STORE, JSON.stringify(liked));
    } catch {
      // A device without storage still works; it only forgets.
    }
  }, [liked]);
  const keptLanguage = kept?.language;
  useEffect(() => {
    // The words of this page were made in another language.
    if (keptLanguage !== undefined && !isSpoken({ language: keptLanguage })) location.reload();
  }, [keptLanguage]);
  const value = useMemo(
    (): Preferences => ({
      ...look,
      clock: liked.clock ?? device.clock,
      order: liked.dateOrder ?? device.order,
      weekStart,
      units: liked.units ?? 'metric',
      liked,
      like,
      isUnsaved: isError,
    }),
    [look, liked, device, weekStart, like, isError],
  );
  return <Context value={value}>{children}</Context>;
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
