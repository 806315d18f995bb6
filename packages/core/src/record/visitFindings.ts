/** Findings only a visit can make, in the form of the checks': what was read at the timer, and what it means. */
import { monthOf, type EpochDay } from '../time/calendar.ts';
import { attempt } from '../engine/effort.ts';
import type { Severity } from '../findings/finding.ts';
import type { TimerKind } from '../plan/kind.ts';
import type { Plan } from '../plan/plan.ts';
import { effectivePercent } from '../plan/program.ts';
import { surveyOf, type Survey } from '../survey/survey.ts';
import { totalOnDisplay } from '../engine/total.ts';
import { CLOCK_SECONDS, clockReading } from './clockReading.ts';

export type VisitFinding = { readonly severity: Severity } &
  /** Seconds by which the clock was found ahead. */
  (
    | { readonly code: 'clock-wrong'; readonly ahead: number }
    /** Seconds on the display, and the sum of the run times. */
    | {
        readonly code: 'total-differs';
        readonly program: string;
        readonly shown: number;
        readonly expected: number;
      }
    /** Run times were read while the percent was not 100, and nobody said whether the display adjusts them. */
    | { readonly code: 'read-at-percent'; readonly program: string; readonly percent: number }
    | { readonly code: 'manual-left-on' }
    | { readonly code: 'hidden-not-looked' }
    /** The settings in the timer's memory are not those left. */
    | { readonly code: 'saved-inside-older' }
    /** For a two-wire timer. */
    | {
        readonly code: 'decoder-twice';
        readonly decoder: string;
        readonly stations: readonly number[];
      }
    | { readonly code: 'no-decoder'; readonly stations: readonly number[] }
  );

/** Totals are shown in whole minutes. */
const TOTAL_TOLERANCE = 60;

/** Total that the display must show for what was noted, at the percent of a date; null if it shows none. */
export function expectedTotal(plan: Plan, letter: string, on: EpochDay): number | null {
  const program = plan.programs.find((program) => program.letter === letter);
  if (!program) return null;
  const worked = attempt(() =>
    totalOnDisplay(plan, program, effectivePercent(plan, program, monthOf(on))),
  );
  return worked.ok ? worked.value : null;
}

/** Whether the stations are on two wires: as noted, otherwise by kind, otherwise if a decoder is noted. */
export const isTwoWire = (
  { device, stations }: Survey,
  kind: Pick<TimerKind, 'twoWire'> | null,
): boolean =>
  device?.twoWire ?? kind?.twoWire ?? stations.some(({ decoder }) => decoder !== undefined);

/** Duplicate decoders, and stations without one. */
function decoderFindings({ stations }: Plan, survey: Survey): VisitFinding[] {
  const byDecoder = new Map<string, number[]>();
  const without: number[] = [];
  for (const { number } of stations) {
    const decoder = surveyOf(survey, number).decoder?.trim();
    if (decoder === undefined) without.push(number);
    else byDecoder.set(decoder, [...(byDecoder.get(decoder) ?? []), number]);
  }
  const twice = [...byDecoder].filter(([, numbers]) => numbers.length > 1);
  return [
    ...twice.map(
      ([decoder, numbers]) =>
        ({ severity: 'error', code: 'decoder-twice', decoder, stations: numbers }) as const,
    ),
    ...(without.length > 0
      ? [{ severity: 'warning', code: 'no-decoder', stations: without } as const]
      : []),
  ];
}

/** Findings only someone at the timer can make, in the open visit and about its decoders. */
export function visitFindings(
  plan: Plan,
  survey: Survey,
  on: EpochDay,
  kind: Pick<TimerKind, 'twoWire'> | null = null,
): VisitFinding[] {
  const { visit } = survey;
  const findings: VisitFinding[] = isTwoWire(survey, kind) ? decoderFindings(plan, survey) : [];
  const clock = clockReading(survey);
  if (clock && !clock.isSet && Math.abs(clock.ahead) >= CLOCK_SECONDS)
    findings.push({ severity: 'error', code: 'clock-wrong', ahead: clock.ahead });
  if (!visit) return findings;
  const found = visit.asFound?.plan ?? plan;
  for (const { program, seconds } of visit.totals ?? []) {
    const expected = expectedTotal(found, program, on);
    if (expected !== null && Math.abs(expected - seconds) >= TOTAL_TOLERANCE)
      findings.push({
        severity: 'warning',
        code: 'total-differs',
        program,
        shown: seconds,
        expected,
      });
  }
  if (visit.asFound && found.timer.dialect?.runPage === undefined)
    for (const program of found.programs) {
      const percent = effectivePercent(found, program, monthOf(on));
      if (percent !== 100 && program.runs.some(({ seconds }) => seconds > 0))
        findings.push({
          severity: 'note',
          code: 'read-at-percent',
          program: program.letter,
          percent,
        });
    }
  if ((visit.switched ?? []).some(({ what, putBack }) => what === 'manual' && !putBack))
    findings.push({ severity: 'warning', code: 'manual-left-on' });
  if (visit.asFound?.hidden === 'not-looked')
    findings.push({ severity: 'note', code: 'hidden-not-looked' });
  const { savedInside, asLeft } = visit;
  if (savedInside && asLeft && (savedInside.state !== 'as-left' || savedInside.at < asLeft.at))
    findings.push({ severity: 'warning', code: 'saved-inside-older' });
  return findings;
}
