/**
 * Plans by plain enumeration: every grouping of stations, every set of days, every set of starts, every run near the need. Slow and
 * obvious; only for a few stations on a timer with coarse steps. Core calculates the cost and whether a plan is allowed.
 */
import {
  civilOf,
  formatDate,
  formatTime,
  parseDate,
  WEEKDAYS,
  weekdayIndexOf,
} from '@water-clock/core';
import { breachOf } from '../dist/planner/verify.js';
import { compareCosts, costOf } from '../dist/planner/cost.js';

const FIRST = parseDate('2027-01-01') ?? 0;

/** Pseudo-random numbers, the same each time. */
export function seeded(seed) {
  let state = (seed * 2_654_435_761 + 97) >>> 0;
  return (below) => {
    state = (Math.imul(state ^ (state >>> 15), 0x2c1b3c6d) + 0x9e3779b9) >>> 0;
    const mixed = Math.imul(state ^ (state >>> 12), 0x297a2d39) >>> 0;
    return Math.floor((((mixed ^ (mixed >>> 15)) >>> 0) / 4_294_967_296) * below);
  };
}

const timer = {
  name: 'Small timer',
  stationCount: 4,
  programCount: 2,
  startsPerProgram: 2,
  startStepMinutes: 60,
  runStepSeconds: 300,
  longestRunSeconds: 14_400,
  dayRules: ['weekdays'],
  longestIntervalDays: 3,
  oddDaysSkip31: true,
  seasonal: {
    scope: 'timer',
    lowestPercent: 50,
    highestPercent: 150,
    stepPercent: 10,
    byMonth: false,
    roundToSeconds: 1,
    rounding: 'nearest',
  },
  cycleSoak: 'none',
  longestStationDelaySeconds: 120,
  onOverlap: 'queue',
  inWindow: 'pause',
  stationsAtOnce: 1,
  followsDaylightSaving: false,
};

/** A small brief for plain enumeration. */
export function smallBrief(seed) {
  const chance = seeded(seed);
  const among = (...list) => list[chance(list.length)];
  const rules = among(
    ['weekdays'],
    ['interval'],
    ['odd', 'even', 'interval'],
    ['daily', 'interval'],
  );
  const weekdays = WEEKDAYS.filter(() => chance(2) === 0).slice(0, 3);
  const stations = Array.from({ length: 1 + chance(3) }, (_, i) => {
    const least = 1 + chance(3);
    return {
      number: i + 1,
      weeklySeconds: 600 * (1 + chance(24)),
      ...(chance(3) === 0 ? { cycleSeconds: 600 * (1 + chance(4)), soakSeconds: 1800 } : {}),
      ...(chance(2) === 0 ? { days: { least, most: Math.min(7, least + 1 + chance(3)) } } : {}),
      ...(chance(4) === 0 ? { overhead: false } : {}),
      ...(chance(2) === 0 ? { group: among('lawn', 'beds') } : {}),
    };
  });
  return {
    format: 'water-clock-brief',
    version: 1,
    timer: {
      ...timer,
      dayRules: rules,
      startStepMinutes: among(60, 30),
      cycleSoak: among('none', 'none', 'station', 'program'),
      programCount: 1 + chance(2),
      startsPerProgram: 1 + chance(2),
    },
    settings: { stationDelaySeconds: among(0, 0, 60) },
    stations,
    rules: {
      ...(rules.includes('weekdays')
        ? { weekdays: weekdays.length > 0 ? weekdays : ['tue', 'sat'] }
        : {}),
      ...(chance(3) === 0
        ? { noWaterWindows: [{ from: '10:00', to: among('18:00', '23:00') }] }
        : {}),
      ...(chance(5) === 0 ? { mostDaysPerWeek: 1 + chance(3) } : {}),
      ...(chance(2) === 0 ? { dripExempt: true } : {}),
    },
    ...(chance(4) === 0 ? { mowing: { weekdays: ['wed'] } } : {}),
    wish: {
      notBefore: among('21:00', '23:00', '02:00'),
      finishBy: among('06:00', '07:00'),
      headroomPercent: among(100, 130, 150),
      ...(chance(4) === 0 ? { dripAnyTime: true } : {}),
      ...(chance(4) === 0 ? { starts: among('one', 'repeated') } : {}),
      ...[{ programs: 'one' }, { programs: 'by-need' }, { programs: 'by-need' }, {}, {}][chance(5)],
      ...(chance(5) === 0 ? { apart: [['lawn', 'beds']] } : {}),
    },
  };
}

function rulesOf({ timer: { dayRules, longestIntervalDays }, rules = {}, mowing }) {
  const days = [];
  const among = rules.weekdays ?? WEEKDAYS;
  const passedOver = mowing ? [{}, { blockedWeekdays: mowing.weekdays }] : [{}];
  for (const rule of dayRules)
    if (rule === 'weekdays')
      for (let mask = 1; mask < 2 ** among.length; mask++)
        days.push({
          rule,
          weekdays: WEEKDAYS.filter(
            (day) => among.includes(day) && mask & (1 << among.indexOf(day)),
          ),
        });
    else if (rule === 'interval')
      for (let every = 1; every <= longestIntervalDays; every++)
        for (let phase = 0; phase < every; phase++)
          for (const rest of passedOver)
            days.push({ rule, everyDays: every, firstDate: formatDate(FIRST + phase), ...rest });
    else if (rule === 'daily') days.push({ rule });
    else for (const rest of passedOver) days.push({ rule, ...rest });
  return days;
}

/** Dates a week and the longest gap, by stepping through every date of a period: six weeks, or 400 years by the calendar. */
function walked(days, timer) {
  const period = days.rule === 'odd' || days.rule === 'even' ? 146_097 : 42;
  const dates = [];
  for (let day = FIRST; day < FIRST + period; day++) {
    const weekday = WEEKDAYS[weekdayIndexOf(day)];
    if (days.blockedWeekdays?.includes(weekday)) continue;
    const ofMonth = civilOf(day).day;
    const fires =
      days.rule === 'daily' ||
      (days.rule === 'weekdays' && days.weekdays.includes(weekday)) ||
      (days.rule === 'interval' && (day - parseDate(days.firstDate)) % days.everyDays === 0) ||
      (days.rule === 'odd' && ofMonth % 2 === 1 && !(ofMonth === 31 && timer.oddDaysSkip31)) ||
      (days.rule === 'even' && ofMonth % 2 === 0);
    if (fires) dates.push(day);
  }
  const next = [...dates.slice(1), dates[0] + period];
  const gap = dates.length > 0 ? Math.max(...dates.map((day, i) => next[i] - day)) : Infinity;
  return { mean: (dates.length * 7) / period, gap };
}

const walks = new Map();

function fallOf(days, timer) {
  const key = `${JSON.stringify(days)} ${timer.oddDaysSkip31}`;
  if (!walks.has(key)) walks.set(key, walked(days, timer));
  return walks.get(key);
}

function* partitions(items, most) {
  if (items.length === 0) {
    yield [];
    return;
  }
  const [first, ...rest] = items;
  for (const groups of partitions(rest, most)) {
    for (let i = 0; i < groups.length; i++)
      yield groups.map((group, j) => (i === j ? [first, ...group] : group));
    if (groups.length < most) yield [[first], ...groups];
  }
}

function* product(lists) {
  if (lists.length === 0) {
    yield [];
    return;
  }
  const [first, ...rest] = lists;
  for (const tail of product(rest)) for (const one of first) yield [one, ...tail];
}

/** Runs of a station: all within a tenth of the need, or, for those that leave it short, all shorter ones. */
function runsOf(
  { timer: { runStepSeconds: step, longestRunSeconds } },
  { weeklySeconds },
  runsAWeek,
  anyhow,
) {
  const runs = [];
  for (let seconds = step; seconds <= longestRunSeconds; seconds += step) {
    const off = (seconds * runsAWeek - weeklySeconds) / weeklySeconds;
    if (anyhow ? off <= 0.6 : Math.abs(off) <= 0.1 + 1e-9) runs.push(seconds);
  }
  return runs.length > 0 || !anyhow ? runs : [step];
}

/** The cheapest plan; null: none; 'unfinished': too many. Less water than needed counts only if nothing else is possible. */
export function plainPlan(brief, bare, most = 10_000) {
  const whole = plainPlanWith(brief, bare, most, false);
  return whole === null ? plainPlanWith(brief, bare, most, true) : whole;
}

/** @returns {{ plan, cost } | null | 'unfinished'} the cheapest plan; null: none */
function plainPlanWith(brief, bare, most, anyhow) {
  const { timer: own, wish } = brief;
  const needs = brief.stations.filter(({ weeklySeconds }) => weeklySeconds > 0);
  const slots = Array.from({ length: 1440 / own.startStepMinutes }, (_, i) =>
    formatTime(i * own.startStepMinutes * 60),
  );
  const startSets = slots.map((one) => [one]);
  if (own.startsPerProgram > 1 && wish.starts !== 'one')
    for (const [i, a] of slots.entries())
      for (const b of slots.slice(i + 1)) startSets.push([a, b]);
  const soaks = own.cycleSoak === 'program' && wish.starts !== 'repeated' ? [false, true] : [false];
  let asked = 0;
  let best = null;
  const take = (programs) => {
    const plan = { ...bare, programs };
    const cost = costOf(brief, plan);
    asked += 0.05;
    if (best && compareCosts(cost, best.cost) >= 0) return;
    asked++;
    if (breachOf(brief, plan) === null) best = { plan, cost };
  };
  const mostPrograms = wish.programs === 'one' ? 1 : own.programCount;
  for (const groups of [...partitions(needs, mostPrograms)].sort((a, b) => a.length - b.length)) {
    const byNeed = wish.programs === 'by-need';
    if (best && !byNeed && best.cost[0] === 0 && best.cost[1] === 0 && groups.length > best.cost[3])
      continue;
    const lists = groups.map((members, j) => {
      const list = [];
      for (const days of rulesOf(brief)) {
        const { mean, gap } = fallOf(days, own);
        const suits = ({ least, most }) =>
          mean > least - 1e-9 && mean < most + 1e-9 && gap <= Math.ceil(14 / least);
        if (members.some(({ days: wanted }) => wanted && !suits(wanted))) continue;
        for (const starts of startSets)
          for (const seconds of product(
            members.map((need) => runsOf(brief, need, mean * starts.length, anyhow)),
          ))
            for (const soak of soaks) {
              const cycled = members.filter(({ cycleSeconds }) => cycleSeconds);
              if (soak && cycled.length === 0) continue;
              const program = {
                letter: 'AB'[j],
                starts,
                runs: members.map(({ number }, i) => ({ station: number, seconds: seconds[i] })),
                days,
                ...(soak
                  ? {
                      cycleSeconds: Math.min(...cycled.map((one) => one.cycleSeconds)),
                      soakSeconds: Math.max(...cycled.map((one) => one.soakSeconds)),
                    }
                  : {}),
              };
              list.push(program);
            }
      }
      return list;
    });
    if (groups.length === 1)
      for (const program of lists[0]) {
        if (asked > most) return 'unfinished';
        take([program]);
      }
    else {
      if (lists.some((list) => list.length > 20_000)) return 'unfinished';
      // A program must be allowed by itself, and is considered only if it could be part of something cheaper.
      const others = { ...brief };
      const sound = lists.map((list, j) =>
        list
          .map((program) => {
            const part = { ...others, stations: groups[j] };
            const plan = { ...bare, programs: [program] };
            return { program, cost: costOf(part, plan), plan, part };
          })
          .sort((a, b) => compareCosts(a.cost, b.cost))
          .filter(({ plan, part }, i, all) => {
            if (i > most) return false;
            asked++;
            return breachOf(part, plan) === null;
          }),
      );
      for (const a of sound[0])
        for (const b of sound[1]) {
          if (asked > most) return 'unfinished';
          const sum = a.cost.map((part, i) => part + b.cost[i]);
          if (
            best &&
            compareCosts([sum[0], sum[1], sum[2], 2, sum[4], sum[5] - 1, 0], best.cost) >= 0
          )
            continue;
          take([a.program, b.program]);
        }
    }
    if (asked > most) return 'unfinished';
  }
  return best;
}
