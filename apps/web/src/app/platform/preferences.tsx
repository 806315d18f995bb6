/** A person's preferences. They are stored with the person; a copy on the device serves until someone signs in. */
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
  /** Of the site on screen, otherwise of the person. */
  readonly units: UnitSystem;
  /** As chosen, without the device's defaults. */
  readonly liked: UserPreferences;
  readonly like: (change: UserPreferences) => void;
  /** The last change is not saved on the server yet; until then it applies on this device. */
  readonly isUnsaved: boolean;
}

const Context = createContext<Preferences | null>(null);

const STORE = 'preferences';

export function storedPreferences(): UserPreferences {
  try {
    // Safe cast: our own copy; unknown values fall back below.
    return JSON.parse(localStorage.getItem(STORE) ?? '{}') as UserPreferences;
  } catch {
    return {};
  }
}

/** Times and dates as the device writes them. */
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
  // Filled by whoever asks for the session. Not asked for here, because the homeowner's page has none.
  const session = useQuery({ ...sessionQuery, enabled: false });
  const kept = session.data?.preferences?.preferences;
  const [device] = useState(ofDevice);
  const [first] = useState(storedPreferences);
  /** Changes not known to be saved. */
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
      // Without storage the choice is only forgotten.
    }
  }, [liked]);
  const keptLanguage = kept?.language;
  useEffect(() => {
    // The messages on this page were made in another language.
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

/** What a site shows in place of the person's preferences; null: nothing. */
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
