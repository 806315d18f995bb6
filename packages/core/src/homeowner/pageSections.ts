/** What the homeowner's page says besides the settings: each sentence only if it is true of this garden. */
import { assertDefined } from '../document/assertDefined.ts';
import { attempt } from '../engine/effort.ts';
import type { Simulation } from '../engine/simulate.ts';
import { findingSentence, isBan } from '../findings/findingWords.ts';
import type { RuleChange } from '../findings/finding.ts';
import { changeComing } from '../findings/ruleBreaches.ts';
import { runsWithLinked } from '../plan/linked.ts';
import type { Plan, Program } from '../plan/plan.ts';
import { comingRules } from '../rules/houseRules.ts';
import { nextRuling } from '../rules/ruling.ts';
import { allowedWords, rulesSentence } from '../rules/rulesWords.ts';
import { batteryDue } from '../record/dueVisits.ts';
import { powerOf } from '../survey/power.ts';
import { rainSensorOf } from '../survey/rainSensor.ts';
import { parseDate, parseTime, SECONDS_PER_DAY, type EpochDay } from '../time/calendar.ts';
import { capitalized, dateWords, startWords, type Speech } from '../words/words.ts';
import type { PageSources } from './pageSources.ts';
import { rainAdvice } from './rainAdvice.ts';
import { say, sayText } from '../language/say.ts';

export interface PageSection {
  readonly heading: string;
  readonly lines: readonly string[];
}

const nameOf = (plan: Plan, number: number) =>
  plan.stations.find((station) => station.number === number)?.name ?? say`Station ${number}`;

/** Starts between these are at night or early in the morning. */
const NIGHT = { from: 19 * 3600, to: 8 * 3600 };

const isNightStart = (start: string) => {
  const second = assertDefined(parseTime(start), 'parseTime(start)');
  return second >= NIGHT.from || second < NIGHT.to;
};

/** After a longer pause it is another watering, not a cycle of this one. */
const LONGEST_REST = 4 * 3600;

/** Whether a station runs again after a pause for soaking, not for no-water hours, in the simulated weeks. */
function runsInPieces(simulated: Simulation | null, isNew: (station: number) => boolean): boolean {
  const ends = new Map<number, number>();
  return (simulated?.runs ?? []).some(({ station, on, off, cycle }) => {
    const before = ends.get(station);
    ends.set(station, off);
    if (before === undefined || on <= before || on - before > LONGEST_REST) return false;
    const windows = simulated?.cycles[cycle]?.due.program.windows;
    const isPaused = windows ? windows.nextFree(before) !== before : false;
    return !isPaused && !isNew(station);
  });
}

/** How often a station waters on the day it waters most, in the simulated weeks; cycles with soaks between them count once. */
function timesADay(simulated: Simulation | null, number: number): number {
  const cyclesOn = new Map<number, Set<number>>();
  for (const { station, on, cycle } of simulated?.runs ?? []) {
    if (station !== number) continue;
    const day = Math.floor(on / SECONDS_PER_DAY);
    cyclesOn.set(day, (cyclesOn.get(day) ?? new Set()).add(cycle));
  }
  return Math.max(0, ...[...cyclesOn.values()].map(({ size }) => size));
}

/** Whether two stations ever run at once, in the simulated weeks. */
function runsTogether(simulated: Simulation | null): boolean {
  let latest = -Infinity;
  return (simulated?.runs ?? []).some(({ on, off }) => {
    const meets = on < latest;
    latest = Math.max(latest, off);
    return meets;
  });
}

function whyLines(
  { plan, survey, today, clock }: PageSources,
  complete: readonly Program[],
  simulated: Simulation | null,
): string[] {
  const often = survey.stations.filter(({ oftenADay }) => oftenADay !== undefined);
  const isNew = (station: number) => often.some(({ number }) => number === station);
  const lines: string[] = [];
  const starts = complete.flatMap((program) =>
    program.runs.every(({ station }) => isNew(station)) ? [] : program.starts,
  );
  if (starts.length > 0 && starts.every(isNightStart))
    lines.push(
      say`It waters at night or early in the morning. Less water evaporates, and leaves dry when the sun comes up.`,
    );
  if (runsInPieces(simulated, isNew))
    lines.push(say`It waters in several short runs so the water sinks in and does not run off.`);
  if (dripRunsLonger(plan, complete))
    lines.push(say`Drip lines run longer than sprinklers because they give water slowly.`);
  for (const { number, oftenADay } of often) {
    const times = timesADay(simulated, number);
    if (times < 2) continue;
    const name = nameOf(plan, number);
    const until = oftenADay?.until === undefined ? null : parseDate(oftenADay.until);
    lines.push(
      until === null
        ? say`${name} is new and waters ${times} times a day.`
        : say`${name} is new and waters ${times} times a day until ${dateWords(until, today)}.`,
    );
  }
  for (const { from, to } of plan.timer.inWindow === 'ignore'
    ? []
    : (plan.settings.noWaterWindows ?? []))
    lines.push(
      say`Nothing waters from ${startWords(from, clock)} to ${startWords(to, clock)}, because of local rules or at your request.`,
    );
  return lines;
}

/** Whether every drip line runs longer than any sprinkler, and there are both. */
function dripRunsLonger(plan: Plan, complete: readonly Program[]): boolean {
  const isDrip = (number: number) =>
    plan.stations.find((station) => station.number === number)?.overhead === false;
  const runs = complete.flatMap((program) =>
    runsWithLinked(plan, program).filter(({ seconds }) => seconds > 0),
  );
  const drip = runs.filter(({ station }) => isDrip(station)).map(({ seconds }) => seconds);
  const overhead = runs.filter(({ station }) => !isDrip(station)).map(({ seconds }) => seconds);
  return drip.length > 0 && overhead.length > 0 && Math.min(...drip) > Math.max(...overhead);
}

/** The site's rules, and announced ones that the settings break. */
function allowedLines({ plan, survey, allowed, today, clock }: PageSources): string[] {
  const speech = { on: today, clock };
  if (survey.rules) return [`${capitalized(allowedWords(survey.rules, speech))}.`];
  if (!allowed) return [];
  const { rules, house } = allowed;
  const nextFrom = nextRuling(rules, house, today)?.from;
  const coming = attempt(() => changeComing(plan, comingRules(undefined, rules, house, today)));
  return [
    rulesSentence(rules, house, speech),
    ...(coming.ok && coming.value ? [changeLine(coming.value, nextFrom, speech)] : []),
  ];
}

/** What the homeowner must know of announced rules; the line before it said which begin on `told`. */
function changeLine(change: RuleChange, told: EpochDay | undefined, speech: Speech): string {
  if (change.from !== told) return findingSentence(change, speech);
  return isBan(change)
    ? say`Your timer is still set to water then. Switch it off before that day.`
    : say`Your timer settings break these rules. They must be changed before that day.`;
}

/** When to replace the battery, and what else a timer on a tap needs. */
function batteryLines({ survey, kind, today }: PageSources): string[] {
  const due = batteryDue(survey);
  return [
    due === null || due <= today
      ? say`Replace the battery once a year, before the season.`
      : say`Replace the battery by ${dateWords(due, today)}, when it is a year old.`,
    ...(kind?.timer.powerLoss?.settings === 'factory'
      ? [say`Without a battery the timer loses its settings. Keep this page to enter them again.`]
      : []),
    ...(kind?.inletScreen === true
      ? [
          say`Clean the inlet screen every couple of months: close the tap, unscrew the timer and rinse the screen.`,
        ]
      : []),
  ];
}

function callLines({ kind, survey }: PageSources, together: boolean): string[] {
  return [
    together
      ? say`When it waters at a time that is not on this page.`
      : say`When it waters at a time that is not on this page, or when two areas run at once.`,
    powerOf(survey, kind) === 'battery'
      ? say`When the screen is blank with a new battery.`
      : say`When the clock flashes or is wrong after a power cut.`,
    say`When a patch dries out, water runs off, or a head is broken or leaks.`,
    ...(kind?.restore === undefined || kind.restore.startsWith('None')
      ? []
      : [
          say`The settings are saved inside the timer. ${sayText(kind.restore)} We can talk you through restoring them by phone.`,
        ]),
  ];
}

/**
 * The sections of the page. Sources: field guide, steps 10 to 14 (leave a page) and Complaints; notes of the timer's kind.
 *
 * @param complete programs that water
 * @param simulated some weeks as they really run; null: too much work
 */
export function sectionsOf(
  sources: PageSources,
  complete: readonly Program[],
  simulated: Simulation | null,
): PageSection[] {
  const { plan, survey, kind, company, office } = sources;
  const call = [company, office.phone, office.hours].filter(Boolean).join(', ');
  const { device } = survey;
  const power = powerOf(survey, kind);
  const sections: PageSection[] = [
    { heading: say`Why it waters this way`, lines: whyLines(sources, complete, simulated) },
    { heading: say`When watering is allowed`, lines: allowedLines(sources) },
    {
      heading: say`What the display normally shows`,
      lines: [
        say`Most of the time it shows only the time of day.`,
        ...(kind?.signs ?? []).map(
          ({ sign, means }) => say`Not normal: ${sayText(sign)}. It means: ${sayText(means)}.`,
        ),
      ],
    },
    {
      heading: say`When it rains or freezes`,
      lines: [
        ...rainAdvice({
          way: survey.rain,
          sensor: rainSensorOf(plan.settings, device),
          delay: kind?.rainDelay,
        }),
        say`Switch it off near freezing, below about 3 °C. Wet paths turn to ice.`,
      ],
    },
    {
      heading: say`How to water manually`,
      lines: [
        (kind?.manual === undefined ? undefined : sayText(kind.manual)) ??
          say`Start the station at the timer. It stops by itself, and the programs do not change.`,
        say`Do not change a start time or run time for this. The change would stay.`,
      ],
    },
    {
      heading: say`What to leave alone`,
      lines: [
        say`Start times, run times, days and the clock. One start time runs all stations of a program, one after another. A second start time runs them all again.`,
        ...(power === 'battery' || power === 'adapter'
          ? []
          : [
              say`The wiring behind the cover. There may be mains voltage. Leave it to a licensed electrician.`,
            ]),
      ],
    },
    { heading: say`Battery`, lines: power === 'battery' ? batteryLines(sources) : [] },
    { heading: say`When to call ${call}`, lines: callLines(sources, runsTogether(simulated)) },
  ];
  return sections.filter(({ lines }) => lines.length > 0);
}
