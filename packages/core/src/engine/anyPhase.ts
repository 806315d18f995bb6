/**
 * Intervals whose phase cannot be read: a proof then covers every phase. Whether two cycles overlap depends only on the phases of their two
 * programs, so each such program goes through its phases with the others fixed, and each two of them go through theirs alone.
 */
import type { Plan, Program } from '../plan/plan.ts';
import { EVERY_WEEKDAY, maskOfWeekdays, weekdaysOfMask } from '../time/dayRules.ts';
import { formatDate, type EpochDay } from '../time/calendar.ts';
import type { Overlap } from './overlap.ts';
import {
  MOST_FREQUENCIES,
  prove,
  type ProofOptions,
  type Proven,
  type Verdict,
} from './verdict.ts';

const isOf = (letters: readonly string[]) => (program: Program) =>
  letters.includes(program.letter) && program.days?.rule === 'interval';

/** A program at each of its phases. */
function phasesOf(program: Program, on: EpochDay): Program[] {
  const { days } = program;
  if (days?.rule !== 'interval') return [program];
  return Array.from({ length: days.everyDays }, (_, i) => ({
    ...program,
    days: { ...days, firstDate: formatDate(on + i) },
  }));
}

/** Plans that together cover each pair of phases that can matter. */
function* variants(plan: Plan, letters: readonly string[], on: EpochDay): Generator<Plan> {
  const unknown = plan.programs.filter(isOf(letters));
  for (const program of unknown)
    for (const phase of phasesOf(program, on))
      yield { ...plan, programs: plan.programs.map((one) => (one === program ? phase : one)) };
  for (const [i, a] of unknown.entries())
    for (const b of unknown.slice(i + 1))
      for (const first of phasesOf(a, on))
        for (const second of phasesOf(b, on)) yield { ...plan, programs: [first, second] };
}

const SEVERITY: readonly Verdict[] = ['overlap', 'incomplete', 'empty', 'clear'];

const keyOf = ({ first, second }: Overlap) =>
  [first, second].map(({ letter, start }) => `${letter} ${start}`).join(' ');

/**
 * As `prove`, for every phase of some programs: the worst verdict, the lowest headroom, and each pair of starts that ever overlaps, with
 * its earliest event.
 *
 * Cost: one proof for each phase, and one of two programs for each pair of phases of two such programs.
 *
 * @param letters programs whose phase is not known; those without an interval stay as they are
 * @throws TooMuchWork
 */
export function proveAnyPhase(
  plan: Plan,
  on: EpochDay,
  letters: readonly string[],
  options: ProofOptions = {},
): Proven {
  const base = prove(plan, on, options);
  if (!plan.programs.some(isOf(letters))) return base;
  const overlaps = new Map<string, { overlap: Overlap; perYear: number }>();
  let { verdict, headroomPercent, beyond } = base;
  for (const variant of variants(plan, letters, on)) {
    const proven = prove(variant, on, options);
    proven.overlaps.forEach((overlap, i) => {
      const known = overlaps.get(keyOf(overlap));
      if (!known || overlap.first.begins < known.overlap.first.begins)
        overlaps.set(keyOf(overlap), { overlap, perYear: proven.perYear[i] ?? 0 });
    });
    if (SEVERITY.indexOf(proven.verdict) < SEVERITY.indexOf(verdict)) ({ verdict } = proven);
    if (headroomPercent !== null && (proven.headroomPercent ?? -1) < headroomPercent)
      ({ headroomPercent, beyond } = proven);
  }
  const found = [...overlaps.values()].sort(
    (a, b) => a.overlap.first.begins - b.overlap.first.begins,
  );
  return {
    ...base,
    verdict,
    headroomPercent,
    beyond,
    overlaps: found.map(({ overlap }) => overlap),
    overlapCount: found.length,
    perYear: found.slice(0, MOST_FREQUENCIES).map(({ perYear }) => perYear),
  };
}

/** A plan whose programs of unknown phase water on every date some phase does, for drawings that cannot show a single phase. */
export const onAnyDay = (plan: Plan, letters: readonly string[]): Plan => ({
  ...plan,
  programs: plan.programs.map((program) => {
    const { days } = program;
    if (days?.rule !== 'interval' || !letters.includes(program.letter)) return program;
    const open = EVERY_WEEKDAY & ~maskOfWeekdays(days.blockedWeekdays ?? []);
    return { ...program, days: { rule: 'weekdays', weekdays: weekdaysOfMask(open) } };
  }),
});
