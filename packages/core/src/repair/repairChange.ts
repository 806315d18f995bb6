/** A repair as one step on a timer. */
import type { PlanChange, RunEntry } from '../plan/change.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { sameData } from '../plan/samePlan.ts';
import { settingChanges } from './settings.ts';

function runsChanged(before: Program, after: Program): RunEntry[] {
  const stations = new Set([...before.runs, ...after.runs].map(({ station }) => station));
  const secondsOf = ({ runs }: Program, station: number) =>
    runs.find((run) => run.station === station)?.seconds ?? null;
  return [...stations].flatMap((station) => {
    const seconds = secondsOf(after, station);
    return seconds === secondsOf(before, station) ? [] : [{ station, seconds }];
  });
}

/** The change from a plan to its repaired version: only what differs. */
export function repairChange(before: Plan, after: Plan): PlanChange {
  const programs = before.programs.flatMap((program): PlanChange[] => {
    const { letter } = program;
    const then = after.programs.find((one) => one.letter === letter);
    if (!then) return [];
    const runs = runsChanged(program, then);
    return [
      ...(sameData(program.days, then.days)
        ? []
        : [{ type: 'set-days', program: letter, days: then.days } as const]),
      ...(sameData(program.starts, then.starts)
        ? []
        : [{ type: 'set-starts', program: letter, starts: then.starts } as const]),
      ...(runs.length === 0 ? [] : [{ type: 'set-runs', program: letter, runs } as const]),
    ];
  });
  const settings = Object.fromEntries(
    settingChanges(before, after).flatMap(({ program, field, to }) =>
      program === null ? [[field, to] as const] : [],
    ),
  );
  return {
    type: 'several',
    changes: [
      ...programs,
      ...(Object.keys(settings).length === 0 ? [] : [{ type: 'set-settings', settings } as const]),
    ],
  };
}
