/** Fits a timer's settings to what has changed around it: the rules or the month. The result is checked before anyone sees it. */
import type { Brief, BriefRules } from '../brief/brief.ts';
import { attempt } from '../engine/effort.ts';
import { occupiedWeek } from '../engine/occupiedWeek.ts';
import { prove } from '../engine/verdict.ts';
import { waterChanges } from '../engine/waterChanges.ts';
import { siteMinutes } from '../garden/schools.ts';
import { seasonYear } from '../garden/seasonYear.ts';
import { ruleBreaches } from '../findings/ruleBreaches.ts';
import { keyInLines } from '../panel/keyIn.ts';
import { applyChange, type PlanChange } from '../plan/change.ts';
import type { Plan } from '../plan/plan.ts';
import { percentSteps } from '../plan/program.ts';
import { datesOfProgram } from '../plan/starts.ts';
import type { Pins, PlannerOptions } from '../planner/options.ts';
import { searchPlan } from '../planner/searchPlan.ts';
import { takePlanChange } from '../planner/take.ts';
import { repairChange } from '../repair/repairChange.ts';
import { NEAR_DAYS, repair } from '../repair/repair.ts';
import { comingRules, houseRulesOn } from '../rules/houseRules.ts';
import type { Rules } from '../rules/rules.ts';
import type { RuledHouse } from '../rules/ruling.ts';
import { formatDate, type EpochDay, type TimeText, type Weekday } from '../time/calendar.ts';
import { percentByMonth, type Climate } from '../water/need.ts';
import type { MinutesTable } from '../water/minutesTable.ts';
import { lengthWords, listed, monthName } from '../words/words.ts';
import { allowedDates, assembleBrief, withPresentWater } from './assembleBrief.ts';
import { ruleStatus } from './ruleStatus.ts';
import type { TimerRecord } from './record.ts';
import { say } from '../language/say.ts';

export interface ReplanSources {
  readonly record: TimerRecord;
  readonly house: RuledHouse & { readonly mowing: readonly Weekday[] };
  readonly rules: Rules | null;
  readonly table: MinutesTable;
  readonly climate: Climate | null;
  /** Other timers on the same supply: a new plan waters nothing while they do. */
  readonly others: readonly Plan[];
  /** Hour before sunrise by which watering must end; null: not required, or not known. */
  readonly finishBy: TimeText | null;
  readonly today: EpochDay;
}

/** What the settings must fit: current and announced rules, or a month, 1 to 12. */
export type ReplanAim =
  { readonly of: 'rules' } | { readonly of: 'percent'; readonly month: number };

export type Replanned =
  /** Nothing to change. */
  | { readonly outcome: 'fits' }
  /** No such plan exists, or none was found. */
  | { readonly outcome: 'none'; readonly why: string }
  | {
      readonly outcome: 'proposed';
      readonly change: PlanChange;
      readonly why: string;
      /** Date from which the timer must have it. */
      readonly from: EpochDay;
      /** Number of settings to change at the timer. */
      readonly lines: number;
    };

/** Lower thoroughness: many sites wait, and the plan is close to the current one. */
const THOROUGHNESS = 0.15;

/** Number of lines to key in on an otherwise empty timer. */
function linesBetween(before: Plan, after: Plan, today: EpochDay): number {
  const now = {
    style: { dialect: after.timer.dialect ?? {}, clock: '24' },
    today,
    secondOfDay: 0,
  } as const;
  const lines = attempt(() => keyInLines(after, before, now, true));
  return lines.ok ? lines.value.length : after.stations.length * after.programs.length;
}

/** Each station stays in its program, if it is in exactly one, so that people recognise it. */
const pinsOf = ({ programs, stations }: Plan): Pins => ({
  stations: stations.flatMap(({ number }) => {
    const own = programs.filter(({ runs }) =>
      runs.some(({ station, seconds }) => station === number && seconds > 0),
    );
    return own.length === 1 && own[0] ? [{ station: number, program: own[0].letter }] : [];
  }),
});

function briefOf(sources: ReplanSources, rules: BriefRules): Brief {
  const { record, house, table, climate, others, finishBy, today } = sources;
  const { plan, survey } = record;
  const minutes = siteMinutes(plan, survey, table, climate, rules);
  const needed = assembleBrief(record, { minutes, rules, mowing: house.mowing });
  // The garden keeps its current water; whoever planned it had a reason.
  const numbers = plan.stations.map(({ number }) => number);
  const present = attempt(() => withPresentWater(needed, plan, numbers));
  const brief = present.ok ? present.value : needed;
  const windows = others.flatMap((other) => {
    const week = attempt(() => occupiedWeek(other, today));
    return week.ok ? week.value : [];
  });
  return {
    ...brief,
    wish: { ...brief.wish, ...(finishBy === null ? {} : { finishBy }) },
    ...(windows.length === 0
      ? {}
      : {
          rules: {
            ...brief.rules,
            dripExempt: false,
            noWaterWindows: [...(brief.rules?.noWaterWindows ?? []), ...windows],
          },
        }),
  };
}

/** On as many dates as now, as far as the rules allow: roots used to three waterings a week should not wait a week. */
function asOften(brief: Brief, plan: Plan, allowed = allowedDates(brief.rules)): Brief {
  const dates = new Map<number, number>();
  for (const program of plan.programs)
    for (const { station, seconds } of program.runs)
      if (seconds > 0)
        dates.set(station, (dates.get(station) ?? 0) + datesOfProgram(plan, program).mean);
  return {
    ...brief,
    stations: brief.stations.map((station) => {
      const now = Math.max(1, Math.min(allowed, Math.round(dates.get(station.number) ?? 0)));
      return dates.has(station.number) ? { ...station, days: { least: now, most: now } } : station;
    }),
  };
}

/** Whether a plan provably never overlaps and keeps the rules from a date on. */
function isSound(plan: Plan, rules: BriefRules, from: EpochDay): boolean {
  const checked = attempt(
    () => prove(plan, from).verdict === 'clear' && ruleBreaches(plan, rules, from).length === 0,
  );
  return checked.ok && checked.value;
}

/**
 * The fewest settings that keep current and announced rules without giving any station less; null: more is needed, or none was found.
 *
 * @param from date from which the timer must have it
 */
function smallestChange(sources: ReplanSources, from: EpochDay): PlanChange | null {
  const { record, house, rules, today } = sources;
  const { plan, survey } = record;
  const now = houseRulesOn(survey.rules, rules, house, today) ?? {};
  const editions = comingRules(survey.rules, rules, house, today);
  const coming = editions.map((edition) => ({
    from: formatDate(edition.from),
    rules: edition.rules,
  }));
  // No plan keeps a ban, and distant rules are planned for when they come near.
  const near = editions.filter(
    ({ from: begins, rules: announced }) =>
      begins - today <= NEAR_DAYS && allowedDates(announced) > 0,
  );
  const most = Math.min(...[now, ...near.map((one) => one.rules)].map((one) => allowedDates(one)));
  const brief = { ...asOften(briefOf(sources, now), plan, most), coming };
  const repaired = attempt(() => repair(plan, brief, today, true));
  if (!repaired.ok || !repaired.value.plan || !repaired.value.cost) return null;
  const [broken, short, settings] = repaired.value.cost;
  if (broken > 0 || short > 0 || settings === 0) return null;
  const change = repairChange(plan, repaired.value.plan);
  const applied = applyChange(plan, change);
  const ruling = houseRulesOn(survey.rules, rules, house, from) ?? {};
  return applied.ok && isSound(applied.value.plan, ruling, from) ? change : null;
}

function forRules(sources: ReplanSources): Replanned {
  const { record, house, rules, today } = sources;
  const { plan, survey } = record;
  const { breaches, coming } = ruleStatus(record, rules, house, today);
  if (breaches.length === 0 && coming === null) return { outcome: 'fits' };
  const from = breaches.length > 0 ? today : (coming?.from ?? today);
  const ruling = houseRulesOn(survey.rules, rules, house, from);
  if (!ruling) return { outcome: 'fits' };
  const smallest = smallestChange(sources, from);
  if (smallest) return proposed(plan, smallest, (after) => keptWords(plan, after), from);
  const brief = briefOf(sources, ruling);
  const options: PlannerOptions = {
    on: from,
    thoroughness: THOROUGHNESS,
    linked: plan.stations.filter(
      ({ linkedTo, enabled }) => linkedTo !== undefined && enabled !== false,
    ),
  };
  const tried = (more: Pick<PlannerOptions, 'pins'>, about: Brief): PlanChange | null => {
    const searched = attempt(() => searchPlan(about, { ...options, ...more }));
    const found = searched.ok ? searched.value.found : null;
    if (!found) return null;
    const change = takePlanChange(plan, found.plan);
    const applied = applyChange(plan, change);
    return applied.ok && isSound(applied.value.plan, ruling, from) ? change : null;
  };
  const { programs: _programs, ...wish } = brief.wish ?? {};
  const often = asOften(brief, plan);
  // First as it is except days, starts and minutes; then as often as now; then any way.
  const change =
    tried({ pins: pinsOf(plan) }, { ...often, wish }) ?? tried({}, often) ?? tried({}, brief);
  if (change) return proposed(plan, change, (after) => keptWords(plan, after), from);
  if (ruling.weekdays?.length === 0)
    return proposed(
      plan,
      { type: 'set-settings', settings: { mode: 'off' } },
      () => say`Watering by timer is not allowed, so the timer is switched off.`,
      from,
    );
  // Finding what prevents a plan takes long, and has its own page.
  return {
    outcome: 'none',
    why: say`No plan was found that keeps the rules. Its Planner step shows what is in the way.`,
  };
}

/** What is kept and what is not: if a station gets more or less water than now, someone must know. */
function keptWords(before: Plan, after: Plan): string {
  const changes = waterChanges(before, after);
  if (changes.length === 0)
    return say`The rules are kept, and each station gets the same water as now.`;
  const each = changes.map(
    ({ station, before: was, after: given }) =>
      say`station ${station}, ${lengthWords(wholeMinutes(given))} a week instead of ${lengthWords(wholeMinutes(was))}`,
  );
  return changes.every((change) => change.after < change.before)
    ? say`The rules are kept. These stations get less water than now: ${listed(each)}.`
    : say`The rules are kept. The water of these stations changes: ${listed(each)}.`;
}

const wholeMinutes = (seconds: number) => Math.round(seconds / 60) * 60;

function proposed(
  plan: Plan,
  change: PlanChange,
  why: (after: Plan) => string,
  from: EpochDay,
): Replanned {
  const applied = applyChange(plan, change);
  if (!applied.ok) return { outcome: 'none', why: say`The plan that was found does not fit.` };
  const after = applied.value.plan;
  const lines = linesBetween(plan, after, from);
  return lines === 0
    ? { outcome: 'fits' }
    : { outcome: 'proposed', change, why: why(after), from, lines };
}

function percentChange(plan: Plan, percents: readonly number[], now: number): PlanChange | null {
  const { timer, settings, programs } = plan;
  const { scope, byMonth } = timer.seasonal;
  if (scope === 'none') return null;
  if (scope === 'timer' && byMonth)
    return settings.monthlyPercent?.every((percent, i) => percent === percents[i])
      ? null
      : { type: 'set-settings', settings: { monthlyPercent: percents } };
  if (scope === 'timer')
    return (settings.seasonalPercent ?? 100) === now
      ? null
      : { type: 'set-settings', settings: { seasonalPercent: now } };
  const changes = programs
    .filter(({ seasonalPercent = 100 }) => seasonalPercent !== now)
    .map(({ letter }) => ({
      ...({ type: 'set-program', program: letter } as const),
      fields: { seasonalPercent: now },
    }));
  return changes.length === 0 ? null : { type: 'several', changes };
}

function forMonth(sources: ReplanSources, month: number): Replanned {
  const { record, rules, house, table, climate, today } = sources;
  const { plan, survey } = record;
  if ((survey.season ?? 'percent') !== 'percent' || plan.settings.mode === 'off')
    return { outcome: 'fits' };
  const ruling = houseRulesOn(survey.rules, rules, house, today);
  const minutes = siteMinutes(plan, survey, table, climate, ruling);
  const { year, hundred } = seasonYear(minutes, table, survey);
  const percents = percentByMonth(year, hundred, percentSteps(plan.timer));
  const now = percents[month - 1] ?? 100;
  const change = percentChange(plan, percents, now);
  if (!change) return { outcome: 'fits' };
  const applied = applyChange(plan, change);
  const proven = applied.ok ? attempt(() => prove(applied.value.plan, today)) : null;
  if (!proven?.ok || proven.value.verdict !== 'clear')
    return {
      outcome: 'none',
      why: say`At ${now} % its programs would overlap or be incomplete. Replan it first.`,
    };
  return proposed(plan, change, () => say`${monthName(month)} needs ${now} %.`, today);
}

/**
 * The change that fits a timer to its rules or a month. The result never overlaps and keeps the rules.
 *
 * Cost: for rules, one or two planner searches.
 */
export function replan(sources: ReplanSources, aim: ReplanAim): Replanned {
  return aim.of === 'rules' ? forRules(sources) : forMonth(sources, aim.month);
}
