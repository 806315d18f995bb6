/** Findings as lines to read: those of one code about many stations together, worst first, nothing said twice. */
import { listed, rangesWords, type Speech } from '../words/words.ts';
import type { Finding, FindingCode } from './finding.ts';
import { findingSentence } from './findingWords.ts';
import { say } from '../language/say.ts';

/** One line: a finding, or several with one code. */
export interface FindingGroup {
  readonly code: FindingCode;
  readonly severity: Finding['severity'];
  readonly findings: readonly Finding[];
}

/** For a station in no program, anything else it lacks is obvious. */
const FOLLOWS_FROM_NONE: readonly FindingCode[] = [
  'too-little',
  'too-few-days',
  'not-often-enough',
];

/** Findings without those implied by another. */
export function withoutRepeats(findings: readonly Finding[]): Finding[] {
  const inNone = new Set(
    findings.flatMap(({ code, where }) => (code === 'station-in-none' ? [where.station] : [])),
  );
  return findings.filter(
    ({ code, where }) => !(FOLLOWS_FROM_NONE.includes(code) && inNone.has(where.station)),
  );
}

/** From this number on they share a line. */
const MANY = 2;

/** Within errors, warnings and notes: first what harms a garden or costs a fine. */
const WEIGHT: readonly FindingCode[] = [
  'overlap',
  'forbidden-day',
  'forbidden-hour',
  'too-many-days',
  'missing-starts',
  'missing-runs',
  'missing-days',
  'coming-rules',
  'timer-off',
  'station-in-none',
  'starts-taken-for-stations',
  'leftover-program',
  'station-in-two-programs',
  'pump-off',
  'runs-off',
];

const weightOf = (code: FindingCode) => {
  const at = WEIGHT.indexOf(code);
  return at < 0 ? WEIGHT.length : at;
};

const SEVERITIES: readonly Finding['severity'][] = ['error', 'warning', 'note'];

/** Lines in order of importance. */
export function findingGroups(findings: readonly Finding[]): FindingGroup[] {
  const groups = new Map<string, Finding[]>();
  withoutRepeats(findings).forEach((finding, i) => {
    const { code, severity, where } = finding;
    const alone = where.station === undefined || code === 'not-on-timer';
    const key = alone ? `${i}` : `${severity} ${code}`;
    const group = groups.get(key);
    if (group) group.push(finding);
    else groups.set(key, [finding]);
  });
  return [...groups.values()]
    .flatMap((group) => (group.length < MANY ? group.map((finding) => [finding]) : [group]))
    .flatMap((group): FindingGroup[] => {
      const [first] = group;
      return first ? [{ code: first.code, severity: first.severity, findings: group }] : [];
    })
    .sort(
      (a, b) =>
        SEVERITIES.indexOf(a.severity) - SEVERITIES.indexOf(b.severity) ||
        weightOf(a.code) - weightOf(b.code),
    );
}

/** Several stations with the same finding, such as `4 stations (1 to 4)`, as the subject of a sentence. */
const OF_STATIONS: Partial<Record<FindingCode, (stations: string) => string>> = {
  'station-in-none': (stations) => say`${stations} are in no program and never water.`,
  'station-in-two-programs': (stations) =>
    say`${stations} are in two programs and are watered by both.`,
  'too-much': (stations) => say`${stations} get too much water.`,
  'too-little': (stations) => say`${stations} get too little water.`,
  'too-few-days': (stations) => say`${stations} water on too few days.`,
  'not-often-enough': (stations) => say`${stations} should run more times a day.`,
  'too-many-days': (stations) => say`${stations} water on more days than the rules allow.`,
  'runs-off': (stations) => say`${stations} run longer than the soil can absorb.`,
  'soak-too-short': (stations) => say`${stations} have too short a soak.`,
  'pump-off': (stations) => say`${stations} need the pump, but their pump switch is off.`,
  'under-cover-obeys-sensor': (stations) =>
    say`${stations} are under cover but use the rain sensor.`,
  'open-ignores-sensor': (stations) => say`${stations} are in the open but ignore the rain sensor.`,
  'disabled-station': (stations) => say`${stations} are switched off but have a run time.`,
};

/** Findings about start times name the first station each concerns, so a line about several names their programs, never stations. */
const OF_STARTS: Partial<
  Record<
    FindingCode,
    {
      readonly several: (programs: string) => string;
      readonly one: (program: string, starts: number) => string;
    }
  >
> = {
  'forbidden-day': {
    several: (programs) => say`Programs ${programs} water on a day the rules do not allow.`,
    one: (program, starts) =>
      say`${program} waters on a day the rules do not allow, with ${starts} start times.`,
  },
  'forbidden-hour': {
    several: (programs) => say`Programs ${programs} water at an hour the rules do not allow.`,
    one: (program, starts) =>
      say`${program} waters at an hour the rules do not allow, with ${starts} start times.`,
  },
  'mowing-day': {
    several: (programs) => say`Programs ${programs} water when it must be dry for mowing.`,
    one: (program, starts) =>
      say`${program} waters when it must be dry for mowing, with ${starts} start times.`,
  },
  'late-finish': {
    several: (programs) => say`Programs ${programs} water outside the preferred hours.`,
    one: (program, starts) =>
      say`${program} waters outside the preferred hours, with ${starts} start times.`,
  },
};

/** A line as text: the finding itself, or what it is about. */
export function groupSentence({ code, findings }: FindingGroup, speech: Speech): string {
  const [first] = findings;
  if (!first) return '';
  const programs = [...new Set(findings.flatMap(({ where }) => where.program ?? []))].sort();
  const ofStarts = OF_STARTS[code];
  if (ofStarts && findings.length >= MANY)
    return programs.length > 1
      ? ofStarts.several(listed(programs))
      : ofStarts.one(programs.join(''), findings.length);
  const numbers = [...new Set(findings.flatMap(({ where }) => where.station ?? []))].sort(
    (a, b) => a - b,
  );
  const ofStations = OF_STATIONS[code];
  if (numbers.length >= MANY && ofStations)
    return ofStations(
      programs.length > 0
        ? say`${numbers.length} stations (${rangesWords(numbers)}) in ${listed(programs)}`
        : say`${numbers.length} stations (${rangesWords(numbers)})`,
    );
  const more = findings.length - 1;
  return `${findingSentence(first, speech)}${more > 0 ? say` And ${more} more like this.` : ''}`;
}
