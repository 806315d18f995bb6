/** What somebody or something does to a timer, in a few words. */
import { stationOrSomething, labelOf, type TimerSpeech } from '../plan/planWords.ts';
import { parseSecond } from '../time/calendar.ts';
import { sure } from '../document/sure.ts';
import { lengthWords, momentWords } from '../words/words.ts';
import type { Press } from './events.ts';

/** As it is read after a moment: "3:20 am: the power fails". */
export function pressWords(press: Press, speech: TimerSpeech): string {
  switch (press.do) {
    case 'manual': {
      const length = press.seconds === undefined ? '' : ` for ${lengthWords(press.seconds)}`;
      if (press.program !== undefined)
        return `program ${labelOf(press.program, speech)} is started by hand`;
      return press.station === undefined
        ? `every station is started by hand${length} each`
        : `${stationOrSomething(press.station, speech.plan)} is started by hand${length}`;
    }
    case 'stop':
      return 'somebody stops what is running';
    case 'mode':
      return press.to === 'off' ? 'watering is switched off' : 'watering is switched on';
    case 'rainDelay':
      return press.hours === 0
        ? 'the rain delay is ended'
        : `a rain delay of ${lengthWords(press.hours * 3600)} is set`;
    case 'percent':
      return `the seasonal percent is set to ${press.to} %`;
    case 'sensor':
      return press.to === 'active'
        ? 'the rain sensor is switched on'
        : 'the rain sensor is bypassed';
    case 'clock':
      return `the clock is set to ${momentWords(sure(parseSecond(press.to)), speech)}`;
    case 'wet':
      return 'it rains: the rain sensor opens';
    case 'dry':
      return 'the rain sensor is dry again';
    case 'powerOff':
      return 'the power fails';
    case 'powerOn':
      return 'the power comes back';
  }
}
