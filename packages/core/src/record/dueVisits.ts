/** Due visits, from what was noted. */
import { civilOf, epochDayOf, formatDate, parseDate, type EpochDay } from '../time/calendar.ts';
import type { FollowUp, NextVisit, Undone } from '../visit/visit.ts';
import type { RuleChange } from '../findings/finding.ts';
import type { Survey } from '../survey/survey.ts';
import type { RuleStatus } from './ruleStatus.ts';

export type VisitReason =
  | { readonly kind: 'often-a-day-ends'; readonly station: number }
  /** A battery lasts about a year. */
  | { readonly kind: 'battery' | 'backup-battery' }
  /** Noted when leaving. */
  | { readonly kind: 'planned'; readonly visit: NextVisit }
  /** Someone must see the first watering. */
  | { readonly kind: 'follow-up'; readonly followUp: FollowUp }
  /** Announced rules that the settings break. */
  | { readonly kind: 'rule-change'; readonly finding: RuleChange }
  /** Left undone by the last visit. */
  | { readonly kind: 'undone'; readonly point: Undone };

export interface DueVisit {
  readonly date: EpochDay;
  readonly reason: VisitReason;
}

/** The same day some months later, or the last day of that month. */
function monthsAfter(day: EpochDay, months: number): EpochDay {
  const { year, month, day: ofMonth } = civilOf(day);
  const later = year * 12 + (month - 1) + months;
  const first = { year: Math.floor(later / 12), month: (later % 12) + 1, day: 1 };
  const next = { year: Math.floor((later + 1) / 12), month: ((later + 1) % 12) + 1, day: 1 };
  const begins = epochDayOf(first);
  return Math.min(begins + ofMonth - 1, epochDayOf(next) - 1);
}

const yearAfter = (day: EpochDay) => monthsAfter(day, 12);

/** When the timer's own battery is due for a change; null: it has none, or its date is not known. */
export function batteryDue({ device }: Pick<Survey, 'device'>): EpochDay | null {
  const changed = device?.batteryDate === undefined ? null : parseDate(device.batteryDate);
  return changed === null || device?.power === 'mains' ? null : yearAfter(changed);
}

/** A visit some months later. */
export const laterVisit = (visit: NextVisit, months: number): NextVisit => ({
  ...visit,
  date: formatDate(monthsAfter(parseDate(visit.date) ?? 0, months)),
});

/** What must be done at the timer before it waters as planned. */
const MATTERS: readonly Undone['what'][] = ['clock-wrong', 'switched', 'not-keyed'];

/**
 * Every due visit, earliest first; those before today are overdue.
 *
 * @param coming announced rules that the settings break; null: none
 */
export function dueVisits(survey: Survey, coming: RuleStatus['coming'] = null): DueVisit[] {
  const { stations, device, next = [], followUp, undone } = survey;
  const visits: DueVisit[] = stations.flatMap(({ number, oftenADay }) => {
    const last = oftenADay?.until === undefined ? null : parseDate(oftenADay.until);
    // On its last date it still waters so; someone comes the day after.
    return last === null
      ? []
      : [{ date: last + 1, reason: { kind: 'often-a-day-ends', station: number } } as const];
  });
  const battery = batteryDue(survey);
  if (battery !== null) visits.push({ date: battery, reason: { kind: 'battery' } });
  const backup = device?.backup?.date === undefined ? null : parseDate(device.backup.date);
  if (backup !== null) visits.push({ date: yearAfter(backup), reason: { kind: 'backup-battery' } });
  for (const visit of next) {
    const date = parseDate(visit.date);
    if (date !== null) visits.push({ date, reason: { kind: 'planned', visit } });
  }
  const watering =
    followUp && followUp.seenOn === undefined ? parseDate(followUp.due.slice(0, 10)) : null;
  if (followUp && watering !== null)
    visits.push({ date: watering, reason: { kind: 'follow-up', followUp } });
  const closed = undone === undefined ? null : parseDate(undone.closed.slice(0, 10));
  if (closed !== null)
    for (const point of undone?.points ?? [])
      if (MATTERS.includes(point.what))
        visits.push({ date: closed, reason: { kind: 'undone', point } });
  if (coming) visits.push({ date: coming.from, reason: { kind: 'rule-change', finding: coming } });
  return visits.sort((a, b) => a.date - b.date);
}
