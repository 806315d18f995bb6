/** New seed and turf: several waterings a day for the first weeks. Source: field guide, Starts and Complaints. */
import type { OftenADay } from '../brief/brief.ts';
import { formatDate, type EpochDay } from '../time/calendar.ts';
import type { SurveyStation } from './survey.ts';

const DAYS = 21;

/** Three times a day for three weeks from a date on. */
export const usualOften = (from: EpochDay): OftenADay => ({
  times: 3,
  from: '07:00',
  to: '17:00',
  until: formatDate(from + DAYS),
});

/** What changes with a station's plants: new seed and turf need several waterings a day, and others no longer do. */
export function plantsFields(
  noted: SurveyStation,
  plants: NonNullable<SurveyStation['plants']> | null,
  today: EpochDay,
): { plants: NonNullable<SurveyStation['plants']> | null; oftenADay?: OftenADay | null } {
  const isNew = plants === 'new-seed-or-turf';
  if (isNew) return { plants, oftenADay: noted.oftenADay ?? usualOften(today) };
  return noted.plants === 'new-seed-or-turf' ? { plants, oftenADay: null } : { plants };
}
