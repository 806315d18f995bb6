import dayjs from 'dayjs';
import updateLocale from 'dayjs/plugin/updateLocale.js';

dayjs.extend(updateLocale);

/** First column of every calendar. */
export const beginWeekOn = (day: 'mon' | 'sun'): void => {
  dayjs.updateLocale('en', { weekStart: day === 'mon' ? 1 : 0 });
};
