/** What the planner has to say, as English. */
import { type Brief, wishOf } from '../brief/brief.ts';
import { SECONDS_PER_DAY } from '../time/calendar.ts';
import type { Path } from '../document/fault.ts';
import type { Plan } from '../plan/plan.ts';
import type { Days } from '../time/dayRules.ts';
import type { Conflict } from './conflicts.ts';
import type { Cost } from './cost.ts';
import type { Demand, MilderWhat } from './demands.ts';
import type { Reason } from './reasons.ts';
import type { Proof } from './search.ts';
import type { SeasonMonth } from './season.ts';
import { datesOf } from './verify.ts';
import type { AlternativeKind, Simpler } from './workOut.ts';
import {
  capitalized,
  daysWords,
  lengthWords,
  listed,
  monthName,
  startWords,
  timeWords,
  weekdaysWords,
  type ClockStyle,
} from '../words/words.ts';

const counted = (count: number, one: string, many = `${one}s`) =>
  `${count} ${count === 1 ? one : many}`;

/** `Front lawn (1)`, or `station 1`. */
export function stationWords({ stations }: Pick<Brief, 'stations'>, number: number): string {
  const name = stations.find((one) => one.number === number)?.name;
  return name ? `${name} (${number})` : `station ${number}`;
}

/** `2 days`, `2 to 3 days`. */
const daysRange = (least: number, most: number) =>
  least === most ? counted(least, 'day') : `${least} to ${most} days`;

const datesWords = (dates: number) => {
  const rounded = Math.round(dates * 10) / 10;
  return Math.abs(dates - rounded) < 1e-9 && Number.isInteger(rounded)
    ? `${counted(rounded, 'day')} a week`
    : `about ${rounded} days a week`;
};

/** A rule without the date from which it counts. */
const ruleWords = (days: Days) =>
  days.rule === 'interval'
    ? `every ${days.everyDays === 1 ? 'day' : `${days.everyDays} days`}`
    : daysWords(days);

export function reasonSentence(reason: Reason, brief: Brief, clock: ClockStyle): string {
  const { program = '' } = reason;
  const station = (number: number) => stationWords(brief, number);
  const own = reason.station === undefined ? '' : station(reason.station);
  switch (reason.kind) {
    case 'one-program':
      return reason.stations === 1
        ? 'One program: there is one station to water.'
        : `One program for all ${reason.stations} stations: one set of days suits them all, and one night has room for them.`;
    case 'programs': {
      const { days, apart, count } = reason;
      if (days) {
        const [few, many] = days;
        return `${capitalized(counted(count, 'program'))}: ${station(few.station)} is to have ${daysRange(few.least, few.most)} a week and ${station(many.station)} ${daysRange(many.least, many.most)}, so no one set of days suits both.`;
      }
      if (apart)
        return `${capitalized(counted(count, 'program'))}: ${apart[0]} and ${apart[1]} are to be kept apart.`;
      return `${capitalized(counted(count, 'program'))}: fewer would not be done in the hours that are wished, with the percent at ${wishOf(brief).headroomPercent} % as well.`;
    }
    case 'days': {
      const because: string[] = [];
      const { least, most, allowed, parity, mown } = reason;
      if (least)
        because.push(
          `${station(least.station)} is to have at least ${counted(least.days, 'day')} a week`,
        );
      if (most) because.push(`${station(most.station)} at most ${counted(most.days, 'day')}`);
      if (allowed) because.push(`only ${weekdaysWords(allowed)} are allowed here`);
      if (parity) because.push(`only ${parity} dates are allowed here`);
      if (mown.length > 0) because.push(`${weekdaysWords(mown)} is to be dry for the mower`);
      const told = `${program} waters ${reason.days.rule === 'weekdays' ? 'on ' : ''}${ruleWords(reason.days)}, ${datesWords(reason.dates)}`;
      return because.length > 0
        ? `${told}: ${listed(because)}.`
        : `${told}: no station asks for more, and seldom and deep is better than often and little.`;
    }
    case 'one-start':
      return `${program} has one start: each station gets its water in one go, or the timer splits it.`;
    case 'starts':
      return reason.stretch === null
        ? `${program} has ${reason.count} starts: ${own} is to run that often on each of its days.`
        : `${program} has ${reason.count} starts: ${own} takes ${lengthWords(reason.stretch)} at a stretch before water runs off, so its water comes in ${reason.count} parts.`;
    case 'start': {
      const at = startWords(reason.start, clock);
      const ends = timeWords(reason.ends % SECONDS_PER_DAY, clock);
      const told = `${program} starts at ${at} and is done at ${ends}`;
      switch (reason.later) {
        case 'finish':
          return `${told}: all is to be done by ${startWords(wishOf(brief).finishBy, clock)}, and the latest hour is the coolest and the calmest.`;
        case 'overlap':
          return `${told}: a step later it would run into ${reason.into ?? 'another cycle'} at ${wishOf(brief).headroomPercent} %.`;
        case 'forbidden-hour':
        case 'forbidden-day':
          return `${told}: a step later it would water when that is not allowed here.`;
        case 'free':
          return `${told}, before the others.`;
        default:
          return `${told}: a step later it would break what is asked for.`;
      }
    }
    case 'run': {
      const { seconds, weekly, given, isOff, runsAWeek } = reason;
      const runs = Math.round(runsAWeek * 100) / 100;
      const off = Math.round(((given - weekly) * 100) / Math.max(1, weekly));
      const told = `${capitalized(own)}: ${lengthWords(seconds)} a run, ${runs} runs a week; it needs ${lengthWords(weekly)} a week`;
      if (isOff)
        return `${told} and gets ${lengthWords(Math.round(given))}, ${Math.abs(off)} % too ${off > 0 ? 'much' : 'little'}: no other run fits.`;
      return off === 0
        ? `${told}.`
        : `${told} and gets ${lengthWords(Math.round(given))} (${off > 0 ? '+' : '−'}${Math.abs(off)} %).`;
    }
    case 'split':
      return `${capitalized(own)} is split into ${reason.pieces.map((piece) => lengthWords(piece)).join(' + ')}, with ${lengthWords(reason.soak)} between: water runs off after ${lengthWords(reason.stretch)}.`;
    case 'headroom':
      return `Nothing overlaps, and nothing is wet when it must not be, at any percent up to ${reason.percent} %.`;
    case 'outside':
      return `${lengthWords(Math.round(reason.minutes * 60))} a week are outside ${startWords(wishOf(brief).notBefore, clock)} to ${startWords(wishOf(brief).finishBy, clock)}: all of it has no room inside.`;
  }
}

/** Which part of the brief a reason comes from, for people. */
export function sourceWords(path: Path, brief: Brief): string {
  const [first, second, third] = path;
  if (first === 'stations' && typeof second === 'number') {
    const station = brief.stations[second];
    const who = station ? stationWords(brief, station.number) : 'a station';
    switch (third) {
      case 'weeklySeconds':
        return `the water that ${who} needs`;
      case 'days':
        return `the days of ${who}`;
      case 'cycleSeconds':
        return `the longest run of ${who}`;
      case 'oftenADay':
        return `how often a day ${who} is watered`;
      default:
        return who;
    }
  }
  switch (first) {
    case 'rules':
      return 'the rules of the place';
    case 'mowing':
      return 'the mowing days';
    case 'timer':
      return 'the timer';
    case 'settings':
      return 'the timer’s settings';
    case 'wish':
      return 'what is wished';
    default:
      return 'the stations';
  }
}

const PARTS = [
  'stations off their need',
  'minutes a week outside the wished hours',
  'programs',
  'starts',
  'thousandths off the need',
  'minutes between the last end and the hour by which all is to be done',
] as const;

/** Where a cost is first greater than another. */
function firstGap(cost: Cost, bound: Cost): number {
  return cost.findIndex((part, i) => part - (bound[i] ?? 0) > 1e-6);
}

export function proofSentence({ optimal, bound }: Proof, cost: Cost): string {
  if (optimal) return 'Proved: no plan is better.';
  const gap = firstGap(cost, bound);
  if (gap < 0) return 'Proved: no plan is better.';
  return `The best that was found: ${cost[gap]} ${PARTS[gap]}; fewer than ${Math.ceil(bound[gap] ?? 0)} are impossible, what lies between is not proved.`;
}

export function simplerSentence({ what, count, cost }: Simpler, best: Cost): string {
  const less =
    what === 'programs' ? counted(count, 'program') : `${counted(count, 'start')} a program`;
  if (!cost) return `With ${less} there is no plan.`;
  if (cost[0] > best[0])
    return `With ${less}, ${counted(cost[0] - best[0], 'station')} more would be off the water needed.`;
  if (cost[1] > best[1])
    return `With ${less}, ${lengthWords(Math.round((cost[1] - best[1]) * 60))} more a week would be outside the wished hours.`;
  if (cost[2] > best[2]) return `With ${less}, there would be ${counted(cost[2], 'program')}.`;
  return `With ${less}, the runs would be further off the need.`;
}

export const ALTERNATIVE_WORDS: Record<AlternativeKind, string> = {
  'as-wished': 'As wished',
  'by-sunrise': 'Done by sunrise',
  'fewest-days': 'Fewest days',
  'timer-soak': 'Timer soaks',
  'repeated-starts': 'Repeated starts',
  'one-program': 'One program',
};

/** What is asked for, as the homeowner would put it. */
export function demandSentence(
  { about, station, path }: Demand,
  brief: Brief,
  clock: ClockStyle,
): string {
  const wish = wishOf(brief);
  const rules = brief.rules ?? {};
  const who = station ? capitalized(stationWords(brief, station.number)) : '';
  switch (about) {
    case 'days':
      return `${who} is to have ${daysRange(station?.days?.least ?? 1, station?.days?.most ?? 7)} a week.`;
    case 'cycle':
      return `${who} takes ${lengthWords(station?.cycleSeconds ?? 0)} at a stretch before water runs off.`;
    case 'often':
      return `${who} is to run ${station?.oftenADay?.times ?? 2} times a day between ${startWords(station?.oftenADay?.from ?? '', clock)} and ${startWords(station?.oftenADay?.to ?? '', clock)}.`;
    case 'water':
      return `${who} is to be watered at all.`;
    case 'weekdays':
      return `Watering is allowed here on ${weekdaysWords(rules.weekdays ?? []) || 'no day'} only.`;
    case 'parity':
      return `Watering is allowed here on ${rules.parity} dates only.`;
    case 'windows':
      return `Watering is not allowed here ${listed((rules.noWaterWindows ?? []).map(({ from, to, weekdays }) => `from ${startWords(from, clock)} to ${startWords(to, clock)}${weekdays ? ` on ${weekdaysWords(weekdays)}` : ''}`))}.`;
    case 'days-per-week':
      return `At most ${counted(rules.mostDaysPerWeek ?? 7, 'day')} a week are allowed here.`;
    case 'mowing':
      return `The lawn is to be dry for the mower on ${weekdaysWords(brief.mowing?.weekdays ?? [])}${brief.mowing?.dayBefore ? ', and the day before' : ''}.`;
    case 'off-days':
      return `The timer skips some days of the month: ${listed(brief.settings?.offDaysOfMonth ?? [])}.`;
    case 'starts':
      return wish.starts === 'one'
        ? 'Each program is to have one start.'
        : wish.starts === 'repeated'
          ? 'Soaking is to be done by repeated starts.'
          : 'The timer itself is to do the soaking.';
    case 'day-wish':
      return wish.days === 'weekdays'
        ? 'Days are to be weekdays.'
        : 'Days are to be counted, every so many days.';
    case 'one-program':
      return 'There is to be one program only.';
    case 'headroom':
      return `Nothing is to overlap with the percent at up to ${wish.headroomPercent} %.`;
    case 'apart': {
      const pair = wish.apart[typeof path[2] === 'number' ? path[2] : 0] ?? ['', ''];
      return `${capitalized(pair[0])} and ${pair[1]} are never to be in one program.`;
    }
    case 'program-count':
      return `The timer has ${counted(brief.timer.programCount, 'program')}.`;
    case 'start-count':
      return `The timer has ${counted(brief.timer.startsPerProgram, 'start')} a program.`;
    case 'day-rules':
      return 'The timer knows only some ways to choose days.';
  }
}

/** The change that helps, as an offer. */
export function changeSentence(
  what: MilderWhat,
  { station, about }: Demand,
  brief: Brief,
  clock: ClockStyle,
): string {
  const who = station ? stationWords(brief, station.number) : '';
  switch (what.kind) {
    case 'days':
      return `Let ${who}${what.alike ? ', and all stations with the same days,' : ''} have ${daysRange(what.least, what.most)} a week.`;
    case 'cycle':
      return `Let ${who} run ${lengthWords(what.seconds)} at a stretch.`;
    case 'times':
      return `Let ${who} run ${what.times} times a day.`;
    case 'span':
      return `Let ${who} run between ${startWords(what.from, clock)} and ${startWords(what.to, clock)}.`;
    case 'without-station':
      return `Leave ${who} out, and water it by hand.`;
    case 'weekdays':
      return `Ask whether ${weekdaysWords(what.added)} may be allowed too.`;
    case 'days-per-week':
      return `Ask whether ${counted(what.most, 'day')} a week may be allowed.`;
    case 'dropped':
      return DROPPED[about] ?? 'Do without it.';
    case 'window':
      return `Ask whether watering may be allowed outside ${startWords(what.window.from, clock)} to ${startWords(what.window.to, clock)}.`;
    case 'mowing':
      return what.dayBefore
        ? `Mow on ${weekdaysWords(what.weekdays)} only.`
        : `Keep it dry on ${weekdaysWords(what.weekdays)} itself only.`;
    case 'wish':
      return about === 'one-program' ? 'Let there be more programs.' : 'Leave that to the planner.';
    case 'headroom':
      return `Be content with ${what.percent} %.`;
    case 'count':
      return about === 'program-count'
        ? `A timer with ${counted(what.count, 'program')} would do.`
        : `A timer with ${counted(what.count, 'start')} a program would do.`;
    case 'timer':
      return `A timer of the kind “${what.timer.name}” would do.`;
  }
}

const DROPPED: Partial<Record<Demand['about'], string>> = {
  parity: 'Ask whether other dates may be allowed.',
  windows: 'Ask whether watering may be allowed at that hour.',
  mowing: 'Mow on any day, and put up with wet grass.',
  'off-days': 'Let the timer skip no day of the month.',
  apart: 'Let them share a program.',
  often: 'Water it like the others.',
};

/** A conflict in one sentence or two. */
export function conflictSentences(
  { demand, change, isEnough }: Conflict,
  brief: Brief,
  clock: ClockStyle,
) {
  return {
    demand: demandSentence(demand, brief, clock),
    change: change
      ? `${changeSentence(change.what, demand, brief, clock)}${isEnough ? '' : ' That is not all that is in the way.'}`
      : 'No change of this by itself is enough.',
  };
}

/** What a plan of another kind costs more, or less, than the first one, in a line. */
export function comparedSentence(cost: Cost, first: Cost): string {
  const parts: string[] = [];
  const tell = (i: number, words: (by: number) => string) => {
    const by = (cost[i] ?? 0) - (first[i] ?? 0);
    if (Math.abs(by) > 1e-6) parts.push(`${words(Math.abs(by))} ${by > 0 ? 'more' : 'fewer'}`);
  };
  tell(0, (by) => `${counted(by, 'station')} off the need`);
  tell(1, (by) => `${lengthWords(Math.round(by * 60))} a week outside the wished hours`);
  tell(2, (by) => counted(by, 'program'));
  tell(3, (by) => counted(by, 'start'));
  if (parts.length === 0) {
    const by = cost[4] - first[4];
    if (by === 0) return 'the same';
    return `runs ${by > 0 ? 'further off' : 'nearer'} the need`;
  }
  return listed(parts);
}

/** What of a brief a plan of another kind does not keep: days of stations, groups to be apart. */
export function notKept(brief: Brief, plan: Plan): string[] {
  const told: string[] = [];
  for (const { letter, days, runs } of plan.programs) {
    if (!days) continue;
    const dates = datesOf(days);
    const against = brief.stations.filter(
      (one) =>
        one.days !== undefined &&
        runs.some(({ station }) => station === one.number) &&
        (dates < one.days.least - 1e-9 || dates > one.days.most + 1e-9),
    );
    if (against.length > 0)
      told.push(
        `${listed(against.map(({ number }) => stationWords(brief, number)))} in ${letter}, ${datesWords(dates)}`,
      );
    const groups = new Set(
      runs.map(({ station }) => brief.stations.find(({ number }) => number === station)?.group),
    );
    for (const [a, b] of wishOf(brief).apart)
      if (groups.has(a) && groups.has(b)) told.push(`${a} and ${b} together in ${letter}`);
  }
  return told;
}

/** Why the programs of the year do not serve in a month. */
export function monthSentence(
  { month, percent, off, late, tight, serves }: SeasonMonth,
  brief: Brief,
): string {
  const name = monthName(month);
  if (percent === null) return `${name}: no water is needed; switch the timer off.`;
  if (serves) return `${name}: ${percent} %.`;
  const because: string[] = [];
  if (off.length > 0)
    because.push(
      `${listed(off.slice(0, 3).map((number) => stationWords(brief, number)))}${off.length > 3 ? ` and ${off.length - 3} more` : ''} would be more than a tenth off the need`,
    );
  if (late > 0) because.push(`watering would end ${lengthWords(late)} late`);
  if (tight) because.push('cycles could overlap');
  return `${name}: at ${percent} %, ${listed(because)}.`;
}
