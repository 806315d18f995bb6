/** A task from a company's garden: an empty timer of its kind, and its settings as the card. */
import { emptyPlan } from '../plan/shippedKinds.ts';
import type { TimerKind } from '../plan/kind.ts';
import type { Plan } from '../plan/plan.ts';
import { benchOf, needsMet } from './judgeTask.ts';
import { keysFor } from './solve.ts';
import {
  readTask,
  sceneStart,
  TASK_FORMAT,
  TASK_VERSION,
  type BoxSettings,
  type Task,
} from './task.ts';
import { say } from '../language/say.ts';

export const boxOf = ({ settings, stations, programs }: Plan): BoxSettings => ({
  settings,
  stations,
  programs,
});

/** The keys that turn a scene's timer into a plan. */
export function solutionOf(task: Task, target: Plan): Task['solution']['keys'] {
  const style = { clock: '24' } as const;
  return keysFor(benchOf(task, style), sceneStart(task, style), target);
}

const DAYS_JUDGED = 9;
const CLOCK_WITHIN = 90;

export interface TaskWords {
  readonly title: string;
  readonly says: string;
  /** 1 to 5. */
  readonly level: number;
  /** When the apprentice arrives, "YYYY-MM-DDTHH:MM:SS". */
  readonly at: string;
}

/**
 * The task of keying in a garden's settings from its card.
 *
 * @returns null if the kind's keys cannot do it
 */
export function taskOfPlan(
  { site: _site, ...plan }: Plan,
  kind: Pick<TimerKind, 'hidden' | 'rainDelay'> | null,
  { title, says, level, at }: TaskWords,
): Task | null {
  const { hidden, rainDelay } = kind ?? {};
  // The card is not about rain delay, off switch or clock.
  const { wateringResumes: _resumes, mode: _mode, ...settings } = plan.settings;
  const target: Plan = { ...plan, settings };
  const task: Task = {
    ...{ format: TASK_FORMAT, version: TASK_VERSION, title, level, says },
    scene: {
      plan: { ...emptyPlan(plan.timer), stations: plan.stations },
      at,
      ...(hidden ? { hidden } : {}),
      ...(rainDelay ? { rainDelay } : {}),
    },
    card: boxOf(target),
    needs: [
      { need: 'waters-like', days: DAYS_JUDGED },
      { need: 'clock', within: CLOCK_WITHIN },
    ],
    hints: [
      say`Work page by page, as on the card.`,
      say`Lines not ticked on the card are not in the timer yet.`,
      say`Check the clock and the watering days of each program.`,
    ],
    solution: { keys: [] },
  };
  const style = { clock: '24' } as const;
  const bench = benchOf(task, style);
  const keys = keysFor(bench, sceneStart(task, style), target);
  if (!needsMet(task, bench, null, style).every(({ isMet }) => isMet)) return null;
  const read = readTask({ ...task, solution: { keys } });
  return read.ok ? read.value : null;
}
