/** Findings as English. */
import { sure } from '../document/sure.ts';
import { parseDate, SECONDS_PER_DAY } from '../time/calendar.ts';
import { mostDaysBetween } from '../time/dateCount.ts';
import type { Finding, RuleChange, TimerLimit } from './finding.ts';
import type { Fix } from './fixes.ts';
import type { Missing } from '../plan/program.ts';
import {
  counted,
  capitalized,
  dateWords,
  everyDaysWords,
  lengthWords,
  listed,
  startWords,
  timeWords,
  weekdaysWords,
  type ClockStyle,
  type Speech,
} from '../words/words.ts';
import { upTo } from './verdictWords.ts';
import { missingSentence } from '../plan/planWords.ts';
import { consequenceSentence, overlapSentence } from '../engine/overlapWords.ts';

function limitSentence(limit: TimerLimit, clock: ClockStyle): string {
  switch (limit.what) {
    case 'start-step':
      return `the start ${startWords(limit.given, clock)} does not fit the timer's steps of ${limit.stepMinutes} min`;
    case 'start-count':
      return `${limit.given} starts are set, but a program on this timer has at most ${limit.most}`;
    case 'run-step':
      return `a run of ${lengthWords(limit.given)} does not fit the timer's steps of ${lengthWords(limit.stepSeconds)}`;
    case 'run-longest':
      return `a run of ${lengthWords(limit.given)} is longer than this timer allows (${lengthWords(limit.mostSeconds)})`;
    case 'day-rule':
      return `this timer has no day rule "${limit.given}", only ${listed(limit.allowed)}`;
    case 'percent':
      return `${limit.given} % cannot be set on this timer: it goes from ${limit.steps[0]} to ${limit.steps.at(-1)} %${limit.steps.length > 1 ? ` in steps of ${sure(limit.steps[1]) - sure(limit.steps[0])}` : ''}`;
    case 'no-percent-here':
      return `${limit.given} % cannot be set here on this timer; it runs at 100 %`;
    case 'no-months':
      return 'this timer has no percent for each month';
    case 'delay':
      return `a delay of ${lengthWords(limit.given)} is longer than this timer allows (${lengthWords(limit.mostSeconds)})`;
    case 'interval':
      return `${everyDaysWords(limit.given)} is longer than this timer's longest interval of ${limit.mostDays} days`;
    case 'no-soak':
      return `this timer has no cycle-and-soak for a ${limit.where}`;
    case 'no-windows':
      return 'this timer has no no-water windows: it waters through them anyway';
    case 'no-links':
      return 'on this timer no station can take its run from another';
    case 'at-once':
      return `${limit.given} stations at once are set, but this timer opens at most ${limit.most}`;
  }
}

/** `1 day`, `about 1.7 days`, `no day`. */
function daysAWeek(mean: number): string {
  const rounded = Math.round(mean * 10) / 10;
  if (mean === 0) return 'no day';
  if (Math.abs(mean - Math.round(mean)) < 1e-9) return counted(Math.round(mean), 'day');
  return rounded === 0 ? 'hardly any day' : `about ${counted(rounded, 'day')}`;
}

/** A finding as a sentence for the person at the timer. */
export function findingSentence(finding: Finding, speech: Speech): string {
  const { where } = finding;
  switch (finding.code) {
    case 'overlap':
      return `${overlapSentence(finding.overlap, speech)} ${consequenceSentence(finding.overlap, finding.onOverlap, speech)}`;
    case 'missing-starts':
    case 'missing-runs':
    case 'missing-days':
      // The cast holds because these are the three codes of `Missing`.
      return missingSentence(sure(where.program), [finding.code.slice(8) as Missing]);
    case 'same-start-twice':
      return `${where.program} has the start ${startWords(sure(where.start), speech.clock)} ${finding.times} times: it waters again each time. Delete the extra ones.`;
    case 'not-on-timer': {
      const station = where.station === undefined ? '' : ` station ${where.station}`;
      const place = where.program === undefined ? '' : `${where.program}${station}: `;
      const sentence = `${limitSentence(finding.limit, speech.clock)}.`;
      return place === '' ? capitalized(sentence) : `${place}${sentence}`;
    }
    case 'little-headroom':
      return finding.headroom === null
        ? 'Two cycles overlap even at the lowest percent. Move the starts apart.'
        : `Free of overlaps only ${upTo(finding.headroom)}; midsummer needs ${finding.wanted} %. Move the starts apart.`;
    case 'station-in-two-programs':
      return `Station ${where.station} is in ${listed(finding.programs)}: it is watered by each of them.`;
    case 'percent-moves': {
      const { driven, by } = finding;
      const who = by === 'sensor' ? 'A sensor' : 'An online service';
      const told = `${who} changes the percent, so run times differ from what is set, and settings may be overwritten.`;
      if (!driven) return told;
      const range = `${driven.lowest} and ${driven.highest} %`;
      return driven.overlap
        ? `${told} Between ${range} cycles can overlap. ${overlapSentence(driven.overlap, speech)}`
        : `${told} Nothing overlaps between ${range}.`;
    }
    case 'rain-delay': {
      const day = sure(parseDate(finding.until.slice(0, 10)));
      const time = finding.until.length > 10 ? finding.until.slice(11) : '00:00';
      return `Rain delay: nothing waters before ${dateWords(day, speech.on, speech.order)}, ${startWords(time, speech.clock)}.`;
    }
    case 'timer-off':
      return 'The timer is switched off: nothing waters until it is on "run" again.';
    case 'starts-taken-for-stations':
      return `${where.program} has ${finding.starts.length} starts for ${finding.stations === 1 ? 'one station' : `${finding.stations} stations`}, each while the cycle before is still running. A start runs the whole program, not one station. Keep the first.`;
    case 'leftover-start':
      return `${where.program} waters ${finding.times} times a day, but none of its stations needs that. Keep one start if that gives enough water.`;
    case 'leftover-program':
      return `Every station of ${where.program} is also in another program: ${where.program} looks left over. If it is, delete it.`;
    case 'station-in-none':
      return `Station ${where.station} is in no program: it never waters.`;
    case 'runs-off':
      return `Station ${where.station} runs ${lengthWords(finding.seconds)} at a stretch (${where.program}, ${startWords(sure(where.start), speech.clock)}); at most ${lengthWords(finding.most)} sink in without running off.`;
    case 'soak-too-short':
      return `Station ${where.station} soaks only ${lengthWords(finding.seconds)} before it runs again (${where.program}, ${startWords(sure(where.start), speech.clock)}); it needs ${lengthWords(finding.least)}.`;
    case 'afternoon-start':
      return `${where.program} starts at ${startWords(sure(where.start), speech.clock)}: in the afternoon, wind and sun take much of the water.`;
    case 'odd-then-odd':
      return `${where.program} waters on odd dates, and this timer does not skip the 31st: it waters on the 31st and again on the 1st.`;
    case 'pump-off':
      return `Station ${where.station} needs the pump, but the pump is off for it: it gets little or no water.`;
    case 'under-cover-obeys-sensor':
      return `Station ${where.station} is under cover but obeys the rain sensor: it stays dry whenever it rains outside.`;
    case 'open-ignores-sensor':
      return `Station ${where.station} is in the open but ignores the rain sensor: it waters in the rain.`;
    case 'sensor-bypassed':
      return 'The rain sensor is bypassed: everything waters in the rain.';
    case 'disabled-station':
      return `Station ${where.station} is switched off but has a run in ${listed(finding.programs)}: it does not water.`;
    case 'past-midnight':
      return `${where.program} runs past midnight: it still waters on ${dateWords(sure(where.date), speech.on, speech.order)}, which is not one of its days.`;
    case 'percent-not-100':
      return where.program === undefined
        ? `The seasonal percent is ${finding.percent} %: run times differ from what is entered.`
        : `The seasonal percent of ${where.program} is ${finding.percent} %: its run times differ from what is entered.`;
    case 'forbidden-day':
      return `Station ${where.station} is watered on ${dateWords(sure(where.date), speech.on, speech.order)} (${where.program}, ${startWords(sure(where.start), speech.clock)}): watering is not allowed here on that day.`;
    case 'forbidden-hour':
      return `Station ${where.station} is watered at ${timeWords(finding.at, speech.clock)} on ${dateWords(sure(where.date), speech.on, speech.order)} (${where.program}, ${startWords(sure(where.start), speech.clock)}): watering is not allowed here at that hour.`;
    case 'too-many-days':
      return `Station ${where.station} is watered on ${finding.days} days in the week of ${dateWords(sure(where.date), speech.on, speech.order)}; at most ${finding.most} are allowed here.`;
    case 'rule-change-coming':
      return `From ${dateWords(finding.from, speech.on, speech.order)} ${ruleChangeWords(finding, speech)}`;
    case 'mowing-day':
      return `Station ${where.station} is watered on ${dateWords(sure(where.date), speech.on, speech.order)} (${where.program}, ${startWords(sure(where.start), speech.clock)}): the lawn must be dry for mowing.`;
    case 'too-much':
    case 'too-little':
      return `Station ${where.station} gets ${lengthWords(finding.given)} a week and needs ${lengthWords(finding.wanted)}: ${offWords(finding.given, finding.wanted)}.`;
    case 'too-few-days': {
      const { mean, gap, least } = finding;
      const needs = `needs ${counted(least, 'day')}`;
      return mean < least - 1e-9
        ? `Station ${where.station} waters on ${daysAWeek(mean)} a week and ${needs}.`
        : `Station ${where.station} is without water for up to ${counted(gap, 'day')}; with ${counted(least, 'day')} a week it should be at most ${mostDaysBetween(least)}.`;
    }
    case 'not-often-enough':
      return `Station ${where.station} should run ${finding.often.times} times a day, spread between ${startWords(finding.often.from, speech.clock)} and ${startWords(finding.often.to, speech.clock)}; on ${dateWords(sure(where.date), speech.on, speech.order)} it does not.`;
    case 'late-finish':
      return `${where.program} at ${startWords(sure(where.start), speech.clock)} ends at ${timeWords(finding.ends % SECONDS_PER_DAY, speech.clock)}; it should water between ${startWords(finding.notBefore, speech.clock)} and ${startWords(finding.by, speech.clock)}.`;
  }
}

/** True of rules to come under which no timer waters at all. */
export const isBan = ({ rules }: RuleChange): boolean => rules.weekdays?.length === 0;

/** What rules to come mean for the settings as they are, without the date on which they begin. */
export function ruleChangeWords(finding: RuleChange, speech: Speech): string {
  const { programs, breach } = finding;
  if (!isBan(finding)) return `other rules hold here. ${findingSentence(breach, speech)}`;
  const who = programs.length > 0 ? listed(programs) : 'this timer';
  return `no watering by timer is allowed here, and ${who} still ${programs.length > 1 ? 'water' : 'waters'} then. Switch it off before that day.`;
}

/** `20 % too much`; `all of it too much` where none is needed. */
function offWords(given: number, wanted: number): string {
  if (wanted === 0) return 'it needs none';
  const percent = Math.round((Math.abs(given - wanted) * 100) / wanted);
  return `${percent} % too ${given > wanted ? 'much' : 'little'}`;
}

/** What a fix does, as the words on its button. */
export function fixWords({ does }: Fix, clock: ClockStyle): string {
  switch (does.what) {
    case 'keep-one-start':
      return `Keep only ${startWords(does.start, clock)}`;
    case 'move-start':
      return `Move it to ${startWords(does.to, clock)}`;
    case 'clear-program':
      return `Delete program ${does.program}`;
    case 'take-out-run':
      return `Delete its run in ${listed(does.programs)}`;
    case 'set-run':
      return `Set ${lengthWords(does.seconds)}`;
    case 'split':
      return `Split at ${lengthWords(does.pieceSeconds)}, soak ${lengthWords(does.soakSeconds)}`;
    case 'pump-on':
      return 'Switch the pump on';
    case 'ignore-sensor':
      return 'Ignore the sensor';
    case 'obey-sensor':
      return 'Obey the sensor';
    case 'sensor-active':
      return 'Activate the sensor';
    case 'percent-100':
      return 'Set 100 %';
    case 'end-rain-delay':
      return 'End the rain delay';
    case 'switch-on':
      return 'Switch the timer on';
    case 'without-weekday':
      return `Skip ${weekdaysWords([does.weekday])}`;
    case 'even-dates':
      return 'Water on even dates';
  }
}
