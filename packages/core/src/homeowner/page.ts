/** The page for the homeowner: what waters when, why, and what to do, in plain words and one picture. */
import {
  civilOf,
  parseDate,
  SECONDS_PER_DAY,
  weekdayIndexOf,
  type EpochDay,
} from '../time/calendar.ts';
import { attempt } from '../engine/effort.ts';
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
import { simulate, type Simulation } from '../engine/simulate.ts';
import { bansByMonth } from '../rules/houseRules.ts';
import { houseLine, type PageSources } from './pageSources.ts';
import { sectionsOf, type PageSection } from './pageSections.ts';
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
    readonly length: string;
  }[];
  /** When it ends, in a sentence, if that is the same on all its days. */
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
  };
  readonly house: string;
  readonly timer: string;
  readonly company: string;
  readonly date: string;
  /** What prevents watering at present, a sentence each. */
  readonly held: readonly string[];
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

/** Days simulated: before today for what still runs, after it until each program has run. */
const DAYS = { before: 8, after: 62 };

/** A program for the homeowner, at the current percent. */
function programOf(
  plan: Plan,
  program: Program,
  simulated: Simulation | null,
  { today, clock }: PageSources,
): PageProgram {
  const percent = effectivePercent(plan, program, civilOf(today).month);
  const enabled = enabledStations(plan);
  const { dialect = {} } = plan.timer;
  const days = daysOnTimer(program.days, plan.timer, clock);
  const starts = [...program.starts].sort().map((start) => startWords(start, clock));
  const ends = new Set(
    simulated?.cycles.flatMap(({ due: { letter, start, due }, ended }) => {
      const day = Math.floor(due / SECONDS_PER_DAY);
      return letter !== program.letter || ended === null || day < today
        ? []
        : [`${start} ${ended - day * SECONDS_PER_DAY}`];
    }),
  );
  const [end] = ends;
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
        length: lengthWords(adjustedSeconds(seconds, percent, plan.timer.seasonal)),
      })),
    over:
      program.starts.length === 1 && ends.size === 1 && end !== undefined
        ? say`Ends at ${timeWords(Number(end.slice(6)) % SECONDS_PER_DAY, clock)}.`
        : null,
  };
}

/** The page says how the timer waters, even while a rain delay or winter stops it. */
const withoutPause = ({ settings: { wateringResumes: _until, mode: _mode, ...settings } }: Plan) =>
  settings;

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
  const running = { ...plan, settings: withoutPause(plan) };
  const worked = attempt(() => simulate(running, today - DAYS.before, DAYS.before + DAYS.after));
  const simulated = worked.ok ? worked.value : null;
  const [first] = complete;
  const { allowed, survey } = sources;
  const bans = allowed ? bansByMonth(survey.rules, allowed.rules, allowed.house, today) : [];
  const date = plainDate(today);
  const timer = sayText(plan.timer.name);
  return {
    language: sources.language,
    words: {
      title: say`Your watering: ${house}`,
      byline: say`${timer}. Set by ${company}, ${date}.`,
      nothing: say`No watering is set.`,
      months: say`Percent by month`,
      week: say`Your week: when each program waters`,
    },
    house,
    timer,
    company,
    date,
    held: heldBack(sources),
    programs: complete.map((program) => programOf(plan, program, simulated, sources)),
    percent: percentSentence(plan, complete, today),
    months:
      first && variesByMonth(plan)
        ? Array.from({ length: 12 }, (_, i) => ({
            month: monthName(i + 1),
            percent: bans.some(({ month, isWhole }) => month === i + 1 && isWhole)
              ? 'off'
              : percentOfMonth(effectivePercent(plan, first, i + 1)),
          }))
        : [],
    week: weekOf(simulated, sources),
    sections: sectionsOf(sources, complete, simulated),
  };
}

const percentOfMonth = (percent: number) => (percent === 0 ? say`off` : `${percent} %`);
