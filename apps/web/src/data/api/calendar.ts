/** Who goes where on which day, and in which order. */
import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { newId, request, styleQuery, type Style } from './request.ts';
import { siteKeys } from './sites.ts';
import { loadTimer, sendWrite } from './timers.ts';

export interface CalendarVisit {
  readonly timerId: string;
  readonly timer: string;
  readonly siteId: string;
  readonly site: string;
  readonly houseNumber: string | null;
  readonly street: string | null;
  readonly town: string;
  readonly latitude: number | null;
  readonly longitude: number | null;
  readonly person: { readonly id: string; readonly name: string } | null;
  /** `YYYY-MM-DD`; null: some day. */
  readonly date: string | null;
  readonly overdue: boolean;
  /** Reasons, without dates. */
  readonly reasons: readonly string[];
  readonly kinds: readonly string[];
  /** The office's plan; null: only due. */
  readonly stop: { readonly version: number; readonly note: string } | null;
}

export interface DayOrder {
  readonly personId: string | null;
  readonly date: string;
  readonly version: number;
  readonly timerIds: readonly string[];
}

export interface Calendar {
  readonly visits: readonly CalendarVisit[];
  readonly orders: readonly DayOrder[];
}

export interface OpenVisits {
  readonly overdue: readonly CalendarVisit[];
  readonly someDay: readonly CalendarVisit[];
}

/** Person; null: everyone. */
type Whose = string | null;
const whoseQuery = (person: Whose) => (person === null ? '' : `&person=${person}`);
const keys = { all: ['calendar'] as const };

export const useCalendar = (from: string, to: string, person: Whose, style: Style) =>
  useQuery({
    queryKey: [...keys.all, from, to, person, style],
    queryFn: () =>
      request<Calendar>(
        'GET',
        `/api/calendar?from=${from}&to=${to}&${styleQuery(style)}${whoseQuery(person)}`,
      ),
    placeholderData: keepPreviousData,
  });

export const useOpenVisits = (person: Whose, style: Style) =>
  useQuery({
    queryKey: [...keys.all, 'open', person, style],
    queryFn: () =>
      request<OpenVisits>('GET', `/api/calendar/open?${styleQuery(style)}${whoseQuery(person)}`),
    placeholderData: keepPreviousData,
  });

function useCalendarWrite<In, Out>(write: (given: In) => Promise<Out>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: write,
    onSettled: () => client.invalidateQueries({ queryKey: keys.all }),
  });
}

export interface Planned {
  readonly timerId: string;
  readonly version: number;
  /** `YYYY-MM-DD`; null: some day. */
  readonly day: string | null;
  readonly personId: string | null;
  readonly note: string;
}

export const usePlanStop = () =>
  useCalendarWrite(({ timerId, version, day, personId, note }: Planned) =>
    request<{ version: number }>('POST', `/api/timers/${timerId}/stop`, {
      ...{ id: newId(), baseVersion: version, personId, note },
      ...(day === null ? {} : { day }),
    }),
  );

/** Plans visits for some day; planned ones stay. */
export const useSomeDay = () =>
  useCalendarWrite((given: { readonly timerIds: readonly string[]; readonly note: string }) =>
    request<{ planned: number }>('POST', '/api/calendar/some-day', { id: newId(), ...given }),
  );

export const useTakeBackStop = () =>
  useCalendarWrite(({ timerId, version }: Pick<Planned, 'timerId' | 'version'>) =>
    request<undefined>('POST', `/api/timers/${timerId}/stop/taking-back`, {
      ...{ id: newId(), baseVersion: version },
    }),
  );

export const useOrderDay = () =>
  useCalendarWrite(
    ({ date, version, ...order }: Pick<DayOrder, 'personId' | 'date' | 'version' | 'timerIds'>) =>
      request<{ version: number }>('POST', '/api/calendar/orders', {
        ...{ id: newId(), baseVersion: version, day: date, ...order },
      }),
  );

/** Someone has seen the first watering run as it should. */
export function useConfirmWatering() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async ({ timerId, on, by }: { timerId: string; on: string; by: string }) => {
      const { version, survey } = await loadTimer(timerId);
      if (!survey.followUp) return;
      const followUp = { ...survey.followUp, seenOn: on, seenBy: by };
      await sendWrite(timerId, {
        ...{ id: newId(), baseVersion: version, way: 'do', at: new Date().toISOString() },
        change: { type: 'note', fields: { followUp } },
      });
    },
    onSettled: () => {
      void client.invalidateQueries({ queryKey: keys.all });
      void client.invalidateQueries({ queryKey: siteKeys.all });
    },
  });
}

export const useCalendarLink = () =>
  useQuery({
    queryKey: ['account', 'calendar'],
    queryFn: () => request<{ madeAt: string | null }>('GET', '/api/account/calendar'),
  });

/** A new address. The token is made here, and the server stores only its hash. */
export function useMakeCalendarLink() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async () => {
      const bytes = crypto.getRandomValues(new Uint8Array(32));
      const token = btoa(String.fromCharCode(...bytes))
        .replaceAll('+', '-')
        .replaceAll('/', '_')
        .replace('=', '');
      await request('POST', '/api/account/calendar', { token });
      return `${location.origin}/api/calendars/${token}.ics`;
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ['account', 'calendar'] }),
  });
}
