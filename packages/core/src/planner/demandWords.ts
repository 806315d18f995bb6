/** Messages about the demands of a brief and possible changes. */
import { assertDefined } from '../document/assertDefined.ts';
import { type Brief, wishOf } from '../brief/brief.ts';
import {
  type ClockStyle,
  capitalized,
  counted,
  lengthWords,
  startWords,
  weekdaysWords,
  listed,
} from '../words/words.ts';
import type { Conflict } from './conflicts.ts';
import type { Demand, MilderWhat } from './demand.ts';
import { stationWords, daysRange } from './plannerWords.ts';
import { say, wordsOf } from '../language/say.ts';

/** The demand as the homeowner would put it. */
export function demandSentence(
  { about, station, path }: Demand,
  brief: Brief,
  clock: ClockStyle,
): string {
  const wish = wishOf(brief);
  const rules = brief.rules ?? {};
  const who = station ? capitalized(stationWords(brief, station.number)) : '';
  switch (about) {
    case 'days': {
      const { least, most } = assertDefined(station?.days, 'station?.days');
      return say`${who} needs ${daysRange(least, most)} a week.`;
    }
    case 'garden-days': {
      const { least, most } = assertDefined(brief.wish?.daysPerWeek, 'brief.wish?.daysPerWeek');
      return say`The garden should water ${daysRange(least, most)} a week.`;
    }
    case 'cycle':
      return say`${who} can run ${lengthWords(assertDefined(station?.cycleSeconds, 'station?.cycleSeconds'))} before water runs off.`;
    case 'often': {
      const { times, from, to } = assertDefined(station?.oftenADay, 'station?.oftenADay');
      return say`${who} needs to run ${times} times a day between ${startWords(from, clock)} and ${startWords(to, clock)}.`;
    }
    case 'water':
      return say`${who} needs water.`;
    case 'weekdays': {
      const weekdays = assertDefined(rules.weekdays, 'rules.weekdays');
      return weekdays.length === 0
        ? say`Watering is not allowed here on any day.`
        : say`Watering is allowed here only on ${weekdaysWords(weekdays)}.`;
    }
    case 'parity':
      return rules.parity === 'odd'
        ? say`Watering is allowed here only on odd dates.`
        : say`Watering is allowed here only on even dates.`;
    case 'windows':
      return say`Watering is not allowed here ${listed(assertDefined(rules.noWaterWindows, 'rules.noWaterWindows').map(({ from, to, weekdays }) => say`from ${startWords(from, clock)} to ${startWords(to, clock)}${weekdays ? say` on ${weekdaysWords(weekdays)}` : ''}`))}.`;
    case 'days-per-week':
      return say`At most ${counted(assertDefined(rules.mostDaysPerWeek, 'rules.mostDaysPerWeek'), 'day')} a week are allowed here.`;
    case 'mowing': {
      const { weekdays, dayBefore } = assertDefined(brief.mowing, 'brief.mowing');
      return dayBefore
        ? say`The lawn must be dry for mowing on ${weekdaysWords(weekdays)}, and the day before.`
        : say`The lawn must be dry for mowing on ${weekdaysWords(weekdays)}.`;
    }
    case 'off-days':
      return say`The timer skips these days of the month: ${listed(assertDefined(brief.settings?.offDaysOfMonth, 'brief.settings?.offDaysOfMonth'))}.`;
    case 'starts':
      return wish.starts === 'one'
        ? say`Each program has one start time.`
        : wish.starts === 'repeated'
          ? say`Repeated start times allow the water to soak in.`
          : say`The timer’s cycle and soak is used.`;
    case 'day-wish':
      return wish.days === 'weekdays'
        ? say`Days are set as weekdays.`
        : say`Days are set as an interval.`;
    case 'one-program':
      return say`There is only one program.`;
    case 'headroom':
      return say`There are no overlaps up to ${wish.headroomPercent} %.`;
    case 'apart': {
      const [one, other] = assertDefined(
        wish.apart[Number(path[2])],
        'wish.apart[Number(path[2])]',
      );
      return say`${capitalized(one)} and ${other} never share a program.`;
    }
    case 'program-count':
      return say`The timer has ${counted(brief.timer.programCount, 'program')}.`;
    case 'start-count':
      return say`The timer has ${counted(brief.timer.startsPerProgram, 'start time', 'start times')} for each program.`;
    case 'day-rules':
      return say`The timer does not have every day rule.`;
  }
}

/** The helpful change, as an offer. */
export function changeSentence(
  what: MilderWhat,
  { station, about }: Demand,
  brief: Brief,
  clock: ClockStyle,
): string {
  const who = station ? stationWords(brief, station.number) : '';
  switch (what.kind) {
    case 'days':
      return what.alike
        ? say`Let ${who}, and all stations with the same days, have ${daysRange(what.least, what.most)} a week.`
        : say`Let ${who} have ${daysRange(what.least, what.most)} a week.`;
    case 'garden-days':
      return say`Water the garden ${daysRange(what.least, what.most)} a week.`;
    case 'cycle':
      return say`Let ${who} run ${lengthWords(what.seconds)} without a break.`;
    case 'times':
      return say`Let ${who} run ${what.times} times a day.`;
    case 'span':
      return say`Let ${who} run between ${startWords(what.from, clock)} and ${startWords(what.to, clock)}.`;
    case 'without-station':
      return say`Leave ${who} out and water it manually.`;
    case 'weekdays':
      return say`Ask whether ${weekdaysWords(what.added)} can be allowed too.`;
    case 'days-per-week':
      return say`Ask whether ${counted(what.most, 'day')} a week can be allowed.`;
    case 'dropped':
      return DROPPED[about] ?? say`Drop this preference.`;
    case 'window':
      return say`Ask whether watering can be allowed outside ${startWords(what.window.from, clock)} to ${startWords(what.window.to, clock)}.`;
    case 'mowing':
      return what.dayBefore
        ? say`Mow only on ${weekdaysWords(what.weekdays)}.`
        : say`Keep the lawn dry only on ${weekdaysWords(what.weekdays)}.`;
    case 'wish':
      return about === 'one-program' ? say`Allow more programs.` : say`Let the planner choose.`;
    case 'headroom':
      return say`Accept ${what.percent} %.`;
    case 'count':
      return about === 'program-count'
        ? say`A timer with ${counted(what.count, 'program')} would work.`
        : say`A timer with ${counted(what.count, 'start time', 'start times')} per program would work.`;
    case 'timer':
      return say`A timer like “${what.timer.name}” would work.`;
  }
}

const DROPPED: Partial<Record<Demand['about'], string>> = wordsOf({
  parity: 'Ask whether other dates can be allowed.',
  windows: 'Ask whether watering can be allowed at that hour.',
  mowing: 'Mow on any day and accept wet grass.',
  'off-days': 'Allow every day of the month.',
  apart: 'Let them share a program.',
  often: 'Water it like the others.',
});

/** A conflict in one sentence or two. */
export function conflictSentences({ demand, change }: Conflict, brief: Brief, clock: ClockStyle) {
  return {
    demand: demandSentence(demand, brief, clock),
    change: change
      ? changeSentence(change.what, demand, brief, clock)
      : say`Changing this alone is not enough.`,
  };
}
