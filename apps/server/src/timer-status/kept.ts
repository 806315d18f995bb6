/** What is stored of a timer's status: columns for search, filters and sorting, and what is due. No database access. */
import {
  batteryDue,
  dueVisits,
  timerStatusWords,
  type EpochDay,
  type TimerStatus,
} from '@water-clock/core';
import type { Timer } from '../sites/timer.entity.ts';
import type { DueVisitRow } from './due-visit.entity.ts';
import type { TimerStatusRow } from './timer-status.entity.ts';

/** Lower case without accents, so that no one has to type them. */
export const folded = (text: string): string =>
  text.normalize('NFKD').replaceAll(/\p{M}/gu, '').toLowerCase();

const digits = (phone: string) => phone.replaceAll(/\D/g, '');

function searchOf({ name, plan, survey, site }: Timer, town: string): string {
  const people = site.people.flatMap(({ name: who, phone }) => [who, phone, digits(phone)]);
  const decoders = survey.stations.map(({ decoder }) => decoder);
  const words = [
    ...[site.name, site.houseNumber, site.street, site.locality, town, name, plan.timer.name],
    ...[...people, ...decoders, site.notes],
  ];
  return folded(words.filter(Boolean).join(' '));
}

const first = (...days: readonly (EpochDay | null | undefined)[]): EpochDay | null => {
  const known = days.filter((day) => day !== null && day !== undefined);
  return known.length === 0 ? null : Math.min(...known);
};

type Kept = Pick<
  TimerStatusRow,
  | 'from'
  | 'until'
  | 'status'
  | 'search'
  | 'town'
  | 'verdict'
  | 'breaches'
  | 'overSupply'
  | 'headroom'
  | 'trouble'
  | 'coming'
  | 'next'
  | 'battery'
  | 'lastVisit'
>;

/**
 * @param timer with its site
 * @param town of the weather; empty for none
 */
export function keptOf(
  timer: Timer,
  status: TimerStatus,
  town: string,
  lastVisit: EpochDay | null,
): { readonly row: Kept; readonly due: Pick<DueVisitRow, 'day' | 'reason'>[] } {
  const { survey, site } = timer;
  const { proven, breaches, coming, from, until } = status;
  const overSupply = (status.supply ?? []).find(({ severity }) => severity === 'error');
  const due = dueVisits(survey, coming).map(({ date: day, reason }) => ({ day, reason }));
  const overlap = proven.ok ? proven.value.overlaps[0] : undefined;
  return {
    row: {
      from,
      until,
      status,
      search: searchOf(timer, town),
      town: site.locality ?? town,
      // Date formats do not change which one comes first.
      verdict: timerStatusWords(status, { on: from, clock: '24' }).verdict,
      breaches: breaches.length,
      overSupply: overSupply !== undefined,
      headroom: proven.ok && status.hasPercent === true ? proven.value.headroomPercent : null,
      trouble: first(
        overlap?.first.day,
        breaches[0]?.where.date,
        overSupply?.where.date,
        coming?.from,
      ),
      coming: coming?.from ?? null,
      next: due[0]?.day ?? null,
      battery: batteryDue(survey),
      lastVisit,
    },
    due,
  };
}
