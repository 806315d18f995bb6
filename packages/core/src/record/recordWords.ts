/** Visits, open points and findings of a visit in sentences. */
import { type TimerSpeech, labelOf } from '../plan/planWords.ts';
import { NEXT_WORDS, SWITCHED_WORDS } from '../visit/visitWords.ts';
import {
  type Speech,
  startWords,
  listed,
  dateWords,
  lengthWords,
  clockWords,
  capitalized,
} from '../words/words.ts';
import type { OpenPoint } from './closing.ts';
import type { VisitReason, DueVisit } from './dueVisits.ts';
import type { VisitFinding } from './visitFindings.ts';

/** Why somebody has to come back, without the date. */
export function visitReasonWords(reason: VisitReason, speech: Speech): string {
  switch (reason.kind) {
    case 'battery':
      return 'change the battery; it is a year old';
    case 'often-a-day-ends':
      return `station ${reason.station} no longer needs several waterings a day`;
    case 'planned':
      return `${NEXT_WORDS[reason.visit.reason].toLowerCase()}${reason.visit.note ? `: ${reason.visit.note}` : ''}`;
    case 'follow-up': {
      const { program, due, stations } = reason.followUp;
      const at = startWords(due.slice(11), speech.clock);
      return `see the first watering: program ${program} at ${at}, stations ${listed(stations)}`;
    }
  }
}

/** Why somebody has to come back, and when. */
export function visitSentence({ date, reason }: DueVisit, speech: Speech): string {
  const overdue = date < speech.on ? ' (overdue)' : '';
  return `${dateWords(date, speech.on, speech.order)}${overdue}: ${visitReasonWords(reason, speech)}`;
}

/** What is still to be done before a visit can be closed. */
export function openPointSentence(point: OpenPoint): string {
  switch (point.what) {
    case 'no-visit':
      return 'No visit has been started.';
    case 'no-as-found':
      return 'The settings as found have not been recorded.';
    case 'no-as-left':
      return 'The settings as left have not been recorded.';
    case 'as-left-is-older':
      return 'Settings were changed after they were recorded as left: record them again.';
    case 'switched':
      return `${SWITCHED_WORDS[point.switched]}: put it back, or say why it stays.`;
  }
}

/** What the visit itself has shown to be wrong, and what to do. */
export function visitFindingSentence(finding: VisitFinding, speech: TimerSpeech): string {
  switch (finding.code) {
    case 'clock-wrong':
      return `${capitalized(clockWords(finding.ahead))}. Everything it does is off by as much: set the clock first.`;
    case 'total-differs':
      return `The display shows ${lengthWords(finding.shown)} as the total of program ${labelOf(finding.program, speech)}; what was noted adds up to ${lengthWords(finding.expected)}. Check its runs again.`;
    case 'read-at-percent':
      return `The run times of program ${labelOf(finding.program, speech)} were read at ${finding.percent} %. If the display shows adjusted minutes, correcting them corrects them twice.`;
    case 'manual-left-on':
      return 'A manual run is still on: end it.';
    case 'hidden-not-looked':
      return 'Nobody has looked for hidden programs and starts.';
    case 'saved-inside-older':
      return 'The settings saved inside the timer are not the ones you leave: save them again, or a restore brings back old settings.';
  }
}
