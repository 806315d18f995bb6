/** The timer card: what the panel hides on one side, how to reach each setting on the other. Source: field guide, step 14. */
import type { Simulation } from '../engine/simulate.ts';
import { PANEL_SETTINGS, type PanelSetting } from '../plan/kind.ts';
import { PANEL_WORDS, rainDelayWords } from '../plan/kindWords.ts';
import { runsWithLinked, wateringStations } from '../plan/linked.ts';
import { programsByLetter, type Plan, type Program, type Station } from '../plan/plan.ts';
import { programLabel } from '../plan/planWords.ts';
import { effectivePercent, missingOf, variesByMonth } from '../plan/program.ts';
import { orderOf } from '../panel/lines.ts';
import { rainSensorOf } from '../survey/rainSensor.ts';
import { windowWords } from '../rules/rulesWords.ts';
import { civilOf } from '../time/calendar.ts';
import {
  daysOnTimer,
  lengthWords,
  listed,
  monthName,
  plainDate,
  rangesWords,
  startWords,
} from '../words/words.ts';
import { breachLines, houseLine, type PageSources } from './pageSources.ts';
import { restoreOnCard } from './restoreWords.ts';
import { endsOfStarts, simulatedWeeks } from './startEnds.ts';
import { say, sayAs, sayText } from '../language/say.ts';

export interface CardSources extends PageSources {
  /** Name of whoever leaves the card. */
  readonly author: string;
}

export interface DoorCard {
  /** Data besides the plan. */
  readonly words: {
    readonly title: string;
    readonly nothing: string;
    readonly programs: string;
    readonly stations: string;
    readonly other: string;
    readonly breaches: string;
    readonly percents: string;
    readonly rain: string;
    readonly restore: string;
    readonly reach: string;
  };
  readonly house: string;
  readonly timer: string;
  readonly programs: readonly {
    readonly label: string;
    readonly starts: readonly string[];
    readonly days: string;
    /** Ends, cycle and soak and no-water hours, a line each. */
    readonly lines: readonly string[];
  }[];
  /** Stations with their run times as set, and what else is set for them: `A 12 min; no pump`. */
  readonly stations: readonly {
    readonly number: number;
    readonly name: string;
    readonly runs: string;
  }[];
  /** Settings of the whole timer, a line each. */
  readonly other: readonly string[];
  /** What the settings break of the site's rules, a sentence each. */
  readonly breaches: readonly string[];
  /** `January 80 %`, or one percent for the year. */
  readonly percents: readonly { readonly name: string; readonly percent: string }[];
  readonly rain: readonly string[];
  /** How to restore the saved settings; empty if this kind saves nothing. */
  readonly restore: readonly string[];
  readonly company: string;
  readonly phone: string | null;
  readonly date: string;
  readonly author: string;
  /** The second side: how to reach each setting, in this panel's order. */
  readonly reach: readonly { readonly setting: string; readonly line: string }[];
  readonly hides: string | null;
}

/** Cycle and soak of a station or program; null: none set. */
function soakWords({
  cycleSeconds,
  soakSeconds = 0,
}: Pick<Station, 'cycleSeconds' | 'soakSeconds'>) {
  return cycleSeconds === undefined
    ? null
    : say`cycle ${lengthWords(cycleSeconds)}, soak ${lengthWords(soakSeconds)}`;
}

/** What is set for a program besides its starts, days and runs. */
function programLines(sources: CardSources, program: Program, simulated: Simulation | null) {
  const { plan, clock } = sources;
  const { timer } = plan;
  const ends = endsOfStarts(plan, program, simulated, sources);
  const soak = timer.cycleSoak === 'program' ? soakWords(program) : null;
  const windows = timer.inWindow === 'ignore' ? [] : (program.noWaterWindows ?? []);
  return [
    ...(ends.length > 0 ? [say`ends ${ends.join(', ')}`] : []),
    ...(soak === null ? [] : [soak]),
    ...(windows.length > 0
      ? [say`no water ${listed(windows.map((window) => windowWords(window, { clock })))}`]
      : []),
  ];
}

/** A station's run times in each program, and its exceptions. */
function stationWords(plan: Plan, complete: readonly Program[], station: Station): string {
  if (station.enabled === false) return sayAs('a station')`off`;
  const { dialect = {}, cycleSoak } = plan.timer;
  const runs = complete.flatMap((program) =>
    runsWithLinked(plan, program)
      .filter(({ station: number, seconds }) => number === station.number && seconds > 0)
      .map(({ seconds }) => `${programLabel(program.letter, dialect)} ${lengthWords(seconds)}`),
  );
  const exceptions = [
    cycleSoak === 'station' ? soakWords(station) : null,
    station.pump === false ? say`no pump` : null,
    station.obeysRainSensor === false && plan.settings.sensor !== 'none'
      ? say`ignores rain sensor`
      : null,
    station.flowSensor === true ? say`flow sensor` : null,
  ].filter((one) => one !== null);
  return [runs.join(', '), ...exceptions].filter(Boolean).join('; ');
}

/** Settings of the whole timer that the display does not show by itself. */
function otherLines({ plan: { timer, settings }, clock }: CardSources): string[] {
  const { stationDelaySeconds = 0, noWaterWindows = [], offDaysOfMonth = [] } = settings;
  const atOnce = settings.stationsAtOnce ?? timer.stationsAtOnce;
  return [
    ...(stationDelaySeconds > 0 ? [say`Station delay ${lengthWords(stationDelaySeconds)}`] : []),
    ...(timer.stationsAtOnce > 1 ? [say`Stations at once: ${atOnce}`] : []),
    ...(timer.inWindow !== 'ignore' && noWaterWindows.length > 0
      ? [
          say`No-water hours: ${listed(noWaterWindows.map((window) => windowWords(window, { clock })))}`,
        ]
      : []),
    ...(offDaysOfMonth.length > 0 ? [say`No-water dates: ${rangesWords(offDaysOfMonth)}`] : []),
  ];
}

/** How to pause watering for rain, in a line or two. */
function rainLines({ plan, survey, kind }: CardSources): string[] {
  const sensor = rainSensorOf(plan.settings, survey.device);
  const bySensor =
    sensor.state === 'fitted' && !sensor.bypassed
      ? [say`The rain sensor stops watering by itself.`]
      : [];
  const byHand =
    survey.rain === 'switch-off'
      ? say`Switch it off when it rains and back on afterwards.`
      : kind?.rainDelay
        ? say`Rain delay: ${rainDelayWords(kind.rainDelay)}. Set to off to end it.`
        : say`Rain delay: a day or more. Set to off to end it.`;
  return [...bySensor, byHand];
}

function percentsOf({ plan, today }: CardSources, complete: readonly Program[]) {
  const { scope } = plan.timer.seasonal;
  const [first] = complete;
  if (scope === 'none' || !first) return [];
  const { month } = civilOf(today);
  if (variesByMonth(plan))
    return Array.from({ length: 12 }, (_, i) => ({
      name: monthName(i + 1).slice(0, 3),
      percent: `${effectivePercent(plan, first, i + 1)} %`,
    }));
  const { dialect = {} } = plan.timer;
  return scope === 'timer'
    ? [{ name: say`Percent`, percent: `${effectivePercent(plan, first, month)} %` }]
    : complete.map((program) => ({
        name: programLabel(program.letter, dialect),
        percent: `${effectivePercent(plan, program, month)} %`,
      }));
}

/** Settings that the office's lines are about, in panel order. */
function reachLines({ plan, kind }: CardSources): DoorCard['reach'] {
  const lines = new Map((kind?.reach ?? []).map(({ setting, line }) => [setting, line]));
  const order: readonly PanelSetting[] = [...new Set([...orderOf(plan), ...PANEL_SETTINGS])];
  return order.flatMap((setting) => {
    const line = lines.get(setting);
    return line === undefined ? [] : [{ setting: PANEL_WORDS[setting], line: sayText(line) }];
  });
}

export function doorCard(sources: CardSources): DoorCard {
  const { plan, kind, company, office, today, clock, author } = sources;
  const house = houseLine(sources);
  const { dialect = {} } = plan.timer;
  const watering = wateringStations(plan);
  const complete = programsByLetter(plan).filter(
    (program) => missingOf(program, watering).length === 0,
  );
  const timer = sayText(plan.timer.name);
  const simulated = simulatedWeeks(plan, today);
  const hides = kind?.hides === undefined ? null : say`Hidden: ${sayText(kind.hides)}`;
  return {
    words: {
      title: say`Timer card: ${house}`,
      nothing: say`No watering is set.`,
      programs: say`Programs`,
      stations: say`Stations`,
      other: say`Whole timer`,
      breaches: say`Not allowed by the watering rules`,
      percents: say`Percent by month`,
      rain: say`Rain`,
      restore: say`Restore the saved settings`,
      reach: say`How to reach each setting: ${timer}`,
    },
    house,
    timer,
    programs: complete.map((program) => ({
      label: programLabel(program.letter, dialect),
      starts: [...program.starts].sort().map((start) => startWords(start, clock)),
      days: daysOnTimer(program.days, plan.timer, clock),
      lines: programLines(sources, program, simulated),
    })),
    stations: plan.stations.map((station) => ({
      number: station.number,
      name: station.name ?? '',
      runs: stationWords(plan, complete, station),
    })),
    other: otherLines(sources),
    breaches: breachLines(sources),
    percents: percentsOf(sources, complete),
    rain: rainLines(sources),
    restore: restoreOnCard(plan, kind, clock),
    company: company,
    phone: office.phone ?? null,
    date: plainDate(today),
    author,
    reach: reachLines(sources),
    hides,
  };
}
