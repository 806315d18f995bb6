import { usePreferences } from './preferences.tsx';

/** Writes an instant as the person likes dates and hours; the year where it is another one. */
export function useMoment(): (at: string) => string {
  const { clock, order } = usePreferences();
  const thisYear = new Date().getFullYear();
  return (at) => {
    const moment = new Date(at);
    return new Intl.DateTimeFormat(order === 'month-day' ? 'en-US' : 'en-GB', {
      ...(moment.getFullYear() === thisYear ? {} : { year: 'numeric' }),
      day: 'numeric',
      month: 'short',
      hour: 'numeric',
      minute: '2-digit',
      hour12: clock === '12',
    }).format(moment);
  };
}
