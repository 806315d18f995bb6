/** When somebody has to come back, from what was noted. */
import { civilOf, epochDayOf, parseDate, type EpochDay } from '../time/calendar.ts';
import type { FollowUp, NextVisit } from '../visit/visit.ts';
import type { Survey } from '../survey/survey.ts';

export type VisitReason =
  | { readonly kind: 'often-a-day-ends'; readonly station: number }
  /** A battery is good for about a year. */
  | { readonly kind: 'battery' }
  /** Noted when somebody left. */
  | { readonly kind: 'planned'; readonly visit: NextVisit }
  /** Somebody is to see the first real watering. */
  | { readonly kind: 'follow-up'; readonly followUp: FollowUp };

export interface DueVisit {
  readonly date: EpochDay;
  readonly reason: VisitReason;
}

function yearAfter(day: EpochDay): EpochDay {
  const { year, month, day: ofMonth } = civilOf(day);
  return epochDayOf({ year: year + 1, month, day: month === 2 ? Math.min(ofMonth, 28) : ofMonth });
}

/** Every visit that is due, the earliest first; those before `on` are overdue. */
export function dueVisits({ stations, device, next = [], followUp }: Survey): DueVisit[] {
  const visits: DueVisit[] = stations.flatMap(({ number, oftenADay }) => {
    const last = oftenADay?.until === undefined ? null : parseDate(oftenADay.until);
    // On its last date it still waters so, so somebody comes the day after.
    return last === null
      ? []
      : [{ date: last + 1, reason: { kind: 'often-a-day-ends', station: number } } as const];
  });
  const battery = device?.batteryDate === undefined ? null : parseDate(device.batteryDate);
  if (battery !== null && device?.power !== 'mains')
    visits.push({ date: yearAfter(battery), reason: { kind: 'battery' } });
  for (const visit of next) {
    const date = parseDate(visit.date);
    if (date !== null) visits.push({ date, reason: { kind: 'planned', visit } });
  }
  const watering =
    followUp && followUp.seenOn === undefined ? parseDate(followUp.due.slice(0, 10)) : null;
  if (followUp && watering !== null)
    visits.push({ date: watering, reason: { kind: 'follow-up', followUp } });
  return visits.sort((a, b) => a.date - b.date);
}
