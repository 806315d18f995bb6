/** What stands in the way of closing a visit, and what the logbook then keeps of it. */
import { samePlan } from '../plan/comparePlans.ts';
import type { Plan } from '../plan/plan.ts';
import type { Survey } from '../survey/survey.ts';
import type { ClosedVisit, Switched, Visit } from '../visit/visit.ts';

export type OpenPoint =
  | { readonly what: 'no-visit' | 'no-as-found' | 'no-as-left' }
  /** The settings changed after they were frozen as left. */
  | { readonly what: 'as-left-is-older' }
  /** Switched for the test, and neither put back nor left so on purpose. */
  | { readonly what: 'switched'; readonly switched: Switched };

/** What the settings themselves show as switched away from watering. */
export function switchedIn({ settings, stations }: Plan): Switched[] {
  return [
    ...(settings.sensor === 'bypass' ? (['bypass'] as const) : []),
    ...(settings.mode === 'off' ? (['off'] as const) : []),
    ...(settings.wateringResumes === undefined ? [] : (['delay'] as const)),
    ...(stations.some(({ enabled }) => enabled === false) ? (['disabled'] as const) : []),
  ];
}

/** Everything that is switched and not accounted for: noted and not put back, or set so in the plan, without a reason. */
export function openSwitches(visit: Visit, plan: Plan): Switched[] {
  const noted = visit.switched ?? [];
  const accepted = noted.filter(({ reason }) => reason !== undefined).map(({ what }) => what);
  const left = [
    ...noted.filter(({ putBack }) => !putBack).map(({ what }) => what),
    ...switchedIn(plan),
  ];
  return [...new Set(left)].filter((what) => !accepted.includes(what));
}

/** What is to be done before a visit can be closed; empty: nothing. */
export function openPoints(plan: Plan, { visit }: Survey): OpenPoint[] {
  if (!visit) return [{ what: 'no-visit' }];
  const points: OpenPoint[] = [];
  if (!visit.asFound) points.push({ what: 'no-as-found' });
  if (!visit.asLeft) points.push({ what: 'no-as-left' });
  else if (!samePlan(visit.asLeft.plan, plan)) points.push({ what: 'as-left-is-older' });
  for (const switched of openSwitches(visit, plan)) points.push({ what: 'switched', switched });
  return points;
}

/**
 * A visit as the logbook keeps it, and what is left of the survey; null where something stands in its way (`openPoints`).
 *
 * @param closed moment by the house's clocks, `YYYY-MM-DDTHH:MM`.
 * @param before faults as the last visit left them: those that are no longer noted were repaired.
 */
export function closeVisit(
  plan: Plan,
  survey: Survey,
  closed: string,
  before: ClosedVisit['faults'] = [],
): { readonly visit: ClosedVisit; readonly survey: Survey } | null {
  const { visit, ...left } = survey;
  if (!visit?.asLeft || openPoints(plan, survey).length > 0) return null;
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
  return {
    visit: {
      ...visit,
      asLeft: visit.asLeft,
      closed,
      next,
      ...(followUp === undefined ? {} : { followUp }),
      faults,
    },
    survey: left,
  };
}
