/** The timer card: what the panel hides on one side, how to reach each setting on the other. Source: field guide, step 14. */
import { attempt } from '../engine/effort.ts';
import { nextCycles } from '../engine/nominal.ts';
import { PANEL_SETTINGS, type PanelSetting } from '../plan/kind.ts';
import { PANEL_WORDS, rainDelayWords } from '../plan/kindWords.ts';
import { runsWithLinked, wateringStations } from '../plan/linked.ts';
import { programsByLetter, type Plan, type Program } from '../plan/plan.ts';
import { programLabel } from '../plan/planWords.ts';
import { effectivePercent, missingOf, variesByMonth } from '../plan/program.ts';
import { orderOf } from '../panel/lines.ts';
import { rainSensorOf } from '../survey/rainSensor.ts';
import { civilOf, SECONDS_PER_DAY } from '../time/calendar.ts';
import {
  daysOnTimer,
  lengthWords,
  monthName,
  plainDate,
  startWords,
  timeWords,
} from '../words/words.ts';
import { houseLine, type PageSources } from './pageSources.ts';
import { restoreOnCard } from './restoreWords.ts';
import { say, sayAs, sayText } from '../language/say.ts';

export interface CardSources extends PageSources {
  /** Initials of whoever leaves the card. */
  readonly initials: string;
}

export interface DoorCard {
  /** Data besides the plan. */
  readonly words: {
    readonly title: string;
    readonly nothing: string;
    readonly programs: string;
    readonly stations: string;
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
    /** End of each start, in order, by its next date, in a sentence; null if that takes too much work. */
    readonly over: string | null;
  }[];
  /** Stations with their run times as entered: `A 12 min`. */
  readonly stations: readonly {
    readonly number: number;
    readonly name: string;
    readonly runs: string;
  }[];
  /** `January 80 %`, or one percent for the year. */
  readonly percents: readonly { readonly name: string; readonly percent: string }[];
  readonly rain: readonly string[];
  /** How to restore the saved settings; empty if this kind saves nothing. */
  readonly restore: readonly string[];
  readonly company: string;
  readonly phone: string | null;
  readonly date: string;
  readonly initials: string;
  /** The second side: how to reach each setting, in this panel's order. */
  readonly reach: readonly { readonly setting: string; readonly line: string }[];
  readonly hides: string | null;
}

/** Ends of a program's starts. */
function endsOf(plan: Plan, program: Program, { today, clock }: CardSources): string[] {
  const worked = attempt(() => nextCycles(plan, program, today));
  if (!worked.ok) return [];
  return worked.value.flatMap(({ cycle }) =>
    cycle ? [timeWords(cycle.ends % SECONDS_PER_DAY, clock)] : [],
  );
}

const overOf = (ends: readonly string[]) => (ends.length > 0 ? say`ends ${ends.join(', ')}` : null);

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
  const { plan, kind, company, office, today, clock, initials } = sources;
  const house = houseLine(sources);
  const { dialect = {} } = plan.timer;
  const watering = wateringStations(plan);
  const complete = programsByLetter(plan).filter(
    (program) => missingOf(program, watering).length === 0,
  );
  const timer = sayText(plan.timer.name);
  const hides = kind?.hides === undefined ? null : say`Hidden: ${sayText(kind.hides)}`;
  return {
    words: {
      title: say`Timer card: ${house}`,
      nothing: say`No watering is set.`,
      programs: say`Programs`,
      stations: say`Stations`,
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
      over: overOf(endsOf(plan, program, sources)),
    })),
    stations: plan.stations.map(({ number, name, enabled }) => ({
      number,
      name: name ?? '',
      runs:
        enabled === false
          ? sayAs('a station')`off`
          : complete
              .flatMap((program) =>
                runsWithLinked(plan, program)
                  .filter(({ station, seconds }) => station === number && seconds > 0)
                  .map(
                    ({ seconds }) =>
                      `${programLabel(program.letter, dialect)} ${lengthWords(seconds)}`,
                  ),
              )
              .join(', '),
    })),
    percents: percentsOf(sources, complete),
    rain: rainLines(sources),
    restore: restoreOnCard(plan, kind, clock),
    company: company,
    phone: office.phone ?? null,
    date: plainDate(today),
    initials,
    reach: reachLines(sources),
    hides,
  };
}
