/** The page for the homeowner: what waters when, why, and what to do, in plain words and one picture. */
import {
  civilOf,
  parseDate,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  type EpochDay,
} from '../time/calendar.ts';
import { programLabel } from '../plan/planWords.ts';
import { programsByLetter, type Plan, type Program } from '../plan/plan.ts';
import {
  adjustedSeconds,
  effectivePercent,
  enabledStations,
  missingOf,
  variesByMonth,
} from '../plan/program.ts';
import { runsWithLinked, wateringStations } from '../plan/linked.ts';
import type { Simulation } from '../engine/simulate.ts';
import { bansByMonth } from '../rules/houseRules.ts';
import { breachLines, houseLine, type PageSources } from './pageSources.ts';
import { sectionsOf, type PageSection } from './pageSections.ts';
import { endsOfStarts, simulatedWeek, simulatedWeeks } from './startEnds.ts';
import {
  dateWords,
  daysOnTimer,
  lengthWords,
  listed,
  monthName,
  plainDate,
  startWords,
  timeWords,
  weekdayName,
} from '../words/words.ts';
import { say, sayText, type Language } from '../language/say.ts';

/** A period of watering in the picture of the week. */
export interface WeekRun {
  /** 0: the first day of the picture. */
  readonly day: number;
  /** Seconds of that day; may exceed a day when running past midnight. */
  readonly from: number;
  readonly to: number;
  readonly program: string;
}

interface PageProgram {
  /** As in the picture of the week. */
  readonly letter: string;
  /** As the timer names it. */
  readonly label: string;
  /** `4:15 am on Mon, Wed and Fri`. */
  readonly when: string;
  /** In running order. */
  readonly stations: readonly {
    readonly number: number;
    readonly name: string;
    /** Run time as set. */
    readonly length: string;
    /** Run time this month, after the percent; null: nothing on this page differs from what is set. */
    readonly adjusted: string | null;
  }[];
  /** When each start ends, in a sentence, if that is the same on all its days and in every month. */
  readonly over: string | null;
}

export interface HomeownerPage {
  /** Language of the page. */
  readonly language: Language;
  /** Data besides the plan. */
  readonly words: {
    readonly title: string;
    readonly byline: string;
    readonly nothing: string;
    readonly months: string;
    readonly week: string;
    /** Headings of the two run times. */
    readonly asSet: string;
    readonly thisMonth: string;
  };
  readonly house: string;
  readonly timer: string;
  readonly company: string;
  readonly date: string;
  /** What prevents watering at present, a sentence each. */
  readonly held: readonly string[];
  /** What the settings break of the site's rules, a sentence each. */
  readonly breaches: readonly string[];
  readonly programs: readonly PageProgram[];
  readonly percent: string | null;
  /** Percent of each month, January first, if it changes by month. */
  readonly months: readonly { readonly month: string; readonly percent: string }[];
  readonly week: {
    /** Names of the days in the picture. */
    readonly days: readonly string[];
    /** Labels of midnight, 6, noon, 18 and midnight again. */
    readonly hours: readonly string[];
    readonly runs: readonly WeekRun[];
  };
  readonly sections: readonly PageSection[];
}

/** Whether this month's run times stand beside those set: they differ, or will in another month. */
const showsAdjusted = (plan: Plan, complete: readonly Program[], month: number): boolean =>
  variesByMonth(plan) || complete.some((program) => effectivePercent(plan, program, month) !== 100);

/** A program for the homeowner. */
function programOf(
  plan: Plan,
  program: Program,
  simulated: Simulation | null,
  isAdjusted: boolean,
  { today, clock }: PageSources,
): PageProgram {
  const percent = effectivePercent(plan, program, civilOf(today).month);
  const enabled = enabledStations(plan);
  const { dialect = {} } = plan.timer;
  const days = daysOnTimer(program.days, plan.timer, clock);
  const starts = [...program.starts].sort().map((start) => startWords(start, clock));
  const ends = endsOfStarts(plan, program, simulated, { today, clock });
  return {
    letter: program.letter,
    label: programLabel(program.letter, dialect),
    when: program.days?.rule === 'hours' ? days : `${starts.join(', ')}, ${days}`,
    stations: runsWithLinked(plan, program)
      .filter(({ seconds, station }) => seconds > 0 && enabled.has(station))
      .map(({ station, seconds }) => ({
        number: station,
        name:
          plan.stations.find(({ number }) => number === station)?.name ?? say`Station ${station}`,
        length: lengthWords(seconds),
        adjusted: isAdjusted
          ? lengthWords(adjustedSeconds(seconds, percent, plan.timer.seasonal))
          : null,
      })),
    over: ends.length > 0 ? say`Ends at ${listed(ends)}.` : null,
  };
}

/** The week from a date on, as the timer really runs it. */
function weekOf(
  simulated: Simulation | null,
  { today, clock }: PageSources,
): HomeownerPage['week'] {
  const first = today * SECONDS_PER_DAY;
  const runs = (simulated?.cycles ?? []).flatMap(({ due, began, ended }): WeekRun[] => {
    if (began === null || ended === null || began < first || began >= first + 7 * SECONDS_PER_DAY)
      return [];
    const day = Math.floor((began - first) / SECONDS_PER_DAY);
    const midnight = first + day * SECONDS_PER_DAY;
    return [{ day, from: began - midnight, to: ended - midnight, program: due.letter }];
  });
  return {
    days: Array.from({ length: 7 }, (_, i) => {
      const { day } = civilOf(today + i);
      return `${weekdayName(weekdayIndexOf(today + i))} ${day}`;
    }),
    hours: [0, 6, 12, 18, 0].map((hour) => timeWords(hour * 3600, clock).replace(':00', '')),
    runs,
  };
}

/** What prevents watering: the switch, a rain delay. */
function heldBack({ plan: { settings }, today, clock }: PageSources): string[] {
  const resumes = settings.wateringResumes;
  const day = resumes === undefined ? null : parseDate(resumes.slice(0, 10));
  const time = resumes !== undefined && resumes.length > 10 ? resumes.slice(11) : null;
  return [
    ...(settings.mode === 'off'
      ? [say`The timer is switched off. Nothing waters until it is switched on again.`]
      : []),
    ...(day !== null && (day > today || (day === today && time !== null))
      ? [
          say`A rain delay is set. Nothing waters before ${dateWords(day, today)}${time === null ? '' : `, ${startWords(time, clock)}`}.`,
        ]
      : []),
  ];
}

/** This month's percents in a sentence; null if none can be set, or they change by month. */
function percentSentence(plan: Plan, complete: readonly Program[], today: EpochDay): string | null {
  const { scope } = plan.timer.seasonal;
  const [program] = complete;
  if (scope === 'none' || !program || variesByMonth(plan)) return null;
  const { month } = civilOf(today);
  if (scope === 'timer')
    return say`The seasonal percent is ${effectivePercent(plan, program, month)} %.`;
  const { dialect = {} } = plan.timer;
  const each = complete.map(
    (one) => `${programLabel(one.letter, dialect)} ${effectivePercent(plan, one, month)} %`,
  );
  return say`Seasonal percent of each program: ${listed(each)}.`;
}

/**
 * Makes the page. Sources: field guide, steps 10 to 14 (leave a page) and Complaints; notes of the timer's kind.
 *
 * Cost: one simulation of some weeks, and the checks of announced rules.
 */
export function homeownerPage(sources: PageSources): HomeownerPage {
  const { plan, company, today } = sources;
  const house = houseLine(sources);
  const watering = wateringStations(plan);
  const complete = programsByLetter(plan).filter(
    (program) => missingOf(program, watering).length === 0,
  );
  const simulated = simulatedWeeks(plan, today);
  const [first] = complete;
  const { allowed, survey } = sources;
  const bans = allowed ? bansByMonth(survey.rules, allowed.rules, allowed.house, today) : [];
  const date = plainDate(today);
  const timer = sayText(plan.timer.name);
  const { month } = civilOf(today);
  const isAdjusted = showsAdjusted(plan, complete, month);
  return {
    language: sources.language,
    words: {
      title: say`Your watering: ${house}`,
      byline: say`${timer}. Set by ${company}, ${date}.`,
      nothing: say`No watering is set.`,
      months: say`Percent by month`,
      week:
        plan.settings.mode === 'off'
          ? say`Your week once the timer is switched on`
          : say`Your week: when each program waters`,
      asSet: say`As set`,
      thisMonth: variesByMonth(plan) ? say`In ${monthName(month)}` : say`With seasonal percent`,
    },
    house,
    timer,
    company,
    date,
    held: heldBack(sources),
    breaches: breachLines(sources),
    programs: complete.map((program) => programOf(plan, program, simulated, isAdjusted, sources)),
    percent: percentSentence(plan, complete, today),
    months:
      first && variesByMonth(plan)
        ? Array.from({ length: 12 }, (_, i) => ({
            month: monthName(i + 1),
            percent: bans.some(({ month, isWhole }) => month === i + 1 && isWhole)
              ? say`off`
              : percentOfMonth(effectivePercent(plan, first, i + 1)),
          }))
        : [],
    week: weekOf(simulatedWeek(plan, today), sources),
    sections: sectionsOf(sources, complete, simulated),
  };
}

const percentOfMonth = (percent: number) => (percent === 0 ? say`off` : `${percent} %`);
