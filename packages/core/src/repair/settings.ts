/** What to key in to turn one plan into another, setting by setting (planning.md section 4). */
import type { Plan, Program, Settings } from '../plan/plan.ts';
import type { Days } from '../time/dayRules.ts';
import type { TimeText } from '../time/calendar.ts';

/** One setting; null: none before, or after. */
export type SettingChange = {
  /** Letter; null: a setting of the timer. */
  readonly program: string | null;
} & (
  | { readonly field: 'start'; readonly from: TimeText | null; readonly to: TimeText | null }
  | { readonly field: 'days'; readonly from: Days | null; readonly to: Days | null }
  | {
      readonly field: 'run';
      readonly station: number;
      /** Seconds as entered. */
      readonly from: number | null;
      readonly to: number | null;
    }
  | {
      readonly field: 'stationDelaySeconds' | 'stationsAtOnce' | 'seasonalPercent';
      readonly from: number | null;
      readonly to: number | null;
    }
);

const TIMER_FIELDS = [
  'stationDelaySeconds',
  'stationsAtOnce',
  'seasonalPercent',
] as const satisfies readonly (keyof Settings)[];

/** Times in one list and not in the other, counting repeats. */
function without(times: readonly TimeText[], others: readonly TimeText[]): TimeText[] {
  const left = [...others];
  return times.filter((time) => {
    const at = left.indexOf(time);
    if (at >= 0) left.splice(at, 1);
    return at < 0;
  });
}

function programChanges(before: Program, after: Program): SettingChange[] {
  const program = before.letter;
  const changes: SettingChange[] = [];
  if (JSON.stringify(before.days) !== JSON.stringify(after.days))
    changes.push({ program, field: 'days', from: before.days, to: after.days });
  const gone = without(before.starts, after.starts).sort();
  const come = without(after.starts, before.starts).sort();
  for (let i = 0; i < Math.max(gone.length, come.length); i++)
    changes.push({ program, field: 'start', from: gone[i] ?? null, to: come[i] ?? null });
  const stations = new Set([...before.runs, ...after.runs].map(({ station }) => station));
  const secondsOf = ({ runs }: Program, station: number) =>
    runs.find((run) => run.station === station)?.seconds ?? null;
  for (const station of [...stations].sort((a, b) => a - b)) {
    const [from, to] = [secondsOf(before, station), secondsOf(after, station)];
    if (from !== to) changes.push({ program, field: 'run', station, from, to });
  }
  return changes;
}

/** Every setting that differs; programs by letter, then the timer's own. */
export function settingChanges(before: Plan, after: Plan): SettingChange[] {
  const programs = [...before.programs]
    .sort((a, b) => (a.letter < b.letter ? -1 : 1))
    .flatMap((program) => {
      const then = after.programs.find(({ letter }) => letter === program.letter);
      return then ? programChanges(program, then) : [];
    });
  const own = TIMER_FIELDS.flatMap((field): SettingChange[] => {
    const [from, to] = [before.settings[field] ?? null, after.settings[field] ?? null];
    return from === to ? [] : [{ program: null, field, from, to }];
  });
  return [...programs, ...own];
}
