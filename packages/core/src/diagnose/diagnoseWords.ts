/** Messages of a diagnosis: explanations, where to look, what to fix, what to ask. */
import { assertDefined } from '../document/assertDefined.ts';
import { type TimerSpeech, labelOf, stationOrSomething } from '../plan/planWords.ts';
import { parseDate, SECONDS_PER_DAY, parseMoment } from '../time/calendar.ts';
import type { Sighting } from '../visit/visit.ts';
import {
  clockWords,
  startWords,
  daysWords,
  lengthWords,
  dateWords,
  momentWords,
  capitalized,
} from '../words/words.ts';
import type { Ask } from './ask.ts';
import type { Behind } from './evidence.ts';
import type { Cause } from './causes.ts';
import { plural, say } from '../language/say.ts';

function causeClause(cause: Cause, speech: TimerSpeech): string {
  const { plan, clock, on, order } = speech;
  switch (cause.type) {
    case 'clock':
      return clockWords(cause.ahead);
    case 'extra-start':
      return say`program ${labelOf(cause.program, speech)} has a leftover start time at ${startWords(cause.start, clock)}`;
    case 'other-start':
      return say`program ${labelOf(cause.program, speech)} starts at ${startWords(cause.to, clock)} instead of ${startWords(cause.start, clock)}`;
    case 'extra-program':
      return say`program ${labelOf(cause.program.letter, speech)} is set but not recorded: ${cause.program.starts.map((one) => startWords(one, clock)).join(', ')}, ${daysWords(cause.program.days, clock, order)}`;
    case 'percent':
      return cause.program === undefined
        ? say`the seasonal percent is ${cause.percent} %`
        : say`the seasonal percent of program ${labelOf(cause.program, speech)} is ${cause.percent} %`;
    case 'phase':
      return say`the days left for program ${labelOf(cause.program, speech)} are off by ${plural(cause.days, '# day', '# days')}`;
    case 'days':
      return say`program ${labelOf(cause.program, speech)} waters ${daysWords(cause.days, clock, order)}`;
    case 'run':
      return cause.seconds === 0
        ? say`${stationOrSomething(cause.station, plan)} has no run in program ${labelOf(cause.program, speech)}`
        : say`${stationOrSomething(cause.station, plan)} is set to ${lengthWords(cause.seconds)} in program ${labelOf(cause.program, speech)}`;
    case 'half-set':
      return say`program ${labelOf(cause.program, speech)} never waters: its start times, run times or days are missing`;
    case 'rain-delay':
      return say`a rain delay is on until ${dateWords(assertDefined(parseDate(cause.until), 'parseDate(cause.until)'), on, order)}`;
    case 'rain-delay-set':
      return say`someone set a rain delay of ${lengthWords(cause.hours * 3600)}, ${momentWords(cause.at, speech)}`;
    case 'off':
      return say`the timer is switched off`;
    case 'sensor':
      return say`the rain sensor stopped it`;
    case 'manual':
      return say`someone started ${stationOrSomething(cause.station, plan)} manually, ${momentWords(cause.at, speech)}`;
    case 'manual-program':
      return say`someone started program ${labelOf(cause.program, speech)} manually, ${momentWords(cause.at, speech)}`;
    case 'stopped':
      return say`someone stopped the watering, ${momentWords(cause.at, speech)}`;
    case 'outage':
      return say`the power failed, ${momentWords(cause.from, speech)}, and came back, ${momentWords(cause.to, speech)}`;
    case 'percent-changed':
      return say`someone changed the seasonal percent from ${cause.before} % to ${cause.after} % around ${momentWords(cause.at, speech)}`;
    case 'dead-station':
      return say`${stationOrSomething(cause.station, plan)} does not open: check its wiring, valve and output`;
    case 'power-failure':
      return say`the timer lost its memory and is running its factory settings`;
  }
}

/** An explanation in one sentence. If nothing is wrong, the timer is set that way. */
export function explanationSentence(causes: readonly Cause[], speech: TimerSpeech): string {
  if (causes.length === 0) return say`The timer is doing exactly what it is set to do.`;
  return `${capitalized(causes.map((cause) => causeClause(cause, speech)).join('; and '))}.`;
}

/** Other causes the same check decides: `Or: …`. */
export const variantSentence = (causes: readonly Cause[], speech: TimerSpeech): string =>
  `Or: ${causes.map((cause) => causeClause(cause, speech)).join('; and ')}.`;
/** The one check at the timer that decides between this and the rest. */
export function lookSentence(cause: Cause, speech: TimerSpeech): string {
  const { plan, clock } = speech;
  switch (cause.type) {
    case 'clock':
      return say`Read the clock: time, am or pm, and day of the week.`;
    case 'extra-start':
      return say`Page through every start time of program ${labelOf(cause.program, speech)}. Is one set to ${startWords(cause.start, clock)}?`;
    case 'other-start':
      return say`Read each start time of program ${labelOf(cause.program, speech)}, including am or pm.`;
    case 'extra-program':
      return say`Open program ${labelOf(cause.program.letter, speech)}. Are all its start times off?`;
    case 'percent':
      return say`Read the seasonal percent.`;
    case 'phase':
      return say`Read the days left for program ${labelOf(cause.program, speech)}.`;
    case 'days':
      return say`Read the watering days of program ${labelOf(cause.program, speech)}.`;
    case 'run':
      return say`Read the run times of program ${labelOf(cause.program, speech)} and its total.`;
    case 'half-set':
      return say`Does program ${labelOf(cause.program, speech)} have a start time, run times and watering days?`;
    case 'rain-delay':
    case 'rain-delay-set':
      return say`Does the display show a rain delay or the days left in one?`;
    case 'off':
      return say`Is the timer on or off?`;
    case 'sensor':
      return say`Had it rained? Does the sensor click when you wet it? Is its switch on active?`;
    case 'manual':
    case 'manual-program':
    case 'stopped':
    case 'percent-changed':
      return say`Ask who used the timer that day.`;
    case 'outage':
      return say`Are other clocks in the house flashing? Ask about a power cut and test the backup battery.`;
    case 'dead-station':
      return say`Run ${stationOrSomething(cause.station, plan)} manually and listen at the valve.`;
    case 'power-failure':
      return say`Is the clock flashing? Does program A show the factory settings?`;
  }
}

/** What fixes it. */
export function mendSentence(cause: Cause, speech: TimerSpeech): string {
  const { plan } = speech;
  switch (cause.type) {
    case 'clock':
      return say`Set the clock, date and year. The day of the week confirms them.`;
    case 'extra-start':
    case 'other-start':
    case 'extra-program':
    case 'percent':
    case 'phase':
    case 'days':
    case 'run':
    case 'half-set':
      return say`Key in the planned setting.`;
    case 'percent-changed':
      return say`Set the planned percent.`;
    case 'rain-delay':
    case 'rain-delay-set':
      return say`End the rain delay.`;
    case 'off':
      return say`Switch it on.`;
    case 'sensor':
      return say`Nothing if it had rained. Otherwise test the sensor.`;
    case 'manual':
    case 'manual-program':
    case 'stopped':
      return say`Nothing to set. Explain on the homeowner’s page how a manual run works and that it ends by itself.`;
    case 'dead-station':
      return say`Troubleshoot ${stationOrSomething(cause.station, plan)}.`;
    case 'outage':
      return say`Check the clock, the settings and the backup battery.`;
    case 'power-failure':
      return say`Set the clock, key in all settings and check the backup battery.`;
  }
}

export function askSentence({ station, from }: Ask, { plan, on, order }: TimerSpeech): string {
  const day = Math.floor(from / SECONDS_PER_DAY);
  return say`Next question: did ${stationOrSomething(station, plan)} run between noon on ${dateWords(day, on, order)} and noon the next day?`;
}

/** Which start caused a sighting. */
export function behindSentence(behind: Behind, sighting: Sighting, speech: TimerSpeech): string {
  const moment = momentWords(
    assertDefined(parseMoment(sighting.from), 'parseMoment(sighting.from)'),
    speech,
  );
  const label = labelOf(behind.program, speech);
  const start = startWords(behind.start, speech.clock);
  if (behind.waited === 0)
    return say`What ran ${moment} was program ${label}, started at ${start}.`;
  const waited = lengthWords(behind.waited);
  return behind.after === null
    ? say`What ran ${moment} was program ${label}, started at ${start}. It had waited ${waited}.`
    : say`What ran ${moment} was program ${label}, started at ${start}. It had waited ${waited} for program ${labelOf(behind.after, speech)}.`;
}
