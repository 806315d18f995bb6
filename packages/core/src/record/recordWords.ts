/** Visits, open points and findings of a visit in sentences. */
import { ruleChangeWords } from '../judge/findingWords.ts';
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
  counted,
  rangesWords,
} from '../words/words.ts';
import type { NextVisit, Undone } from '../visit/visit.ts';
import type { VisitReason, DueVisit } from './dueVisits.ts';
import type { VisitFinding } from './visitFindings.ts';

/** `, every 2 months`; nothing where it comes once. */
export function repeatWords({ everyMonths }: NextVisit): string {
  if (everyMonths === undefined) return '';
  if (everyMonths === 1) return ', every month';
  return everyMonths % 12 === 0
    ? everyMonths === 12
      ? ', every year'
      : `, every ${everyMonths / 12} years`
    : `, every ${everyMonths} months`;
}

/** Why somebody has to come back, without the date. */
export function visitReasonWords(reason: VisitReason, speech: Speech): string {
  switch (reason.kind) {
    case 'battery':
      return 'change the battery; it is a year old';
    case 'backup-battery':
      return 'change the backup battery; it is a year old';
    case 'often-a-day-ends':
      return `station ${reason.station} no longer needs several waterings a day`;
    case 'planned':
      return `${NEXT_WORDS[reason.visit.reason].toLowerCase()}${repeatWords(reason.visit)}${reason.visit.note ? `: ${reason.visit.note}` : ''}`;
    case 'rule-change':
      return ruleChangeWords(reason.finding, speech);
    case 'undone':
      return `left undone: ${undoneSentence(reason.point)}`;
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

/** What is not done, and what it means for the house. */
export function undoneSentence(point: Undone): string {
  switch (point.what) {
    case 'no-as-found':
      return 'The settings as found were not recorded.';
    case 'no-as-left':
      return 'The settings as left were not frozen: what is planned now counts as left.';
    case 'as-left-is-older':
      return 'Settings were changed after they were frozen as left: what is planned now counts as left.';
    case 'clock-not-looked':
      return 'Nobody looked at the clock: all hours may be off.';
    case 'clock-wrong':
      return `${capitalized(clockWords(point.ahead))}, and it was not set: everything it does is off by as much.`;
    case 'switched':
      return `${SWITCHED_WORDS[point.switched]}: not put back, and no reason why it stays.`;
    case 'not-keyed':
      return `${counted(point.lines, 'setting')} of the card ${point.lines === 1 ? 'was' : 'were'} not keyed in: the timer does not hold what is planned.`;
    case 'not-tested':
      return `${point.stations.length === 1 ? 'Station' : 'Stations'} ${rangesWords(point.stations)} ${point.stations.length === 1 ? 'was' : 'were'} not tested.`;
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
    case 'decoder-twice':
      return `Stations ${listed(finding.stations)} have the same decoder, ${finding.decoder}: both open at once. Look which one is right.`;
    case 'no-decoder':
      return finding.stations.length === 1
        ? `Station ${listed(finding.stations)} has no decoder noted.`
        : `${finding.stations.length} stations have no decoder noted: ${rangesWords(finding.stations)}.`;
    case 'saved-inside-older':
      return 'The settings saved inside the timer are not the ones you leave: save them again, or a restore brings back old settings.';
  }
}
