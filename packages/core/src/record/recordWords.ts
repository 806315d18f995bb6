/** Messages about visits, open points and visit findings. */
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
  rangesWords,
} from '../words/words.ts';
import type { NextVisit, Undone } from '../visit/visit.ts';
import type { VisitReason, DueVisit } from './dueVisits.ts';
import type { VisitFinding } from './visitFindings.ts';
import { plural, say } from '../language/say.ts';

/** `every 2 months`; empty if it does not repeat. */
export function repeatWords({ everyMonths }: NextVisit): string {
  if (everyMonths === undefined) return '';
  if (everyMonths === 1) return say`every month`;
  return everyMonths % 12 === 0
    ? everyMonths === 12
      ? say`every year`
      : say`every ${everyMonths / 12} years`
    : say`every ${everyMonths} months`;
}

/** `winterize, every year: bring the adapter`. */
export function nextVisitWords(visit: NextVisit): string {
  const repeat = repeatWords(visit);
  const why = NEXT_WORDS[visit.reason].toLowerCase();
  const words = repeat === '' ? why : `${why}, ${repeat}`;
  return visit.note ? `${words}: ${visit.note}` : words;
}

/** Why someone must come back, without the date. */
export function visitReasonWords(reason: VisitReason, speech: Speech): string {
  switch (reason.kind) {
    case 'battery':
      return say`replace the battery, which is a year old, and clean the inlet screen if there is one`;
    case 'backup-battery':
      return say`replace the backup battery, which is a year old`;
    case 'often-a-day-ends':
      return say`station ${reason.station} no longer needs several waterings a day`;
    case 'planned':
      return nextVisitWords(reason.visit);
    case 'rule-change':
      return ruleChangeWords(reason.finding, speech);
    case 'undone':
      return say`not done: ${undoneSentence(reason.point)}`;
    case 'follow-up': {
      const { program, due, stations } = reason.followUp;
      const at = startWords(due.slice(11), speech.clock);
      return say`watch the first watering: program ${program} at ${at}, stations ${listed(stations)}`;
    }
  }
}

/** Why someone must come back, and when. */
export function visitSentence({ date, reason }: DueVisit, speech: Speech): string {
  const overdue = date < speech.on ? ' (overdue)' : '';
  return `${dateWords(date, speech.on, speech.order)}${overdue}: ${visitReasonWords(reason, speech)}`;
}

/** What is not done, and what it means for the site. */
export function undoneSentence(point: Undone): string {
  switch (point.what) {
    case 'no-as-found':
      return say`As-found settings were not saved.`;
    case 'no-as-left':
      return say`Final settings were not saved. The planned settings count as left.`;
    case 'as-left-is-older':
      return say`Settings changed after they were saved as left. The planned settings count as left.`;
    case 'clock-not-looked':
      return say`The clock was not checked, so all times may be off.`;
    case 'clock-wrong':
      return say`${capitalized(clockWords(point.ahead))}. It was not set, so everything runs off by as much.`;
    case 'switched':
      return say`${SWITCHED_WORDS[point.switched]}: not put back, and no reason given.`;
    case 'not-keyed':
      return plural(
        point.lines,
        '# setting on the card was not keyed in. The timer does not have the planned settings.',
        '# settings on the card were not keyed in. The timer does not have the planned settings.',
      );
    case 'not-tested':
      return point.stations.length === 1
        ? say`Station ${rangesWords(point.stations)} was not tested.`
        : say`Stations ${rangesWords(point.stations)} were not tested.`;
  }
}

/** What the visit itself found wrong, and what to do. */
export function visitFindingSentence(finding: VisitFinding, speech: TimerSpeech): string {
  switch (finding.code) {
    case 'clock-wrong':
      return say`${capitalized(clockWords(finding.ahead))}. Everything runs off by as much. Set the clock first.`;
    case 'total-differs':
      return say`The display shows a total of ${lengthWords(finding.shown)} for program ${labelOf(finding.program, speech)}. Your readings add up to ${lengthWords(finding.expected)}. Check its run times again.`;
    case 'read-at-percent':
      return say`Program ${labelOf(finding.program, speech)} run times were read at ${finding.percent} %. If the display shows adjusted minutes, do not adjust them again.`;
    case 'manual-left-on':
      return say`A manual run is still on. End it.`;
    case 'hidden-not-looked':
      return say`Hidden programs and start times were not checked.`;
    case 'decoder-twice':
      return say`Stations ${listed(finding.stations)} have the same decoder, ${finding.decoder}, so they open together. Check which one is right.`;
    case 'no-decoder':
      return finding.stations.length === 1
        ? say`Station ${listed(finding.stations)} has no decoder recorded.`
        : say`${finding.stations.length} stations have no decoder recorded: ${rangesWords(finding.stations)}.`;
    case 'saved-inside-older':
      return say`The settings saved in the timer are not the final ones. Save them again, or a restore brings back old settings.`;
  }
}
