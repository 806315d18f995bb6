/** The planner's messages. */
import { assertDefined } from '../document/assertDefined.ts';
import { type Brief, wishOf } from '../brief/brief.ts';
import { daysWanted, highPercent } from '../brief/wanted.ts';
import { SECONDS_PER_DAY } from '../time/calendar.ts';
import type { Path } from '../document/fault.ts';
import type { Plan } from '../plan/plan.ts';
import { banWords } from '../rules/rulesWords.ts';
import type { Days } from '../time/dayRules.ts';
import type { Cost } from './cost.ts';
import type { OffCause, Reason } from './reasons.ts';
import type { Proof } from './proof.ts';
import type { SeasonMonth } from './season.ts';
import { datesOfProgram } from '../plan/starts.ts';
import { mostDaysBetween } from '../time/dateCount.ts';
import type { AlternativeKind, Simpler } from './workOut.ts';
import {
  capitalized,
  daysWords,
  lengthWords,
  minutesWords,
  listed,
  monthName,
  startWords,
  counted,
  timeWords,
  weekdaysWords,
  type ClockStyle,
  type Speech,
} from '../words/words.ts';
import { plural, say, wordsOf } from '../language/say.ts';

/** `Front lawn (1)`, or `station 1`. */
export function stationWords({ stations }: Pick<Brief, 'stations'>, number: number): string {
  const name = stations.find((station) => station.number === number)?.name;
  return name ? `${name} (${number})` : say`station ${number}`;
}

/** `2 days`, `2 to 3 days`. */
export const daysRange = (least: number, most: number) =>
  least === most ? counted(least, 'day') : say`${least} to ${most} days`;

const datesWords = (dates: number) => {
  const rounded = Math.round(dates * 10) / 10;
  return Math.abs(dates - rounded) < 1e-9 && Number.isInteger(rounded)
    ? say`${counted(rounded, 'day')} a week`
    : say`about ${rounded} days a week`;
};

/** A rule without its reference date. */
const ruleWords = (days: Days) =>
  days.rule === 'interval' ? plural(days.everyDays, 'every day', 'every # days') : daysWords(days);

/** End of a cycle as a time of day, rounded up to a minute. */
const endWords = (second: number, clock: ClockStyle): string =>
  timeWords((Math.ceil(second / 60) * 60) % SECONDS_PER_DAY, clock);

export function reasonSentence(reason: Reason, brief: Brief, clock: ClockStyle): string {
  const { program = '' } = reason;
  const station = (number: number) => stationWords(brief, number);
  const own = reason.station === undefined ? '' : station(reason.station);
  switch (reason.kind) {
    case 'one-program':
      return reason.stations === 1
        ? say`One program, because there is one station to water.`
        : say`One program for all ${reason.stations} stations. The same days suit them all, and they fit in one night.`;
    case 'programs': {
      const { days, apart, byNeed, count } = reason;
      if (days) {
        const [few, many] = days;
        return say`${capitalized(counted(count, 'program'))}: ${station(few.station)} needs ${daysRange(few.least, few.most)} a week and ${station(many.station)} ${daysRange(many.least, many.most)}, so they cannot share their days.`;
      }
      if (apart)
        return say`${capitalized(counted(count, 'program'))}: ${apart[0]} and ${apart[1]} must not share a program.`;
      if (byNeed.length > 0)
        return byNeed.length === 1
          ? say`${capitalized(counted(count, 'program'))}: ${byNeed[0]} and the other stations have different needs, so each gets its own program as far as programs allow.`
          : say`${capitalized(counted(count, 'program'))}: ${listed(byNeed)} have different needs, so each gets its own program as far as programs allow.`;
      return say`${capitalized(counted(count, 'program'))}: with fewer, watering would not fit the preferred hours up to ${wishOf(brief).headroomPercent} %.`;
    }
    case 'days': {
      const because: string[] = [];
      const { least, most, allowed, parity, mown } = reason;
      if (least && most && least.station === most.station)
        because.push(
          say`${station(least.station)} needs ${daysRange(least.days, most.days)} a week`,
        );
      else {
        if (least)
          because.push(
            say`${station(least.station)} needs at least ${counted(least.days, 'day')} a week`,
          );
        if (most)
          because.push(
            say`${station(most.station)} may water at most ${counted(most.days, 'day')} a week`,
          );
      }
      if (allowed) because.push(say`only ${weekdaysWords(allowed)} are allowed here`);
      if (parity) because.push(say`only ${parity} dates are allowed here`);
      if (mown.length > 0) because.push(say`it must be dry for mowing on ${weekdaysWords(mown)}`);
      const told =
        reason.days.rule === 'weekdays'
          ? say`${program} waters on ${ruleWords(reason.days)}, ${datesWords(reason.dates)}`
          : say`${program} waters ${ruleWords(reason.days)}, ${datesWords(reason.dates)}`;
      return because.length > 0
        ? `${told}: ${listed(because)}.`
        : say`${told}. No station needs more, and deep, infrequent watering is better than light, frequent watering.`;
    }
    case 'one-start':
      return say`${program} has one start time. Each station gets its water in one run, or the timer splits it.`;
    case 'starts':
      if (reason.station === undefined) return say`${program} has ${reason.count} start times.`;
      return reason.stretch === null
        ? say`${program} has ${reason.count} start times, because ${own} needs that many runs on each of its days.`
        : say`${program} has ${reason.count} start times. ${own} can run ${lengthWords(reason.stretch)} before water runs off, so its water is split into ${reason.count} runs.`;
    case 'start': {
      const at = startWords(reason.start, clock);
      const ends = endWords(reason.ends, clock);
      const told = say`${program} starts at ${at} and ends at ${ends}`;
      switch (reason.later) {
        case 'outside':
          return say`${told}, outside the preferred hours from ${startWords(wishOf(brief).notBefore, clock)} to ${startWords(wishOf(brief).finishBy, clock)}. None of the plans we tried fit inside them.`;
        case 'finish':
          return reason.endsHigh === reason.ends
            ? say`${told}. Everything should end by ${startWords(wishOf(brief).finishBy, clock)}, and the hours before it are the coolest and calmest.`
            : say`${told}. At ${highPercent(brief)} % it ends at ${endWords(reason.endsHigh, clock)}. Everything should end by ${startWords(wishOf(brief).finishBy, clock)}.`;
        case 'overlap':
          return say`${told}. One step later it would run into ${reason.into ?? say`another cycle`} at ${wishOf(brief).headroomPercent} %.`;
        case 'forbidden-hour':
        case 'forbidden-day':
          return say`${told}. One step later it would water when the rules do not allow it.`;
        case 'free':
          return say`${told}, before the others.`;
        default:
          return say`${told}. One step later it would not meet the brief.`;
      }
    }
    case 'run': {
      const { seconds, weekly, given, off: cause, runsAWeek } = reason;
      const runs = Math.round(runsAWeek * 100) / 100;
      const off = Math.round(((given - weekly) * 100) / Math.max(1, weekly));
      const told = say`${capitalized(own)}: ${lengthWords(seconds)} a run, ${runs} runs a week. It needs ${lengthWords(weekly)} a week`;
      if (cause)
        return say`${told} and gets ${lengthWords(Math.round(given))}, ${Math.abs(off)} % too ${off > 0 ? say`much` : say`little`}: ${OFF_WORDS[cause](brief, reason)}.`;
      return off === 0
        ? `${told}.`
        : say`${told} and gets ${lengthWords(Math.round(given))} (${off > 0 ? '+' : '−'}${Math.abs(off)} %).`;
    }
    case 'split':
      return say`${capitalized(own)} is split into ${reason.pieces.map((piece) => lengthWords(piece)).join(' + ')} with a ${lengthWords(reason.soak)} soak between, because water runs off after ${lengthWords(reason.stretch)}.`;
    case 'headroom':
      return say`No overlaps and no watering at forbidden times at any percent up to ${reason.percent} %.`;
    case 'outside':
      return say`At ${highPercent(brief)} %, ${minutesWords(reason.minutes)} a week falls outside ${startWords(wishOf(brief).notBefore, clock)} to ${startWords(wishOf(brief).finishBy, clock)}. None of the plans we tried fits inside those hours.`;
  }
}

/** What limits a run below its need. */
const OFF_WORDS: Readonly<
  Record<OffCause, (brief: Brief, reason: Pick<Reason, 'station'>) => string>
> = {
  stretch: ({ stations }, { station }) => {
    const longest = stations.find(({ number }) => number === station)?.cycleSeconds ?? 0;
    return say`it can run only ${lengthWords(longest)} at a time`;
  },
  longest: ({ timer }) => say`this timer's longest run is ${lengthWords(timer.longestRunSeconds)}`,
  step: ({ timer }) =>
    say`this timer sets run times in ${lengthWords(timer.runStepSeconds)} steps, and the next step is no closer`,
  room: () => say`none of the plans we tried had room for a closer run time`,
};

/** Part of the brief a reason comes from, as text. */
export function sourceWords(path: Path, brief: Brief): string {
  const [first, second, third] = path;
  if (first === 'stations' && typeof second === 'number') {
    const station = brief.stations[second];
    const who = station ? stationWords(brief, station.number) : say`a station`;
    switch (third) {
      case 'weeklySeconds':
        return say`the water needed by ${who}`;
      case 'days':
        return say`the days of ${who}`;
      case 'cycleSeconds':
        return say`the longest run of ${who}`;
      case 'oftenADay':
        return say`the daily waterings of ${who}`;
      default:
        return who;
    }
  }
  switch (first) {
    case 'rules':
      return say`the local rules`;
    case 'mowing':
      return say`the mowing days`;
    case 'timer':
      return say`the timer`;
    case 'settings':
      return say`the timer’s settings`;
    case 'wish':
      return say`the preferences`;
    default:
      return say`the stations`;
  }
}

/** First part in which a cost is greater than another. */
function firstGap(cost: Cost, bound: Cost): number {
  return cost.findIndex((part, i) => part - assertDefined(bound[i], 'bound[i]') > 1e-6);
}

/** What is known about cheaper plans, for the first cost part in which there may be one. */
export function proofSentence({ optimal, bound }: Proof, cost: Cost): string {
  const gap = optimal ? -1 : firstGap(cost, bound);
  const here = cost[gap] ?? 0;
  const least = Math.ceil(bound[gap] ?? 0);
  switch (gap) {
    case -1:
      return say`This is the best plan possible.`;
    case 0:
      return least > 0
        ? say`No plan gives every station what it needs. One that comes closer may be possible.`
        : say`Some stations are over or short. A plan that comes closer may be possible.`;
    case 1:
      return say`${minutesWords(here)} a week is outside the preferred hours. A plan with less may be possible.`;
    case 2:
      return plural(
        here,
        '# group shares a program with another. A plan that separates it may be possible.',
        '# groups share a program with others. A plan that separates more may be possible.',
      );
    case 3:
      return least > 1
        ? say`At least ${least} programs are needed. A plan with fewer than ${here} may be possible.`
        : say`A plan with fewer than ${here} programs may be possible.`;
    case 4:
      return least > 1
        ? say`At least ${least} start times are needed. A plan with fewer than ${here} may be possible.`
        : say`A plan with fewer than ${here} start times may be possible.`;
    case 5:
      return say`A plan with run times even closer to the need may be possible.`;
    default:
      return say`A plan that finishes closer to the preferred time may be possible.`;
  }
}

export function simplerSentence({ what, count, cost }: Simpler, best: Cost): string {
  const less =
    what === 'programs'
      ? counted(count, 'program')
      : say`${counted(count, 'start time', 'start times')} per program`;
  if (!cost) return say`With ${less}, we found no plan.`;
  if (cost[0] > best[0]) return say`With ${less}, stations would be further from what they need.`;
  if (cost[1] > best[1])
    return say`With ${less}, ${minutesWords(cost[1] - best[1])} more a week would fall outside the preferred hours.`;
  if (cost[2] > best[2])
    return say`With ${less}, ${plural(cost[2] - best[2], '# more group', '# more groups')} would share a program.`;
  if (cost[3] > best[3]) return say`With ${less}, there would be ${counted(cost[3], 'program')}.`;
  return say`With ${less}, run times would be further from the need.`;
}

export const ALTERNATIVE_WORDS: Record<AlternativeKind, string> = wordsOf({
  'as-wished': 'As preferred',
  'by-sunrise': 'Done by sunrise',
  'fewest-days': 'Fewest days',
  'timer-soak': 'Timer’s cycle and soak',
  'repeated-starts': 'Repeated start times',
  'one-program': 'One program',
});

/** What another kind of plan costs more, or less, than the first, in a line. */
export function comparedSentence(cost: Cost, first: Cost): string {
  const parts: string[] = [];
  const tell = (i: number, more: (by: number) => string, fewer: (by: number) => string) => {
    const by = assertDefined(cost[i], 'cost[i]') - assertDefined(first[i], 'first[i]');
    if (Math.abs(by) > 1e-6) parts.push(by > 0 ? more(by) : fewer(-by));
  };
  const length = minutesWords;
  tell(
    0,
    () => say`stations further from the water they need`,
    () => say`stations closer to the water they need`,
  );
  tell(
    1,
    (by) => say`${length(by)} more a week outside the preferred hours`,
    (by) => say`${length(by)} less a week outside the preferred hours`,
  );
  tell(
    2,
    (by) => plural(by, '# more group sharing a program', '# more groups sharing a program'),
    (by) => plural(by, '# fewer group sharing a program', '# fewer groups sharing a program'),
  );
  tell(
    3,
    (by) => plural(by, '# more program', '# more programs'),
    (by) => plural(by, '# fewer program', '# fewer programs'),
  );
  tell(
    4,
    (by) => plural(by, '# more start time', '# more start times'),
    (by) => plural(by, '# fewer start time', '# fewer start times'),
  );
  if (parts.length === 0) {
    const by = cost[5] - first[5];
    if (by === 0) return say`the same`;
    return by > 0 ? say`run times further from the need` : say`run times closer to the need`;
  }
  return listed(parts);
}

/** Parts of a brief that another kind of plan does not keep: days of stations, groups to keep apart. */
export function notKept(brief: Brief, plan: Plan): string[] {
  const told: string[] = [];
  for (const program of plan.programs) {
    const { letter, days, runs } = program;
    if (!days) continue;
    const { mean: dates, gap } = datesOfProgram(plan, program);
    const against = brief.stations.filter((one) => {
      const wanted = daysWanted(brief, one);
      return (
        wanted !== null &&
        runs.some(({ station }) => station === one.number) &&
        (dates < wanted.least - 1e-9 ||
          dates > wanted.most + 1e-9 ||
          gap > mostDaysBetween(wanted.least))
      );
    });
    if (against.length > 0)
      told.push(
        say`${listed(against.map(({ number }) => stationWords(brief, number)))} in ${letter}, ${datesWords(dates)}`,
      );
    const groups = new Set(
      runs.map(({ station }) => brief.stations.find(({ number }) => number === station)?.group),
    );
    for (const [a, b] of wishOf(brief).apart)
      if (groups.has(a) && groups.has(b)) told.push(say`${a} and ${b} together in ${letter}`);
  }
  return told;
}

/** Why the year's programs do not work in a month. */
export function monthSentence(
  { month, percent, off, rounded, ban, late, tight, serves }: SeasonMonth,
  brief: Brief,
  speech: Speech,
): string {
  const name = monthName(month);
  if (ban?.isWhole) return `${name}: ${banWords(ban, speech)}.`;
  const partly = ban ? say` Watering by timer is ${banWords(ban, speech)}.` : '';
  if (percent === null) return say`${name}: no water is needed. Switch the timer off.${partly}`;
  const roundedWords = rounded.map(({ number, seconds }) =>
    seconds > 0
      ? say`${stationWords(brief, number)} ${lengthWords(Math.abs(seconds))} a week more`
      : say`${stationWords(brief, number)} ${lengthWords(Math.abs(seconds))} a week less`,
  );
  if (serves)
    return `${name}: ${percent} %.${roundedWords.length > 0 ? say` Run times are rounded, so it gives ${listed(roundedWords)}. Keep the settings.` : ''}${partly}`;
  const because: string[] = [];
  if (off.length > 0)
    because.push(
      say`${listed([...off.slice(0, 3).map((number) => stationWords(brief, number)), ...(off.length > 3 ? [say`${off.length - 3} more`] : [])])} would be more than 10 % off`,
    );
  if (late > 0) because.push(say`watering would end ${lengthWords(late)} late`);
  if (tight) because.push(say`cycles could overlap`);
  return say`${name}: at ${percent} %, ${listed(because)}.${partly}`;
}
