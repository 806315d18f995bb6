/** Phone script for restoring the settings saved in a timer's memory, in its panel's wording. */
import { panelText } from '../panel/value.ts';
import type { TimerKind } from '../plan/kind.ts';
import { programsByLetter, type Plan } from '../plan/plan.ts';
import { programLabel } from '../plan/planWords.ts';
import { missingOf } from '../plan/program.ts';
import { wateringStations } from '../plan/linked.ts';
import { parseTime } from '../time/calendar.ts';
import type { ClockStyle } from '../words/words.ts';
import { say, sayText } from '../language/say.ts';

interface Restore {
  readonly steps: readonly string[];
  /** What the display must then show; null: nothing that waters has a start. */
  readonly check: { readonly program: string; readonly start: string } | null;
}

/** Null if this kind saves nothing. */
function restoreOf(
  left: Plan,
  kind: Pick<TimerKind, 'restore' | 'restoreSteps'> | null,
  clock: ClockStyle,
): Restore | null {
  const { restore, restoreSteps } = kind ?? {};
  if (restore === undefined || restore.startsWith('None')) return null;
  const { dialect = {} } = left.timer;
  const named = (line: string) =>
    sayText(line).replace(/\{([A-Z])\}/gu, (_, letter: string) => programLabel(letter, dialect));
  const watering = wateringStations(left);
  const first = programsByLetter(left).find(
    (program) => program.starts.length > 0 && missingOf(program, watering).length === 0,
  );
  const [start] = [...(first?.starts ?? [])].sort();
  return {
    steps: restoreSteps?.map(named) ?? [
      say`Open its settings and choose to restore the saved settings. Answer yes when it asks.`,
    ],
    check:
      first && start !== undefined
        ? {
            program: programLabel(first.letter, dialect),
            start: panelText({ kind: 'time', second: parseTime(start) }, { dialect, clock }),
          }
        : null,
  };
}

/**
 * Phone script, a step each; empty if this kind saves nothing.
 *
 * @param left the saved settings
 */
export function restoreWords(...given: Parameters<typeof restoreOf>): string[] {
  const restore = restoreOf(...given);
  if (!restore) return [];
  const { steps, check } = restore;
  return [
    say`Stand in front of the timer and keep the wiring cover closed.`,
    ...steps,
    ...(check
      ? [
          say`Read me the first start time of program ${check.program}. It should say ${check.start}.`,
        ]
      : []),
    say`Now set the date and time from your phone. A restore does not bring them back.`,
  ];
}

/** The same, for reading on the card. */
export function restoreOnCard(...given: Parameters<typeof restoreOf>): string[] {
  const restore = restoreOf(...given);
  if (!restore) return [];
  const { steps, check } = restore;
  return [
    ...steps,
    ...(check
      ? [say`The first start time of ${check.program} should then say ${check.start}.`]
      : []),
    say`Set the date and time.`,
  ];
}
