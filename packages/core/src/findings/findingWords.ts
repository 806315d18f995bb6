/** Findings as messages. */
import { assertDefined } from '../document/assertDefined.ts';
import { parseDate, SECONDS_PER_DAY } from '../time/calendar.ts';
import { mostDaysBetween } from '../time/dateCount.ts';
import type { Finding, RuleChange, TimerLimit } from './finding.ts';
import type { Fix } from './fixes.ts';
import type { Missing } from '../plan/program.ts';
import { quantityWords } from '../water/units.ts';
import {
  timeOfMoment,
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
import { plural, say } from '../language/say.ts';

function limitSentence(limit: TimerLimit, clock: ClockStyle): string {
  switch (limit.what) {
    case 'start-step':
      return say`start time ${startWords(limit.given, clock)} does not match this timer’s ${limit.stepMinutes} min steps`;
    case 'start-count':
      return say`${limit.given} start times are set, but a program on this timer can have ${limit.most}`;
    case 'run-step':
      return say`run time ${lengthWords(limit.given)} does not match this timer’s steps of ${lengthWords(limit.stepSeconds)}`;
    case 'run-longest':
      return say`run time ${lengthWords(limit.given)} is longer than this timer allows (${lengthWords(limit.mostSeconds)})`;
    case 'day-rule':
      return say`this timer does not have the day rule "${limit.given}", only ${listed(limit.allowed)}`;
    case 'percent': {
      const [lowest = 0, second] = limit.steps;
      const highest = limit.steps.at(-1);
      return second === undefined
        ? say`${limit.given} % cannot be set on this timer, which allows only ${lowest} %`
        : say`${limit.given} % cannot be set on this timer, which goes from ${lowest} to ${highest} % in steps of ${second - lowest}`;
    }
    case 'no-percent-here':
      return say`${limit.given} % cannot be set here on this timer, so it runs at 100 %`;
    case 'no-months':
      return say`this timer has no percent by month`;
    case 'delay':
      return say`a delay of ${lengthWords(limit.given)} is longer than this timer allows (${lengthWords(limit.mostSeconds)})`;
    case 'interval':
      return say`${everyDaysWords(limit.given)} is longer than this timer's longest interval of ${limit.mostDays} days`;
    case 'no-soak':
      return say`this timer has no cycle and soak by ${limit.where}`;
    case 'no-windows':
      return say`this timer has no no-water hours, so it waters through them`;
    case 'no-links':
      return say`stations cannot be linked on this timer`;
    case 'at-once':
      return say`${limit.given} stations at once are set, but this timer can open ${limit.most}`;
  }
}

/** `1 day`, `about 1.7 days`, `no day`. */
function daysAWeek(mean: number): string {
  const rounded = Math.round(mean * 10) / 10;
  if (mean === 0) return say`no day`;
  if (Math.abs(mean - Math.round(mean)) < 1e-9) return counted(Math.round(mean), 'day');
  return rounded === 0 ? say`almost never` : say`about ${counted(rounded, 'day')}`;
}

/** A finding as a sentence for the person at the timer. */
export function findingSentence(finding: Finding, speech: Speech): string {
  const { where } = finding;
  const { on, clock, order, units = 'metric' } = speech;
  switch (finding.code) {
    case 'overlap':
      return `${overlapSentence(finding.overlap, speech)} ${consequenceSentence(finding.overlap, finding.onOverlap, speech)}`;
    case 'missing-starts':
    case 'missing-runs':
    case 'missing-days':
      // Safe cast: these are the three codes of `Missing`.
      return missingSentence(assertDefined(where.program, 'where.program'), [
        finding.code.slice(8) as Missing,
      ]);
    case 'same-start-twice':
      return say`${where.program} has start time ${startWords(assertDefined(where.start, 'where.start'), speech.clock)} ${finding.times} times and waters each time. Delete the duplicates.`;
    case 'not-on-timer': {
      const station = where.station === undefined ? '' : say` station ${where.station}`;
      const place = where.program === undefined ? '' : `${where.program}${station}: `;
      const sentence = `${limitSentence(finding.limit, speech.clock)}.`;
      return place === '' ? capitalized(sentence) : `${place}${sentence}`;
    }
    case 'little-headroom':
      return finding.headroom === null
        ? say`Two cycles overlap even at the lowest percent. Move the start times apart.`
        : say`No overlaps only ${upTo(finding.headroom)}; the programs should allow ${finding.wanted} %. Move the start times apart.`;
    case 'station-in-two-programs':
      return say`Station ${where.station} is in ${listed(finding.programs)} and is watered by each of them.`;
    case 'percent-moves': {
      const { driven, by } = finding;
      const who = by === 'sensor' ? say`A sensor` : say`An online service`;
      const told = say`${who} changes the percent, so run times differ from the settings. Settings may be overwritten.`;
      if (!driven) return told;
      const range = say`${driven.lowest} and ${driven.highest} %`;
      return driven.overlap
        ? say`${told} Between ${range}, cycles can overlap. ${overlapSentence(driven.overlap, speech)}`
        : say`${told} Nothing overlaps between ${range}.`;
    }
    case 'rain-delay': {
      const day = assertDefined(
        parseDate(finding.until.slice(0, 10)),
        'parseDate(finding.until.slice(0, 10))',
      );
      const time = finding.until.length > 10 ? finding.until.slice(11) : '00:00';
      return say`Rain delay: no watering before ${dateWords(day, speech.on, speech.order)}, ${startWords(time, speech.clock)}.`;
    }
    case 'timer-off':
      return say`The timer is switched off. No watering until it is switched on.`;
    case 'starts-taken-for-stations':
      return say`${where.program} has ${finding.starts.length} start times for ${plural(finding.stations, 'one station', '# stations')}, each during the cycle before it. A start time runs the whole program, not one station. Keep the first.`;
    case 'leftover-start':
      return say`${where.program} waters ${finding.times} times a day, but none of its stations needs that. Keep one start time if it gives enough water.`;
    case 'leftover-program':
      return say`Every station of ${where.program} is also in another program. If ${where.program} is left over, delete it.`;
    case 'station-in-none':
      return say`Station ${where.station} is in no program and never waters.`;
    case 'runs-off':
      return say`Station ${where.station} runs ${lengthWords(finding.seconds)} without a break (${where.program}, ${startWords(assertDefined(where.start, 'where.start'), speech.clock)}). Water runs off after ${lengthWords(finding.most)}.`;
    case 'soak-too-short':
      return say`Station ${where.station} soaks only ${lengthWords(finding.seconds)} before it runs again (${where.program}, ${startWords(assertDefined(where.start, 'where.start'), speech.clock)}). It needs ${lengthWords(finding.least)}.`;
    case 'afternoon-start':
      return say`${where.program} starts at ${startWords(assertDefined(where.start, 'where.start'), speech.clock)}. In the afternoon, much of the water is lost to wind and sun.`;
    case 'odd-then-odd':
      return say`${where.program} waters on odd dates, and this timer does not skip the 31st. It waters on the 31st and again on the 1st.`;
    case 'pump-off':
      return say`Station ${where.station} needs the pump, but its pump switch is off. It gets little or no water.`;
    case 'supply': {
      const at = say`${timeOfMoment(finding.at, clock)} on ${dateWords(assertDefined(where.date, 'where.date'), on, order)}`;
      const stations = listed(finding.stations);
      const gives = quantityWords(units, 'flow', finding.supply);
      if (finding.unknown.length > 0)
        return say`Stations ${stations} together at ${at} may use more than the supply of ${gives}. The flow of ${listed(finding.unknown)} is not known.`;
      const taken = quantityWords(units, 'flow', finding.litresPerMinute);
      return finding.stations.length === 1
        ? say`Station ${stations} uses ${taken}, more than the supply of ${gives}.`
        : say`Stations ${stations} together use ${taken} at ${at}, more than the supply of ${gives}.`;
    }
    case 'pump-shut':
      return finding.isSure
        ? say`The pump runs against closed valves for ${lengthWords(finding.seconds)}, ${finding.times} times a cycle. Set the delay to 0.`
        : say`The pump may run against closed valves for ${lengthWords(finding.seconds)}, ${finding.times} times a cycle. Find out whether it stops, or set the delay to 0.`;
    case 'under-cover-obeys-sensor':
      return say`Station ${where.station} is under cover but uses the rain sensor. It stays dry when it rains outside.`;
    case 'open-ignores-sensor':
      return say`Station ${where.station} is in the open but ignores the rain sensor. It waters in the rain.`;
    case 'sensor-bypassed':
      return say`The rain sensor is bypassed. Every station waters in the rain.`;
    case 'disabled-station':
      return say`Station ${where.station} is switched off but has a run time in ${listed(finding.programs)}. It does not water.`;
    case 'past-midnight':
      return say`${where.program} runs past midnight and still waters on ${dateWords(assertDefined(where.date, 'where.date'), speech.on, speech.order)}, which is not one of its days.`;
    case 'percent-not-100':
      return where.program === undefined
        ? say`The seasonal percent is ${finding.percent} %, so run times differ from those entered.`
        : say`The seasonal percent of ${where.program} is ${finding.percent} %, so its run times differ from those entered.`;
    case 'forbidden-day':
      return say`Station ${where.station} waters on ${dateWords(assertDefined(where.date, 'where.date'), speech.on, speech.order)} (${where.program}, ${startWords(assertDefined(where.start, 'where.start'), speech.clock)}). The rules do not allow that day.`;
    case 'forbidden-hour':
      return say`Station ${where.station} waters at ${timeWords(finding.at, speech.clock)} on ${dateWords(assertDefined(where.date, 'where.date'), speech.on, speech.order)} (${where.program}, ${startWords(assertDefined(where.start, 'where.start'), speech.clock)}). The rules do not allow that hour.`;
    case 'too-many-days':
      return say`Station ${where.station} waters on ${finding.days} days in the week of ${dateWords(assertDefined(where.date, 'where.date'), speech.on, speech.order)}. The rules allow ${finding.most}.`;
    case 'coming-rules':
      return say`From ${dateWords(finding.from, speech.on, speech.order)} ${ruleChangeWords(finding, speech)}`;
    case 'mowing-day':
      return say`Station ${where.station} waters on ${dateWords(assertDefined(where.date, 'where.date'), speech.on, speech.order)} (${where.program}, ${startWords(assertDefined(where.start, 'where.start'), speech.clock)}), when it must be dry for mowing.`;
    case 'too-much':
    case 'too-little':
      return say`Station ${where.station} gets ${lengthWords(finding.given)} a week and needs ${lengthWords(finding.wanted)}: ${offWords(finding.given, finding.wanted)}.`;
    case 'too-few-days': {
      const { mean, gap, least } = finding;
      const needs = say`needs ${counted(least, 'day')}`;
      return mean < least - 1e-9
        ? say`Station ${where.station} waters on ${daysAWeek(mean)} a week and ${needs}.`
        : say`Station ${where.station} goes up to ${counted(gap, 'day')} without water. With ${counted(least, 'day')} a week it should be at most ${mostDaysBetween(least)}.`;
    }
    case 'not-often-enough':
      return say`Station ${where.station} should run ${finding.often.times} times a day, spread between ${startWords(finding.often.from, speech.clock)} and ${startWords(finding.often.to, speech.clock)}. It does not on ${dateWords(assertDefined(where.date, 'where.date'), speech.on, speech.order)}.`;
    case 'late-finish':
      return say`${where.program} starts at ${startWords(assertDefined(where.start, 'where.start'), speech.clock)} and ends at ${timeWords(finding.ends % SECONDS_PER_DAY, speech.clock)}. It should water between ${startWords(finding.notBefore, speech.clock)} and ${startWords(finding.by, speech.clock)}.`;
  }
}

/** True of announced rules under which no timer waters at all. */
export const isBan = ({ rules }: RuleChange): boolean => rules.weekdays?.length === 0;

/** What announced rules mean for the current settings, without their date. */
export function ruleChangeWords(finding: RuleChange, speech: Speech): string {
  const { programs, breach } = finding;
  if (!isBan(finding)) return say`other rules hold here. ${findingSentence(breach, speech)}`;
  const who = programs.length > 0 ? listed(programs) : say`this timer`;
  return programs.length > 1
    ? say`no watering by timer is allowed here, and ${who} still water then. Switch the timer off before that day.`
    : say`no watering by timer is allowed here, and ${who} still waters then. Switch the timer off before that day.`;
}

/** `20 % too much`; `all of it too much` if none is needed. */
function offWords(given: number, wanted: number): string {
  if (wanted === 0) return say`it needs none`;
  const percent = Math.round((Math.abs(given - wanted) * 100) / wanted);
  return given > wanted ? say`${percent} % too much` : say`${percent} % too little`;
}

/** Label of a fix's button. */
export function fixWords({ does }: Fix, clock: ClockStyle): string {
  switch (does.what) {
    case 'keep-one-start':
      return say`Keep only ${startWords(does.start, clock)}`;
    case 'move-start':
      return say`Move to ${startWords(does.to, clock)}`;
    case 'clear-program':
      return say`Delete program ${does.program}`;
    case 'take-out-run':
      return say`Delete its run time in ${listed(does.programs)}`;
    case 'set-run':
      return say`Set ${lengthWords(does.seconds)}`;
    case 'split':
      return say`Split into ${lengthWords(does.pieceSeconds)} cycles, soak ${lengthWords(does.soakSeconds)}`;
    case 'more-starts':
      return say`Split into ${does.starts.length} starts from ${startWords(does.starts[0] ?? '00:00', clock)}`;
    case 'pump-on':
      return say`Switch the pump on`;
    case 'ignore-sensor':
      return say`Ignore the sensor`;
    case 'obey-sensor':
      return say`Use the sensor`;
    case 'sensor-active':
      return say`Activate the sensor`;
    case 'percent-100':
      return say`Set 100 %`;
    case 'end-rain-delay':
      return say`End the rain delay`;
    case 'switch-on':
      return say`Switch the timer on`;
    case 'without-weekday':
      return say`Skip ${weekdaysWords([does.weekday])}`;
    case 'even-dates':
      return say`Water on even dates`;
  }
}
