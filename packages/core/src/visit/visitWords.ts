/** English for a visit: what may have gone wrong, how one sees it at the box, slips of the fingers, and the names of what is noted. */
import { parseDate, parseMoment, SECONDS_PER_DAY, type ClockSecond } from '../time/calendar.ts';
import type { Slip } from '../diagnose/slips.ts';
import type { Ask } from '../diagnose/ask.ts';
import type { Behind } from '../diagnose/evidence.ts';
import type { Slip as EntrySlip, ReadBack } from '../panel/readBack.ts';
import { panelHelp, panelText, programLabel, type Hand } from '../panel/value.ts';
import type { KeyLine } from '../panel/keyIn.ts';
import type { Plan } from '../plan/plan.ts';
import type { OpenPoint } from '../record/closing.ts';
import type { VisitFinding } from '../record/visitFindings.ts';
import type {
  HiddenAnswer,
  NextReason,
  Rung,
  Sighting,
  Sign,
  Switched,
  TestResult,
  Wiring,
} from './visit.ts';
import {
  capitalized,
  dateWords,
  daysWords,
  lengthWords,
  startWords,
  timeWords,
  type Speech,
} from '../words/words.ts';

/** Whose timer it is and who reads. */
export interface TimerSpeech extends Speech {
  readonly plan: Plan;
}

const labelOf = (letter: string, { plan }: TimerSpeech) =>
  programLabel(letter, plan.timer.dialect ?? {});

/** `Back lawn (station 2)`, `station 5`; null: `something`. */
export function placeWords(station: number | null, plan: Plan): string {
  if (station === null) return 'something';
  const name = plan.stations.find(({ number }) => number === station)?.name;
  return name ? `${name} (station ${station})` : `station ${station}`;
}

/** `Tue 24 November, 15:15`. */
export function momentWords(moment: ClockSecond, { on, clock }: Speech): string {
  const day = Math.floor(moment / SECONDS_PER_DAY);
  return `${dateWords(day, on)}, ${timeWords(moment - day * SECONDS_PER_DAY, clock)}`;
}

function clockWords(ahead: number): string {
  const size = Math.abs(ahead);
  const days = Math.floor(size / SECONDS_PER_DAY);
  const rest = size - days * SECONDS_PER_DAY;
  const parts = [
    ...(days > 0 ? [days === 1 ? '1 day' : `${days} days`] : []),
    ...(rest > 0 ? [lengthWords(rest)] : []),
  ];
  const half = size === SECONDS_PER_DAY / 2 ? ': morning and afternoon are exchanged' : '';
  return `the timer’s clock is ${parts.join(' ')} ${ahead > 0 ? 'ahead' : 'behind'}${half}`;
}

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

/** What somebody saw, as it is told. */
export function sightingSentence(sighting: Sighting, speech: TimerSpeech): string {
  const from = momentWords(parseMoment(sighting.from) ?? 0, speech);
  const to = sighting.to === undefined ? null : momentWords(parseMoment(sighting.to) ?? 0, speech);
  const span = to === null ? from : `from ${from} to ${to}`;
  const station = sighting.station ?? null;
  const place = capitalized(placeWords(station, speech.plan));
  if (sighting.saw === 'dry') {
    const ends = [
      ...(sighting.ranBefore ? ['it had run just before'] : []),
      ...(sighting.ranAfter ? ['it ran again then'] : []),
    ];
    const besides = ends.length === 0 ? '' : `: ${ends.join(', and ')}`;
    return `${station === null ? 'Nothing ran' : `${place} did not run`} ${span}${besides}.`;
  }
  const long = sighting.minutes === undefined ? '' : `, for about ${sighting.minutes} min`;
  const often =
    sighting.times === undefined ? '' : sighting.times === 1 ? ' once' : ` ${sighting.times} times`;
  return `${place} ran${often} ${span}${long}.`;
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

const ENTRY_SLIPS: Readonly<Record<Exclude<EntrySlip, 'not-understood'>, string>> = {
  'half-a-day': 'Morning and afternoon are exchanged.',
  'left-on': 'It is still set, and must be off.',
  'left-off': 'It is off, and must be set.',
  'hours-for-minutes': 'Hours stand where minutes belong.',
  'ten-fold': 'It is ten times out: a digit too many or too few.',
  'other-line': 'That belongs to another line.',
  'days-too-many': 'There are days too many.',
  'days-too-few': 'Days are missing.',
  'count-or-between': 'This panel counts the days otherwise.',
  other: 'That is not it.',
};

/** What is wrong with what was read back, and what must stand there. */
export function readBackSentence(
  answer: Extract<ReadBack, { ok: false }>,
  line: KeyLine,
  hand: Hand,
): string {
  if (answer.slip === 'not-understood')
    return `This is not what stands on a display here: type ${panelHelp(line.value.kind, hand)}.`;
  const of = answer.of === undefined ? '' : ` It is what ${answer.of} must say.`;
  return `${ENTRY_SLIPS[answer.slip]}${of} It must say ${panelText(line.value, hand)}.`;
}

export const HIDDEN_WORDS: Record<HiddenAnswer, string> = {
  'none-found': 'Looked for: none hidden',
  'some-found': 'Some were hidden; they are noted',
  'cannot-hide': 'This panel hides none',
  'not-looked': 'Not looked for',
};

export const SIGN_WORDS: Record<Sign, string> = {
  'blinking-program': 'A program letter blinks',
  'steady-light': 'A light is steady',
  'station-error': 'An error with a station’s number',
  'pump-error': 'An error of the pump circuit',
  'says-off': 'It says off',
  'water-sign': 'It shows watering, and nothing runs',
  'blank-screen': 'The screen is blank',
  'flashing-clock': 'The clock flashes or is garbled',
  'buttons-dead': 'The buttons do nothing',
  'sensor-off': 'It says that the sensor is off',
};

export const RUNG_WORDS: Record<Rung, string> = {
  power: 'Power at the terminals',
  settings: 'Settings: it has a run, and is in use',
  module: 'Module swapped with a good one',
  wire: 'Wire test at the terminal',
  valve: 'Valve opened by hand',
};

export const TEST_WORDS: Record<TestResult, string> = {
  waters: 'Waters',
  weak: 'Weak',
  dead: 'Does not open',
  'does-not-stop': 'Does not close',
};

export const WIRING_WORDS: Record<Wiring, string> = {
  good: 'Wiring good',
  open: 'Open circuit',
  short: 'Short circuit',
};

export const SWITCHED_WORDS: Record<Switched, string> = {
  bypass: 'Sensor on bypass',
  off: 'Watering switched off',
  delay: 'A rain delay',
  manual: 'A run by hand',
  disabled: 'A station out of use',
};

export const NEXT_WORDS: Record<NextReason, string> = {
  percent: 'Change the percent',
  'clock-change': 'The clocks change',
  battery: 'New battery',
  'inlet-screen': 'Clean the inlet screen',
  'new-seed': 'New seed or turf is grown in',
  'season-start': 'Switch on for the season',
  'season-end': 'Switch off for the season',
  'rules-change': 'The watering rules change',
  other: 'Come back',
};

/** What is still to be done before a visit can be closed. */
export function openPointSentence(point: OpenPoint): string {
  switch (point.what) {
    case 'no-visit':
      return 'No visit is under way.';
    case 'no-as-found':
      return 'The settings as found are not frozen.';
    case 'no-as-left':
      return 'The settings as left are not frozen.';
    case 'as-left-is-older':
      return 'Settings were changed after they were frozen as left: freeze them again.';
    case 'switched':
      return `${SWITCHED_WORDS[point.switched]}: put it back, or say why it stays.`;
  }
}

/** What the visit itself has shown to be wrong, and what to do. */
export function visitFindingSentence(finding: VisitFinding, speech: TimerSpeech): string {
  switch (finding.code) {
    case 'clock-wrong':
      return `${capitalized(clockWords(finding.ahead))}. All that it does is out by as much: set the clock first.`;
    case 'total-differs':
      return `The display shows ${lengthWords(finding.shown)} as the total of program ${labelOf(finding.program, speech)}; what is taken down adds up to ${lengthWords(finding.expected)}. Look through its runs once more.`;
    case 'read-at-percent':
      return `The run times of program ${labelOf(finding.program, speech)} were read at ${finding.percent} %. Whoever corrects minutes that are shown so corrects them twice.`;
    case 'manual-left-on':
      return 'A run by hand is still on: end it.';
    case 'hidden-not-looked':
      return 'Nobody has looked for hidden programs and starts.';
    case 'saved-inside-older':
      return 'What the timer keeps inside is not what is left: save it again, or a restore brings back something else.';
  }
}
