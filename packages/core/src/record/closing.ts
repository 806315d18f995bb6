/** What is not done when a visit is closed, and what the logbook keeps of it. */
import { samePlan } from '../plan/samePlan.ts';
import { wateringStations } from '../plan/linked.ts';
import type { Plan } from '../plan/plan.ts';
import type { Survey } from '../survey/survey.ts';
import type { ClosedVisit, NextVisit, Switched, Undone, Visit } from '../visit/visit.ts';
import { laterVisit } from './dueVisits.ts';
import { CLOCK_SECONDS, clockReading, isClockSet } from './clockReading.ts';

/** Settings that keep the timer from watering. */
function switchedIn({ settings, stations }: Plan): Switched[] {
  return [
    ...(settings.sensor === 'bypass' ? (['bypass'] as const) : []),
    ...(settings.mode === 'off' ? (['off'] as const) : []),
    ...(settings.wateringResumes === undefined ? [] : (['delay'] as const)),
    ...(stations.some(({ enabled }) => enabled === false) ? (['disabled'] as const) : []),
  ];
}

/** Everything switched and unexplained: noted and not put back, or set so in the plan, without a reason. */
export function openSwitches(visit: Visit, plan: Plan): Switched[] {
  const noted = visit.switched ?? [];
  const accepted = noted.filter(({ reason }) => reason !== undefined).map(({ what }) => what);
  const left = [
    ...noted.filter(({ putBack }) => !putBack).map(({ what }) => what),
    ...switchedIn(plan),
  ];
  return [...new Set(left)].filter((what) => !accepted.includes(what));
}

/** The clock in the open visit: wrong and not set since, or not looked at. */
function clockPoints(survey: Survey): Undone[] {
  if (isClockSet(survey)) return [];
  const reading = clockReading(survey);
  if (!reading) return [{ what: 'clock-not-looked' }];
  const { ahead } = reading;
  return Math.abs(ahead) >= CLOCK_SECONDS ? [{ what: 'clock-wrong', ahead }] : [];
}

/** Stations that water and were not tested in this visit. */
function testPoints(plan: Plan, { tests = [] }: Visit): Undone[] {
  const tested = new Set(tests.flatMap(({ station, result }) => (result ? [station] : [])));
  const watering = wateringStations(plan);
  const stations = plan.stations
    .filter(({ number }) => watering.has(number) && !tested.has(number))
    .map(({ number }) => number);
  return stations.length > 0 ? [{ what: 'not-tested', stations }] : [];
}

/** Everything not done in the open visit, most important first. Card lines are separate: `notKeyed` in notKeyed.ts. */
export function undoneIn(plan: Plan, survey: Survey): Undone[] {
  const { visit } = survey;
  if (!visit) return [];
  const { asFound, asLeft } = visit;
  return [
    ...clockPoints(survey),
    ...openSwitches(visit, plan).map((switched) => ({ what: 'switched', switched }) as const),
    ...(asFound ? [] : [{ what: 'no-as-found' } as const]),
    ...(!asLeft
      ? [{ what: 'no-as-left' } as const]
      : samePlan(asLeft.plan, plan)
        ? []
        : [{ what: 'as-left-is-older' } as const]),
    ...testPoints(plan, visit),
  ];
}

/** Id of a point, with which someone confirms leaving it undone. */
export const undoneId = (point: Undone): string =>
  point.what === 'switched' ? `switched.${point.switched}` : point.what;

/** Points in one list that another does not have. */
export const notAmong = (points: readonly Undone[], others: readonly Undone[]): Undone[] => {
  const known = new Set(others.map(undoneId));
  return points.filter((point) => !known.has(undoneId(point)));
};

/**
 * A visit for the logbook, and what remains of the survey. If nothing was saved as left, or settings changed since, the current settings
 * are what is left.
 *
 * @param closed local time at the site, `YYYY-MM-DDTHH:MM`
 * @param undone work left undone on purpose; must include all of `undoneIn`
 * @param before faults at the end of the last visit; those no longer noted were repaired
 * @param leftAsFrozen the settings saved as left are those in the timer, although others changed since
 * @returns null if no visit is open, or something undone was not confirmed
 */
export function closeVisit(
  plan: Plan,
  survey: Survey,
  closed: string,
  undone: readonly Undone[] = [],
  before: ClosedVisit['faults'] = [],
  leftAsFrozen = false,
): { readonly visit: ClosedVisit; readonly survey: Survey } | null {
  const { visit, undone: _earlier, ...left } = survey;
  const isFrozen = leftAsFrozen && visit?.asLeft !== undefined;
  const points = notAmong(undoneIn(plan, survey), undone).filter(
    ({ what }) => !(isFrozen && what === 'as-left-is-older'),
  );
  if (!visit || points.length > 0) return null;
  const open = survey.stations.flatMap(({ number, faults: noted = [] }) =>
    noted.map(({ fault }) => ({ station: number, fault: fault, open: true })),
  );
  const mended = before
    .filter((one) => one.open)
    .filter(
      ({ station, fault }) =>
        !open.some((each) => each.station === station && each.fault === fault),
    )
    .map((one) => ({ ...one, open: false }));
  const faults = [...open, ...mended];
  const { followUp, next = [] } = survey;
  const { site: _site, ...bare } = plan;
  const asLeft =
    visit.asLeft && (isFrozen || samePlan(visit.asLeft.plan, plan))
      ? visit.asLeft
      : { at: closed, plan: bare };
  const later = next.map((one) => afterVisit(one, closed));
  return {
    visit: {
      ...visit,
      asLeft,
      closed,
      next: later,
      ...(followUp === undefined ? {} : { followUp }),
      ...(undone.length > 0 ? { undone } : {}),
      faults,
    },
    survey: {
      ...left,
      ...(later.length > 0 ? { next: later } : {}),
      ...(undone.length > 0 ? { undone: { closed, points: undone } } : {}),
    },
  };
}

/** A repeating visit is due again after this one. */
function afterVisit(visit: NextVisit, closed: string): NextVisit {
  let next = visit;
  while (next.everyMonths !== undefined && next.date <= closed.slice(0, 10))
    next = laterVisit(next, next.everyMonths);
  return next;
}
