/** Messages of a visit: likely causes, how to check them at the timer, mistakes, and names of what is noted. */
import { assertDefined } from '../document/assertDefined.ts';
import { parseMoment } from '../time/calendar.ts';
import { stationOrSomething, type TimerSpeech } from '../plan/planWords.ts';
import type {
  HiddenAnswer,
  NextReason,
  DiagnosticStep,
  Sighting,
  Sign,
  Switched,
  TestResult,
  Wiring,
} from './visit.ts';
import { capitalized, momentWords } from '../words/words.ts';
import { say, wordsOf } from '../language/say.ts';

/** A sighting as it is reported. */
export function sightingSentence(sighting: Sighting, speech: TimerSpeech): string {
  const from = momentWords(
    assertDefined(parseMoment(sighting.from), 'parseMoment(sighting.from)'),
    speech,
  );
  const to =
    sighting.to === undefined
      ? null
      : momentWords(assertDefined(parseMoment(sighting.to), 'parseMoment(sighting.to)'), speech);
  const span = to === null ? from : say`from ${from} to ${to}`;
  const station = sighting.station ?? null;
  const place = capitalized(stationOrSomething(station, speech.plan));
  if (sighting.saw === 'dry') {
    const dry = station === null ? say`Nothing ran ${span}.` : say`${place} did not run ${span}.`;
    const ends = [
      ...(sighting.ranBefore ? [say`It ran just before.`] : []),
      ...(sighting.ranAfter ? [say`It ran again then.`] : []),
    ];
    return [dry, ...ends].join(' ');
  }
  const { times, minutes } = sighting;
  const ran =
    times === undefined
      ? say`${place} ran ${span}`
      : times === 1
        ? say`${place} ran once ${span}`
        : say`${place} ran ${times} times ${span}`;
  return minutes === undefined ? `${ran}.` : say`${ran}, for about ${minutes} min.`;
}

export const HIDDEN_WORDS: Record<HiddenAnswer, string> = wordsOf({
  'none-found': 'No hidden programs',
  'some-found': 'Hidden programs found and recorded',
  'cannot-hide': 'This timer cannot hide programs',
  'not-looked': 'Not checked',
});

export const SIGN_WORDS: Record<Sign, string> = wordsOf({
  'blinking-program': 'A program letter blinks',
  'steady-light': 'A light stays on',
  'station-error': 'An error with a station number',
  'pump-error': 'A pump circuit error',
  'says-off': 'It shows off',
  'water-sign': 'It shows watering, but nothing runs',
  'blank-screen': 'The display is blank',
  'flashing-clock': 'The clock flashes or is garbled',
  'buttons-dead': 'The buttons do not respond',
  'sensor-off': 'It shows that the sensor is off',
});

export const RUNG_WORDS: Record<DiagnosticStep, string> = wordsOf({
  power: 'Power at the terminals',
  settings: 'Settings: has a run time and is enabled',
  module: 'Module swapped for a good one',
  wire: 'Wire test at the terminal',
  valve: 'Valve opened manually',
});

export const TEST_WORDS: Record<TestResult, string> = wordsOf({
  waters: 'Ran well',
  weak: 'Weak',
  dead: 'Does not open',
  'does-not-stop': 'Does not close',
});

export const WIRING_WORDS: Record<Wiring, string> = wordsOf({
  good: 'Good wiring',
  open: 'Open circuit',
  short: 'Short circuit',
});

export const SWITCHED_WORDS: Record<Switched, string> = wordsOf({
  bypass: 'Sensor bypassed',
  off: 'Timer switched off',
  delay: 'A rain delay',
  manual: 'A manual run',
  disabled: 'A station disabled',
});

export const NEXT_WORDS: Record<NextReason, string> = wordsOf({
  percent: 'Change the percent',
  'clock-change': 'Clocks change',
  battery: 'New battery',
  'inlet-screen': 'Clean the inlet screen',
  'new-seed': 'New seed or turf is established',
  'season-start': 'Switch on for the season',
  'season-end': 'Switch off for the season',
  'rules-change': 'Watering rules change',
  other: 'Return visit',
});
