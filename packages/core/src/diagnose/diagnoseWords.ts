import { type TimerSpeech, labelOf, placeWords } from '../plan/planWords.ts';
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
import type { Slip } from './slips.ts';

function slipClause(slip: Slip, speech: TimerSpeech): string {
  const { plan, clock, on } = speech;
  switch (slip.type) {
    case 'clock':
      return clockWords(slip.ahead);
    case 'extra-start':
      return `program ${labelOf(slip.program, speech)} has a start left over, at ${startWords(slip.start, clock)}`;
    case 'other-start':
      return `program ${labelOf(slip.program, speech)} starts at ${startWords(slip.to, clock)} and not at ${startWords(slip.start, clock)}`;
    case 'extra-program':
      return `program ${labelOf(slip.program.letter, speech)} is set although nobody noted it: ${slip.program.starts.map((one) => startWords(one, clock)).join(', ')}, ${daysWords(slip.program.days, clock)}`;
    case 'percent':
      return slip.program === undefined
        ? `the seasonal percent stands at ${slip.percent} %`
        : `the percent of program ${labelOf(slip.program, speech)} stands at ${slip.percent} %`;
    case 'phase':
      return `the days left of program ${labelOf(slip.program, speech)} are out by ${slip.days === 1 ? '1 day' : `${slip.days} days`}`;
    case 'days':
      return `program ${labelOf(slip.program, speech)} waters ${daysWords(slip.days, clock)}`;
    case 'run':
      return slip.seconds === 0
        ? `${placeWords(slip.station, plan)} has no run in program ${labelOf(slip.program, speech)}`
        : `${placeWords(slip.station, plan)} is set to ${lengthWords(slip.seconds)} in program ${labelOf(slip.program, speech)}`;
    case 'half-set':
      return `program ${labelOf(slip.program, speech)} lacks its start, its run times or its days, and never waters`;
    case 'rain-delay':
      return `a rain delay is on, until ${dateWords(parseDate(slip.until) ?? on, on)}`;
    case 'off':
      return 'watering is switched off';
    case 'sensor':
      return 'the rain sensor kept it dry';
    case 'manual':
      return `somebody started ${placeWords(slip.station, plan)} by hand, ${momentWords(slip.at, speech)}`;
    case 'dead-station':
      return `${placeWords(slip.station, plan)} does not open: its wire, its valve or its output`;
    case 'power-failure':
      return 'the timer lost its memory and runs what it has from the factory';
  }
}

/** What would explain it, as one sentence; nothing wrong: it is set so. */
export function explanationSentence(slips: readonly Slip[], speech: TimerSpeech): string {
  if (slips.length === 0) return 'The timer does just what it is set to.';
  return `${capitalized(slips.map((slip) => slipClause(slip, speech)).join('; and '))}.`;
}

/** Other things that the same look settles: `Or: …`. */
export const variantSentence = (slips: readonly Slip[], speech: TimerSpeech): string =>
  `Or: ${slips.map((slip) => slipClause(slip, speech)).join('; and ')}.`;
/** The one look at the box that tells this from the rest. */
export function lookSentence(slip: Slip, speech: TimerSpeech): string {
  const { plan, clock } = speech;
  switch (slip.type) {
    case 'clock':
      return 'Read the clock: hour, morning or afternoon, and the day of the week.';
    case 'extra-start':
      return `Go through every start of program ${labelOf(slip.program, speech)}: does one say ${startWords(slip.start, clock)}?`;
    case 'other-start':
      return `Read the starts of program ${labelOf(slip.program, speech)}, morning or afternoon too.`;
    case 'extra-program':
      return `Open program ${labelOf(slip.program.letter, speech)}: are its starts all off?`;
    case 'percent':
      return 'Read the percent that is in force.';
    case 'phase':
      return `Read the days left of program ${labelOf(slip.program, speech)}.`;
    case 'days':
      return `Read the watering days of program ${labelOf(slip.program, speech)}.`;
    case 'run':
      return `Read the run times of program ${labelOf(slip.program, speech)}, and its total.`;
    case 'half-set':
      return `Does program ${labelOf(slip.program, speech)} have a start, run times and days?`;
    case 'rain-delay':
      return 'Does the display show a rain delay, or days left of one?';
    case 'off':
      return 'Is it on run, or off?';
    case 'sensor':
      return 'Did it rain then? Does the sensor click when it is wetted, and is its switch on active?';
    case 'manual':
      return 'Ask who was at the box that day.';
    case 'dead-station':
      return `Start ${placeWords(slip.station, plan)} by hand and listen at the valve.`;
    case 'power-failure':
      return 'Does the clock flash? Does program A say what it has from the factory?';
  }
}

/** What puts it right. */
export function mendSentence(slip: Slip, speech: TimerSpeech): string {
  const { plan } = speech;
  switch (slip.type) {
    case 'clock':
      return 'Set the clock, the date and the year; the day of the week proves them.';
    case 'extra-start':
    case 'other-start':
    case 'extra-program':
    case 'percent':
    case 'phase':
    case 'days':
    case 'run':
    case 'half-set':
      return 'Key it in as planned.';
    case 'rain-delay':
      return 'Take the rain delay off.';
    case 'off':
      return 'Switch it to run.';
    case 'sensor':
      return 'Nothing, where it had rained; else test the sensor.';
    case 'manual':
      return 'Nothing to set: say on the page how to water by hand, and that it ends by itself.';
    case 'dead-station':
      return `Go through the ladder of ${placeWords(slip.station, plan)}.`;
    case 'power-failure':
      return 'Set the clock and key everything in; look at the backup battery.';
  }
}

export function askSentence({ station, from }: Ask, { plan, on }: TimerSpeech): string {
  const day = Math.floor(from / SECONDS_PER_DAY);
  return `Ask next: did ${placeWords(station, plan)} run between noon of ${dateWords(day, on)} and noon of the day after?`;
}

/** Which start was behind something that was seen. */
export function behindSentence(behind: Behind, sighting: Sighting, speech: TimerSpeech): string {
  const moment = momentWords(parseMoment(sighting.from) ?? 0, speech);
  const label = labelOf(behind.program, speech);
  const waited =
    behind.waited > 0
      ? `, which had waited ${lengthWords(behind.waited)}${behind.after === null ? '' : ` for program ${labelOf(behind.after, speech)}`}`
      : '';
  return `What ran ${moment} was program ${label}, its start at ${startWords(behind.start, speech.clock)}${waited}.`;
}
