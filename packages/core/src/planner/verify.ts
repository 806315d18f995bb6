/** Whether a plan keeps a brief's hard rules (planning.md section 3), checked with the engine alone, independently of the search. */
import { assertDefined } from '../document/assertDefined.ts';
import { type Brief, wishOf } from '../brief/brief.ts';
import { daysWanted } from '../brief/wanted.ts';
import { parseDate, type EpochDay } from '../time/calendar.ts';
import { Effort } from '../engine/effort.ts';
import { headroomOf } from '../engine/headroom.ts';
import { briefFindings } from '../findings/briefFindings.ts';
import { bindingOf, isForbiddenAnywhere } from '../findings/ruleBreaches.ts';
import { notFitting } from '../findings/limits.ts';
import { type FindingCode } from '../findings/finding.ts';
import { runOffFindings } from '../findings/runOffFindings.ts';
import { WetStarts } from '../engine/wetStarts.ts';
import { Meetings } from '../time/meetings.ts';
import { atPercent } from '../engine/night.ts';
import { allYear, ProgramCycles } from '../engine/nominal.ts';
import { OverlapProof } from '../engine/overlap.ts';
import type { Plan } from '../plan/plan.ts';
import { datesOfProgram } from '../plan/starts.ts';
import { mostDaysBetween } from '../time/dateCount.ts';
import { adjustedSeconds, percentSteps } from '../plan/program.ts';

/** A broken hard rule: the finding's code, or a word if there is none. */
export interface Breach {
  readonly code: FindingCode | 'program-of-station' | 'days' | 'apart' | 'wish';
  readonly percent: number;
}

/** Every date counts. */
const FROM: EpochDay = assertDefined(parseDate('2027-01-01'), "parseDate('2027-01-01')");

const HARD: ReadonlySet<FindingCode> = new Set<FindingCode>([
  'runs-off',
  'soak-too-short',
  'too-many-days',
  'mowing-day',
  'not-often-enough',
]);

/** Percents at which nothing may overlap or be wet at forbidden times: the timer's steps up to the wished headroom, and 100. */
export function hardPercents(brief: Brief): number[] {
  const { headroomPercent } = wishOf(brief);
  const steps = percentSteps(brief.timer).filter((percent) => percent <= headroomPercent);
  return [...new Set([...steps, 100])].filter((percent) => percent > 0).sort((a, b) => a - b);
}

/**
 * The first hard rule that a plan breaks; null: none.
 *
 * @throws TooMuchWork
 */
export function breachOf(brief: Brief, plan: Plan): Breach | null {
  const structure = structureBreach(brief, plan);
  if (structure) return { code: structure, percent: 100 };
  const effort = new Effort();
  if (notFitting(plan, plan.timer).length > 0) return { code: 'not-on-timer', percent: 100 };
  const meetings = new Meetings(effort);
  const programs = plan.programs.map((program) => new ProgramCycles(plan, program, effort));
  const span = { from: FROM, resumes: -Infinity };
  const proof = new OverlapProof(programs, span, meetings, effort);
  const percents = hardPercents(brief);
  const headroom = headroomOf(plan.timer, programs, proof);
  const steps = percents.filter((percent) => percentSteps(plan.timer).includes(percent));
  const most = steps.at(-1) ?? 0;
  if ((headroom.percent ?? 0) < most)
    return { code: 'overlap', percent: headroom.nextStep ?? most };
  const atHundred = allYear([100]);
  if (proof.find(() => atHundred).length > 0) return { code: 'overlap', percent: 100 };
  const { weekdays, parity, noWaterWindows } = brief.rules ?? {};
  const binding = bindingOf(brief);
  if (binding && (weekdays ?? parity ?? noWaterWindows))
    for (const percent of percents) {
      const wets = new WetStarts(atPercent(plan, percent), FROM, effort);
      if (isForbiddenAnywhere(binding, wets)) return { code: 'forbidden-hour', percent };
    }
  const wets = new WetStarts(plan, FROM, effort);
  const findings = [
    ...runOffFindings(plan, wets),
    ...briefFindings(plan, brief, wets, FROM, effort),
  ];
  const broken = findings.find(({ code }) => HARD.has(code));
  return broken ? { code: broken.code, percent: 100 } : null;
}

/** Faults in how stations, groups and wishes are divided among programs. */
function structureBreach(brief: Brief, plan: Plan): Breach['code'] | null {
  const wish = wishOf(brief);
  if (wish.programs === 'one' && plan.programs.length > 1) return 'wish';
  if (plan.programs.length > brief.timer.programCount) return 'not-on-timer';
  for (const station of brief.stations) {
    const { number, weeklySeconds } = station;
    const days = daysWanted(brief, station);
    const own = plan.programs.filter(({ runs }) =>
      runs.some(({ station, seconds }) => station === number && seconds > 0),
    );
    if (own.length !== (weeklySeconds > 0 ? 1 : 0)) return 'program-of-station';
    const [program] = own;
    if (!program || !days) continue;
    const { mean, gap } = datesOfProgram(plan, program);
    if (mean < days.least - 1e-9 || mean > days.most + 1e-9) return 'days';
    if (gap > mostDaysBetween(days.least)) return 'days';
  }
  for (const { starts, days, runs, cycleSeconds } of plan.programs) {
    if (wish.starts === 'one' && starts.length > 1) return 'wish';
    const stations = brief.stations.filter(({ number }) =>
      runs.some(({ station, seconds }) => station === number && seconds > 0),
    );
    // The timer is to split runs: more starts only for stations with several waterings a day.
    if (wish.starts === 'timer-soak' && starts.length > 1)
      if (!stations.some(({ oftenADay }) => oftenADay)) return 'wish';
    // Starts are to make the soaks: the timer splits no run.
    if (wish.starts === 'repeated' && cycleSeconds !== undefined) return 'wish';
    if (wish.starts === 'repeated' && brief.timer.cycleSoak === 'station')
      for (const { number, cycleSeconds: most = Infinity } of stations) {
        const run = runs.find(({ station }) => station === number)?.seconds ?? 0;
        if (adjustedSeconds(run, 100, brief.timer.seasonal) > most) return 'wish';
      }
    if (wish.days !== 'any' && days?.rule !== wish.days) return 'wish';
    const groups = new Set(
      runs.map(({ station }) => brief.stations.find(({ number }) => number === station)?.group),
    );
    if (wish.apart.some(([a, b]) => groups.has(a) && groups.has(b))) return 'apart';
  }
  return null;
}
