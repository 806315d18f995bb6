/** What to say on the telephone to bring the settings back that are saved inside a timer, in the words of its own panel. */
import { panelText } from '../panel/value.ts';
import type { TimerKind } from '../plan/kind.ts';
import { programsByLetter, type Plan } from '../plan/plan.ts';
import { programLabel } from '../plan/planWords.ts';
import { missingOf } from '../plan/program.ts';
import { wateringStations } from '../plan/linked.ts';
import { parseTime } from '../time/calendar.ts';
import type { ClockStyle } from '../words/words.ts';

/**
 * The steps, a sentence or two each; empty where this kind saves nothing. The last of them is a check: a time that the display must then show.
 *
 * @param left what is saved inside.
 */
export function restoreWords(
  left: Plan,
  kind: Pick<TimerKind, 'restore' | 'restoreSteps'> | null,
  clock: ClockStyle,
): string[] {
  const { restore, restoreSteps = [] } = kind ?? {};
  if (restore === undefined || restore.startsWith('None')) return [];
  const { dialect = {} } = left.timer;
  const named = (line: string) =>
    line.replace(/\{([A-Z])\}/gu, (_, letter: string) => programLabel(letter, dialect));
  const steps =
    restoreSteps.length > 0
      ? restoreSteps.map(named)
      : ['Open its settings and choose to bring back what was saved. When it asks, say yes.'];
  const watering = wateringStations(left);
  const first = programsByLetter(left).find(
    (program) => program.starts.length > 0 && missingOf(program, watering).length === 0,
  );
  const start = [...(first?.starts ?? [])].sort()[0];
  const check =
    first && start !== undefined
      ? [
          `Read me the first start of program ${programLabel(first.letter, dialect)}: it must say ${panelText({ kind: 'time', second: parseTime(start) }, { dialect, clock })}.`,
        ]
      : [];
  return [
    'Stand before the timer and leave the cover of the wiring shut.',
    ...steps,
    ...check,
    'Now set the date and the time by your telephone: a restore does not bring them back.',
  ];
}
