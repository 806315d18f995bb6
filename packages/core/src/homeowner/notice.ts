/** Letter and phone script for a homeowner whose settings must change. */
import { panelText, type PanelStyle } from '../panel/value.ts';
import type { KeyLine } from '../panel/keyIn.ts';
import { programsByLetter, type Plan } from '../plan/plan.ts';
import { programLabel } from '../plan/planWords.ts';
import type { EpochDay } from '../time/calendar.ts';
import { dateWords, daysOnTimer, listed, startWords, type Speech } from '../words/words.ts';
import type { Office } from './office.ts';
import { say } from '../language/say.ts';

export interface Notice {
  /** Resident; empty: not known. */
  readonly person: string;
  readonly house: string;
  readonly company: string;
  readonly office: Pick<Office, 'phone'>;
  /** Reason, such as `the watering rules change`. */
  readonly because: string;
  /** Date from which the timer must have it. */
  readonly from: EpochDay;
  /** The new settings. */
  readonly plan: Plan;
  readonly by: 'phone' | 'visit';
}

/** `Program A waters on Mon Thu, and starts at 5:10 am.` */
function programSentences({ settings, timer, ...plan }: Plan, { clock, order }: Speech): string[] {
  if (settings.mode === 'off') return [say`The timer is switched off until then.`];
  return programsByLetter({ ...plan, settings, timer })
    .filter(({ starts, runs }) => starts.length > 0 && runs.some(({ seconds }) => seconds > 0))
    .map(
      ({ letter, days, starts }) =>
        say`Program ${programLabel(letter, timer.dialect ?? {})}: ${daysOnTimer(days, timer, clock, order)}, starts at ${listed(starts.map((start) => startWords(start, clock)))}.`,
    );
}

/** A letter, line by line, to send or leave. */
export function homeownerNotice(notice: Notice, speech: Speech): string {
  const { person, house, company, office, because, from, plan, by } = notice;
  const call = office.phone ? say` Questions? Call us: ${office.phone}.` : '';
  const how =
    by === 'phone'
      ? say`We will call you and go through it with you at the timer. It takes a few minutes.`
      : say`We will come and set it. You do not need to be there.`;
  return [
    person ? say`Hello ${person},` : say`Hello,`,
    '',
    say`${because}. From ${dateWords(from, speech.on, speech.order)}, the sprinkler timer at ${house} will water like this:`,
    ...programSentences(plan, speech),
    '',
    `${how}${call}`,
    company,
  ].join('\n');
}

/** What to ask someone at the timer to do, setting by setting, in panel order. */
export const phoneSentences = (lines: readonly KeyLine[], style: PanelStyle): string[] =>
  lines.map(({ name, value }) => `${name}: ${panelText(value, style)}`);
