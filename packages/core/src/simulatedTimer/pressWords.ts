/** An action on a timer in a few words. */
import { stationOrSomething, labelOf, type TimerSpeech } from '../plan/planWords.ts';
import { parseSecond } from '../time/calendar.ts';
import { assertDefined } from '../document/assertDefined.ts';
import { lengthWords, momentWords } from '../words/words.ts';
import type { Press } from './events.ts';
import { say } from '../language/say.ts';

/** As it reads after a time: "3:20 am: the power fails". */
export function pressWords(press: Press, speech: TimerSpeech): string {
  switch (press.do) {
    case 'manual': {
      const length = press.seconds === undefined ? '' : say` for ${lengthWords(press.seconds)}`;
      if (press.program !== undefined)
        return say`program ${labelOf(press.program, speech)} is started manually`;
      return press.station === undefined
        ? say`every station is started manually${length} each`
        : say`${stationOrSomething(press.station, speech.plan)} is started manually${length}`;
    }
    case 'stop':
      return say`someone stops the watering`;
    case 'mode':
      return press.to === 'off' ? say`the timer is switched off` : say`the timer is switched on`;
    case 'rainDelay':
      return press.hours === 0
        ? say`the rain delay is ended`
        : say`a rain delay of ${lengthWords(press.hours * 3600)} is set`;
    case 'percent':
      return say`the seasonal percent is set to ${press.to} %`;
    case 'sensor':
      return press.to === 'active'
        ? say`the rain sensor is activated`
        : say`the rain sensor is bypassed`;
    case 'clock':
      return say`the clock is set to ${momentWords(assertDefined(parseSecond(press.to), 'parseSecond(press.to)'), speech)}`;
    case 'wet':
      return say`it rains: the rain sensor opens`;
    case 'dry':
      return say`the rain sensor is dry again`;
    case 'powerOff':
      return say`the power fails`;
    case 'powerOn':
      return say`the power comes back`;
  }
}
