/** A timer after a power cut: what to ask first, in order, and the consequences for this kind. */
import { CLOCK_AFTER_RESET } from '../simulatedTimer/power.ts';
import { assertDefined } from '../document/assertDefined.ts';
import type { Power } from '../plan/kind.ts';
import type { Plan } from '../plan/plan.ts';
import { labelOf, type TimerSpeech } from '../plan/planWords.ts';
import { unknownPhases, type Survey, type UnknownPhase } from '../survey/survey.ts';
import { parseMoment, SECONDS_PER_DAY, type ClockSecond } from '../time/calendar.ts';
import { daysWords, listed, momentWords, startWords } from '../words/words.ts';
import { say, wordsOf } from '../language/say.ts';
import { clockReading } from './clockReading.ts';

type ClockAfter = NonNullable<NonNullable<Plan['timer']['powerLoss']>['clock']>;

export type PowerAsk =
  /** Blank display: is there power at all? */
  | { readonly what: 'supply'; readonly power: Power | null }
  /** Its clock, before it is set; `cameBack`: when power returned, if the clock tells. */
  | {
      readonly what: 'clock';
      readonly isDone: boolean;
      /** Null: not known for this kind. */
      readonly after: ClockAfter | null;
      readonly cameBack: ClockSecond | null;
    }
  /** Whether the factory settings came back. */
  | { readonly what: 'factory'; readonly isDone: boolean; readonly factory: Plan }
  /** Interval phases, which kept counting while the clock did not. */
  | { readonly what: 'phases'; readonly isDone: boolean; readonly programs: readonly string[] }
  | { readonly what: 'battery' };

/** The clock does not tell of older power cuts. */
const REMEMBERED_DAYS = 60;

/** When power returned to a clock that then restarted, from what it showed at a moment; null: it does not tell. */
export function powerCameBack({ timer }: Plan, survey: Survey): ClockSecond | null {
  if (timer.powerLoss?.clock !== 'resets' || !clockReading(survey)) return null;
  const { device } = survey;
  const shown = parseMoment(device?.clockShown ?? '');
  const really = parseMoment(device?.clockReally ?? '');
  const since = assertDefined(
    parseMoment(timer.clockAfterReset ?? CLOCK_AFTER_RESET),
    'parseMoment',
  );
  if (shown === null || really === null) return null;
  const ago = shown - since;
  return ago >= 0 && ago < REMEMBERED_DAYS * SECONDS_PER_DAY ? really - ago : null;
}

/** Programs whose interval a stopped or restarted clock has shifted. */
const intervals = ({ programs }: Plan): string[] =>
  programs.flatMap(({ letter, days }) => (days?.rule === 'interval' ? [letter] : []));

/** What is unknown about intervals after a power cut, as a change; null: nothing. */
export function phasesAfterLoss(plan: Plan): readonly UnknownPhase[] | null {
  if (plan.timer.powerLoss?.clock === 'kept') return null;
  const unknown = plan.programs.flatMap(({ letter, days }) =>
    days?.rule === 'interval'
      ? [{ program: letter, everyDays: days.everyDays, firstDate: days.firstDate }]
      : [],
  );
  return unknown.length > 0 ? unknown : null;
}

/**
 * What to ask when a display blinks or is blank, in order; empty if it is steady, or no one has looked.
 *
 * @param factory plan after a loss of memory; null: not known
 * @param power what the timer runs on; null: not known
 */
export function powerAsks(
  plan: Plan,
  survey: Survey,
  factory: Plan | null,
  power: Power | null,
): PowerAsk[] {
  const { visit } = survey;
  if (visit?.display === undefined || visit.display === 'steady') return [];
  const after = plan.timer.powerLoss?.clock ?? null;
  const isNoted = clockReading(survey) !== null;
  const unknown = unknownPhases(plan, survey);
  const counted = after === 'kept' ? [] : intervals(plan);
  return [
    ...(visit.display === 'blank' ? [{ what: 'supply', power } as const] : []),
    { what: 'clock', isDone: isNoted, after, cameBack: powerCameBack(plan, survey) },
    ...(factory && plan.timer.powerLoss?.settings !== 'kept'
      ? [{ what: 'factory', isDone: visit.factoryBack !== undefined, factory } as const]
      : []),
    ...(counted.length > 0 && visit.factoryBack !== true
      ? [
          {
            what: 'phases',
            isDone: counted.every((letter) => !unknown.includes(letter)),
            programs: counted,
          } as const,
        ]
      : []),
    ...(power === 'battery' ? [] : [{ what: 'battery' } as const]),
  ];
}

const AFTER: Readonly<Record<ClockAfter, string>> = wordsOf({
  kept: 'This timer keeps its clock without power. If it flashes, it was never set or its battery is flat.',
  stops: 'This timer’s clock stops without power, so it is slow by as long as the power was out.',
  resets: 'This timer’s clock restarts when the power comes back, so it shows when that was.',
});

/** The question, and what follows from the answer. */
export function powerAskWords(
  ask: PowerAsk,
  speech: TimerSpeech,
): { readonly question: string; readonly why: string } {
  switch (ask.what) {
    case 'supply':
      if (ask.power === 'battery')
        return {
          question: say`Is the battery good? Try a new one.`,
          why: say`Without a good battery the screen stays blank.`,
        };
      return {
        question: say`Is there power? Check the outlet, its switch, the adapter and the battery.`,
        why: say`Mains wiring is for a licensed electrician. Follow the local code.`,
      };
    case 'clock':
      return {
        question: say`Read the clock before anyone sets it: the time, the date, am or pm.`,
        why:
          ask.cameBack === null
            ? ask.after === null
              ? say`It is not known what this timer’s clock does without power.`
              : AFTER[ask.after]
            : say`By its clock, the power came back ${momentWords(ask.cameBack, speech)}.`,
      };
    case 'factory': {
      const [program] = ask.factory.programs;
      return {
        question: say`Is it running its factory program?`,
        why: program
          ? say`Program ${labelOf(program.letter, speech)} would start at ${listed(program.starts.map((one) => startWords(one, speech.clock)))}, ${daysWords(program.days, speech.clock, speech.order)}.`
          : say`Every program would be empty.`,
      };
    }
    case 'phases':
      return {
        question: say`Read the days left for program ${listed(ask.programs.map((letter) => labelOf(letter, speech)))}, or type ? if they cannot be read.`,
        why: say`Intervals count by the clock. Until they are read, the verdict covers every day they may water.`,
      };
    case 'battery':
      return {
        question: say`Test the backup battery: unplug the timer for a minute and watch the clock.`,
        why: say`A good battery would have kept the clock.`,
      };
  }
}
