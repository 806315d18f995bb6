import { language } from '@water-clock/core';
import { usePreferences } from './preferences.tsx';

/** Formats an instant by the person's preferences, with the year if it is another one. */
export function useMoment(): (at: string) => string {
  const { clock, order } = usePreferences();
  const thisYear = new Date().getFullYear();
  return (at) => {
    const moment = new Date(at);
    const english = order === 'month-day' ? 'en-US' : 'en-GB';
    return new Intl.DateTimeFormat(language() === 'es' ? 'es' : english, {
      ...(moment.getFullYear() === thisYear ? {} : { year: 'numeric' }),
      day: 'numeric',
      month: 'short',
      hour: 'numeric',
      minute: '2-digit',
      hour12: clock === '12',
    }).format(moment);
  };
}
