/** Visits, open points and findings of a visit in sentences. */
import { ruleChangeWords } from '../findings/findingWords.ts';
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
import { say } from '../language/say.ts';

/** `, every 2 months`; nothing where it comes once. */
export function repeatWords({ everyMonths }: NextVisit): string {
  if (everyMonths === undefined) return '';
  if (everyMonths === 1) return say`, every month`;
  return everyMonths % 12 === 0
    ? everyMonths === 12
      ? say`, every year`
      : say`, every ${everyMonths / 12} years`
    : say`, every ${everyMonths} months`;
}

/** Why somebody has to come back, without the date. */
export function visitReasonWords(reason: VisitReason, speech: Speech): string {
  switch (reason.kind) {
    case 'battery':
      return say`change the battery; it is a year old`;
    case 'backup-battery':
      return say`change the backup battery; it is a year old`;
    case 'often-a-day-ends':
      return say`station ${reason.station} no longer needs several waterings a day`;
    case 'planned':
      return `${NEXT_WORDS[reason.visit.reason].toLowerCase()}${repeatWords(reason.visit)}${reason.visit.note ? `: ${reason.visit.note}` : ''}`;
    case 'rule-change':
      return ruleChangeWords(reason.finding, speech);
    case 'undone':
      return say`left undone: ${undoneSentence(reason.point)}`;
    case 'follow-up': {
      const { program, due, stations } = reason.followUp;
      const at = startWords(due.slice(11), speech.clock);
      return say`see the first watering: program ${program} at ${at}, stations ${listed(stations)}`;
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
      return say`The settings as found were not recorded.`;
    case 'no-as-left':
      return say`The settings as left were not frozen: what is planned now counts as left.`;
    case 'as-left-is-older':
      return say`Settings were changed after they were frozen as left: what is planned now counts as left.`;
    case 'clock-not-looked':
      return say`Nobody looked at the clock: all hours may be off.`;
    case 'clock-wrong':
      return say`${capitalized(clockWords(point.ahead))}, and it was not set: everything it does is off by as much.`;
    case 'switched':
      return say`${SWITCHED_WORDS[point.switched]}: not put back, and no reason why it stays.`;
    case 'not-keyed':
      return say`${counted(point.lines, 'setting')} of the card ${point.lines === 1 ? say`was` : say`were`} not keyed in: the timer does not hold what is planned.`;
    case 'not-tested':
      return say`${point.stations.length === 1 ? say`Station` : say`Stations`} ${rangesWords(point.stations)} ${point.stations.length === 1 ? say`was` : say`were`} not tested.`;
  }
}

/** What the visit itself has shown to be wrong, and what to do. */
export function visitFindingSentence(finding: VisitFinding, speech: TimerSpeech): string {
  switch (finding.code) {
    case 'clock-wrong':
      return say`${capitalized(clockWords(finding.ahead))}. Everything it does is off by as much: set the clock first.`;
    case 'total-differs':
      return say`The display shows ${lengthWords(finding.shown)} as the total of program ${labelOf(finding.program, speech)}; what was noted adds up to ${lengthWords(finding.expected)}. Check its runs again.`;
    case 'read-at-percent':
      return say`The run times of program ${labelOf(finding.program, speech)} were read at ${finding.percent} %. If the display shows adjusted minutes, correcting them corrects them twice.`;
    case 'manual-left-on':
      return say`A manual run is still on: end it.`;
    case 'hidden-not-looked':
      return say`Nobody has looked for hidden programs and starts.`;
    case 'decoder-twice':
      return say`Stations ${listed(finding.stations)} have the same decoder, ${finding.decoder}: both open at once. Look which one is right.`;
    case 'no-decoder':
      return finding.stations.length === 1
        ? say`Station ${listed(finding.stations)} has no decoder noted.`
        : say`${finding.stations.length} stations have no decoder noted: ${rangesWords(finding.stations)}.`;
    case 'saved-inside-older':
      return say`The settings saved inside the timer are not the ones you leave: save them again, or a restore brings back old settings.`;
  }
}
